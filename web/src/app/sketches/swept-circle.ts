import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { exaggeration, figure, seen } from './model';
import { SketchBase } from './sketch-base';

const RADIUS = 74;
/** Seen from the headstock the operator is on the right. */
const LATHE = { 0: 'operator', 180: 'rear' };

/** What is swept: its centre as a cross, the feature where it was found. A lathe's from the headstock, a mill's from above. */
@Component({
  selector: 'iso-swept-circle',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./marks.css', './swept-circle.css'],
  template: `
    <svg viewBox="0 0 720 300" role="group" aria-label="Sweep, with the places to read">
      <text class="words" x="8" y="22">seen {{ picture().seen ?? 'from the headstock' }}</text>
      <text class="words" x="500" y="196">{{ words()['0'] }}</text>
      <text class="words" x="220" y="196" text-anchor="end">{{ words()['180'] }}</text>
      <text class="words" x="382" y="20">{{ words()['90'] }}</text>
      <text class="words" x="382" y="290">{{ words()['270'] }}</text>
      <g transform="translate(360 150)">
        <circle class="thin" r="112" stroke-dasharray="3 5" />
        <line class="axis" x1="-132" x2="132" y1="0" y2="0" />
        <line class="axis" x1="0" x2="0" y1="-132" y2="132" />
        <circle class="iron" [attr.r]="radius" [attr.cx]="at().x" [attr.cy]="at().y" [attr.fill-opacity]="bore() ? 0 : 0.7" />
        @if (bore()) {
          <circle class="iron" [attr.r]="radius + 12" fill="none" [attr.cx]="at().x" [attr.cy]="at().y" fill-opacity="0" />
        }
        @if (slide(); as line) {
          <path class="axis" [attr.d]="line.d" />
          <path class="along" [attr.d]="'M0 0L' + line.x + ' ' + line.y" />
          <path class="ghost" [class.out]="result().out" [attr.d]="'M' + line.x + ' ' + line.y + 'L' + at().x + ' ' + at().y" />
        }
        <path class="ghost" [class.out]="result().out" [attr.d]="'M0 0L' + at().x + ' ' + at().y" />
        <circle class="ghost" [class.out]="result().out" r="3.5" [attr.cx]="at().x" [attr.cy]="at().y" />
        @for (place of placed(); track place.mark.index) {
          <g [isoMark]="place.mark" [pick]="pick()">
            <path
              class="seat"
              d="M0 0 8 -15H-8Z"
              [attr.transform]="'rotate(' + place.turn + ') translate(0 ' + -place.reach + ')' + (bore() ? ' rotate(180)' : '')"
            />
            <text [attr.x]="place.textX" [attr.y]="place.textY" [attr.text-anchor]="place.anchor">{{ figure(place.mark.text) }}</text>
          </g>
        }
      </g>
      @if (slide(); as line) {
        <text class="words" x="8" y="262">blue, along the slide: the control can cure it</text>
        <text class="words" x="8" y="282">square to it: bolts must</text>
        <text class="words" x="712" y="22" text-anchor="end">{{ line.words }}</text>
      }
      <text class="words" x="712" y="294" text-anchor="end">errors drawn ×{{ factor() }}</text>
    </svg>
  `,
})
export class SweptCircle extends SketchBase {
  protected readonly figure = figure;
  protected readonly radius = RADIUS;
  protected readonly words = computed((): Readonly<Record<string, string>> => this.picture().words ?? LATHE);
  protected readonly bore = computed(() => (this.setup()['feature'] ?? (this.picture().bore && 'bore')) === 'bore');
  protected readonly factor = computed(() => exaggeration([this.result().h, this.result().v], 24, 3));
  /** Toward the operator is to the right, up is up. */
  protected readonly at = computed(() => ({
    x: ((this.result().h ?? 0) / 1000) * 3 * this.factor(),
    y: -((this.result().v ?? 0) / 1000) * 3 * this.factor(),
  }));
  /** The slide at its slant, through the axis, and the part of the error that lies along it. */
  protected readonly slide = computed(() => {
    const slant = this.setup()['slant'];
    if (typeof slant !== 'number') return null;
    const [c, s] = [Math.cos((slant * Math.PI) / 180), Math.sin((slant * Math.PI) / 180)];
    const { x, y } = this.at();
    // Toward the operator a slide goes down where its rear is the higher: to the right and down.
    const along = x * c + y * s;
    const [dx, dy] = [seen(128 * c), seen(128 * s)];
    return {
      d: `M${-dx} ${-dy}L${dx} ${dy}`,
      x: seen(along * c),
      y: seen(along * s),
      words: slant === 0 ? 'slide lies level' : `slide, ${slant > 0 ? 'rear' : 'front'} higher`,
    };
  });
  protected readonly placed = computed(() =>
    this.marks().map((mark) => {
      const degrees = mark.keys['angle'] as number;
      const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
      const along = this.at().x * c - this.at().y * s;
      const reach = along + RADIUS;
      return {
        mark,
        turn: 90 - degrees,
        reach,
        textX: 122 * c,
        textY: -122 * s + 4,
        anchor: Math.abs(c) < 0.3 ? 'middle' : c > 0 ? 'start' : 'end',
      };
    }),
  );
}
