import type { RoundBar } from '../gravity/bars.js';
import { dialInstrument, dialReader, type Imperfection, type PracticeDial } from './dial.js';
import type { Random } from '../fit/random.js';
import { addedUpHeld } from './lathe.js';

type RawSheet = Record<string, unknown>;
const sheet = (check: string, dial: PracticeDial, setup: object, readings: readonly object[]): RawSheet => ({
  format: 'isometra-sheet/1',
  check,
  instrument: dialInstrument(dial),
  setup,
  readings,
});

/** Where a spindle lies in its bearings: how far each lets it up, µm. */
export interface PlayTruth {
  readonly front: number;
  readonly rear: number;
  /** How the front lift differs at turns of the spindle, degrees → µm: an oval journal. */
  readonly oval?: Readonly<Record<number, number>>;
}

/**
 * A spindle lifted by hand, read `overhang` mm in front of the front bearing and over the rear one. Lifted at
 * the front it tips about the rear bearing: the nose rises by more than the bearing lets go.
 */
export function spindlePlaySheet(
  truth: PlayTruth,
  dial: PracticeDial,
  at: { span: number; overhang: number },
  imperfection?: Imperfection,
): RawSheet {
  const read = dialReader(dial, imperfection);
  const rise = (lift: number) => lift * (1 + at.overhang / at.span);
  const turns = truth.oval ? Object.entries(truth.oval).map(([turn, more]) => ({ turn: Number(turn), more })) : [{ more: 0 }];
  const readings = [
    ...turns.flatMap(({ more, ...turn }) => [
      { place: 'front', stroke: 'rest', ...turn, value: read(0) },
      { place: 'front', stroke: 'lift', ...turn, value: read(rise(truth.front + more)) },
    ]),
    { place: 'rear', stroke: 'rest', value: read(0) },
    { place: 'rear', stroke: 'lift', value: read(truth.rear) },
  ];
  return sheet('spindle-play', dial, at, readings);
}

/** A casting on its ways: how far each corner goes down when it is pressed, and when it is clamped, µm. */
export interface SeatTruth {
  readonly corners: Readonly<Record<string, { readonly pressed: number; readonly clamped: number }>>;
}

export function seatSheet(truth: SeatTruth, dial: PracticeDial, imperfection?: Imperfection): RawSheet {
  const read = dialReader(dial, imperfection);
  const readings = Object.entries(truth.corners).flatMap(([corner, { pressed, clamped }]) => [
    { corner, state: 'free', value: read(0) },
    { corner, state: 'pressed', value: read(-pressed) },
    { corner, state: 'clamped', value: read(-clamped) },
  ]);
  return sheet('seat', dial, {}, readings);
}

/** Eccentricities of the taper and of a bar in it: µm and where their high sides stand, degrees. */
export interface RunoutTruth {
  readonly spindle: { readonly radius: number; readonly at: number };
  readonly bar: { readonly radius: number; readonly at: number };
}

/** The taper's mouth read over a turn with the bar in, and again with the bar put back half round. */
export function spindleRunoutSheet(
  { spindle, bar }: RunoutTruth,
  dial: PracticeDial,
  imperfection?: Imperfection,
  seen?: Random,
): RawSheet {
  const read = dialReader(dial, imperfection);
  const readings = ([0, 180] as const).flatMap((turn) => {
    const rad = (degrees: number) => (degrees * Math.PI) / 180;
    const offset = (angle: number) =>
      spindle.radius * Math.cos(rad(angle - spindle.at)) + bar.radius * Math.cos(rad(angle - bar.at - turn));
    const round = Array.from({ length: 7200 }, (_, i) => i / 20);
    const high = round.reduce((best, angle) => (offset(angle) > offset(best) ? angle : best), 0);
    const low = round.reduce((best, angle) => (offset(angle) < offset(best) ? angle : best), 0);
    // Where the high place lies is seen to within 8°.
    const place = { feature: 'taperNear', turn, highAt: seen ? high + seen.between(-8, 8) : high };
    return [
      { ...place, extreme: 'high', value: read(offset(high)) },
      { ...place, extreme: 'low', value: read(offset(low)) },
    ];
  });
  return sheet('spindle-runout', dial, {}, readings);
}

/** The point in the headstock running out by a radius: the dial swings by twice that. */
export function centreRunoutSheet(radius: number, dial: PracticeDial, imperfection?: Imperfection): RawSheet {
  const read = dialReader(dial, imperfection);
  const readings = (['high', 'low'] as const).map((extreme) => ({
    feature: 'radial',
    extreme,
    value: read(extreme === 'high' ? radius : -radius),
  }));
  return sheet('centre-runout', dial, {}, readings);
}

export interface ChuckCutTruth {
  /** Of the axis to the carriage's travel, µm/m, + toward the operator. */
  readonly slopeH: number;
  readonly twistPerMetre?: number;
}

/** Pads turned in a chuck: the tool keeps to the carriage's line, the work to the spindle's axis. Diameters in mm. */
export function chuckCutSheet(
  truth: ChuckCutTruth,
  practice: {
    readonly places: readonly number[];
    readonly diameter: number;
    readonly tool: 'operator' | 'rear';
    readonly heightAboveWays: number;
  },
): RawSheet {
  const { places, diameter, tool, heightAboveWays } = practice;
  const { slopeH, twistPerMetre = 0 } = truth;
  const readings = places.map((at) => {
    // A carriage that rolls back with the bed takes the tool tip away from the operator, so the work seems to come forward.
    const axis = ((slopeH + (twistPerMetre * heightAboveWays) / 1000) * at) / 1000;
    const radius = diameter / 2 + (tool === 'operator' ? -axis : axis) / 1000;
    return { at, value: 2 * radius };
  });
  return {
    format: 'isometra-sheet/1',
    check: 'chuck-test-cut',
    instrument: { kind: 'micrometer', graduation: '1 um' },
    setup: { tool, twistPerMetre, heightAboveWays },
    readings,
  };
}

/** A bar held in the quill, read along it in both planes; it droops and is pushed away like any held bar. */
export function quillSheet(
  truth: { readonly slopeH: number; readonly slopeV: number },
  practice: {
    readonly bar: RoundBar;
    readonly freeLength: number;
    readonly places: readonly number[];
    readonly side: 'operator' | 'rear';
    readonly dial: PracticeDial;
    readonly imperfection?: Imperfection;
  },
): RawSheet {
  const { bar, freeLength, places, side, dial, imperfection } = practice;
  const read = dialReader(dial, imperfection);
  const readings = (['h', 'v'] as const).flatMap((plane) =>
    places.map((at) => {
      const { sag, push } = addedUpHeld(bar, freeLength, at, dial.contactForce ?? 0);
      const stands = plane === 'h' ? (truth.slopeH * at) / 1000 : (truth.slopeV * at) / 1000 - sag;
      return { plane, at, value: read((plane === 'h' && side === 'rear' ? -stands : stands) - push) };
    }),
  );
  return sheet('quill-parallelism', dial, { bar, freeLength, side }, readings);
}

/**
 * A disc faced by a cross slide that runs off square by `slope` µm/m (+ hollow), read past the centre by the
 * same slide: there the disc falls away by as much again as the slide does.
 */
export function facedDiscSheet(slope: number, places: readonly number[], dial: PracticeDial, imperfection?: Imperfection): RawSheet {
  const read = dialReader(dial, imperfection);
  // Facing goes from rim to centre; the surface it leaves is a cone. On the far side that cone and the slide part twice.
  const readings = places.map((at) => ({ at, value: read((2 * slope * at) / 1000) }));
  return sheet('cross-slide-squareness', dial, { method: 'faced-disc' }, readings);
}
