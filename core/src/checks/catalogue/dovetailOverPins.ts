import * as z from 'zod';
import { choice, measure, optionalMeasure } from '../../input/fields.js';
import { slopeWeights } from '../../fit/line.js';
import type { Slot } from '../../instruments/slots.js';
import { ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates } from '../define.js';
import { plainLine } from '../fits.js';
import { formWeights, linearEstimate, rangeEstimate, type Estimate, type HeightAt } from '../estimate.js';
import { tooFew } from '../notes.js';
import { DOVETAIL } from '../parts.js';
import { unlimited } from '../quantities.js';
import { baseSize } from '../setupFields.js';
import { plannedPlaces, stationPlan, stepped } from '../stations.js';

const setup = z.strictObject({
  pin: measure('length', { label: 'Pin diameter', above: 0, example: '8 mm', kit: 'pins' }),
  angle: measure('angle', { label: 'Dovetail angle', above: 0, below: 90, example: '55' }),
  side: choice({
    label: 'Measured',
    choices: [
      { value: 'outside', label: 'over the pins' },
      { value: 'inside', label: 'between the pins' },
    ],
  }),
  target: optionalMeasure('length', { label: 'Reading to come to', above: 0, example: '106.5 mm' }),
  base: baseSize(),
});
const reading = z.strictObject({
  at: measure('length', { label: 'Along the dovetail', example: '60 mm' }),
  pin: optionalMeasure('length', { label: 'Pin', above: 0, example: '8 mm' }),
});
type Setup = z.output<typeof setup>;
type Keys = z.output<typeof reading>;

/**
 * Width at the sharp acute corner from a reading over or between pins.
 *
 * @param m reading, @param d pin diameter, mm; @param angle α in degrees.
 */
export function widthAtCorner(m: number, d: number, angle: number, inside: boolean): number {
  const pins = d * (1 + 1 / Math.tan((angle * Math.PI) / 360));
  return inside ? m + pins : m - pins;
}

function estimate({ setup, slots }: CheckInput<Setup, Keys>): Estimates {
  const main = slots.flatMap(({ keys }, i) => ((keys.pin ?? setup.pin) === setup.pin ? [i] : []));
  const places = main.map((i) => slots[i].keys.at);
  if (!places.some((place) => place !== places[0])) return { estimates: [], notes: [tooFew('two places along the dovetail')] };
  const values = slots.map((slot) => slot.value);
  const weights = new Array<number>(slots.length).fill(0);
  slopeWeights(places).forEach((weight, k) => (weights[main[k]] = 1000 * weight));
  const widest = main.reduce((a, b) => (values[b] > values[a] ? b : a));
  const narrowest = main.reduce((a, b) => (values[b] < values[a] ? b : a));
  const range = rangeEstimate(
    'widthRange',
    main.map((i) => [[i, 1]]),
    values,
  );
  const estimates: Estimate[] = [
    { ...range, detail: { widestAt: slots[widest].keys.at, narrowestAt: slots[narrowest].keys.at } },
    linearEstimate('taper', weights),
    ...excess(setup, main, values),
    ...angleFrom(setup, slots),
  ];
  return { estimates, notes: [], fits: plainLine(main, (i) => slots[i].keys.at, { widens: ['taper'] }) };
}

/** Largest excess over the target and the depth to take off one flank for it: measured across, removed square to the flank. */
function excess({ target, side, angle }: Setup, main: readonly number[], values: readonly number[]): Estimate[] {
  if (target === undefined) return [];
  const sign = side === 'inside' ? -1 : 1;
  const most = main.reduce((a, b) => (sign * values[b] > sign * values[a] ? b : a));
  const sine = Math.sin((angle * Math.PI) / 180);
  const off = -sign * target * 1000;
  const form = (factor: number) => formWeights([[most, sign * factor]], values.length);
  return [
    linearEstimate('excess', form(1), { terms: { target: off } }),
    linearEstimate('flankDepth', form(sine), { terms: { target: off * sine } }),
  ];
}

/** Two pin sizes at one place give the angle itself. */
function angleFrom({ pin }: Setup, slots: readonly Slot<Keys>[]): Estimate[] {
  const at = (other: boolean) =>
    slots.findIndex(({ keys }) => (keys.pin !== undefined && keys.pin !== pin) === other && (!other || keys.at !== undefined));
  const second = at(true);
  if (second < 0) return [];
  const first = slots.findIndex(({ keys }, i) => i !== second && keys.at === slots[second].keys.at && (keys.pin ?? pin) === pin);
  if (first < 0) return [];
  const apart = Math.abs((slots[second].keys.pin as number) - pin) * 1000;
  const angle = (values: ArrayLike<number>): number => {
    const step = Math.abs(values[second] - values[first]) / apart - 1;
    return step > 0 ? (2 * Math.atan(1 / step) * 180) / Math.PI : NaN;
  };
  const values = slots.map((slot) => slot.value);
  const now = angle(values);
  if (!Number.isFinite(now)) return [];
  // How the angle goes with the difference of the two readings, degrees for each µm.
  const nudged = [...values];
  nudged[second] += values[second] > values[first] ? 1 : -1;
  const perMicrometre = angle(nudged) - now;
  const weights = new Array<number>(slots.length).fill(0);
  [weights[second], weights[first]] = [perMicrometre, -perMicrometre];
  return [{ name: 'angle', weights, terms: {}, doubts: [], evaluate: angle }];
}

/** What stands proud along it, µm across over the least place: wide over the pins, narrow between them. */
function proud({ pin, side }: Setup, slots: readonly Slot<Keys>[]): HeightAt[] {
  const sign = side === 'inside' ? -1 : 1;
  const own = slots
    .filter(({ keys }) => (keys.pin ?? pin) === pin)
    .map(({ keys, value }) => ({ at: keys.at, height: sign * value }))
    .sort((one, other) => one.at - other.at);
  const least = Math.min(...own.map(({ height }) => height));
  return own.map(({ at, height }) => ({ at, height: height - least }));
}

export const dovetailOverPins = defineCheck({
  id: 'dovetail-over-pins',
  family: 'pins',
  title: 'Dovetail over pins',
  question: 'Is the dovetail the same width along its length?',
  choose: 'Before a gib is fitted: a dovetail that tapers binds at one end.',
  machines: ['lathe', 'mill'],
  needs: ['dovetail'],
  setup,
  reading,
  plan: stationPlan('How many places', 5),
  conditions: z.strictObject({}),
  slotKeys: ['at', 'pin'],
  reads: 'size',
  spokenOver: ({ base }) => base,
  statedSize: ({ target }) => target,
  quantities: {
    widthRange: { label: 'Width along the dovetail', dimension: 'deviation', unit: 'um', limit: [null, 10], magnitude: true },
    taper: unlimited('Taper', 'slope', 'um/m', {
      words: { plus: 'wider along it', minus: 'narrower along it', movePlus: '', moveMinus: '' },
    }),
    excess: unlimited('Most over the target', 'deviation', 'um'),
    flankDepth: unlimited('Depth off one flank there', 'deviation', 'um'),
    angle: unlimited('Angle from two pin sizes', 'angle', 'deg'),
  },
  slots: (_setup, { stations = 5, places = stepped(stations, 240 / (stations - 1)) }) =>
    plannedPlaces(places, (at) => (size) => `Over the pins, ${size(at, 'length')} along`),
  estimate,
  profile: proud,
  knowsProfile: { name: 'dovetail', asRead: true, doubt: 'widthRange' },
  // Measured across, but removed square to the flank.
  amountFor: (kind, amount, { angle }) => (kind === 'scrape' ? amount * Math.sin((angle * Math.PI) / 180) : undefined),
  corrections: { widthRange: { plus: ['scrape'], minus: ['scrape'] } },
  part: DOVETAIL,
  picture: { drawing: 'places' },
  hangsOn: ['bed-twist', 'table-level', 'saddle-squareness'],
  after: ['saddle-squareness', 'table-gib-play'],
  counting: 'The whole difference of the readings; off the flank it is that times the sine of the angle.',
  cautions: [ISOLATE, 'Scraped edges cut: gloves.'],
  cannotSee: ['Which of the two flanks is off.'],
  advice: ['Same two pins, same hand pressure. Deburr the corners so that the pins seat.'],
});
