import * as z from 'zod';
import { measure, optionalMeasure } from '../../input/fields.js';
import { dot } from '../../fit/line.js';
import { ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates, type Note } from '../define.js';
import { linearEstimate } from '../estimate.js';
import { MORE_SET_UPS, longerBase } from '../helps.js';
import { tooFew } from '../notes.js';
import { HEADSTOCK } from '../parts.js';
import { APPARENT_SLOPE, AXIS_SIDEWAYS, unlimited } from '../quantities.js';
import { baseSize, cutBar, dialField, toolField } from '../setupFields.js';
import { plannedPlaces, stationPlan, stepped } from '../stations.js';
import { taperInChuck } from '../tailstock.js';
import { crownEstimate, cutCorrections, cutFits, cutWeights, strayPads } from '../testCut.js';

const setup = z.strictObject({
  tool: toolField(),
  bar: cutBar(),
  base: baseSize(),
  dial: dialField(),
  twistPerMetre: optionalMeasure('twist', { label: 'Bed twist', from: 'twistPerMetre', example: '0' }),
  heightAboveWays: optionalMeasure('length', { label: 'Spindle above the ways', min: 0, example: '180 mm' }),
});
const reading = z.strictObject({
  at: measure('length', { label: 'From the chuck', min: 0, example: '10 mm' }),
  temperature: optionalMeasure('temperature', { label: 'Work temperature', min: -40, max: 400, example: '20 C' }),
  toolSetting: optionalMeasure('length', { label: 'Tool setting', example: '0.05 mm' }),
});

type Setup = z.output<typeof setup>;

function estimate({ setup, slots }: CheckInput<Setup, z.output<typeof reading>>): Estimates {
  const places = slots.map(({ keys }) => keys.at);
  const slope = cutWeights(places);
  const known = setup.twistPerMetre !== undefined && setup.heightAboveWays !== undefined;
  const notes: Note[] = known
    ? []
    : [
        {
          code: 'twist-unknown',
          severity: 'info',
          text: 'Bed twist is not known: it leaks into this cut by the twist per metre times the height above the ways.',
        },
      ];
  const length = places.reduce((most, place) => Math.max(most, place), 0);
  if (setup.bar && length / setup.bar.diameter > 4)
    notes.push({
      code: 'slender-bar',
      severity: 'warning',
      text: `The bar projects ${(length / setup.bar.diameter).toFixed(0)} diameters: it bends away from the tool and comes out big at its free end. Take light cuts, or a stouter bar.`,
    });
  if (!slope) return { estimates: [], notes: [tooFew('two diameters'), ...notes] };
  const tool = setup.tool === 'rear' ? -1 : 1;
  const weights = slope.map((weight) => -500 * tool * weight);
  const corrections = cutCorrections(slots, { bar: setup.bar, dial: setup.dial, shape: () => 0 });
  const terms = (over: readonly number[]) =>
    Object.fromEntries(Object.entries(corrections).map(([name, amounts]) => [name, dot(over, amounts)]));
  const twist = known ? (-(setup.twistPerMetre ?? 0) * (setup.heightAboveWays ?? 0)) / 1000 : 0;
  const taper = slope.map((weight) => 1000 * weight);
  return {
    estimates: [
      linearEstimate('slopeH', weights, { terms: { ...terms(weights), ...(twist !== 0 && { twist }) } }),
      linearEstimate('apparentSlopeH', weights, { terms: terms(weights) }),
      linearEstimate('taper', taper, { terms: terms(taper) }),
      ...crownEstimate(slots, corrections),
    ],
    notes,
    fits: cutFits(slots, (at) => at, corrections, ['slopeH', 'apparentSlopeH', 'taper']),
  };
}

export const chuckTestCut = defineCheck({
  id: 'chuck-test-cut',
  family: 'test-cut',
  title: 'Cut in the chuck',
  question: 'Does it turn parallel without the tailstock?',
  choose: 'The truth for short work: where the spindle axis points to the carriage, under a cut.',
  machines: ['lathe'],
  setup,
  reading,
  plan: stationPlan('How many pads', 2, 12),
  conditions: z.strictObject({}),
  slotKeys: ['at'],
  cuts: true,
  beside: [
    { key: 'temperature', stays: true },
    { key: 'toolSetting', stays: true },
  ],
  reads: 'size',
  spokenOver: ({ base }) => base,
  turnedFrom: ({ bar }) => bar?.diameter,
  quantities: {
    slopeH: AXIS_SIDEWAYS,
    apparentSlopeH: APPARENT_SLOPE,
    taper: unlimited('Taper of the work, on diameter', 'slope', 'um/m', {
      words: { plus: 'bigger at its free end', minus: 'smaller at its free end', movePlus: '', moveMinus: '' },
    }),
    crown: unlimited('Middle against the ends, on diameter', 'deviation', 'um'),
  },
  slots: (_setup, { stations = 2, places = stepped(stations, 150 / (stations - 1)) }) =>
    plannedPlaces(places, (at) => (size) => `Diameter ${size(at, 'length')} from the chuck`),
  faults: (_setup, readings) => strayPads(readings),
  estimate,
  casting: 'headstock',
  corrections: { slopeH: { plus: ['supports', 'scrape'], minus: ['supports', 'scrape'] } },
  part: HEADSTOCK,
  picture: { drawing: 'turned-bar', bends: { h: 'slopeH' } },
  hangsOn: ['bed-twist', 'way-straightness', 'seat', 'spindle-axis'],
  rests: ['headstock', 'saddle'],
  knows: [
    { quantity: 'slopeH', name: 'axisSlopeH' },
    { quantity: 'apparentSlopeH', name: 'axisApparentH' },
  ],
  fromJob: { taper: taperInChuck },
  helps: [longerBase('turn pads twice as far apart'), MORE_SET_UPS],
  reseat: 'Take another light cut and measure again',
  counting: 'Half the difference of the diameters.',
  cautions: [ISOLATE, 'Chuck key out of the chuck. Hot work burns and measures big.'],
  cannotSee: ['The height of the axis.', 'Bed twist, unless it is known.', 'A bar that bends under the tool.'],
  advice: ['Stout bar, sharp tool, light cut.', 'Never smaller at the chuck.'],
});
