import * as z from 'zod';
import { choice, measure, optionalMeasure } from '../../fields.js';
import { slopeWeights } from '../../fit/line.js';
import { defineCheck, type CheckInput, type Estimates } from '../define.js';
import { linearEstimate, rangeEstimate, type Estimate } from '../estimate.js';
import { ISOLATE, plannedPlaces, stationPlan, stepped, tooFew } from '../common.js';
import { unlimited } from '../tailstock.js';
import { DOVETAIL } from '../../moves/parts.js';

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
});
const reading = z.strictObject({
  at: measure('length', { label: 'Along the dovetail', example: '60 mm' }),
  pin: optionalMeasure('length', { label: 'Pin', above: 0, example: '8 mm' }),
});
type Setup = z.output<typeof setup>;

/**
 * Width at the sharp acute corner from a reading over or between pins.
 *
 * @param m reading, @param d pin diameter, mm; @param angle α in degrees.
 */
export function widthAtCorner(m: number, d: number, angle: number, inside: boolean): number {
  const pins = d * (1 + 1 / Math.tan((angle * Math.PI) / 360));
  return inside ? m + pins : m - pins;
}

function estimate({ setup, slots }: CheckInput<Setup>): Estimates {
  const main = slots.flatMap((slot, i) => (((slot.keys['pin'] as number | undefined) ?? setup.pin) === setup.pin ? [i] : []));
  const places = main.map((i) => slots[i].keys['at'] as number);
  if (new Set(places).size < 2) return { estimates: [], notes: [tooFew('two places along the dovetail')] };
  const values = slots.map((slot) => slot.value);
  const unit = (index: number) => slots.map((_, i) => (i === index ? 1 : 0));
  const weights = new Array<number>(slots.length).fill(0);
  slopeWeights(places).forEach((weight, k) => (weights[main[k]] = 1000 * weight));
  const readings = main.map((i) => values[i]);
  const [widest, narrowest] = [readings.indexOf(Math.max(...readings)), readings.indexOf(Math.min(...readings))];
  const range = rangeEstimate(
    'widthRange',
    main.map(unit),
    main.map(() => 0),
    values,
  );
  const estimates: Estimate[] = [
    { ...range, detail: { widestAt: places[widest], narrowestAt: places[narrowest] } },
    linearEstimate('taper', weights),
    ...excess(setup, main, slots.length, values),
    ...angleFrom(setup, slots),
  ];
  return { estimates, notes: [] };
}

/** Largest excess over the target and the depth to take off one flank for it: measured across, removed square to the flank. */
function excess({ target, side, angle }: Setup, main: readonly number[], size: number, values: readonly number[]): Estimate[] {
  if (target === undefined) return [];
  const sign = side === 'inside' ? -1 : 1;
  const most = main.reduce((a, b) => (sign * values[b] > sign * values[a] ? b : a));
  const form = Array.from({ length: size }, (_, i) => (i === most ? sign : 0));
  const sine = Math.sin((angle * Math.PI) / 180);
  const off = -sign * target * 1000;
  return [
    linearEstimate('excess', form, { terms: { target: off } }),
    linearEstimate(
      'flankDepth',
      form.map((weight) => weight * sine),
      { terms: { target: off * sine } },
    ),
  ];
}

/** Two pin sizes at one place give the angle itself. */
function angleFrom({ pin }: Setup, slots: CheckInput<Setup>['slots']): Estimate[] {
  const other = slots.find((slot) => slot.keys['pin'] !== undefined && slot.keys['pin'] !== pin);
  const same =
    other &&
    slots.find(
      (slot) => slot !== other && slot.keys['at'] === other.keys['at'] && ((slot.keys['pin'] as number | undefined) ?? pin) === pin,
    );
  if (!other || !same) return [];
  const step = Math.abs(other.value - same.value) / 1000 / Math.abs((other.keys['pin'] as number) - pin) - 1;
  const found = step > 0 ? (2 * Math.atan(1 / step) * 180) / Math.PI : NaN;
  if (!Number.isFinite(found)) return [];
  return [{ name: 'angle', weights: slots.map(() => 0), terms: {}, doubts: [], evaluate: () => found }];
}

export const dovetailOverPins = defineCheck({
  id: 'dovetail-over-pins',
  family: 'pins',
  title: 'Dovetail over pins',
  question: 'Is the dovetail the same width along its length?',
  choose: 'Before a gib is fitted: a dovetail that tapers binds at one end.',
  machines: ['lathe', 'mill'],
  setup,
  reading,
  slotKeys: ['at', 'pin'],
  valueKind: 'size',
  quantities: {
    widthRange: { label: 'Width along the dovetail', dimension: 'deviation', unit: 'um', limit: [null, 10], magnitude: true },
    taper: unlimited('Taper', 'slope', 'um/m', {
      words: { plus: 'wider along it', minus: 'narrower along it', movePlus: '', moveMinus: '' },
    }),
    excess: unlimited('Most over the target', 'deviation', 'um'),
    flankDepth: unlimited('Depth off one flank there', 'deviation', 'um'),
    angle: unlimited('Angle from two pin sizes', 'angle', 'deg'),
  },
  plan: stationPlan('Places', 5),
  conditions: z.strictObject({}),
  slots: (_setup, { stations = 5 }) => plannedPlaces(stepped(stations, 240 / (stations - 1)), (at) => `Over the pins, ${at} mm along`),
  estimate,
  part: DOVETAIL,
  corrections: { widthRange: { plus: ['scrape'], minus: ['scrape'] } },
  counting: 'The whole difference of the readings; off the flank it is that times the sine of the angle.',
  upsets: ['saddle-squareness'],
  cautions: [ISOLATE, 'Scraped edges cut: gloves.'],
  cannotSee: ['Which of the two flanks is off.'],
  advice: ['Same two pins, same hand pressure. Deburr the corners so that the pins seat.'],
});
