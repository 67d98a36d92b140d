import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { alongLine, drawnOff, figure } from './model';
import { SketchBase } from './sketch-base';

/** Arrows of the hand: pushing comes from the left, pulling goes back to it. */
const ARROWS = { push: 'M-70 -7H-24V-16L0 0L-24 16V7H-70Z', pull: 'M0 -7H-46V-16L-70 0L-46 16V7H0Z' } as const;

/** A slide on its guide, pushed and pulled by hand against an indicator; a row for locks off and one for locks on. */
@Component({
  selector: 'iso-push-pull',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg
      [attr.viewBox]="'0 0 720 ' + (rows().length * 142 + (felt().length ? 92 : 8))"
      role="group"
      aria-label="Slide on its guide, pushed and pulled"
    >
      @for (row of rows(); track row.name; let i = $index) {
        <g [attr.transform]="'translate(0 ' + i * 142 + ')'">
          <text class="words" x="8" y="18">{{ row.name }}</text>
          <path class="iron" d="M230 108H590V134H230Z M280 108 292 90H528L540 108Z" fill-opacity="0.6" />
          <path class="iron" d="M262 34H558V108H546L534 86H286L274 108H262Z" />
          <path class="thin" d="M640 20V134M640 62H606" />
          <path class="iron" d="M606 55H570V69H606Z M570 62H560" />
          @for (place of row.places; track place.mark.index) {
            <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(246 ' + place.y + ')'">
              <path class="seat" [attr.d]="place.arrow" />
              <text x="-84" y="5" text-anchor="end">{{ place.words }}</text>
              @if (place.off !== undefined) {
                <path class="seen" [attr.d]="'M' + (312 + place.off) + ' -10V10'" />
              }
            </g>
          }
        </g>
      }
      @if (felt().length) {
        <g [attr.transform]="'translate(0 ' + rows().length * 142 + ')'">
          <text class="words" x="8" y="18">drag, along the travel</text>
          <path class="iron" d="M120 40H660V50H120Z" fill-opacity="0.5" />
          @for (place of felt(); track place.mark.index) {
            <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' 45)'">
              <circle class="seat" [attr.r]="place.tightest ? 13 : 8" />
              <text y="38" text-anchor="middle">{{ place.mark.text }}{{ place.tightest ? ' tightest' : '' }}</text>
            </g>
          }
        </g>
      }
    </svg>
  `,
})
export class PushPull extends SketchBase {
  /** Where the drag is felt; the tightest place rules. */
  protected readonly felt = computed(() => {
    const marks = this.marks().filter(({ keys }) => keys['stroke'] === undefined);
    const x = alongLine(marks, 150, 630);
    const most = Math.max(...marks.map(({ text }) => Number(text || NaN)).filter((drag) => !Number.isNaN(drag)), -1);
    return marks.map((mark, i) => ({ mark, x: x[i], tightest: most > 0 && mark.text !== '' && Number(mark.text) === most }));
  });

  protected readonly rows = computed(() => {
    const marks = this.marks().filter(({ keys }) => keys['stroke'] !== undefined);
    const off = drawnOff(marks, 18, undefined, true);
    const rowOf = (mark: (typeof marks)[number]) => (mark.keys['locks'] ? `locks ${String(mark.keys['locks'])}` : '');
    return [...new Set(marks.map(rowOf))].map((name) => ({
      name,
      places: marks
        .filter((mark) => rowOf(mark) === name)
        .map((mark) => {
          const stroke = mark.keys['stroke'] === 'pull' ? 'pull' : 'push';
          return {
            mark,
            y: stroke === 'push' ? 50 : 90,
            arrow: ARROWS[stroke],
            off: off.get(mark),
            words: [stroke, figure(mark.text)].filter(Boolean).join(' '),
          };
        }),
    }));
  });
}
