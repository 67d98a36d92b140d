import { linearEstimate, type Estimate } from './estimate.js';
import type { Note } from './define.js';
import { halvesOf, openText } from './reversal.js';
import { slotsWhere, type Slot } from '../instruments/slots.js';
import type { Form } from './estimate.js';
import { redundant, type Fit } from './fits.js';

/** Keys of a level's readings. */
export interface LevelKeys {
  readonly at?: number;
  readonly end?: 'forward' | 'reversed';
}

/** A level read at one place: the slope there as a form on the slots, less a share of the level's own zero. */
interface LevelStation {
  readonly at: number;
  readonly form: Form;
  /** +1 or −1 where the place was read one way only; 0 where it was turned end for end. */
  readonly zeroShare: number;
}

/** All places of a level, and what is known of its own zero. */
export interface LevelRun {
  /** By place, smallest first. */
  readonly stations: readonly LevelStation[];
  /** µm/m that is known of the level's zero. */
  readonly known: number | undefined;
  /** Slots of the places that were turned end for end: forward, reversed. */
  readonly zeros: readonly (readonly [forward: number, reversed: number])[];
  /** Mean of the zeros found at the finished places, as weights; undefined when there is none. */
  readonly learned: readonly number[] | undefined;
  /** What has still to be read, or why it may not be judged. */
  readonly open: string | undefined;
  readonly notes: readonly Note[];
}

const ZERO_UNKNOWN: Note = {
  code: 'level-zero-unknown',
  severity: 'warning',
  text: 'The level was never turned end for end and its own zero is not known: it is still in the result. Turn it on the same spot and read again, or give its zero.',
};

/**
 * Slopes at the places of a level. Turned end for end, a then b on its own scale: slope (a − b)/2 and its zero
 * error (a + b)/2. Read one way only, the known zero is taken off, or the mean of those found at the finished
 * places; such a round is open, and one whose zero nobody knows is not judged.
 *
 * @param levelZero µm/m; undefined when it is not known.
 */
export function levelRun<Keys extends LevelKeys>(
  slots: readonly Slot<Keys>[],
  levelZero: number | undefined,
  use: (slot: Slot<Keys>) => boolean = () => true,
): LevelRun {
  const used = slotsWhere(slots, use);
  const places = new Map<number, { forward?: number; reversed?: number }>();
  for (const i of used) {
    const { at = 0, end } = slots[i].keys;
    places.set(at, { ...places.get(at), [end === 'reversed' ? 'reversed' : 'forward']: i });
  }
  const zeros: (readonly [number, number])[] = [];
  const stations = [...places]
    .sort(([a], [b]) => a - b)
    .map(([at, { forward, reversed }]): LevelStation => {
      if (forward !== undefined && reversed !== undefined) {
        zeros.push([forward, reversed]);
        const form = [
          [forward, 0.5],
          [reversed, -0.5],
        ] as const;
        return { at, zeroShare: 0, form };
      }
      const sign = forward !== undefined ? 1 : -1;
      return { at, zeroShare: sign, form: [[(forward ?? reversed) as number, sign]] };
    });
  const learned = zeros.length ? meanOfPairs(zeros, slots.length) : undefined;
  if (levelZero !== undefined) return { stations, known: levelZero, zeros, learned, open: undefined, notes: [] };
  const halves = halvesOf<LevelKeys>(slots as readonly Slot<LevelKeys>[], 'end', ['forward', 'reversed'], ['at'], (slot) =>
    use(slot as Slot<Keys>),
  );
  const unknown = stations.length > 0 && !learned;
  return {
    stations,
    known: undefined,
    zeros,
    learned,
    open: openText(halves, 'turn the level end for end there') ?? (unknown ? 'the level has to be turned end for end' : undefined),
    notes: unknown ? [ZERO_UNKNOWN] : [],
  };
}

function meanOfPairs(pairs: readonly (readonly [number, number])[], size: number): number[] {
  const weights = new Array<number>(size).fill(0);
  for (const pair of pairs) for (const slot of pair) weights[slot] += 0.5 / pairs.length;
  return weights;
}

/** Σ cₖ·slopeₖ as weights on the slots, and the constant that the known zero adds. */
export function combineSlopes(
  { stations, known, learned }: LevelRun,
  factors: readonly number[],
  size: number,
): { weights: number[]; constant: number } {
  const weights = new Array<number>(size).fill(0);
  let share = 0;
  stations.forEach(({ form, zeroShare }, k) => {
    for (const [slot, weight] of form) weights[slot] += factors[k] * weight;
    share += factors[k] * zeroShare;
  });
  if (known === undefined && learned && share !== 0) learned.forEach((weight, i) => (weights[i] -= share * weight));
  return { weights, constant: known === undefined ? 0 : -share * known + 0 };
}

/** The slopes themselves, µm/m, for values of the slots. */
export function slopesOf({ stations, known, learned }: LevelRun, values: ArrayLike<number>): Float64Array {
  let zero = known ?? 0;
  if (known === undefined && learned) {
    zero = 0;
    for (let i = 0; i < learned.length; i++) zero += learned[i] * values[i];
  }
  const slopes = new Float64Array(stations.length);
  for (let k = 0; k < stations.length; k++) {
    const { form, zeroShare } = stations[k];
    let slope = -zeroShare * zero;
    for (const [slot, weight] of form) slope += weight * values[slot];
    slopes[k] = slope;
  }
  return slopes;
}

/** The level's own zero, where a place was read both ways. */
export const levelZeroEstimate = (runs: readonly LevelRun[]): Estimate[] => {
  const learned = runs.flatMap((run) => (run.learned ? [run.learned] : []));
  if (learned.length === 0) return [];
  return [
    linearEstimate(
      'levelZero',
      learned[0].map((_, i) => learned.reduce((sum, form) => sum + form[i], 0) / learned.length),
    ),
  ];
};

/** The term of a known zero; none where nothing was taken off. */
export const zeroTerm = (constant: number): Record<string, number> => (Math.abs(constant) > 1e-9 ? { levelZero: constant } : {});

/**
 * One level has one zero: what it shows at the places where it was turned end for end must agree.
 *
 * @param known µm/m, told of the zero beside the readings. @param widens quantities that it is taken out of.
 */
export function zeroFits(runs: readonly LevelRun[], widens: readonly string[]): readonly Fit[] {
  const observations = runs.flatMap(({ zeros, known }) =>
    zeros.map(([a, b]) => ({
      form: [
        [a, 0.5],
        [b, 0.5],
      ] as const,
      row: known === undefined ? [1] : [],
      ...(known !== undefined && { added: -known }),
    })),
  );
  const fit: Fit = { shape: 'level-zero', observations, widens };
  return [fit].filter(redundant);
}

/** Slopes that should lie on a line along what was read. */
export function slopeFit({ stations, known, learned }: LevelRun, options: Pick<Fit, 'widens' | 'measured'>): readonly Fit[] {
  const observations = stations
    .filter(({ zeroShare }) => zeroShare === 0 || known !== undefined || learned === undefined)
    .map(({ at, form, zeroShare }) => ({ form, row: [1, at], added: -zeroShare * (known ?? 0) }));
  const fit: Fit = { shape: 'line', observations, ...options };
  return [fit].filter(redundant);
}
