import * as z from 'zod';
import { measure, optionalMeasure, count, fieldRegistry } from '../../fields.js';
import { dot, slopeWeights } from '../../fit/line.js';
import { heldPush, heldSag } from '../../gravity/bars.js';
import { otherBars } from '../../gravity/otherBars.js';
import { placesOf } from '../../instruments/slots.js';
import { AXIS_SIDEWAYS, defineCheck, type CheckInput, type Estimates, type Note } from '../define.js';
import { linearEstimate, type Doubt, type Estimate } from '../estimate.js';
import { ISOLATE, shortBase, sideField, tooFew } from '../common.js';
import { meanFormOf, swingForm } from '../runout.js';
import { diameterDifference, diameters, material } from '../setupFields.js';
import { unlimited } from '../tailstock.js';
import { HEADSTOCK } from '../../moves/parts.js';

const bar = z
  .strictObject({
    diameter: measure('length', { label: 'Bar diameter', above: 0, example: '25 mm' }),
    bore: optionalMeasure('length', { label: 'Bore of the bar', min: 0, example: '0', rare: true }),
    material: material(),
    freeLength: measure('length', { label: 'Free length', above: 0, example: '300 mm', help: 'From where it is held to its end.' }),
    diameters: diameters(),
  })
  .refine((bar) => bar.bore === undefined || bar.bore < bar.diameter, {
    path: ['bore'],
    message: 'must be less than the diameter',
    params: { example: '0' },
  })
  .optional()
  .register(fieldRegistry, { label: 'Bar', group: true, kit: 'test-bar' });

const setup = z.strictObject({
  bar,
  side: sideField(),
  twistPerMetre: optionalMeasure('twist', {
    label: 'Bed twist',
    from: 'bed-twist/twistPerMetre',
    example: '0',
    help: 'From the bed-twist check.',
  }),
  heightAboveWays: optionalMeasure('length', { label: 'Spindle above the ways', min: 0, example: '180 mm' }),
});

const reading = z.strictObject({
  plane: z.enum(['h', 'v'], { error: 'must be "h" (side) or "v" (top)' }),
  at: measure('length', { label: 'From where the bar is held', min: 0, example: '20 mm' }),
  extreme: z.enum(['high', 'low'], { error: 'must be "high" or "low"' }),
  turn: z.union([z.literal(0), z.literal(180)], { error: 'must be 0 or 180' }).optional(),
  highAt: optionalMeasure('angle', { label: 'High at', min: -360, max: 360, example: '90' }),
});

const plan = z.strictObject({
  stations: count({ label: 'Places along the bar', min: 2, max: 8, example: '2' }),
  near: optionalMeasure('length', { label: 'First place', min: 0, example: '20 mm' }),
});

type Setup = z.output<typeof setup>;

/** Slope in one plane from the means of high and low at each place: any rod serves, straight or not. */
function planeEstimate(plane: 'h' | 'v', { setup, slots, instrument }: CheckInput<Setup>): Estimate | undefined {
  const places = [...new Set(slots.filter((slot) => slot.keys['plane'] === plane).map((slot) => slot.keys['at'] as number))].sort(
    (a, b) => a - b,
  );
  const stations = places.flatMap((at) => {
    const form = meanFormOf(slots, { plane, at });
    return form ? [{ at, form }] : [];
  });
  if (stations.length < 2) return undefined;
  const side = plane === 'h' && setup.side === 'rear' ? -1 : 1;
  const slope = slopeWeights(stations.map((station) => station.at)).map((weight) => 1000 * side * weight);
  const over = (correction: (at: number) => number): number =>
    dot(
      slope,
      stations.map((station) => correction(station.at)),
    );
  const { bar } = setup;
  const within = (at: number) => Math.min(at, bar?.freeLength ?? at);
  const sag = bar && plane === 'v' ? over((at) => heldSag(bar, bar.freeLength, within(at))) : 0;
  const push = bar && instrument?.contactForce ? over((at) => heldPush(bar, instrument.contactForce, within(at))) : 0;
  const diameter = bar?.diameters?.length ? over((at) => -500 * diameterDifference(bar.diameters, at)) : 0;
  const roll =
    plane === 'h' && setup.twistPerMetre !== undefined && setup.heightAboveWays !== undefined
      ? (-setup.twistPerMetre * setup.heightAboveWays) / 1000
      : 0;
  const terms = {
    ...(plane === 'v' && { sag }),
    ...(push !== 0 && { push }),
    ...(diameter !== 0 && { diameter }),
    ...(roll !== 0 && { twist: roll }),
  };
  const doubts: Doubt[] = [
    { source: 'droop of the bar', u: 0.05 * Math.abs(sag) },
    { source: 'push of the stylus', u: 0.03 * Math.abs(push) },
    { source: 'diameter of the bar', u: (0.3 / Math.sqrt(3)) * Math.hypot(...slope) },
    { source: 'bed twist', u: Math.abs(roll) * 0.1 },
  ];
  const weights = slots.map((_, i) => stations.reduce((sum, station, k) => sum + slope[k] * station.form[i], 0));
  return linearEstimate(plane === 'h' ? 'slopeH' : 'slopeV', weights, { terms, doubts });
}

function runoutEstimate({ slots }: CheckInput<Setup>): Estimate[] {
  const far = slots.reduce((most, slot) => Math.max(most, slot.keys['at'] as number), 0);
  const form = swingForm(slots, { at: far, plane: 'h' }) ?? swingForm(slots, { at: far, plane: 'v' });
  return form ? [{ ...linearEstimate('runout', form, { detail: { at: far } }), magnitude: true }] : [];
}

function estimate(input: CheckInput<Setup>): Estimates {
  const { setup, slots, instrument } = input;
  const planes = (['h', 'v'] as const).flatMap((plane) => planeEstimate(plane, input) ?? []);
  if (planes.length === 0) return { estimates: [], notes: [tooFew('the highest and the lowest at two places')] };
  const notes: Note[] = [];
  if (planes.some((entry) => entry.name === 'slopeH') && (setup.twistPerMetre === undefined || setup.heightAboveWays === undefined)) {
    notes.push({
      code: 'twist-unknown',
      severity: 'info',
      text: 'Bed twist is not known: roll of the carriage leaks into the side reading, by the twist per metre times the height above the ways.',
    });
  }
  if (!setup.bar)
    notes.push({
      code: 'bar-unknown',
      severity: 'warning',
      text: 'The bar is not described: its droop is still in the height. A 12 mm rod 250 mm out of the chuck droops over 0.02 mm and makes a good spindle point down.',
    });
  const places = slots.map((slot) => slot.keys['at'] as number);
  return {
    estimates: [...planes, ...runoutEstimate(input)],
    notes: [...notes, ...(instrument ? shortBase(Math.max(...places) - Math.min(...places)) : [])],
  };
}

export const spindleAxis = defineCheck({
  id: 'spindle-axis',
  family: 'spindle-bar',
  title: 'Spindle axis',
  question: 'Where does the spindle axis really point?',
  choose: 'With any bar, turned by hand: its own bend and its droop are taken out.',
  machines: ['lathe', 'turning-centre'],
  setup,
  reading,
  slotKeys: ['plane', 'at', 'extreme', 'turn'],
  valueKind: 'indicator',
  quantities: {
    slopeH: AXIS_SIDEWAYS,
    slopeV: {
      label: 'Spindle axis in height',
      subject: 'The axis',
      dimension: 'slope',
      unit: 'um/m',
      limit: [0, 67],
      follows: { slopeV: 1 },
      words: {
        plus: 'pointing up at its free end',
        minus: 'pointing down at its free end',
        movePlus: 'up at its free end',
        moveMinus: 'down at its free end',
      },
    },
    runout: unlimited('Runout at the far place', 'deviation', 'um', { magnitude: true }),
  },
  casting: 'headstock',
  target: { h: 'slopeH', v: 'slopeV', at: 300, what: 'Free end, 300 mm out' },
  sagHelp: ({ bar }, slots) => {
    const places = placesOf(slots);
    if (!bar || places.length === 0) return [];
    return otherBars(bar, Math.min(...places), Math.max(...places)).map(
      ({ what, slope }) => `${what}: ${Math.abs(slope).toFixed(1)} µm/m to take out`,
    );
  },
  plan,
  conditions: z.strictObject({}),
  slots: ({ bar }, { stations = 2, near = 20 }) => {
    const free = Math.max(near + 50, (bar?.freeLength ?? 300) - 10);
    const places = Array.from({ length: stations }, (_, i) => Math.round(near + ((free - near) * i) / (stations - 1)));
    return (['h', 'v'] as const).flatMap((plane) =>
      places.flatMap((at) =>
        (['high', 'low'] as const).map((extreme) => ({
          keys: { plane, at, extreme },
          label: `${plane === 'h' ? 'Side' : 'Top'}, ${at} mm out, the ${extreme === 'high' ? 'highest' : 'lowest'}`,
          ask: extreme === 'high' ? 'Turn the spindle by hand through a full turn and call the highest and the lowest.' : undefined,
        })),
      ),
    );
  },
  estimate,
  part: HEADSTOCK,
  corrections: {
    slopeH: { plus: ['supports', 'scrape'], minus: ['supports', 'scrape'] },
    slopeV: { plus: ['supports', 'scrape'], minus: ['supports', 'scrape'] },
  },
  counting: 'The mean of highest and lowest is the axis of rotation. The whole difference between two places counts.',
  upsets: [
    'tailstock-traverse',
    'tailstock-sweep',
    'tailstock-test-cut',
    'quill-parallelism',
    'cross-slide-squareness',
    'chuck-test-cut',
    'turret-face',
    'turret-bore',
    'guide-bush',
    'sub-spindle',
  ],
  cautions: [
    ISOLATE,
    'Turn the spindle by hand only, with the bar and the indicator set up.',
    'Headstocks are lifted with rated gear, never by hand over an edge.',
  ],
  cannotSee: [
    'Roll of the carriage from a twisted bed, unless the twist is known.',
    'A spindle that tips in its bearings under the bar’s weight.',
  ],
  advice: [
    'The droop of the bar is taken out by its size: give diameter and free length.',
    'Never scrape a headstock to cure the droop of a bar.',
  ],
});
