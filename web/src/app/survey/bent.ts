import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { drawBent, isCircle, isWord, type Bending, type CircleShape, type Matrix, type PictureWord } from '@isometra/work/pictures';

const matrixText = (at: Matrix | undefined): string | null => (at ? `matrix(${at.join(' ')})` : null);

interface Shown {
  readonly word: PictureWord | null;
  readonly circle: CircleShape['circle'] | null;
  readonly d: string;
  readonly look: string;
  readonly at: string | null;
}
const NO_SHAPE: Shown = { word: null, circle: null, d: '', look: '', at: null };

/** A machine of any family, bent by what is known of it; ghost lines are the limits. */
@Component({
  selector: 'iso-bent',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.bare]': 'bare()' },
  template: `
    <svg [attr.viewBox]="box()" [attr.data-family]="bending().family" role="img" [attr.aria-label]="picture().told">
      @for (one of shapes(); track $index) {
        @if (one.word; as word) {
          <text class="words" [class.over]="word.over" [attr.x]="word.x" [attr.y]="word.y" [attr.text-anchor]="word.anchor ?? null">
            {{ word.text }}
          </text>
        } @else if (one.circle; as circle) {
          <circle [class]="one.look" [attr.transform]="one.at" [attr.cx]="circle.x" [attr.cy]="circle.y" [attr.r]="circle.r" />
        } @else {
          <path [class]="one.look" [attr.transform]="one.at" [attr.d]="one.d" />
        }
      }
    </svg>
  `,
  styleUrl: './picture.css',
})
export class Bent {
  readonly kind = input.required<string>();
  readonly bending = input.required<Bending>();
  readonly factor = input.required<number>();
  /** The slant of a turning centre, + its rear the higher; null where its card does not say. */
  readonly slant = input<number | null>(null);
  /** Without words on it. */
  readonly bare = input(false);

  protected readonly picture = computed(() => drawBent(this.bending(), { kind: this.kind(), factor: this.factor(), slant: this.slant() }));
  protected readonly box = computed(() => `0 0 ${this.picture().width} ${this.picture().height}`);
  protected readonly shapes = computed(() =>
    this.picture().drawn.map((one): Shown => {
      if (isWord(one)) return { ...NO_SHAPE, word: one };
      const shape = { ...NO_SHAPE, look: one.look, at: matrixText(one.at) };
      return isCircle(one) ? { ...shape, circle: one.circle } : { ...shape, d: one.d };
    }),
  );
}
