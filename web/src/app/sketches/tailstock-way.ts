import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { alongLine, drawnOff, figure, profileOf } from './model';
import { SketchBase } from './sketch-base';

const LEFT = 150;
const RIGHT = 620;

/** The bed from above: the saddle on its outer ways carries an indicator along the way of the tailstock. */
@Component({
  selector: 'iso-tailstock-way',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg viewBox="0 0 720 270" role="group" aria-label="Bed from above, with the places along the tailstock’s way">
      <text class="words" x="8" y="18">from above</text>
      <path class="iron" d="M100 44H710V54H100Z M100 216H710V232H100Z M100 224H710" />
      <path class="iron" d="M100 96H710V106H100Z M100 156H710V168H100Z M100 162H710" fill-opacity="0.5" />
      <path class="iron" d="M12 36H100V240H12Z" />
      <text class="words" x="20" y="60">headstock</text>
      <text class="words" x="410" y="262" text-anchor="middle">operator</text>
      @if (saddle(); as x) {
        <g [attr.transform]="'translate(' + x + ' 0)'">
          <path class="thin" d="M-46 38H46V62H20V208H46V238H-46V208H-20V62H-46Z" />
          <path class="thin" [attr.d]="rear() ? 'M0 62V80' : 'M0 208V186'" />
        </g>
      }
      @for (line of lines(); track $index) {
        <path class="profile" [attr.d]="line" />
      }
      @for (place of stations(); track place.mark.index) {
        <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
          <path class="seat" [attr.d]="rear() ? 'M0 0 8 -15H-8Z' : 'M0 0 8 15H-8Z'" />
          <text [attr.y]="place.textY" text-anchor="middle">{{ place.words }}</text>
        </g>
      }
    </svg>
  `,
})
export class TailstockWay extends SketchBase {
  protected readonly rear = computed(() => this.setup()['side'] === 'rear');

  protected readonly stations = computed(() => {
    const marks = this.marks();
    const x = alongLine(marks, LEFT, RIGHT);
    const off = drawnOff(marks, 9, (mark) => mark.keys['turn']);
    const side = this.rear() ? -1 : 1;
    return marks.map((mark, i) => {
      const turned = mark.keys['turn'] === 180 ? 9 : 0;
      return {
        mark,
        x: x[i] + turned,
        // The stylus stands on the side it reads from; what comes toward it is drawn toward it.
        y: (this.rear() ? 92 : 172) + side * (off.get(mark) ?? 0),
        textY: side * ((turned ? 46 : 31) - (off.get(mark) ?? 0)) + 4,
        words: figure(mark.text),
      };
    });
  });

  /** What was read, once for each way round. */
  protected readonly lines = computed(() =>
    [undefined, 0, 180].map((turn) => profileOf(this.stations().filter(({ mark }) => mark.keys['turn'] === turn))).filter(Boolean),
  );

  /** The saddle stands where the next reading is. */
  protected readonly saddle = computed(() => this.stations().find(({ mark }) => mark.state === 'next')?.x);
}
