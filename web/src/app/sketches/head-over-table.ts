import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { exaggeration, figure, seen } from './model';
import { SketchBase } from './sketch-base';

const REACH = 96;
/** px from the nose to the pin, and to the blocks, as the silhouettes are drawn. */
const PIN = 62;
const BLOCK = 26;

/**
 * The table of a mill from above, the operator at the bottom and the column at the top, with a block at each place of the
 * sweep; beside it the head from the front for its tilt and from the right for its nod, with the pin it nods on.
 */
@Component({
  selector: 'iso-head-over-table',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg viewBox="0 0 720 316" role="group" aria-label="Table from above, with a block at each place of the sweep">
      <text class="words" x="8" y="16">from above</text>
      <path class="iron" d="M20 44H400V272H20Z" fill-opacity="0.5" />
      <path class="thin" d="M20 100H400M20 108H400M20 154H400M20 162H400M20 208H400M20 216H400" />
      <path class="iron" d="M150 20H270V40H150Z" />
      <text class="words" x="280" y="36">column</text>
      <text class="words" x="210" y="306" text-anchor="middle">you</text>
      <g transform="translate(210 158)">
        <circle class="thin" [attr.r]="reach" stroke-dasharray="3 5" />
        <circle class="iron" r="15" />
        <path class="axis" d="M-8 0H8M0 -8V8" />
        @for (place of placed(); track place.mark.index) {
          <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
            <path class="seat" d="M-11 -11H11V11H-11Z" />
            <text [attr.x]="place.textX" [attr.y]="place.textY" [attr.text-anchor]="place.anchor">{{ figure(place.mark.text) }}</text>
          </g>
        }
      </g>

      <g transform="translate(508 0)">
        <text class="words" y="16" text-anchor="middle">from the front: tilt</text>
        <path class="thin" d="M-64 140H64" />
        <g [attr.transform]="'rotate(' + turn().tilt + ' 0 62)'">
          <path class="iron" d="M-26 30H26V96H-26Z M-9 96H9V124H-9Z" />
          <path class="ghost" [class.out]="result().out" d="M0 24V132" />
        </g>
        <path class="axis" d="M0 24V132" />
        <circle class="iron" cx="0" cy="62" r="4" />
        <text class="words" x="-64" y="154">left</text>
        <text class="words" x="64" y="154" text-anchor="end">right</text>
      </g>

      <g transform="translate(508 158)">
        <text class="words" y="30" text-anchor="middle">from the right: nod</text>
        <path class="thin" d="M-64 128H90" />
        <path class="iron" d="M96 30H120V140H96Z" fill-opacity="0.5" />
        <g [attr.transform]="'rotate(' + turn().nod + ' ' + pin + ' 62)'">
          <path class="iron" d="M-20 34H20V50H62V74H20V92H-20Z M-9 92H9V114H-9Z" />
          <path class="ghost" [class.out]="result().out" d="M0 28V122" />
        </g>
        <path class="axis" d="M0 28V122" />
        <circle class="iron" [attr.cx]="pin" cy="62" r="5" />
        <text class="words" [attr.x]="pin + 4" y="100" text-anchor="middle">pin</text>
        <path class="iron" [attr.d]="'M' + (-block - 5) + ' 118h10v10h-10Z M' + (block - 5) + ' 118h10v10h-10Z'" />
        <text class="words" x="-64" y="148">you</text>
      </g>
      <text class="words" x="712" y="312" text-anchor="end">errors drawn ×{{ factor() }}</text>
    </svg>
  `,
})
export class HeadOverTable extends SketchBase {
  protected readonly figure = figure;
  protected readonly reach = REACH;
  protected readonly pin = PIN;
  protected readonly block = BLOCK;
  protected readonly factor = computed(() => exaggeration([this.result().h, this.result().v], 9, 0.1));

  /** Degrees as drawn: the top to the right, the top toward the operator, who stands on the left from there. */
  protected readonly turn = computed(() => {
    const degrees = (slope: number | null) => seen((((slope ?? 0) / 1e6) * this.factor() * 180) / Math.PI);
    return { tilt: degrees(this.result().h), nod: -degrees(this.result().v) };
  });

  protected readonly placed = computed(() =>
    this.marks().map((mark) => {
      const radians = (Number(mark.keys['angle']) * Math.PI) / 180;
      const [c, s] = [Math.cos(radians), Math.sin(radians)];
      const beside = Math.abs(c) > 0.3;
      return {
        mark,
        x: seen(REACH * c),
        y: seen(-REACH * s),
        textX: beside ? (c > 0 ? 17 : -17) : 17,
        textY: 5,
        anchor: beside && c < 0 ? 'end' : 'start',
      };
    }),
  );
}
