import { DestroyRef, Directive, ElementRef, InjectionToken, computed, inject, input, signal } from '@angular/core';
import type { SketchInputs, SketchMark, SketchResult } from './model';

/** px under which letters need more room between two views than the drawing gives them. */
const NARROW = 480;

/** Two views keep their distance at any width: something else is drawn over them in their own units. */
export const KEEPS_DISTANCE = new InjectionToken<true>('keeps-distance');

/** What every sketch is given. */
@Directive()
export abstract class SketchBase {
  readonly setup = input.required<SketchInputs['setup']>();
  readonly marks = input.required<readonly SketchMark[]>();
  readonly result = input.required<SketchResult>();
  readonly pick = input.required<SketchInputs['pick']>();
  readonly set = input<SketchInputs['set']>(() => undefined);
  readonly picture = input.required<SketchInputs['picture']>();

  /** How many times as far apart two views stand on a phone. */
  protected readonly farther: number = 1.5;
  private readonly width = signal(0);
  /** By how many times two views stand farther apart: on a phone letters stay as large, and the drawing does not. */
  protected readonly apart = computed(() => (this.width() > 0 && this.width() < NARROW ? this.farther : 1));

  constructor() {
    if (inject(KEEPS_DISTANCE, { optional: true })) return;
    const sized = new ResizeObserver(([{ contentRect }]) => this.width.set(contentRect.width));
    sized.observe(inject<ElementRef<HTMLElement>>(ElementRef).nativeElement);
    inject(DestroyRef).onDestroy(() => sized.disconnect());
  }
}
