import type { Round } from '@isometra/contract';

/** What is known of a lathe at one time, µm and µm/m; undefined where nothing has been measured. */
export interface KnownLathe {
  readonly twistPerMetre?: number;
  readonly axisSlopeH?: number;
  readonly axisSlopeV?: number;
  readonly tailH?: number;
  readonly tailV?: number;
}

/** Where each known quantity is read from: check and quantity, the first that has it wins. */
const SOURCES: Readonly<Record<keyof KnownLathe, readonly (readonly [string, string])[]>> = {
  twistPerMetre: [['bed-twist', 'twistPerMetre']],
  axisSlopeH: [
    ['spindle-axis', 'slopeH'],
    ['chuck-test-cut', 'slopeH'],
  ],
  axisSlopeV: [['spindle-axis', 'slopeV']],
  tailH: [
    ['tailstock-traverse', 'offsetHorizontal'],
    ['tailstock-test-cut', 'offsetHorizontal'],
  ],
  tailV: [['tailstock-traverse', 'offsetVertical']],
};

/** What was known after the rounds so far: the latest word on each. */
export function knownFrom(rounds: readonly Round[]): KnownLathe {
  const latest = (check: string, quantity: string): number | undefined =>
    rounds
      .filter((round) => round.check === check)
      .map((round) => round.finding?.quantities[quantity]?.value)
      .filter((value) => value !== undefined)
      .at(-1);
  return Object.fromEntries(
    Object.entries(SOURCES).flatMap(([name, sources]) => {
      const value = sources.map(([check, quantity]) => latest(check, quantity)).find((found) => found !== undefined);
      return value === undefined ? [] : [[name, value]];
    }),
  );
}

/** Drawing units: the bed runs from x = 130 to 870, 0.5 units to the millimetre of a 1.5 m lathe. */
export const FRAME = { nose: 170, tail: 790, perMetre: 620, twistWidth: 46 } as const;

export interface Picture {
  /** From above: + y is down the picture, where the operator stands. */
  readonly plan: { readonly axisEnd: number; readonly tail: number };
  /** From the side: + y is down, so what is high has a smaller y. */
  readonly side: { readonly axisEnd: number; readonly tail: number };
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
  const reach = 0.3;
  const places = [0, 0.25, 0.5, 0.75, 1];
  return {
    plan: { axisEnd: units((known.axisSlopeH ?? 0) * reach), tail: units(known.tailH ?? 0) },
    side: { axisEnd: -units((known.axisSlopeV ?? 0) * reach), tail: -units(known.tailV ?? 0) },
    sections: places.map((part) => ({
      x: FRAME.nose + part * (FRAME.tail - FRAME.nose),
      // Seen from the tailstock end the operator is on the right: operator's side high turns counter-clockwise.
      turn: -(((known.twistPerMetre ?? 0) * part * ((FRAME.tail - FRAME.nose) / FRAME.perMetre)) / 1e6) * factor * (180 / Math.PI),
    })),
  };
}

/** A factor that draws the largest error at about 40 units, within ×100 to ×5000. */
export function fittingFactor(known: KnownLathe): number {
  const largest = Math.max(
    1,
    Math.abs(known.tailH ?? 0),
    Math.abs(known.tailV ?? 0),
    0.3 * Math.abs(known.axisSlopeH ?? 0),
    0.3 * Math.abs(known.axisSlopeV ?? 0),
  );
  const wanted = 40 / ((largest / 1e6) * FRAME.perMetre);
  return [5000, 2000, 1000, 500, 200, 100].find((factor) => factor <= wanted) ?? 100;
}
