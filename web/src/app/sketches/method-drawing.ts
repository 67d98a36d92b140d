import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  booleanAttribute,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { drawMethod, SCENE_WIDTH, type MethodInputs, type Standing } from '@isometra/work/methods';
import { Settings } from '../data/settings';
import { bothUnits } from '../ui/say';
import { Carried } from './carried';
import { Mark } from './mark';
import { StylusSide } from './stylus-side';

/** px under which letters need more room between two views than the drawing gives them. */
const NARROW = 480;

/** How a check is read, drawn: places are picked on it, and some of the set-up is said by pointing at it. */
@Component({
  selector: 'iso-method-drawing',
  imports: [Carried, Mark, NgTemplateOutlet, StylusSide],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './method-drawing.html',
  styleUrl: './marks.css',
})
export class MethodDrawing {
  readonly of = input.required<MethodInputs>();
  /** Two views keep their distance at any width: something else is drawn over them in their own units. */
  readonly keepsDistance = input(false, { transform: booleanAttribute });
  /** The index of a mark that was pointed at. */
  readonly picked = output<number>();
  /** What of the set-up was said on the drawing. */
  readonly sets = output<Readonly<Record<string, unknown>>>();

  private readonly settings = inject(Settings);
  private readonly width = signal(0);
  protected readonly held = signal<number | null>(null);
  private readonly narrow = computed(() => !this.keepsDistance() && this.width() > 0 && this.width() < NARROW);

  protected readonly scene = computed(() =>
    drawMethod({
      ...this.of(),
      narrow: this.narrow(),
      held: this.held(),
      length: (mm) => bothUnits(mm, 'length', { ...this.settings.shown(), fineness: 'coarse' }).large,
    }),
  );
  protected readonly box = computed(() => `0 0 ${SCENE_WIDTH} ${this.scene().height}`);

  constructor() {
    const sized = new ResizeObserver(([{ contentRect }]) => this.width.set(contentRect.width));
    sized.observe(inject<ElementRef<HTMLElement>>(ElementRef).nativeElement);
    inject(DestroyRef).onDestroy(() => sized.disconnect());
  }

  /** As an SVG transform; null where nothing is moved. */
  protected readonly stands = ({ move, turn, mirrored }: Standing = {}): string | null =>
    [move && `translate(${move.join(' ')})`, turn && `rotate(${turn.join(' ')})`, mirrored && 'scale(1 -1)'].filter(Boolean).join(' ') ||
    null;

  /** Something was carried to so many mm. */
  protected put(distance: number): void {
    if (distance !== this.of().setup['distance']) this.sets.emit({ distance: `${distance} mm` });
  }
}
