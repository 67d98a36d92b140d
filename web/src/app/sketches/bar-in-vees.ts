import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { alongLine, drawnOff, figure } from './model';
import { SketchBase } from './sketch-base';

const LEFT = 110;
const RIGHT = 610;

/** A test bar in two vees, turned by hand: each place is read at the highest and the lowest of a turn. */
@Component({
  selector: 'iso-bar-in-vees',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg viewBox="0 0 720 224" role="group" aria-label="Test bar in two vees, with the places to read">
      <path class="iron" d="M20 190H700V206H20Z" />
      <path class="iron" d="M150 190 164 130H196L210 190Z M510 190 524 130H556L570 190Z" fill-opacity="0.6" />
      <path class="iron" d="M70 106H650V132H70Z" />
      <line class="axis" x1="40" x2="690" y1="119" y2="119" />
      <path class="axis" fill="none" d="M52 100a26 26 0 0 0 0 40M44 132 52 141 56 129" />
      @for (place of places(); track place.mark.index) {
        <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
          <path class="seat" d="M0 0 8 -15H-8Z" />
          <text [attr.y]="place.textY" text-anchor="middle">{{ place.words }}</text>
        </g>
      }
    </svg>
  `,
})
export class BarInVees extends SketchBase {
  protected readonly places = computed(() => {
    const marks = this.marks();
    const x = alongLine(marks, LEFT, RIGHT);
    const off = drawnOff(marks, 9);
    return marks.map((mark, i) => {
      const { extreme } = mark.keys;
      const side = extreme === 'high' ? -11 : extreme === 'low' ? 11 : 0;
      return {
        mark,
        x: x[i] + side,
        y: 94 - (off.get(mark) ?? 0),
        textY: (extreme === 'low' ? -50 : -31) + (off.get(mark) ?? 0),
        words: [extreme, figure(mark.text)].filter(Boolean).join(' '),
      };
    });
  });
}
