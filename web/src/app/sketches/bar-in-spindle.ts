import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { figure } from './model';
import { SketchBase } from './sketch-base';

const GRIP = 170;
const END = 620;
const VIEWS = [
  { plane: 'h', y: 82, title: 'from above' },
  { plane: 'v', y: 258, title: 'from the side' },
] as const;

/**
 * A bar held in the spindle and turned by hand, from above (the operator at the bottom) and from the side.
 * Each place is read at the highest and the lowest of a turn.
 */
@Component({
  selector: 'iso-bar-in-spindle',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg [attr.viewBox]="'0 0 720 ' + 336 * apart()" role="group" aria-label="Bar in the spindle, with the places to read">
      @for (view of views(); track view.plane) {
        <g [attr.transform]="'translate(0 ' + view.y * apart() + ')'">
          <text class="words" x="8" y="-54">{{ view.title }}</text>
          <path class="iron" d="M20 -44H120V44H20Z M120 -26H150V26H120Z M150 -18H170V18H150Z" />
          <line class="axis" x1="120" x2="700" y1="0" y2="0" />
          <path class="iron" d="M170 -11H652V11H170Z" fill-opacity="0.6" />
          <path class="axis" fill="none" d="M60 -28a30 30 0 0 1 0 56M54 22 60 28 66 21" />
          @if (view.plane === 'h') {
            <text class="words" x="420" y="74" text-anchor="middle">{{ rear() ? 'operator (read from the rear)' : 'operator' }}</text>
          }
          @for (place of view.places; track place.mark.index) {
            <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
              <path class="seat" [attr.d]="place.tip" />
              <text [attr.y]="place.textY" text-anchor="middle">{{ place.name }} {{ place.words }}</text>
            </g>
          }
        </g>
      }
    </svg>
  `,
})
export class BarInSpindle extends SketchBase {
  /** Two readings stand over each other at each place. */
  protected override readonly farther = 2;
  protected readonly rear = computed(() => this.setup()['side'] === 'rear');
  private readonly length = computed(() => {
    const bar = this.setup()['bar'] as { freeLength?: number } | undefined;
    return Math.max(1, bar?.freeLength ?? 0, ...this.marks().map((mark) => Number(mark.keys['at'] ?? 0)));
  });

  protected readonly views = computed(() => VIEWS.map((view) => ({ ...view, places: this.placed(view.plane) })));

  private placed(plane: 'h' | 'v') {
    const below = plane === 'h' && !this.rear();
    const side = below ? 1 : -1;
    return this.marks()
      .filter((mark) => mark.keys['plane'] === plane)
      .map((mark) => {
        const highest = mark.keys['extreme'] === 'high';
        const turned = mark.keys['turn'] === 180 ? 12 : 0;
        return {
          mark,
          x: GRIP + (Number(mark.keys['at']) / this.length()) * (END - GRIP) + (highest ? -9 : 9) + turned,
          y: side * 13,
          tip: below ? 'M0 0 8 15H-8Z' : 'M0 0 8 -15H-8Z',
          textY: side * (highest ? 31 : 56) + 4,
          name: highest ? 'high' : 'low',
          words: figure(mark.text),
        };
      });
  }
}
