import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { Mark } from './mark';
import { figure, type SketchMark } from './model';
import { SketchBase } from './sketch-base';

interface Spot {
  readonly x: number;
  readonly y: number;
  /** Which way the stylus comes: from above, from the right along the axis. */
  readonly from: 'above' | 'axis';
  readonly name: string;
}

/** Where the named places of a headstock are on its side view. */
const SPOTS: Readonly<Record<string, Spot>> = {
  front: { x: 404, y: -34, from: 'above', name: 'front bearing' },
  rear: { x: 120, y: -34, from: 'above', name: 'rear bearing' },
  noseRadial: { x: 466, y: -30, from: 'above', name: 'nose' },
  taperNear: { x: 506, y: -12, from: 'above', name: 'taper, mouth' },
  taperFar: { x: 660, y: -12, from: 'above', name: 'bar, far' },
  face: { x: 492, y: 24, from: 'axis', name: 'face' },
  axialSlip: { x: 676, y: 0, from: 'axis', name: 'along the axis' },
  radial: { x: 560, y: -6, from: 'above', name: 'point of the centre' },
};

const TIPS = { above: 'M0 0 8 -15H-8Z', axis: 'M0 0 15 -8V8Z' } as const;

/** A headstock from the side, with the places that have a name: bearings, nose, taper, face, point. */
@Component({
  selector: 'iso-headstock-side',
  imports: [Mark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './marks.css',
  template: `
    <svg viewBox="0 0 720 270" role="group" aria-label="Headstock from the side, with the places to read">
      <g transform="translate(0 138)">
        <path class="iron" d="M70 -70H440V70H70Z" />
        <path class="iron" d="M96 -30H144V30H96Z M380 -30H428V30H380Z" fill-opacity="0.6" />
        <path class="iron" d="M40 -18H440V18H40Z" fill-opacity="0.6" />
        <path class="iron" d="M440 -30H488V30H440Z" />
        <path class="iron" d="M488 -9H672V9H488Z" fill-opacity="0.6" />
        <line class="axis" x1="20" x2="705" y1="0" y2="0" />
        @for (place of spots(); track place.mark.index) {
          <g [isoMark]="place.mark" [pick]="pick()" [attr.transform]="'translate(' + place.x + ' ' + place.y + ')'">
            <path class="seat" [attr.d]="place.tip" />
            <text [attr.x]="place.textX" [attr.y]="place.textY" text-anchor="middle">{{ place.words }}</text>
          </g>
        }
        @for (name of names(); track name.text) {
          <text class="words" [attr.x]="name.x" [attr.y]="name.y" text-anchor="middle">{{ name.text }}</text>
        }
      </g>
    </svg>
  `,
})
export class HeadstockSide extends SketchBase {
  /** The place of a mark: its feature or its bearing. */
  private spotOf(mark: SketchMark): Spot | undefined {
    return SPOTS[String(mark.keys['feature'] ?? mark.keys['place'] ?? '')];
  }

  protected readonly spots = computed(() => {
    const seen = new Map<Spot, number>();
    return this.marks().flatMap((mark) => {
      const spot = this.spotOf(mark);
      if (!spot) return [];
      const before = seen.get(spot) ?? 0;
      seen.set(spot, before + 1);
      // The two readings of a place stand side by side, further ones above them.
      const [column, row] = [before % 2, Math.floor(before / 2)];
      const side = spot.from === 'above';
      const word = String(mark.keys['extreme'] ?? mark.keys['stroke'] ?? '');
      return [
        {
          mark,
          x: spot.x + (side ? (column ? 17 : -17) : row * 34),
          y: spot.y + (side ? -row * 34 : column ? 12 : -12),
          tip: TIPS[spot.from],
          textX: side ? (column ? 14 : -14) : 40,
          textY: side ? -20 : 5,
          words: figure(mark.text) || (mark.state === 'next' ? word : ''),
        },
      ];
    });
  });

  protected readonly names = computed(() => {
    const spots = [...new Set(this.marks().flatMap((mark) => this.spotOf(mark) ?? []))];
    return spots.map(({ name, x, from, y }) => ({ text: name, x: from === 'axis' ? x + 4 : x, y: from === 'axis' ? y + 40 : 92 }));
  });
}
