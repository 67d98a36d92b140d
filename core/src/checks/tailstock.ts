import { choice, optionalMeasure } from '../input/fields.js';
import { spot } from './persons.js';
import type { Correction, JobRules, Note, QuantityInfo } from './define.js';
import { linearEstimate, type Doubt, type Estimate } from './estimate.js';
import { HEIGHT, LATERAL } from './words.js';
import { unlimited } from './quantities.js';
import { axisShift } from './setupFields.js';
import { say } from './sums.js';

/** Where the tail centre stands: toward or away from the operator at most 15 µm, and never low. */
export const TAILSTOCK_QUANTITIES: Readonly<Record<'offsetHorizontal' | 'offsetVertical', QuantityInfo>> = {
  offsetHorizontal: {
    label: 'Tailstock sideways',
    subject: 'Tailstock',
    dimension: 'deviation',
    unit: 'um',
    limit: [-15, 15],
    words: LATERAL,
    work: { perUnit: 2, what: 'taper on diameter from centre to centre' },
  },
  offsetVertical: {
    label: 'Tailstock height',
    subject: 'Tailstock',
    dimension: 'deviation',
    unit: 'um',
    limit: [0, 20],
    // A quarter of the zone up: wear takes it down, and low is never right.
    aim: 5,
    follows: { height: -1 },
    work: { perUnit: 2, what: 'over size at the mouth of a reamed hole, at most' },
    words: HEIGHT,
  },
};

export const TAILSTOCK_CORRECTIONS: Readonly<Record<string, Correction>> = {
  offsetHorizontal: { plus: ['adjuster', 'eccentric', 'sleeve-middle'], minus: ['adjuster', 'eccentric', 'sleeve-middle'] },
  offsetVertical: { plus: ['shim-leaves', 'base-shims'], minus: ['scrape'] },
};

export const TAILSTOCK_CAUTIONS: readonly string[] = [
  'Isolate and lock out the machine before hands go near the spindle. Never power a spindle with an indicator or bar set up.',
  'Loosen the tailstock to snug, never free: a casting that slides off its shims pinches fingers.',
  'Shim edges cut. Deburr them and wear gloves.',
];

const VIEWS = [
  { plane: 'h', offset: 'offsetHorizontal', carriage: 'carriageOffsetHorizontal', spindle: 'spindleOffsetHorizontal' },
  { plane: 'v', offset: 'offsetVertical', carriage: 'carriageOffsetVertical', spindle: 'spindleOffsetVertical' },
] as const;

/** A slope given for the axis is trusted to 5 µm/m when nothing else is said. */
export const AXIS_DOUBT = 5;

/**
 * The same offset seen by the other reference: the carriage's for a sweep (offset + axisSlope·a),
 * the spindle's for a traverse or a cut (offset − axisSlope·a).
 */
export function otherView(
  estimates: readonly Estimate[],
  setup: Parameters<typeof axisShift>[0],
  view: 'carriage' | 'spindle',
): Estimate[] {
  return VIEWS.flatMap((entry) => {
    const own = estimates.find((estimate) => estimate.name === entry.offset);
    const shift = axisShift(setup, entry.plane);
    if (!own || shift === undefined) return [];
    const axis = view === 'carriage' ? shift : -shift;
    const doubt = (AXIS_DOUBT * (setup.distance ?? 0)) / 1000;
    return [
      linearEstimate(entry[view], own.weights, {
        terms: { ...own.terms, axis },
        open: own.open,
        never: own.never,
        doubts: [...own.doubts, { source: 'spindle-axis', u: doubt }],
      }),
    ];
  });
}

/** Quantities of the other view. */
export function viewQuantities(view: 'carriage' | 'spindle'): Record<string, QuantityInfo> {
  const who = view === 'carriage' ? 'as the carriage sees it' : 'as the spindle sees it';
  return {
    [`${view}OffsetHorizontal`]: unlimited(`Sideways, ${who}`, 'deviation', 'um', { words: LATERAL, subject: 'Tailstock' }),
    [`${view}OffsetVertical`]: unlimited(`Height, ${who}`, 'deviation', 'um', { words: HEIGHT, subject: 'Tailstock' }),
  };
}

/** A live centre's own runout: ±3 µm, evenly likely. */
export function centreDoubt(centre: string | undefined): Doubt[] {
  return centre === 'live' ? [{ source: 'live-centre', u: 3 / Math.sqrt(3) }] : [];
}

/** How far the point in the headstock runs out in a turn, µm: it carries one end of a bar between centres. */
export const headCentreRunout = () =>
  optionalMeasure('deviation', {
    label: 'Headstock centre runout',
    from: 'centreRunout',
    min: 0,
    example: '0.004 mm',
    engraved: true,
    usual: [0.5, 300],
    help: 'In a whole turn. Half of it adds to the result in an unknown direction, unless the spindle is turned half round and both are averaged.',
  });

/** Where the point stands in its circle is not known: half its runout, by the mean square of a sine. */
export function headCentreDoubt(runout = 0): Doubt[] {
  return runout > 0 ? [{ source: 'head-centre', u: runout / 2 / Math.SQRT2 }] : [];
}

export const TOO_FEW: Note = {
  code: 'too-few-readings',
  severity: 'warning',
  text: 'Not enough has been read yet: two places along the part are needed.',
};

const onOff = (label: string, on: string, off: string) =>
  choice({
    label,
    choices: [
      { value: 'on', label: on },
      { value: 'off', label: off },
    ],
  });

const CARRIERS = [
  { value: 'carriage', label: 'the carriage' },
  { value: 'spindle', label: 'the spindle' },
] as const;

/** Clamp, lock, extension and place: as they are in work, because each of them changes the result. */
export const tailstockConditions = (carrier?: 'carriage' | 'spindle') => ({
  bedClamp: onOff('Tailstock clamp', 'clamped', 'loose'),
  quillLock: onOff('Quill lock', 'locked', 'free'),
  quillOut: optionalMeasure('length', {
    label: 'Quill out',
    min: 0,
    max: 2000,
    example: '40 mm',
    usual: 'anything',
    help: 'As it will be used.',
  }),
  place: optionalMeasure('length', {
    label: 'Place along the bed',
    usual: 'anything',
    min: 0,
    max: 50_000,
    example: '600 mm',
    help: 'From the headstock to the tailstock. Wear changes the result: check at a second place too.',
  }),
  ...(carrier && {
    indicatorOn: choice({ label: 'Indicator carried by', choices: carrier === 'carriage' ? CARRIERS : [CARRIERS[1], CARRIERS[0]] }),
  }),
});

/** Where the quill is watched while the tailstock is moved over or raised. */
export const QUILL_SPOTS = {
  near: spot(({ whose }) => `on the quill, ${whose} side`, { zeroed: true }),
  rear: spot(() => 'on the quill, rear side', { zeroed: true }),
  top: spot(() => 'over the quill', { zeroed: true }),
} as const;

/** A taper on diameter over a part: half of it, carried on to the tail centre. */
export const taperBetweenCentres: JobRules['taper'] = ({ taper, length, centres = length }) => {
  const between = Math.max(centres, length);
  const offset = (taper / 2) * (between / length);
  const sum = `half of ${say(taper)} µm × ${say(between)} / ${say(length)} mm = ${say(offset)} µm`;
  return [{ quantity: 'offsetHorizontal', zone: [-offset, offset], sum }];
};

/** The same for work held at one end: half of it over its length. */
export const taperInChuck: JobRules['taper'] = ({ taper, length }) => {
  const slope = (1000 * taper) / (2 * length);
  return [{ quantity: 'slopeH', zone: [0, slope], sum: `half of ${say(taper)} µm over ${say(length)} mm = ${say(slope)} µm/m` }];
};
