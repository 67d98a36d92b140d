import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { exaggeration, figure, seen } from './model';
import { SketchBase } from './sketch-base';

const LEFT = 120;
const RIGHT = 600;
const VIEWS = [
  { plane: 'h', y: 84, title: 'from above' },
  { plane: 'v', y: 252, title: 'from the side' },
] as const;

/**
 * A bar between centres, from above (the operator at the bottom) and from the side. A reading is
 * drawn off the bar by what the stylus saw, and the tail centre where it was found.
 */
@Component({
  selector: 'iso-bar-between-centres',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg [attr.viewBox]="'0 0 720 ' + 326 * apart()" role="group" aria-label="Bar between centres, with the places to read">
      @for (view of views(); track view.plane) {
        <g [attr.transform]="'translate(0 ' + view.y * apart() + ')'">
          <text class="words" x="8" y="-68">{{ view.title }}</text>
          <path class="iron" d="M20 -42H96V42H20Z M96 -22H112V22H96Z" />
          <path class="iron" d="M112 -9 128 0 112 9Z" />
          <line class="axis" x1="128" x2="640" y1="0" y2="0" />
          <g [attr.transform]="'translate(0 ' + view.shift + ')'">
            <path class="iron" d="M624 -30H704V34H624Z M608 -12H624V12H608Z" />
            <path class="iron" d="M608 -9 592 0 608 9Z" />
          </g>
          <path class="iron" [attr.d]="view.bar" fill-opacity="0.6" />
          @if (view.shift) {
            <path class="ghost" [class.out]="result().out" [attr.d]="'M120 0 L600 ' + view.shift" />
          }
          @if (view.plane === 'h') {
            <text class="words" x="360" y="58" text-anchor="middle">operator</text>
          }
          @for (place of view.places; track place.mark.index) {
            <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
              <path class="seat" [attr.d]="place.tip" />
              <text [attr.y]="place.textY" text-anchor="middle">{{ figure(place.mark.text) }}</text>
            </g>
          }
        </g>
      }
      <text class="words" x="712" [attr.y]="320 * apart()" text-anchor="end">errors drawn ×{{ factor() }}</text>
    </svg>
  `,
})
export class BarBetweenCentres extends SketchBase {
  protected readonly figure = figure;
  private readonly scale = computed(() => (RIGHT - LEFT) / (this.length() || 1));
  private readonly length = computed(() => (this.setup()['centreDistance'] as number | undefined) ?? 0);
  private readonly rear = computed(() => this.setup()['side'] === 'rear');
  protected readonly factor = computed(() => exaggeration([this.result().h, this.result().v], 26, this.scale()));

  protected readonly views = computed(() => VIEWS.map((view) => this.view(view)));

  private view({ plane, y, title }: (typeof VIEWS)[number]) {
    const { h, v } = this.result();
    // From above + is toward the operator, who stands below; from the side + is up.
    const shift = plane === 'h' ? this.pixels(h) : -this.pixels(v);
    const below = plane === 'h' && !this.rear();
    const places = this.marks()
      .filter((mark) => mark.keys['plane'] === plane)
      .map((mark) => {
        const part = this.length() ? (mark.keys['at'] as number) / this.length() : 0;
        const side = below ? 1 : -1;
        const turned = mark.keys['turn'] === 180 ? 7 : 0;
        return {
          mark,
          x: LEFT + part * (RIGHT - LEFT) + turned,
          y: seen(shift * part) + side * 14,
          tip: below ? 'M0 0 8 15H-8Z' : 'M0 0 8 -15H-8Z',
          textY: side * (turned ? 46 : 31) + 4,
        };
      });
    return { plane, y, title, shift, places, bar: `M120 -13 L600 ${shift - 13} V${shift + 13} L120 13Z` };
  }

  private pixels(offset: number | null): number {
    return seen(((offset ?? 0) / 1000) * this.scale() * this.factor());
  }
}
