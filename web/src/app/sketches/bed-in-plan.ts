import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { alongLine, drawnOff, figure } from './model';
import { SketchBase } from './sketch-base';

const LEFT = 178;
const RIGHT = 622;

/**
 * The bed from above, the operator at the bottom, with the level laid across the ways at each station.
 * Its bubble stands where the reading puts it: toward the side that is high.
 */
@Component({
  selector: 'iso-bed-in-plan',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg viewBox="0 0 720 288" role="group" aria-label="Bed from above, with the level across the ways">
      <text class="words" x="8" y="18">from above</text>
      <path class="iron" d="M118 72H704V84H118Z M118 196H704V212H118Z M118 203H704" />
      <path class="iron" d="M16 58H118V226H16Z M118 104H140V176H118Z" />
      <line class="axis" x1="10" x2="710" y1="140" y2="140" />
      <path class="thin" d="M650 104H704V176H650Z" />
      <text class="words" x="28" y="46">headstock</text>
      <text class="words" x="704" y="46" text-anchor="end">tailstock</text>
      <text class="words" x="410" y="280" text-anchor="middle">operator</text>
      @for (place of levels(); track place.mark.index) {
        <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' 140)'">
          <path class="seat" [attr.d]="place.body" />
          <path class="vial" d="M-4.5 -22H4.5V22H-4.5Z" />
          @if (place.bubble !== undefined) {
            <circle class="bubble" r="4" [attr.cy]="place.bubble" />
          }
          <text [attr.y]="place.forward ? -76 : 92" text-anchor="middle">{{ place.words }}</text>
        </g>
      }
    </svg>
  `,
})
export class BedInPlan extends SketchBase {
  protected readonly levels = computed(() => {
    const marks = this.marks();
    const x = alongLine(marks, LEFT, RIGHT);
    const both = new Set(marks.map((mark) => mark.keys['end'])).size > 1;
    const off = drawnOff(marks, 16, undefined, true);
    return marks.map((mark, i) => {
      const forward = mark.keys['end'] !== 'reversed';
      // Turned end for end it counts the other way: the bubble still goes to the high side, down is the operator's.
      const bubble = off.get(mark);
      return {
        mark,
        forward,
        x: x[i] + (both ? (forward ? -13 : 13) : 0),
        // The marked end of the level: at the operator going forward, at the rear turned round.
        body: forward ? 'M-9 -64H9V64L0 74L-9 64Z' : 'M-9 64H9V-64L0 -74L-9 -64Z',
        bubble: bubble === undefined ? undefined : forward ? bubble : -bubble,
        words: figure(mark.text),
      };
    });
  });
}
