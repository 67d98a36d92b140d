import type { HeightAt } from '@isometra/core';
import type { KnownLathe } from '@isometra/work';

/** Drawing units: the bed runs from x = 130 to 870, 0.5 units to the millimetre of a 1.5 m lathe. */
export const FRAME = { nose: 170, tail: 790, perMetre: 620, twistWidth: 46, bedTop: 60, bedEnd: 920, slide: 72 } as const;

export interface Picture {
  /** From above: + y is down the picture, where the operator stands. */
  readonly plan: {
    readonly axisEnd: number;
    readonly tail: number;
    /** Turn of the quill in degrees, clockwise. */
    readonly quill: number;
    /** How far the rear end of the cross slide lies toward the headstock (−) of square; undefined when not known. */
    readonly slide?: number;
  };
  /** From the side: + y is down, so what is high has a smaller y. */
  readonly side: {
    readonly axisEnd: number;
    readonly tail: number;
    readonly quill: number;
    /** Top edge of the bed as a path, bent as the way was found that was read last. */
    readonly bed: string;
    /** The other ways that were read, each as a line over the bed. */
    readonly ways: readonly { readonly name: string; readonly path: string }[];
  };
  /** Roll of cross-sections along the bed: place (x) and turn in degrees, clockwise as seen from the tailstock end. */
  readonly sections: readonly { readonly x: number; readonly turn: number }[];
}

/**
 * The lathe bent by what is known of it, in drawing units from the true line. One drawing unit of
 * deviation is 1000/`factor`·(1000/620) µm: the factor is printed on the picture.
 *
 * @param factor exaggeration, 100 to 5000.
 */
export function pictureOf(known: KnownLathe, factor: number): Picture {
  const units = (um: number): number => (um / 1e6) * FRAME.perMetre * factor;
  const degrees = (slope: number): number => (slope / 1e6) * factor * (180 / Math.PI);
  const reach = 0.3;
  const ways = known.ways ?? [];
  const places = [0, 0.25, 0.5, 0.75, 1];
  return {
    plan: {
      axisEnd: units((known.axisSlopeH ?? 0) * reach),
      tail: units(known.tailH ?? 0),
      // The free end is on the left: turned against the clock it comes down, toward the operator.
      quill: -degrees(known.quillH ?? 0),
      // Square to the bed a slide faces hollow by the axis' own slope; what is more is the slide's, its rear toward the headstock.
      ...(known.facing !== undefined && { slide: -((known.facing - (known.axisSlopeH ?? 0)) / 1e6) * factor * FRAME.slide }),
    },
    side: {
      axisEnd: -units((known.axisSlopeV ?? 0) * reach),
      tail: -units(known.tailV ?? 0),
      quill: degrees(known.quillV ?? 0),
      bed: lineThrough([`40 ${FRAME.bedTop}`, ...wayPoints(ways.at(-1)?.heights ?? [], units), `${FRAME.bedEnd} ${FRAME.bedTop}`]),
      ways: ways.slice(0, -1).map(({ name, heights }) => ({ name, path: lineThrough(wayPoints(heights, units)) })),
    },
    sections: places.map((part) => ({
      x: FRAME.nose + part * (FRAME.tail - FRAME.nose),
      // Seen from the tailstock end the operator is on the right: operator's side high turns counter-clockwise.
      turn: -(((known.twistPerMetre ?? 0) * part * ((FRAME.tail - FRAME.nose) / FRAME.perMetre)) / 1e6) * factor * (180 / Math.PI),
    })),
  };
}

/** Points of the top of the bed along a way: high where it is high, nothing where nothing is known. */
function wayPoints(way: readonly HeightAt[], units: (um: number) => number): string[] {
  // A way longer than the drawing is drawn shorter: what counts is where along it the height is.
  const perMm = Math.min(FRAME.perMetre / 1000, (FRAME.bedEnd - FRAME.nose) / Math.max(1, ...way.map(({ at }) => at)));
  return way.map(({ at, height }) => `${FRAME.nose + at * perMm} ${FRAME.bedTop - units(height)}`);
}

const lineThrough = (points: readonly string[]): string => `M${points.join(' L')}`;

/** A factor that draws the largest error at about 40 units, within ×100 to ×5000. */
export function fittingFactor(known: KnownLathe): number {
  const largest = Math.max(
    1,
    Math.abs(known.tailH ?? 0),
    Math.abs(known.tailV ?? 0),
    0.3 * Math.abs(known.axisSlopeH ?? 0),
    0.3 * Math.abs(known.axisSlopeV ?? 0),
    ...(known.ways ?? []).flatMap(({ heights }) => heights.map(({ height }) => Math.abs(height))),
  );
  const wanted = 40 / ((largest / 1e6) * FRAME.perMetre);
  return [5000, 2000, 1000, 500, 200, 100].find((factor) => factor <= wanted) ?? 100;
}
