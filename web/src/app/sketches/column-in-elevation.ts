import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { exaggeration, figure, seen } from './model';
import { SketchBase } from './sketch-base';
import { StylusSide } from './stylus-side';

const FOOT = 250;
const TALL = 190;
/** Two elevations: from the front sideways is seen, from the right front to back. */
const VIEWS = [
  { axis: 'x', title: 'from the front', near: 'left', far: 'right', at: 190, sides: ['left', 'right'] },
  { axis: 'y', title: 'from the right', near: 'you', far: 'column', at: 530, sides: ['operator', 'column'] },
] as const;
type Side = (typeof VIEWS)[number]['sides'][number];

const SIDE_WORDS: Readonly<Record<Side, string>> = {
  left: 'left-hand side',
  right: 'right-hand side',
  operator: 'your side',
  column: 'column side',
};

/**
 * A column from the front and from the right, with a square on the table before it and the heights at which its blade is
 * read. The column is drawn leaning as it was found; the side of the blade on which the stylus stands is clicked.
 */
@Component({
  selector: 'iso-column-in-elevation',
  imports: [Mark, StylusSide],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./marks.css', './stylus-side.css'],
  template: `
    <svg viewBox="0 0 720 316" role="group" aria-label="Column from the front and from the right, with the heights to read">
      @for (view of views(); track view.axis) {
        <g [attr.transform]="'translate(' + view.at + ' 0)'">
          <text class="words" y="16" text-anchor="middle">{{ view.title }}</text>
          <path class="iron" d="M-140 250H140V268H-140Z" fill-opacity="0.5" />
          <g [attr.transform]="'rotate(' + view.turn + ' 78 250)'">
            <path class="iron" d="M48 250V48H108V250Z" fill-opacity="0.7" />
            <path class="ghost" [class.out]="result().out" d="M78 250V40" />
          </g>
          <path class="axis" d="M78 250V36" />
          <path class="iron" d="M-96 250V50H-84V238H-20V250Z" />
          @for (side of view.sides; track side.value) {
            <g
              [isoStylusSide]="'the ' + side.words"
              [chosen]="side.chosen"
              (taken)="choose(view.axis, side.value)"
              [attr.transform]="'translate(' + side.x + ' 74)'"
            >
              <path [attr.transform]="'rotate(' + side.turn + ')'" d="M0 0 9 -17H-9Z" />
            </g>
          }
          <text class="words" x="-140" y="290">{{ view.near }}</text>
          <text class="words" x="140" y="290" text-anchor="end">{{ view.far }}</text>
          @for (place of view.places; track place.mark.index) {
            <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
              <circle class="seat" r="7" />
              <text [attr.x]="place.textX" y="5" [attr.text-anchor]="place.anchor">{{ figure(place.mark.text) }}</text>
            </g>
          }
        </g>
      }
      <text class="words" x="712" y="312" text-anchor="end">errors drawn ×{{ factor() }}</text>
    </svg>
  `,
})
export class ColumnInElevation extends SketchBase {
  protected readonly figure = figure;
  protected readonly factor = computed(() => exaggeration([this.result().h, this.result().v], 16, TALL / 1000));
  private readonly side = computed(() => {
    const side = this.setup()['side'];
    return (typeof side === 'object' && side !== null ? side : {}) as Partial<Record<'x' | 'y', Side>>;
  });

  protected readonly views = computed(() =>
    VIEWS.map(({ axis, title, near, far, at, sides }) => {
      const lean = (axis === 'x' ? this.result().h : this.result().v) ?? 0;
      // Seen from the right the operator stands on the left: the top toward the operator goes left.
      const way = axis === 'x' ? 1 : -1;
      return {
        axis,
        title,
        near,
        far,
        at,
        turn: seen(((way * lean) / 1e6) * this.factor() * (180 / Math.PI)),
        sides: sides.map((value, i) => ({
          value,
          words: SIDE_WORDS[value],
          chosen: this.side()[axis] === value,
          ...(i === 0 ? { x: -96, turn: -90 } : { x: -84, turn: 90 }),
        })),
        places: this.placed(axis),
      };
    }),
  );

  protected choose(axis: 'x' | 'y', value: Side): void {
    this.set()({ side: { ...this.side(), [axis]: value } });
  }

  private placed(axis: 'x' | 'y') {
    const own = this.marks().filter(({ keys }) => keys['axis'] === axis);
    const top = Math.max(1, ...own.map(({ keys }) => Number(keys['at'])));
    return own.map((mark) => {
      const flipped = mark.keys['flip'] === true;
      // A gap is written where it is, between the blade and the column.
      const inside = flipped || mark.keys['shim'] !== undefined;
      return {
        mark,
        x: -90,
        y: seen(FOOT - 26 - (Number(mark.keys['at']) / top) * (TALL - 70)) - (flipped ? 15 : 0),
        ...(inside ? { textX: 24, anchor: 'start' } : { textX: -14, anchor: 'end' }),
      };
    });
  }
}
