import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { exaggeration, figure } from './model';
import { SketchBase } from './sketch-base';

const LEFT = 130;
const RIGHT = 600;

/** A bar turned where it stands, from above: pads to measure, the tool on its side, the tail centre where it was found. */
@Component({
  selector: 'iso-turned-bar',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg viewBox="0 0 720 250" role="group" aria-label="Turned bar, with the pads to measure">
      <text class="words" x="8" y="22">from above</text>
      <g transform="translate(0 118)">
        <path class="iron" d="M20 -48H96V48H20Z" />
        @if (chuck()) {
          <path class="iron" d="M96 -40H122V40H96Z M122 -30H140V-14H122Z M122 14H140V30H122Z" />
        } @else {
          <path class="iron" d="M96 -22H112V22H96Z M112 -9 130 0 112 9Z" />
        }
        <line class="axis" x1="96" x2="660" y1="0" y2="0" />
        @if (tail()) {
          <g [attr.transform]="'translate(0 ' + shift() + ')'">
            <path class="iron" d="M630 -34H706V38H630Z M612 -12H630V12H612Z M612 -9 596 0 612 9Z" />
          </g>
        }
        <path class="iron" [attr.d]="body()" />
        <path
          class="iron"
          fill="var(--paper)"
          [attr.transform]="'translate(360 ' + tool() * 58 + ') scale(1 ' + tool() + ')'"
          d="M0 -30 9 -14H20V26H-12V-14H-5Z"
        />
        <text class="words" x="392" [attr.y]="tool() * 62 + 4">tool</text>
        <text class="words" x="360" y="118" text-anchor="middle">operator</text>
        @for (place of pads(); track place.mark.index) {
          <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
            <path class="seat" d="M-10 -24H10V24H-10Z" />
            <text y="-34" text-anchor="middle">{{ figure(place.mark.text) }}</text>
          </g>
        }
      </g>
      @if (tail()) {
        <text class="words" x="712" y="244" text-anchor="end">errors drawn ×{{ factor() }}</text>
      }
    </svg>
  `,
})
export class TurnedBar extends SketchBase {
  protected readonly figure = figure;
  /** Whether a tailstock holds the other end: a bar cut in the chuck alone has none. */
  protected readonly tail = computed(() => this.setup()['centreDistance'] !== undefined);
  private readonly length = computed(() => {
    const centres = this.setup()['centreDistance'] as number | undefined;
    return centres ?? 1.1 * Math.max(0, ...this.marks().map((mark) => Number(mark.keys['at'])));
  });
  private readonly scale = computed(() => (RIGHT - LEFT) / (this.length() || 1));
  protected readonly chuck = computed(() => this.setup()['held'] === 'chuck' || !this.tail());
  /** 1 when the tool stands on the operator's side, which is below. */
  protected readonly tool = computed(() => (this.setup()['tool'] === 'rear' ? -1 : 1));
  protected readonly factor = computed(() => exaggeration([this.result().h], 30, this.scale()));
  protected readonly shift = computed(() => ((this.result().h ?? 0) / 1000) * this.scale() * this.factor());
  /** The jaws hide the first of a bar held in the chuck. */
  private readonly left = computed(() => (this.tail() ? LEFT : LEFT + 46));
  protected readonly body = computed(() => `M${LEFT} -17 L${RIGHT} ${this.shift() - 17} V${this.shift() + 17} L${LEFT} 17Z`);
  protected readonly pads = computed(() =>
    this.marks().map((mark) => {
      const part = this.length() ? (mark.keys['at'] as number) / this.length() : 0;
      return { mark, x: this.left() + part * (RIGHT - this.left()), y: this.shift() * part };
    }),
  );
}
