import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { figure } from './model';
import { SketchBase } from './sketch-base';

const STATES: readonly string[] = ['free', 'pressed', 'clamped'];

/** A casting from above, its corners pressed one after the other: free, pressed, clamped. */
@Component({
  selector: 'iso-seat-corners',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg viewBox="0 0 720 290" role="group" aria-label="Casting from above, with the corners to press">
      <path class="iron" d="M150 50H570V230H150Z" />
      <text class="words" x="360" y="280" text-anchor="middle">operator</text>
      @for (corner of corners(); track corner.name) {
        <g [attr.transform]="'translate(' + corner.x + ' ' + corner.y + ')'">
          <text class="words" [attr.y]="corner.up ? -26 : 46" text-anchor="middle">{{ corner.name }}</text>
          @for (place of corner.places; track place.mark.index) {
            <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.dx + ' 0)'">
              <path class="seat" d="M0 0 8 -15H-8Z" />
              <text y="20" text-anchor="middle">{{ place.words }}</text>
            </g>
          }
        </g>
      }
    </svg>
  `,
})
export class SeatCorners extends SketchBase {
  protected readonly corners = computed(() => {
    const names = [...new Set(this.marks().map((mark) => String(mark.keys['corner'])))];
    return names.map((name, i) => {
      const up = /rear/.test(name) || (!/front/.test(name) && i > 1);
      const right = /right/.test(name) || (!/left/.test(name) && i % 2 === 1);
      return {
        name,
        up,
        x: right ? 480 : 240,
        y: up ? 74 : 204,
        places: this.marks()
          .filter((mark) => String(mark.keys['corner']) === name)
          .map((mark) => {
            const word = String(mark.keys['state']);
            return { mark, words: figure(mark.text) || word, dx: (STATES.indexOf(word) - 1) * 74 };
          }),
      };
    });
  });
}
