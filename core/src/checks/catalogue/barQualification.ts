import * as z from 'zod';
import { measure, optionalMeasure } from '../../input/fields.js';
import type { Fault } from '../../input/faults.js';
import type { Instrument } from '../../instruments/instrument.js';
import type { Reading, Slot } from '../../instruments/slots.js';
import { ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates } from '../define.js';
import { largestEstimate, rangeEstimate, type Estimate, type Form } from '../estimate.js';
import { tooFew } from '../notes.js';
import { swappedExtremes } from '../runout.js';
import { extremeKey } from '../setupFields.js';
import { stationPlan, stepped } from '../stations.js';

const setup = z.strictObject({
  length: optionalMeasure('length', { label: 'Length of the bar', above: 0, example: '300 mm' }),
  vees: z
    .tuple([measure('length', { label: 'First vee', example: '40 mm' }), measure('length', { label: 'Second vee', example: '260 mm' })], {
      error: 'must be the places of the two vees',
    })
    .refine(([a, b]) => a !== b, { message: 'must be two different places', params: { example: '[40, 260]' } })
    .optional(),
  veeAngle: optionalMeasure('angle', { label: 'Included angle of the vees', above: 0, below: 180, example: '90' }),
});
const reading = z.strictObject({
  at: measure('length', { label: 'Along the bar', example: '0 mm' }),
  extreme: extremeKey(),
});
type Setup = z.output<typeof setup>;
type Keys = z.output<typeof reading>;
type Slots = readonly Slot<Keys>[];

/** mm by which a reading may miss the vee it is meant to stand over. */
const NEAR = 1;

/** Place, mean of high and low, and their difference, as forms. */
interface Station {
  readonly at: number;
  readonly middle: Form;
  readonly swing: Form;
}

function stationsOf(slots: Slots): Station[] {
  const places = new Map<number, { high?: number; low?: number }>();
  slots.forEach(({ keys: { at, extreme } }, i) => places.set(at, { ...places.get(at), [extreme]: i }));
  return [...places].flatMap(([at, { high, low }]) =>
    high === undefined || low === undefined
      ? []
      : [
          {
            at,
            middle: [
              [high, 0.5],
              [low, 0.5],
            ],
            swing: [
              [high, 1],
              [low, -1],
            ],
          },
        ],
  );
}

const times = (form: Form, factor: number): Form => form.map(([slot, weight]) => [slot, weight * factor]);

/**
 * Radius at each place from the height of the top: at a vee of included angle 2β it goes up by
 * δr·(1 + 1/sin β), between the vees by δr and by what the vees lift the axis there, straight between them.
 */
function radiiOf(stations: readonly Station[], { vees, veeAngle = 90 }: Setup): { at: number; radius: Form }[] | undefined {
  const lift = 1 / Math.sin((veeAngle * Math.PI) / 360);
  const order = [...stations].sort((a, b) => a.at - b.at);
  const ends = vees ?? [order[0].at, order[order.length - 1].at];
  const [near, far] = ends.map((vee) => order.find(({ at }) => Math.abs(at - vee) <= NEAR));
  if (!near || !far || near === far) return undefined;
  const [first, second] = [times(near.middle, 1 / (1 + lift)), times(far.middle, 1 / (1 + lift))];
  return order.map(({ at, middle }) => {
    if (at === near.at) return { at, radius: first };
    if (at === far.at) return { at, radius: second };
    const share = (at - near.at) / (far.at - near.at);
    return { at, radius: [...middle, ...times(first, -lift * (1 - share)), ...times(second, -lift * share)] };
  });
}

function estimate({ setup, slots }: CheckInput<Setup, Keys>): Estimates {
  const stations = stationsOf(slots);
  if (stations.length === 0) return { estimates: [], notes: [tooFew('the highest and the lowest of a turn at one place')] };
  const values = slots.map((slot) => slot.value);
  // Half of the total reading over a turn is the bend.
  const { worst, ...bend } = largestEstimate(
    'bend',
    stations.map(({ swing }) => times(swing, 0.5)),
    values,
  );
  const estimates: Estimate[] = [{ ...bend, detail: { at: stations[worst].at } }];
  const radii = stations.length > 1 ? radiiOf(stations, setup) : undefined;
  if (!radii) return { estimates, notes: [tooFew('the highest and the lowest over both vees')] };
  const diameters = radii.map(({ radius }) => times(radius, 2));
  return { estimates: [rangeEstimate('diameterRange', diameters, values), ...estimates], notes: [] };
}

const faults = (_setup: Setup, readings: readonly Reading<Keys>[], instrument: Instrument | undefined): Fault[] =>
  swappedExtremes(readings, ({ at }) => String(at), instrument);

export const barQualification = defineCheck({
  id: 'bar-qualification',
  family: 'runout',
  title: 'Test bar',
  question: 'Is the bar straight, and the same all along?',
  choose: 'Before a bar is believed: in two vees, beside a block.',
  machines: ['lathe', 'turning-centre'],
  setup,
  reading,
  plan: stationPlan('How many places along the bar', 3),
  conditions: z.strictObject({}),
  slotKeys: ['at', 'extreme'],
  reads: 'indicator',
  quantities: {
    diameterRange: { label: 'Diameter along the bar', dimension: 'deviation', unit: 'um', limit: [null, 2], magnitude: true },
    bend: { label: 'Bend of the bar', dimension: 'deviation', unit: 'um', limit: [null, 5], magnitude: true },
  },
  slots: ({ length = 300, vees }, { stations = 3, places }) =>
    (places ?? (vees ? [vees[0], (vees[0] + vees[1]) / 2, vees[1]] : stepped(stations, length / (stations - 1)))).flatMap((at) =>
      (['high', 'low'] as const).map((extreme) => ({
        keys: { at, extreme },
        label: (size) => `${size(at, 'length')} along, the ${extreme === 'high' ? 'highest' : 'lowest'} of a turn`,
        movable: 'places',
      })),
    ),
  faults,
  estimate,
  corrections: {},
  picture: { drawing: 'bar-in-vees' },
  hangsOn: [],
  after: ['stiffness'],
  counting:
    'Half of the total reading over a turn is the bend. In a vee the diameter lifts the bar as well: at the vee it shows 1 + √2 times in vees of 90°.',
  cautions: [ISOLATE],
  cannotSee: ['A bar that is bent between the vees alone, read only outside them.'],
  advice: ['Vees at two places a fifth from the ends; turn by hand. Read over both vees as well as between them.'],
});
