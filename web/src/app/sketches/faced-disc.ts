import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { drawnOff, figure, profileOf } from './model';
import { SketchBase } from './sketch-base';

const RADIUS = 104;
const FACE = 236;

/**
 * A disc on the spindle from above, the operator at the bottom, with the indicator on the cross slide. A disc
 * faced here is read from its centre to the rear rim, past where the tool went; one that is turned half round
 * is read right across. The face is drawn as it was read: to the right it comes toward the indicator.
 */
@Component({
  selector: 'iso-faced-disc',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg viewBox="0 0 720 292" role="group" aria-label="Disc from above, with the places on its face">
      <text class="words" x="8" y="18">from above</text>
      <path class="iron" d="M20 84H112V204H20Z M112 104H150V184H112Z" />
      <path class="iron" d="M150 40H236V248H150Z" />
      <line class="axis" x1="10" x2="250" y1="144" y2="144" />
      <path class="thin" d="M560 30V258H620V30Z M540 60H560V90H540Z" />
      <path class="thin" d="M590 50V238M584 58 590 48 596 58M584 230 590 240 596 230" />
      <text class="words" x="712" y="22" text-anchor="end">cross slide</text>
      <text class="words" x="240" y="282" text-anchor="middle">operator</text>
      @if (turned()) {
        <text class="words" x="318" y="30">turned half round</text>
      }
      @if (faced()) {
        <text class="words" x="252" y="222">the tool went here</text>
      }
      @for (line of lines(); track $index) {
        <path class="profile" [attr.d]="line" />
      }
      @for (place of places(); track place.mark.index) {
        <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
          <path class="seat" d="M0 0 15 -8V8Z" />
          <text [attr.x]="place.textX" y="5">{{ place.words }}</text>
        </g>
      }
    </svg>
  `,
})
export class FacedDisc extends SketchBase {
  /** A disc faced on this machine: places count from its centre. */
  protected readonly faced = computed(() => this.setup()['method'] !== 'reversed-disc');

  protected readonly turned = computed(() => this.marks().some((mark) => mark.keys['turn'] === 180));

  protected readonly places = computed(() => {
    const marks = this.marks();
    const off = drawnOff(marks, 16, (mark) => mark.keys['turn']);
    const far = Math.max(1, ...marks.map((mark) => Number(mark.keys['at'])));
    return marks.map((mark) => {
      const part = Number(mark.keys['at']) / far;
      const turned = mark.keys['turn'] === 180;
      return {
        mark,
        turned,
        // Toward the rear is up.
        y: 144 - (this.faced() ? part * (RADIUS - 6) : (2 * part - 1) * (RADIUS - 6)),
        x: FACE + (off.get(mark) ?? 0),
        textX: turned ? 92 : 22,
        words: figure(mark.text),
      };
    });
  });

  /** The face as it was read, once for each way round. */
  protected readonly lines = computed(() =>
    [false, true].map((turn) => profileOf(this.places().filter((place) => place.turned === turn))).filter(Boolean),
  );
}
