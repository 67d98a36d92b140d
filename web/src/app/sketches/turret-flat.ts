import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { alongLine, drawnOff, figure, profileOf } from './model';
import { SketchBase } from './sketch-base';

/** The turret as it is drawn, and where its flat lies on it: px. */
const TURRET = { left: 330, right: 630, top: 58, bottom: 200 };

/** A flat as it is seen for one way of reading it: along x or along y, which way the stylus points from it. */
interface Flat {
  readonly seen: string;
  readonly upright: boolean;
  /** px of the flat across its own direction. */
  readonly line: number;
  /** Toward the stylus: + is right or down. */
  readonly toward: 1 | -1;
}
const FLATS: Readonly<Record<string, Flat>> = {
  operator: { seen: 'from above, you at the bottom', upright: false, line: TURRET.bottom, toward: 1 },
  rear: { seen: 'from above, you at the bottom', upright: false, line: TURRET.top, toward: -1 },
  above: { seen: 'from your side', upright: false, line: TURRET.top, toward: -1 },
  headstock: { seen: 'from above, you at the bottom', upright: true, line: TURRET.left, toward: -1 },
  tail: { seen: 'from above, you at the bottom', upright: true, line: TURRET.right, toward: 1 },
};

/** A turret with the ground flat that is read: from above, or from the operator's side where it is read square to the slide. */
@Component({
  selector: 'iso-turret-flat',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg viewBox="0 0 720 270" role="group" aria-label="Turret, with the places on its ground flat">
      <text class="words" x="8" y="18">{{ flat().seen }}</text>
      <path class="iron" d="M12 70H96V190H12Z M96 104H112V156H96Z" />
      <text class="words" x="20" y="90">headstock</text>
      <path class="axis" d="M112 130H300" />
      <path class="iron" [attr.d]="body" />
      <text class="words" x="480" y="134" text-anchor="middle">turret</text>
      <text class="words" x="8" y="262">{{ flat().upright ? 'moved along the slide' : 'moved along the spindle' }}</text>
      @if (flat().seen !== side) {
        <text class="words" x="712" y="262" text-anchor="end">operator</text>
      }
      <path class="profile" [attr.d]="line()" />
      @for (place of stations(); track place.mark.index) {
        <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
          <path class="seat" d="M0 0 8 -15H-8Z" [attr.transform]="'rotate(' + turn() + ')'" />
          <text [attr.x]="place.textX" [attr.y]="place.textY" [attr.text-anchor]="place.anchor">{{ place.words }}</text>
        </g>
      }
    </svg>
  `,
})
export class TurretFlat extends SketchBase {
  protected readonly body = `M${TURRET.left} ${TURRET.top}H${TURRET.right}V${TURRET.bottom}H${TURRET.left}Z`;
  protected readonly side = FLATS['above'].seen;
  protected readonly flat = computed(() => FLATS[String(this.setup()['side'] ?? 'operator')] ?? FLATS['operator']);
  /** The stylus stands on the side it reads from. */
  protected readonly turn = computed(() => {
    const { upright, toward } = this.flat();
    return upright ? toward * 90 : toward === 1 ? 180 : 0;
  });

  protected readonly stations = computed(() => {
    const [marks, { upright, line, toward }] = [this.marks(), this.flat()];
    const { left, right, top, bottom } = TURRET;
    const along = upright ? alongLine(marks, top + 16, bottom - 16) : alongLine(marks, left + 22, right - 22);
    const off = drawnOff(marks, 9, (mark) => mark.keys['turn']);
    return marks.map((mark, i) => {
      // What comes toward the stylus is drawn toward it.
      const across = line + toward * (off.get(mark) ?? 0);
      const beside = toward * 34 - (across - line);
      return {
        mark,
        x: upright ? across : along[i],
        y: upright ? along[i] : across,
        textX: upright ? beside : 0,
        textY: upright ? 4 : beside + 4,
        anchor: !upright ? 'middle' : toward === 1 ? 'start' : 'end',
        words: figure(mark.text),
      };
    });
  });

  protected readonly line = computed(() => profileOf(this.stations()));
}
