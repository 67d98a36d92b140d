import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { alongLine, drawnOff, figure, profileOf, type SketchMark } from './model';
import { SketchBase } from './sketch-base';

const LEFT = 60;
const RIGHT = 660;
const ROW = 72;

interface Place {
  readonly mark: SketchMark;
  readonly x: number;
  readonly y: number;
  readonly words: string;
}

interface Row {
  readonly name: string;
  readonly places: readonly Place[];
  /** What was read along the row, as a shape; empty where the places have no travel. */
  readonly profile: string;
}

/** Keys that make rows of their own: which plane, which way round, which leg. Places along each row by `at`. */
const ALONG = 'at';

/** What a row is called: the words of all keys but the place. */
const rowOf = (mark: SketchMark): string =>
  Object.entries(mark.keys)
    .filter(([key]) => key !== ALONG)
    .map(([, value]) =>
      value === true ? 'flipped' : value === false ? '' : typeof value === 'number' ? String(Number(value.toFixed(2))) : value,
    )
    .filter(Boolean)
    .join(', ');

/**
 * Places along a travel, a row for each way of reading: for checks whose places lie along a line, and
 * for those that have no place but a name. Readings stand beside their marks.
 */
@Component({
  selector: 'iso-places',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg [attr.viewBox]="'0 0 720 ' + (40 + rows().length * row)" role="group" aria-label="Places to read">
      @for (line of rows(); track line.name; let i = $index) {
        <g [attr.transform]="'translate(0 ' + (46 + i * row) + ')'">
          <text class="words" x="8" y="-22">{{ line.name }}</text>
          <path class="iron" d="M40 9H680V19H40Z" />
          <path class="profile" [attr.d]="line.profile" />
          @for (place of line.places; track place.mark.index) {
            <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
              <path class="seat" d="M0 0 8 -15H-8Z" />
              <text [attr.y]="36 - place.y" text-anchor="middle">{{ place.words }}</text>
            </g>
          }
        </g>
      }
    </svg>
  `,
})
export class Places extends SketchBase {
  protected readonly row = ROW;
  protected readonly rows = computed((): Row[] => {
    const rows = new Map<string, SketchMark[]>();
    for (const mark of this.marks()) {
      const name = rowOf(mark);
      rows.set(name, [...(rows.get(name) ?? []), mark]);
    }
    const off = drawnOff(this.marks(), 8, rowOf);
    return joined(
      [...rows].map(([name, marks]) => {
        const places = placed(marks, off);
        return { name, places, profile: marks.every((mark) => ALONG in mark.keys) ? profileOf(places) : '' };
      }),
    );
  });
}

/** Rows of one mark each share a line: places that have a name but no travel. */
function joined(rows: readonly Row[]): Row[] {
  if (rows.length < 4 || rows.some((row) => row.places.length > 1)) return [...rows];
  const all = rows.flatMap((row) => row.places);
  const places = all.map((place, i) => ({ ...place, x: LEFT + ((RIGHT - LEFT) * (i + 0.5)) / all.length }));
  return [{ name: '', places, profile: '' }];
}

/** Places along the travel; what came toward the stylus is drawn higher. */
function placed(marks: readonly SketchMark[], off: ReadonlyMap<SketchMark, number>): Place[] {
  const x = alongLine(marks, LEFT, RIGHT);
  return marks.map((mark, i) => ({
    mark,
    x: x[i],
    y: -(off.get(mark) ?? 0),
    words: figure(mark.text),
  }));
}
