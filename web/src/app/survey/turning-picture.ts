import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { KnownTurning } from '@isometra/work';
import { bedUnder, offsetPixels, slopePixels, type TurningGhosts } from './turning';

const NONE: TurningGhosts = { turret: [], bush: [], sub: [] };
/** The line of the spindle axis in the view from above. */
const NOSE = { x: 570, y: 190 };
const SUB = { x: 880, y: 190 };

/**
 * A turning centre from its end, with the slide at its slant, and from above, bent by what is known of it: the pocket, the
 * bush and the sub-spindle stand off the axis by what was swept. Ghost circles are the limits.
 */
@Component({
  selector: 'iso-turning-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 1000 430" role="img" aria-label="The turning centre from its end and from above, bent by what is known of it">
      <text class="words" x="20" y="24">seen from the headstock</text>
      <path class="bed" [attr.d]="bed()" />
      <g transform="translate(250 236)">
        <path class="true" d="M-190 0H190M0 -150V150" />
        <path class="slide" [attr.d]="slide()" />
        @if (slide() === '') {
          <text class="words" x="-180" y="-140">how the slide leans is not on the card</text>
        }
        @for (ring of rings(); track ring.name) {
          <circle class="true" fill="none" [attr.r]="ring.r" />
          @for (limit of ring.ghosts; track $index) {
            <circle class="zone" [attr.r]="limit" />
          }
          @if (ring.at; as at) {
            <circle class="ring" [attr.cx]="at.x" [attr.cy]="at.y" [attr.r]="ring.r" />
            <path class="axis" [attr.d]="'M0 0L' + at.x + ' ' + at.y" />
          }
          <text class="words" x="56" [attr.y]="ring.label">{{ ring.name }}{{ ring.at ? '' : ': not measured' }}</text>
        }
      </g>
      @for (pocket of others(); track pocket.name) {
        <g class="other" [attr.transform]="'translate(' + (250 + pocket.x) + ' ' + (236 + pocket.y) + ')'">
          <circle class="axis" fill="none" r="4" />
          <text class="words" x="8" y="5">{{ pocket.name }}</text>
        </g>
      }
      <text class="words" x="430" y="420" text-anchor="end">operator</text>
      <text class="words" x="60" y="420">rear</text>

      <text class="words" x="520" y="24">from above</text>
      <path class="iron" d="M500 120H560V260H500Z M560 160H570V220H560Z" />
      <path class="true" d="M560 190H980" />
      <path class="axis" [attr.d]="axis()" />
      @if (has().sub) {
        <g [attr.transform]="'translate(0 ' + moved().sub + ')'">
          <path class="iron" d="M890 130H960V250H890Z M880 165H890V215H880Z" />
        </g>
        <text class="words" x="925" y="118" text-anchor="middle">sub-spindle</text>
      }
      @if (has().tail) {
        <g [attr.transform]="'translate(0 ' + moved().tail + ')'">
          <path class="iron" d="M900 150H970V230H900Z M900 178 880 190 900 202Z" />
        </g>
        <text class="words" x="935" y="138" text-anchor="middle">tailstock</text>
      }
      @if (has().bush) {
        <g [attr.transform]="'translate(0 ' + moved().bush + ')'">
          <path class="iron" d="M640 150H664V180H640Z M640 200H664V230H640Z" />
        </g>
        <text class="words" x="652" y="140" text-anchor="middle">bush</text>
      }
      <g [attr.transform]="'translate(0 ' + moved().turret + ')'">
        <path class="iron" [attr.d]="turret" [attr.transform]="behind() ? 'matrix(1 0 0 -1 0 380)' : null" />
      </g>
      <text class="words" x="787" [attr.y]="behind() ? 40 : 352" text-anchor="middle">turret</text>
      <text class="words" x="520" y="420">operator below</text>
      <text class="words" x="990" y="420" text-anchor="end">errors drawn ×{{ factor() }}</text>
    </svg>
  `,
  styleUrls: ['./picture.css', './turning-picture.css'],
})
export class TurningPicture {
  protected readonly turret = 'M720 168H744V180H720Z M720 200H744V212H720Z M744 168H830V330H744Z';
  readonly known = input.required<KnownTurning>();
  readonly factor = input.required<number>();
  readonly ghosts = input(NONE, { transform: (ghosts: TurningGhosts | undefined) => ghosts ?? NONE });
  /** Degrees, + its rear end the higher; null where the card does not tell. */
  readonly slant = input<number | null>(null);
  readonly has = input({ sub: true, bush: true, tail: false });

  private readonly px = (um = 0): number => offsetPixels(um, this.factor());
  /** The slide through the axis: toward the operator, on the right, it goes down where its rear is the higher. */
  protected readonly slide = computed(() => {
    const slant = this.slant();
    if (slant === null) return '';
    const [c, s] = [Math.cos((slant * Math.PI) / 180), Math.sin((slant * Math.PI) / 180)];
    const [x, y] = [Math.round(170 * c), Math.round(170 * s)];
    return `M${-x} ${-y}L${x} ${y}`;
  });
  /** The bed under the slide, as steep as it is. */
  protected readonly bed = computed(() => bedUnder(this.slant() ?? 0));
  /** Behind the axis where the slide rises toward the rear: the turret is at its higher end. */
  protected readonly behind = computed(() => (this.slant() ?? 0) > 0);

  private readonly at = (h: number | undefined, v: number | undefined) =>
    h === undefined && v === undefined ? null : { x: this.px(h), y: -this.px(v) };
  /** The pocket that was swept last is drawn as a ring, the centres of the others beside it. */
  private readonly pocket = computed(() => this.known().pockets?.at(-1));
  protected readonly others = computed(() =>
    (this.known().pockets ?? []).slice(0, -1).map(({ name, h, v }) => ({ name, x: this.px(h), y: -this.px(v) })),
  );
  protected readonly rings = computed(() => {
    const [known, ghosts, has] = [this.known(), this.ghosts(), this.has()];
    return [
      {
        ...{ name: this.pocket()?.name ? `pocket, ${this.pocket()?.name}` : 'pocket', r: 84, label: -212 },
        ...{ at: this.at(this.pocket()?.h, this.pocket()?.v), ghosts: ghosts.turret.map(this.px), there: true },
      },
      { name: 'bush', r: 58, label: -193, at: this.at(known.bushH, known.bushV), ghosts: ghosts.bush.map(this.px), there: has.bush },
      { name: 'sub-spindle', r: 34, label: -174, at: this.at(known.subH, known.subV), ghosts: ghosts.sub.map(this.px), there: has.sub },
    ].filter(({ there }) => there);
  });
  /** From above the operator is at the bottom. */
  protected readonly moved = computed(() => {
    const { bushH, subH, tailH } = this.known();
    return { turret: this.px(this.pocket()?.h), bush: this.px(bushH), sub: this.px(subH), tail: this.px(tailH) };
  });
  protected readonly axis = computed(() => {
    const down = slopePixels(this.known().axisSlopeH ?? 0, SUB.x - NOSE.x, this.factor());
    return `M${NOSE.x} ${NOSE.y}L${SUB.x} ${NOSE.y + down}`;
  });
}
