import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { exaggeration, figure, seen } from './model';
import { SketchBase } from './sketch-base';
import { StylusSide } from './stylus-side';

/** The corner of the square, and the length of its legs as drawn. */
const CORNER = { x: 150, y: 250 };
const LEG = { reference: 320, test: 200 };
const THICK = 26;

type Leg = keyof typeof LEG;
interface Side {
  readonly leg: Leg;
  readonly value: string;
  readonly x: number;
  readonly y: number;
  readonly turn: number;
  readonly words: string;
  readonly chosen: boolean;
}

/**
 * A square on the table from above, the operator at the bottom: its reference leg along the first motion, to the right, its
 * test leg along the second. The four sides on which a stylus may stand are clicked; beside it a plate of four holes
 * as the two motions would drill it.
 */
@Component({
  selector: 'iso-square-in-plan',
  imports: [Mark, StylusSide],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./marks.css', './stylus-side.css'],
  template: `
    <svg viewBox="0 0 720 330" role="group" aria-label="Square from above, with the places to read">
      <text class="words" x="8" y="16">from above, you at the bottom</text>
      <g [attr.transform]="down() ? 'translate(0 330) scale(1 -1)' : null">
        <path class="iron" d="M150 50H176V224H470V250H150Z" fill-opacity="0.7" />
        <path class="axis" d="M120 237H520M163 280V28" />
      </g>
      @for (side of sides(); track side.value) {
        <g
          [isoStylusSide]="side.words"
          [chosen]="side.chosen"
          (taken)="choose(side)"
          [attr.transform]="'translate(' + side.x + ' ' + side.y + ')'"
        >
          <path [attr.transform]="'rotate(' + side.turn + ')'" d="M0 0 9 -17H-9Z" />
        </g>
      }
      @for (word of words(); track word.key) {
        <text class="words" [attr.x]="word.x" [attr.y]="word.y" [attr.text-anchor]="word.anchor">{{ word.text }}</text>
      }
      @for (place of placed(); track place.mark.index) {
        <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
          <circle class="seat" r="7" />
          <text [attr.x]="place.textX" [attr.y]="place.textY" [attr.text-anchor]="place.anchor">{{ figure(place.mark.text) }}</text>
        </g>
      }
      <g transform="translate(610 200)">
        <text class="words" y="88" text-anchor="middle">four holes, as drilled</text>
        <path class="thin" d="M-60 60H60V-60H-60Z" stroke-dasharray="3 5" />
        <path class="ghost" [class.out]="result().out" [attr.d]="'M-60 60H60L' + (60 + lean()) + ' -60H' + (-60 + lean()) + 'Z'" />
        @for (hole of holes(); track $index) {
          <circle class="iron" r="6" [attr.cx]="hole.x" [attr.cy]="hole.y" />
        }
      </g>
      <text class="words" x="712" y="324" text-anchor="end">errors drawn ×{{ factor() }}</text>
    </svg>
  `,
})
export class SquareInPlan extends SketchBase {
  protected readonly figure = figure;
  protected readonly down = computed(() => this.picture().words?.['drawn'] === 'down');
  protected readonly factor = computed(() => exaggeration([this.result().h], 20, 0.12));
  /** px by which the far end of the second motion is drawn off: an obtuse angle takes it to the left. */
  protected readonly lean = computed(() => seen(-((this.result().h ?? 0) / 1e6) * 120 * this.factor() * (this.down() ? -1 : 1)));
  protected readonly holes = computed(() => [
    { x: -60, y: 60 },
    { x: 60, y: 60 },
    { x: -60 + this.lean(), y: -60 },
    { x: 60 + this.lean(), y: -60 },
  ]);

  /** A height on the drawing: +B is up for a mill and down for a lathe. */
  private y(up: number): number {
    return this.down() ? 330 - up : up;
  }

  private readonly stylus = computed(() => (this.setup()['stylus'] ?? {}) as Partial<Record<Leg, string>>);

  protected readonly sides = computed((): Side[] => {
    const words = this.picture().words ?? {};
    const side = (leg: Leg, value: string, x: number, up: number, turn: number): Side => ({
      ...{ leg, value, x, y: this.y(up), words: words[value] ?? value },
      turn: this.down() && leg === 'reference' ? turn + 180 : turn,
      chosen: this.stylus()[leg] === value,
    });
    return [
      side('reference', '+B', 420, 224, 0),
      side('reference', '-B', 420, 250, 180),
      side('test', '+A', 176, 90, 90),
      side('test', '-A', 150, 90, -90),
    ];
  });

  protected readonly words = computed(() => {
    const words = this.picture().words ?? {};
    return [
      { key: '+A', text: words['+A'], x: 478, y: this.y(237) + 5, anchor: 'start' },
      { key: '-A', text: words['-A'], x: 8, y: this.y(278) + 5, anchor: 'start' },
      { key: '+B', text: words['+B'], x: 196, y: this.y(52) + 5, anchor: 'start' },
      { key: '-B', text: words['-B'], x: 340, y: this.y(282) + 5, anchor: 'start' },
    ].filter(({ text }) => text);
  });

  protected choose({ leg, value }: Side): void {
    this.set()({ stylus: { ...this.stylus(), [leg]: value } });
  }

  protected readonly placed = computed(() => {
    const marks = this.marks();
    const far = (leg: Leg) => Math.max(1, ...marks.filter(({ keys }) => keys['leg'] === leg).map(({ keys }) => Number(keys['at'])));
    const reach = { reference: far('reference'), test: far('test') };
    return marks.map((mark) => {
      const leg: Leg = mark.keys['leg'] === 'test' ? 'test' : 'reference';
      const part = Number(mark.keys['at']) / reach[leg];
      // Read again flipped over, a place stands a little beside itself, and its figure on the other side of the leg.
      const flipped = mark.keys['flip'] === true ? 15 : 0;
      return leg === 'reference'
        ? {
            mark,
            x: seen(CORNER.x + THICK + 24 + part * (LEG.reference - THICK - 40)) + flipped,
            y: this.y(237),
            ...{ textX: 0, textY: this.down() === flipped > 0 ? 34 : -26, anchor: 'middle' },
          }
        : {
            mark,
            x: 163,
            y: this.y(seen(CORNER.y - THICK - 24 - part * (LEG.test - THICK - 36)) - flipped),
            ...(flipped ? { textX: 30, textY: 5, anchor: 'start' } : { textX: -30, textY: 5, anchor: 'end' }),
          };
    });
  });
}
