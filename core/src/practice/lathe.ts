import type { RoundBar } from '../gravity/bars.js';
import { barStiffness } from '../gravity/bars.js';
import { dialInstrument, dialReader, type Imperfection, type PracticeDial } from './dial.js';

type RawSheet = Record<string, unknown>;
const sheet = (
  check: string,
  instrument: Record<string, unknown>,
  setup: Record<string, unknown>,
  readings: readonly Record<string, unknown>[],
): RawSheet => ({
  format: 'isometra-sheet/1',
  check,
  instrument,
  setup,
  readings,
});

/** A level with a zero error of its own, in divisions of `graduation` µm/m. */
export interface PracticeLevel {
  readonly graduation: number;
  readonly zero: number;
  readonly imperfection?: Imperfection;
}

const levelInstrument = ({ graduation }: PracticeLevel): Record<string, unknown> => ({ kind: 'level', graduation: `${graduation} um/m` });

/** What a level shows on a slope, one way round and turned end for end: tilt and vial, no formula. */
function levelReads(slope: number, level: PracticeLevel): { forward: number; reversed: number } {
  const noise = () => (level.imperfection ? level.imperfection.repeat * level.imperfection.random.normal() : 0);
  const read = (tilt: number) => {
    const exact = (tilt + noise()) / level.graduation;
    return level.imperfection ? Math.round(exact * 2) / 2 : exact;
  };
  return { forward: read(slope + level.zero), reversed: read(-slope + level.zero) };
}

/** A bed whose roll changes along it: roll(z) in µm/m. */
export function bedTwistSheet(roll: (z: number) => number, places: readonly number[], level: PracticeLevel): RawSheet {
  const readings = places.flatMap((at) => {
    const { forward, reversed } = levelReads(roll(at), level);
    return [
      { at, end: 'forward', value: forward },
      { at, end: 'reversed', value: reversed },
    ];
  });
  return sheet('bed-twist', levelInstrument(level), {}, readings);
}

/** A way with heights (µm) stepped over by a level on a foot of `base` mm: the foot stands on two points. */
export function levelStepsSheet(height: (z: number) => number, base: number, steps: number, level: PracticeLevel): RawSheet {
  const readings = Array.from({ length: steps }, (_, i) => i * base).flatMap((at) => {
    const { forward, reversed } = levelReads(((height(at + base) - height(at)) / base) * 1000, level);
    return [
      { at, end: 'forward', value: forward },
      { at, end: 'reversed', value: reversed },
    ];
  });
  return sheet('way-straightness', levelInstrument(level), { method: 'level-steps', base }, readings);
}

/** The same way against a straightedge that is not straight itself, facing one way and rolled over. */
export function straightedgeSheet(
  height: (z: number) => number,
  edge: (z: number) => number,
  places: readonly number[],
  dial: PracticeDial,
): RawSheet {
  const read = dialReader(dial);
  // The carriage takes the indicator off by the way's height; the edge stands off by its own.
  const facing = places.map((at) => ({ at, edge: 'toward-operator', value: read(edge(at) - height(at)) }));
  const over = places.map((at) => ({ at, edge: 'away', value: read(edge(at) + height(at)) }));
  return sheet('way-straightness', dialInstrument(dial), { method: 'straightedge' }, [...facing, ...over]);
}

export interface AxisTruth {
  /** µm/m, + toward the operator and + free end up. */
  readonly slopeH: number;
  readonly slopeV: number;
  /** The bar's own bend: µm at 300 mm out, and its place round the spindle in degrees. */
  readonly bend?: number;
  readonly twistPerMetre?: number;
}

export interface AxisPractice {
  readonly bar: RoundBar & { readonly freeLength: number; readonly finish?: 'ground' | 'drawn' };
  readonly places: readonly number[];
  readonly side?: 'operator' | 'rear';
  readonly heightAboveWays?: number;
  /** µm on radius by which the bar is thicker at a place. */
  readonly uneven?: (at: number) => number;
  readonly dial: PracticeDial;
  readonly imperfection?: Imperfection;
}

/** Droop and push of a held bar by adding up its curvature from the grip outward, µm down / away. */
export function addedUpHeld(bar: RoundBar, length: number, at: number, force: number): { sag: number; push: number } {
  const { ei, q } = barStiffness(bar);
  const steps = 4000;
  const dx = at / 1000 / steps;
  let [slopeSag, sag, slopePush, push] = [0, 0, 0, 0];
  for (let i = 0; i < steps; i++) {
    const x = (i + 0.5) * dx;
    const [before, beforePush] = [slopeSag, slopePush];
    slopeSag += ((q * (length / 1000 - x) ** 2) / 2 / ei) * dx;
    slopePush += ((force * (at / 1000 - x)) / ei) * dx;
    sag += ((before + slopeSag) / 2) * dx;
    push += ((beforePush + slopePush) / 2) * dx;
  }
  return { sag: 1e6 * sag, push: 1e6 * push };
}

/** A bent, drooping bar turned by hand: highest and lowest at each place, on a carriage that rolls with a twisted bed. */
export function spindleAxisSheet(truth: AxisTruth, practice: AxisPractice): RawSheet {
  const { bar, places, side = 'operator', heightAboveWays = 0, uneven = () => 0, dial, imperfection } = practice;
  const read = dialReader(dial, imperfection);
  const { slopeH, slopeV, bend = 0, twistPerMetre = 0 } = truth;
  const readings = (['h', 'v'] as const).flatMap((plane) =>
    places.flatMap((at) => {
      const { sag, push } = addedUpHeld(bar, bar.freeLength, at, dial.contactForce ?? 0);
      // Operator's side high going out: the carriage leans back at the height of the spindle and the bar seems to come forward.
      const roll = (twistPerMetre * (at / 1000) * heightAboveWays) / 1000;
      const centre = plane === 'h' ? (slopeH * at) / 1000 + roll : (slopeV * at) / 1000 - sag;
      const toward = plane === 'h' && side === 'rear' ? -centre : centre;
      const swing = Math.abs(bend) * (at / 300) ** 2;
      const values = Array.from({ length: 72 }, (_, i) => toward + uneven(at) + swing * Math.cos((i * Math.PI) / 36) - push);
      // The highest and the lowest are called as they are seen: whichever of two readings is nearer the stylus is the high.
      const [one, other] = [read(Math.max(...values)), read(Math.min(...values))];
      const inOrder = (one - other) * dial.sense >= 0;
      return [
        { plane, at, extreme: 'high', value: inOrder ? one : other },
        { plane, at, extreme: 'low', value: inOrder ? other : one },
      ];
    }),
  );
  const known = twistPerMetre !== 0 ? { twistPerMetre, heightAboveWays } : {};
  return sheet('spindle-axis', dialInstrument(dial), { bar, side, ...known }, readings);
}
