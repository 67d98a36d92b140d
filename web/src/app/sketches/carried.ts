import { Directive, ElementRef, inject, input, output } from '@angular/core';
import type { SceneSlider } from '@isometra/work/methods';

/** mm that an arrow key carries it. */
const STEP = 5;

/** Something that is carried along a line of a drawing: dragged, or moved by arrow keys. */
@Directive({
  selector: '[isoCarried]',
  host: {
    class: 'base',
    role: 'slider',
    tabindex: '0',
    'aria-valuemin': '0',
    '[attr.aria-label]': 'isoCarried().label',
    '[attr.aria-valuemax]': 'isoCarried().most',
    '[attr.aria-valuenow]': 'isoCarried().distance',
    '[attr.aria-valuetext]': 'isoCarried().words',
    '(pointerdown)': 'hold($event)',
    '(pointermove)': 'carry($event)',
    '(pointerup)': 'letGo()',
    '(pointercancel)': 'release()',
    '(keydown.arrowright)': 'nudge($event, 1)',
    '(keydown.arrowleft)': 'nudge($event, -1)',
  },
})
export class Carried {
  readonly isoCarried = input.required<SceneSlider>();
  /** mm while it is held; null once it is let go. */
  readonly held = output<number | null>();
  /** mm where it was put. */
  readonly put = output<number>();

  private readonly host = inject<ElementRef<SVGGElement>>(ElementRef).nativeElement;
  private now: number | null = null;

  private holdAt(now: number | null): void {
    this.now = now;
    this.held.emit(now);
  }

  protected hold(event: PointerEvent): void {
    this.host.setPointerCapture(event.pointerId);
    this.holdAt(this.isoCarried().distance);
  }

  protected carry(event: PointerEvent): void {
    const matrix = this.host.ownerSVGElement?.getScreenCTM();
    if (this.now === null || !matrix) return;
    const { from, scale, most } = this.isoCarried();
    const x = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse()).x - from;
    this.holdAt(Math.min(most, Math.max(0, Math.round(x / scale))));
  }

  protected letGo(): void {
    const put = this.now;
    this.release();
    if (put !== null) this.put.emit(put);
  }

  protected release(): void {
    this.holdAt(null);
  }

  protected nudge(event: Event, way: 1 | -1): void {
    event.preventDefault();
    event.stopPropagation();
    this.put.emit(Math.max(0, this.isoCarried().distance + way * STEP));
  }
}
