import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { Mark } from './mark';
import type { SketchInputs, SketchMark, SketchResult } from './sketch';

const LEFT = 60;
const RIGHT = 660;

interface Row {
  readonly name: string;
  readonly places: readonly { readonly mark: SketchMark; readonly x: number }[];
}

/** Keys that make rows of their own: which plane, which way round, which leg. Places along each row by `at`. */
const ALONG = 'at';

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
    <svg [attr.viewBox]="'0 0 720 ' + (40 + rows().length * 62)" role="group" aria-label="Places to read">
      @for (row of rows(); track row.name; let i = $index) {
        <g [attr.transform]="'translate(0 ' + (46 + i * 62) + ')'">
          <text class="words" x="8" y="-22">{{ row.name }}</text>
          <path class="iron" d="M40 0H680V10H40Z" />
          @for (place of row.places; track place.mark.index) {
            <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' 0)'">
              <path class="seat" d="M0 0 8 -15H-8Z" />
              <text y="26" text-anchor="middle">{{ place.mark.text }}</text>
            </g>
          }
        </g>
      }
    </svg>
  `,
})
export class Places {
  readonly setup = input.required<SketchInputs['setup']>();
  readonly marks = input.required<readonly SketchMark[]>();
  readonly result = input.required<SketchResult>();
  readonly pick = input.required<SketchInputs['pick']>();

  protected readonly rows = computed((): Row[] => {
    const rows = new Map<string, SketchMark[]>();
    for (const mark of this.marks()) {
      const name = Object.entries(mark.keys)
        .filter(([key]) => key !== ALONG)
        .map(([, value]) => (value === true ? 'flipped' : value === false ? '' : String(value)))
        .filter(Boolean)
        .join(', ');
      rows.set(name, [...(rows.get(name) ?? []), mark]);
    }
    return this.joined([...rows].map(([name, marks]) => ({ name, places: this.placed(marks) })));
  });

  /** Rows of one mark each share a line: places that have a name but no travel. */
  private joined(rows: readonly Row[]): Row[] {
    if (rows.length < 4 || rows.some((row) => row.places.length > 1)) return [...rows];
    const all = rows.flatMap((row) => row.places);
    return [{ name: '', places: all.map(({ mark }, i) => ({ mark, x: LEFT + ((RIGHT - LEFT) * (i + 0.5)) / all.length })) }];
  }

  private placed(marks: readonly SketchMark[]): Row['places'] {
    const places = marks.map((mark) => (mark.keys[ALONG] as number | undefined) ?? 0);
    const [low, high] = [Math.min(...places), Math.max(...places)];
    return marks.map((mark, i) => ({
      mark,
      x: high > low ? LEFT + ((places[i] - low) / (high - low)) * (RIGHT - LEFT) : (LEFT + RIGHT) / 2,
    }));
  }
}
