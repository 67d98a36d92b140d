import * as z from 'zod';
import { measure, optionalMeasure } from '../../fields.js';
import { dot } from '../../fit/line.js';
import { AXIS_SIDEWAYS, defineCheck, type CheckInput, type Estimates, type Note } from '../define.js';
import { linearEstimate } from '../estimate.js';
import { ISOLATE, plannedPlaces, stationPlan, stepped, tooFew } from '../common.js';
import { cutBar, toolField } from '../setupFields.js';
import { cutCorrections, cutWeights } from '../testCut.js';
import { unlimited } from '../tailstock.js';
import { HEADSTOCK } from '../../moves/parts.js';

const chuckSetup = z.strictObject({
  tool: toolField(),
  bar: cutBar(),
  twistPerMetre: optionalMeasure('twist', { label: 'Bed twist', from: 'bed-twist/twistPerMetre', example: '0' }),
  heightAboveWays: optionalMeasure('length', { label: 'Spindle above the ways', min: 0, example: '180 mm' }),
});
const cutReading = z.strictObject({
  at: measure('length', { label: 'From the chuck', min: 0, example: '10 mm' }),
  temperature: optionalMeasure('temperature', { label: 'Work temperature', min: -40, max: 400, example: '20 C' }),
  toolSetting: optionalMeasure('length', { label: 'Tool setting', example: '0.05 mm' }),
});

function chuckEstimate({ setup, slots }: CheckInput<z.output<typeof chuckSetup>>): Estimates {
  const slope = cutWeights(slots.map((slot) => slot.keys['at'] as number));
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
  const length = Math.max(0, ...slots.map((slot) => slot.keys['at'] as number));
  if (setup.bar && length / setup.bar.diameter > 4)
    notes.push({
      code: 'slender-bar',
      severity: 'warning',
      text: `The bar stands out ${(length / setup.bar.diameter).toFixed(0)} diameters: it bends away from the tool and comes out big at its free end. Take light cuts, or a stouter bar.`,
    });
  if (!slope) return { estimates: [], notes: [tooFew('two diameters'), ...notes] };
  const tool = setup.tool === 'rear' ? -1 : 1;
  const weights = slope.map((weight) => -500 * tool * weight);
  const terms = Object.fromEntries(
    Object.entries(cutCorrections(slots, { bar: setup.bar, shape: () => 0 })).map(([name, amounts]) => [name, dot(weights, amounts)]),
  );
  const twist = known ? (-(setup.twistPerMetre ?? 0) * (setup.heightAboveWays ?? 0)) / 1000 : 0;
  const estimates = [
    linearEstimate('slopeH', weights, { terms: { ...terms, ...(twist !== 0 && { twist }) } }),
    linearEstimate(
      'taper',
      slope.map((weight) => 1000 * weight),
    ),
  ];
  return { estimates, notes };
}

export const chuckTestCut = defineCheck({
  id: 'chuck-test-cut',
  family: 'test-cut',
  title: 'Cut in the chuck',
  question: 'Does it turn parallel without the tailstock?',
  choose: 'The truth for short work: where the spindle axis points to the carriage, under a cut.',
  machines: ['lathe'],
  setup: chuckSetup,
  reading: cutReading,
  slotKeys: ['at'],
  valueKind: 'size',
  quantities: {
    slopeH: AXIS_SIDEWAYS,
    taper: unlimited('Taper of the work, on diameter', 'slope', 'um/m'),
  },
  plan: stationPlan('Pads turned', 2),
  conditions: z.strictObject({}),
  slots: (_setup, { stations = 2 }) => plannedPlaces(stepped(stations, 150 / (stations - 1)), (at) => `Diameter ${at} mm from the chuck`),
  casting: 'headstock',
  estimate: chuckEstimate,
  corrections: { slopeH: { plus: ['supports', 'scrape'], minus: ['supports', 'scrape'] } },
  part: HEADSTOCK,
  counting: 'Half the difference of the diameters.',
  upsets: [],
  cautions: [ISOLATE, 'Chuck key out of the chuck. Hot work burns and measures big.'],
  cannotSee: ['The height of the axis.', 'Bed twist, unless it is known.', 'A bar that bends under the tool.'],
  advice: ['Stout bar, sharp tool, light cut.', 'Never smaller at the chuck.'],
});
