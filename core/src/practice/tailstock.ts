import { barStiffness, type RoundBar } from '../gravity/bars.js';
import { dialInstrument, dialReader, type Imperfection, type PracticeDial } from './dial.js';

/** Where a practice tailstock truly stands, µm in the carriage's frame; the axis slopes in µm/m. */
export interface TailstockTruth {
  readonly offsetHorizontal: number;
  readonly offsetVertical: number;
  readonly axisSlopeH?: number;
  readonly axisSlopeV?: number;
}

type RawSheet = Record<string, unknown>;

/** Droop of a bar between its ends by adding up its curvature, mm → µm. No closed formula: it checks them. */
export function addedUpSag(bar: RoundBar, length: number, at: number): number {
  const { ei, q } = barStiffness(bar);
  const steps = 2000;
  const l = length / 1000;
  const dx = l / steps;
  let slope = 0;
  let height = 0;
  const heights = [0];
  for (let i = 0; i < steps; i++) {
    const x = (i + 0.5) * dx;
    const moment = (q * x * (l - x)) / 2;
    const before = slope;
    slope += (moment / ei) * dx;
    height += ((before + slope) / 2) * dx;
    heights.push(height);
  }
  const tilt = heights[steps] / l;
  const index = (at / length) * steps;
  const low = Math.min(steps - 1, Math.floor(index));
  const level = heights[low] + (heights[low + 1] - heights[low]) * (index - low);
  return -1e6 * (level - tilt * (at / 1000));
}

export interface TraversePractice {
  readonly centreDistance: number;
  readonly stations: readonly number[];
  readonly bar: RoundBar;
  /** Bow of the bar toward its own mark at its middle, µm. */
  readonly bow?: number;
  readonly turned?: boolean;
  readonly side?: 'operator' | 'rear';
  readonly dial: PracticeDial;
  readonly imperfection?: Imperfection;
}

/** A bar between centres traversed by the carriage: readings that the truth would give. */
export function traverseSheet(truth: TailstockTruth, practice: TraversePractice): RawSheet {
  const { centreDistance: length, stations, bar, bow = 0, turned = false, side = 'operator', dial, imperfection } = practice;
  const read = dialReader(dial, imperfection);
  const error = imperfection ? stations.map(() => imperfection.random.between(-0.9, 0.9)) : stations.map(() => 0);
  const readings: Record<string, unknown>[] = [];
  for (const turn of turned ? [0, 180] : [0]) {
    const own = turn === 0 ? 1 : -1;
    for (const plane of ['h', 'v'] as const) {
      stations.forEach((at, i) => {
        const part = at / length;
        const bend = own * (bow * Math.sin(Math.PI * part) + error[i]);
        const centre =
          plane === 'h' ? truth.offsetHorizontal * part + bend : truth.offsetVertical * part + bend - addedUpSag(bar, length, at);
        const toward = plane === 'h' && side === 'rear' ? -centre : centre;
        readings.push({ plane, at, ...(turned && { turn }), value: read(toward - pushed(bar, length, dial.contactForce ?? 0, at)) });
      });
    }
  }
  return {
    format: 'isometra-sheet/1',
    check: 'tailstock-traverse',
    instrument: dialInstrument(dial),
    setup: { centreDistance: length, side, bar },
    readings,
  };
}

/** Deflection under a force at x by Castigliano's sum over the bar, µm. */
function pushed(bar: RoundBar, length: number, force: number, at: number): number {
  if (force === 0) return 0;
  const { ei } = barStiffness(bar);
  const l = length / 1000;
  const a = at / 1000;
  const steps = 4000;
  let energy = 0;
  for (let i = 0; i < steps; i++) {
    const x = ((i + 0.5) * l) / steps;
    const moment = x < a ? (x * (l - a)) / l : (a * (l - x)) / l;
    energy += moment ** 2 * (l / steps);
  }
  return (1e6 * force * energy) / ei;
}

export interface SweepPractice {
  readonly feature: 'outside' | 'bore';
  readonly radius: number;
  readonly angles: readonly number[];
  /** mm from the nose. */
  readonly distance: number;
  readonly axisKnown?: boolean;
  readonly dial: PracticeDial;
  readonly imperfection?: Imperfection;
}

/** An indicator carried round by the spindle, by the distance from the axis to the surface along each ray. */
export function sweepSheet(truth: TailstockTruth, practice: SweepPractice): RawSheet {
  const { feature, radius, angles, distance, axisKnown = false, dial, imperfection } = practice;
  const read = dialReader(dial, imperfection);
  const { axisSlopeH = 0, axisSlopeV = 0 } = truth;
  const h = (truth.offsetHorizontal - (axisSlopeH * distance) / 1000) / 1000;
  const v = (truth.offsetVertical - (axisSlopeV * distance) / 1000) / 1000;
  const outward = feature === 'outside' ? 1 : -1;
  const readings = angles.map((angle) => {
    const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
    const along = h * c + v * s;
    const surface = along + Math.sqrt(radius ** 2 - (h ** 2 + v ** 2 - along ** 2));
    const droop = (outward * (dial.holderSag ?? 0) * (1 - s)) / 2;
    return { angle, value: read(1000 * outward * (surface - radius) + droop) };
  });
  const axis = axisKnown ? { distance, axisSlopeH, axisSlopeV } : {};
  return { format: 'isometra-sheet/1', check: 'tailstock-sweep', instrument: dialInstrument(dial), setup: { feature, ...axis }, readings };
}

export interface CutPractice {
  readonly centreDistance: number;
  readonly stations: readonly number[];
  readonly diameter: number;
  readonly held?: 'centres' | 'chuck';
  readonly tool?: 'operator' | 'rear';
  readonly heightKnown?: boolean;
  /** Micrometer division, µm. */
  readonly graduation: number;
  readonly imperfection?: Imperfection;
}

/** A bar turned where it stands: the tool runs true with the carriage, the work swings or bends about the head. */
export function cutSheet(truth: TailstockTruth, practice: CutPractice): RawSheet {
  const {
    centreDistance: length,
    stations,
    diameter,
    held = 'centres',
    tool = 'operator',
    heightKnown = false,
    graduation,
    imperfection,
  } = practice;
  const side = tool === 'operator' ? 1 : -1;
  const readings = stations.map((at) => {
    const part = held === 'chuck' ? bentPart(at / length) : at / length;
    const h = (truth.offsetHorizontal * part) / 1000;
    const v = (truth.offsetVertical * part) / 1000;
    const size = 2 * Math.hypot((side * diameter) / 2 - h, v);
    if (!imperfection) return { at, value: size };
    const read = (size * 1000 + imperfection.repeat * imperfection.random.normal()) / graduation;
    return { at, value: (Math.round(read * 2) / 2) * (graduation / 1000) };
  });
  return {
    format: 'isometra-sheet/1',
    check: 'tailstock-test-cut',
    instrument: { kind: 'micrometer', graduation: `${graduation} um`, readTo: 0.5 },
    setup: { centreDistance: length, held, tool, bar: { diameter }, ...(heightKnown && { heightError: `${truth.offsetVertical} um` }) },
    readings,
  };
}

/** A cantilever pushed at its end, by adding up its curvature; 1 at the end. */
function bentPart(part: number): number {
  const steps = 2000;
  let slope = 0;
  let height = 0;
  let here = 0;
  for (let i = 0; i < steps; i++) {
    const x = (i + 0.5) / steps;
    const before = slope;
    slope += (1 - x) / steps;
    height += (before + slope) / 2 / steps;
    if (x <= part) here = height;
  }
  return here / height;
}
