import { DestroyRef, Directive, ElementRef, inject, output } from '@angular/core';

/** Where a mark stands on the screen, and where along the part. */
export interface Placed {
  readonly index: number;
  readonly x: number;
  readonly y: number;
  readonly at: number;
}

/** CSS pixels that a mark must go before it is a drag and not a click. */
const STARTS = 6;

/**
 * The place along a part for a point of a drawing: places go evenly along one direction of it, found from two marks
 * that stand apart. Undefined where all stand on one spot.
 */
export function placeFor(marks: readonly Placed[], point: { readonly x: number; readonly y: number }): number | undefined {
  const [first] = marks;
  const far = marks.reduce<Placed | undefined>((best, mark) => {
    const apart = Math.abs(mark.at - (first?.at ?? 0));
    return apart > Math.abs((best?.at ?? first?.at ?? 0) - (first?.at ?? 0)) ? mark : best;
  }, undefined);
  if (!first || !far) return undefined;
  const [dx, dy] = [far.x - first.x, far.y - first.y];
  const length = dx * dx + dy * dy;
  if (length < 1) return undefined;
  const part = ((point.x - first.x) * dx + (point.y - first.y) * dy) / length;
  return first.at + part * (far.at - first.at);
}

/** Marks of a drawing that can be dragged along the part they stand on. Each mark bears its number as `data-mark`. */
@Directive({ selector: '[isoDragPlaces]' })
export class DragPlaces {
  /** A mark was let go: its number, and where on the screen. */
  readonly dropped = output<{ readonly index: number; readonly from: DOMRect; readonly x: number; readonly y: number }>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private held: { readonly index: number; readonly from: DOMRect; readonly x: number; readonly y: number; dragged: boolean } | null = null;

  constructor() {
    const down = (event: PointerEvent): void => {
      const mark = (event.target as Element | null)?.closest<SVGGElement>('[data-mark]');
      this.held = mark
        ? { index: Number(mark.dataset['mark']), from: mark.getBoundingClientRect(), x: event.clientX, y: event.clientY, dragged: false }
        : null;
    };
    const move = (event: PointerEvent): void => {
      if (this.held && Math.hypot(event.clientX - this.held.x, event.clientY - this.held.y) > STARTS) this.held.dragged = true;
    };
    const up = (event: PointerEvent): void => {
      const held = this.held;
      this.held = null;
      if (!held?.dragged) return;
      const { index, from } = held;
      this.dropped.emit({ index, from, x: event.clientX - held.x, y: event.clientY - held.y });
    };
    this.host.addEventListener('pointerdown', down);
    document.addEventListener('pointermove', move);
    document.addEventListener('pointerup', up);
    inject(DestroyRef).onDestroy(() => {
      document.removeEventListener('pointermove', move);
      document.removeEventListener('pointerup', up);
    });
  }
}
