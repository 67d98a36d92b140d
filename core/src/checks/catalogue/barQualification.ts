import * as z from 'zod';
import { optionalMeasure, measure } from '../../fields.js';
import { defineCheck, type CheckInput, type Estimates } from '../define.js';
import { rangeEstimate, type Estimate } from '../estimate.js';
import { ISOLATE, stationPlan, stepped, tooFew } from '../common.js';
import { asSize } from '../play.js';
import { swingForm } from '../runout.js';

const setup = z.strictObject({ length: optionalMeasure('length', { label: 'Length of the bar', above: 0, example: '300 mm' }) });
const reading = z.strictObject({
  at: measure('length', { label: 'Along the bar', example: '0 mm' }),
  extreme: z.enum(['high', 'low'], { error: 'must be "high" or "low"' }),
});

/**
 * A bar turned in vees beside a block. The mean of high and low at a place is its size there, whatever
 * its bend, so the means tell an even diameter from a tapered mandrel; half the swing is the bend.
 * In 90° vees the diameter moves the top by (1 + √2)/2 of its change.
 */
function estimate({ slots }: CheckInput<z.output<typeof setup>>): Estimates {
  const places = [...new Set(slots.map((slot) => slot.keys['at'] as number))];
  const stations = places.flatMap((at) => {
    const swing = swingForm(slots, { at });
    return swing ? [{ at, swing: asSize(swing, slots) }] : [];
  });
  if (stations.length === 0) return { estimates: [], notes: [tooFew('the highest and the lowest of a turn at one place')] };
  const values = slots.map((slot) => slot.value);
  const bends = stations.map(({ swing }) => swing.map((weight) => weight / 2));
  const size = (form: readonly number[], now: ArrayLike<number>) => Math.abs(form.reduce((sum, weight, i) => sum + weight * now[i], 0));
  const worst = bends.reduce((a, b) => (size(b, values) > size(a, values) ? b : a));
  const bend: Estimate = {
    name: 'bend',
    weights: worst,
    terms: {},
    doubts: [],
    magnitude: true,
    evaluate: (now) => Math.max(...bends.map((form) => size(form, now))),
  };
  const middles = stations.map(({ at }) =>
    slots.map((slot) => (slot.keys['at'] === at ? 1 / slots.filter((other) => other.keys['at'] === at).length : 0)),
  );
  const perDiameter = 2 / (1 + Math.SQRT2);
  const diameters = middles.map((form) => form.map((weight) => weight * perDiameter));
  return {
    estimates:
      stations.length > 1
        ? [
            rangeEstimate(
              'diameterRange',
              diameters,
              diameters.map(() => 0),
              values,
            ),
            bend,
          ]
        : [bend],
    notes: [],
  };
}

export const barQualification = defineCheck({
  id: 'bar-qualification',
  family: 'runout',
  title: 'Test bar',
  question: 'Is the bar straight, and the same all along?',
  choose: 'Before a bar is believed: in two vees, beside a block.',
  machines: ['lathe', 'turning-centre'],
  setup,
  reading,
  slotKeys: ['at', 'extreme'],
  valueKind: 'indicator',
  quantities: {
    diameterRange: { label: 'Diameter along the bar', dimension: 'deviation', unit: 'um', limit: [null, 2], magnitude: true },
    bend: { label: 'Bend of the bar', dimension: 'deviation', unit: 'um', limit: [null, 5], magnitude: true },
  },
  plan: stationPlan('Places along the bar', 3),
  conditions: z.strictObject({}),
  slots: ({ length = 300 }, { stations = 3 }) =>
    stepped(stations, length / (stations - 1)).flatMap((at) =>
      (['high', 'low'] as const).map((extreme) => ({
        keys: { at, extreme },
        label: `${at} mm along, the ${extreme === 'high' ? 'highest' : 'lowest'} of a turn`,
      })),
    ),
  estimate,
  corrections: {},
  counting: 'Half of the swing over a turn is the bend.',
  upsets: [],
  cautions: [ISOLATE],
  cannotSee: ['A bar that is bent between the vees alone, read only outside them.'],
  advice: ['Vees at two places a fifth from the ends; turn by hand.'],
});
