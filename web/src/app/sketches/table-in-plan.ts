import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { alongLine, drawnOff, figure, profileOf, type SketchMark } from './model';
import { SketchBase } from './sketch-base';

/** Ends of a run as drawn: along x from left to right, along y from the operator to the column. */
const RUN = { x: [150, 570], y: [246, 70] } as const;
/** Where the run lies, square to it: on the table, in the slot, on the jaw, beside the edge. */
const LIES: Readonly<Record<string, number>> = { table: 158, slot: 158, jaw: 148, edge: 158 };
/** px from the line of a run to the marks on one of its sides. */
const BESIDE = 17;
const OFF = 8;

interface Place {
  readonly mark: SketchMark;
  readonly x: number;
  readonly y: number;
  /** Where its label stands, and which way its stylus points. */
  readonly label: { readonly x: number; readonly y: number; readonly anchor: string };
  readonly turn: number;
}

/**
 * The table of a mill from above, the operator at the bottom and the column at the top, with what is read on it: the table
 * itself along one of its motions, its middle slot, the fixed jaw of a vice, a straightedge, or a level laid both ways.
 */
@Component({
  selector: 'iso-table-in-plan',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./marks.css', './table-in-plan.css'],
  template: `
    <svg viewBox="0 0 720 316" role="group" aria-label="Table from above, with the places to read">
      <text class="words" x="8" y="16">from above</text>
      <path class="iron" d="M290 20H430V40H290Z" />
      <text class="words" x="440" y="36">column</text>
      <path class="iron" d="M110 44H610V272H110Z" fill-opacity="0.5" />
      <path class="thin" d="M110 100H610M110 108H610M110 154H610M110 162H610M110 208H610M110 216H610" />
      <text class="words" x="104" y="162" text-anchor="end">left</text>
      <text class="words" x="616" y="162">right</text>
      <text class="words" x="360" y="306" text-anchor="middle">you</text>
      @switch (shows()) {
        @case ('slot') {
          <path class="iron" d="M110 152H610V164H110Z" />
        }
        @case ('jaw') {
          <path class="iron" d="M140 96H580V140H140Z M140 176H580V214H140Z" />
          <path class="thin" d="M200 140V176M520 140V176" />
        }
        @case ('edge') {
          <path class="iron" [attr.d]="axis() === 'x' ? 'M130 151H590V165H130Z' : 'M353 56H367V260H353Z'" />
        }
        @case ('level') {
          <path class="iron" d="M190 148H350V168H190Z M450 82H470V236H450Z" />
          <path class="vial" d="M250 153H290V163H250Z M455 139H465V179H455Z" />
        }
        @default {
          <path class="axis" [attr.d]="axis() === 'x' ? 'M130 158H590' : 'M360 56V260'" />
        }
      }
      @for (tile of tiles(); track tile.index) {
        <path
          class="tile"
          d="M-26 -18H26V18H-26Z"
          [attr.fill-opacity]="tile.high"
          [attr.transform]="'translate(' + tile.x + ' ' + tile.y + ')'"
        />
      }
      @for (line of profiles(); track $index) {
        <path class="profile" [attr.d]="line" />
      }
      @for (place of places(); track place.mark.index) {
        <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
          @if (shows() === 'table' || shows() === 'level') {
            <circle class="seat" r="7" />
          } @else {
            <path class="seat" [attr.transform]="'rotate(' + place.turn + ')'" d="M0 0 8 15H-8Z" />
          }
          <text [attr.x]="place.label.x" [attr.y]="place.label.y" [attr.text-anchor]="place.label.anchor">
            {{ figure(place.mark.text) }}
          </text>
        </g>
      }
    </svg>
  `,
})
export class TableInPlan extends SketchBase {
  protected readonly figure = figure;
  protected readonly shows = computed(() => this.picture().words?.['shows'] ?? 'table');
  protected readonly axis = computed((): 'x' | 'y' => (this.picture().words?.['along'] === 'y' ? 'y' : 'x'));

  /** Whether rows lie beside each other. */
  private readonly grid = computed(() => new Set(this.marks().map(({ keys }) => keys['across'] ?? 0)).size > 1);

  /** Places of a grid where they lie on the table: along x to the right, along y toward the column. */
  private onGrid(): Place[] {
    const [along, across] = this.axis() === 'x' ? [RUN.x, RUN.y] : [RUN.y, RUN.x];
    const a = alongLine(this.marks(), along[0], along[1]);
    const b = alongLine(
      this.marks().map((mark) => ({ ...mark, keys: { at: Number(mark.keys['across'] ?? 0) } })),
      across[0],
      across[1],
    );
    return this.marks().map((mark, i) => {
      const [x, y] = this.axis() === 'x' ? [a[i], b[i]] : [b[i], a[i]];
      return { mark, x, y, label: { x: 0, y: 24, anchor: 'middle' }, turn: 0 };
    });
  }

  /** The map: the higher a place, the bluer its tile. */
  protected readonly tiles = computed(() => {
    if (!this.grid()) return [];
    const read = this.places().filter(({ mark }) => mark.deviation !== null);
    const heights = read.map(({ mark }) => mark.deviation ?? 0);
    const [low, high] = [Math.min(...heights), Math.max(...heights)];
    return read.map(({ mark, x, y }, i) => ({
      index: mark.index,
      x,
      y,
      high: Number((0.05 + (high > low ? (0.5 * (heights[i] - low)) / (high - low) : 0)).toFixed(2)),
    }));
  });

  /** A row for each way the reference is turned: on one side of it, and on the other. */
  private readonly rows = computed((): Place[][] => {
    if (this.grid()) return [this.onGrid()];
    if (this.shows() === 'level') return [this.marks().map(levelPlace)];
    const off = drawnOff(this.marks(), OFF, ({ keys }) => keys['turn']);
    const turned = (mark: SketchMark) => mark.keys['turn'] === 180;
    return [this.marks().filter((mark) => !turned(mark)), this.marks().filter(turned)].map((marks, row) => this.laid(marks, row, off));
  });
  protected readonly places = computed(() => this.rows().flat());
  protected readonly profiles = computed(() => (this.shows() === 'level' || this.grid() ? [] : this.rows().map(profileOf)));

  /** Marks along the run: beside it on the stylus's side, the row of the turned reference on the other. */
  private laid(marks: readonly SketchMark[], row: number, off: ReadonlyMap<SketchMark, number>): Place[] {
    const [axis, shows] = [this.axis(), this.shows()];
    const [start, end] = RUN[axis];
    const along = alongLine(marks, start, end);
    const onTop = shows === 'table' || shows === 'slot';
    // The operator's side is below a run to the right, and left of one to the column.
    const rear = (this.setup()['side'] === 'rear') !== (row === 1);
    const out = rear ? -1 : 1;
    const lies = axis === 'x' ? LIES[shows] : 360;
    const beside = onTop ? (row === 1 ? out * BESIDE : 0) : out * BESIDE;
    return marks.map((mark, i) => {
      const by = off.get(mark) ?? 0;
      if (axis === 'x') {
        return {
          mark,
          x: along[i],
          y: lies + beside - by - (onTop ? 0 : out * (BESIDE - 8)),
          label: { x: 0, y: rear && !onTop ? -20 : onTop ? 26 : 31, anchor: 'middle' },
          turn: rear ? 180 : 0,
        };
      }
      const side = -out;
      return {
        mark,
        x: lies + (onTop ? (row === 1 ? side * BESIDE : 0) : side * 9) + by,
        y: along[i],
        label: { x: side * (onTop ? 14 : 22), y: 5, anchor: side > 0 ? 'start' : 'end' },
        turn: side > 0 ? -90 : 90,
      };
    });
  }
}

/** A level laid along x at the left and along y at the right: its mark is at the end that is read first, turned round at the other. */
function levelPlace(mark: SketchMark): Place {
  const reversed = mark.keys['end'] === 'reversed';
  return mark.keys['axis'] === 'y'
    ? { mark, x: 460, y: reversed ? 224 : 94, label: { x: 16, y: 5, anchor: 'start' }, turn: 0 }
    : { mark, x: reversed ? 202 : 338, y: 158, label: { x: 0, y: 30, anchor: 'middle' }, turn: 0 };
}
