import * as z from 'zod';
import { choice, measure } from '../../input/fields.js';
import type { Fault } from '../../input/faults.js';
import type { Reading } from '../../instruments/slots.js';
import { ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates } from '../define.js';
import { linearEstimate } from '../estimate.js';
import { lineFits } from '../fits.js';
import { MORE_SET_UPS, longerBase } from '../helps.js';
import { shortBase, spanOf, tooFew } from '../notes.js';
import { SADDLE } from '../parts.js';
import { unlimited } from '../quantities.js';
import { turnKey } from '../setupFields.js';
import { closed, plannedPlaces, stationPlan, stepped } from '../stations.js';
import { say } from '../sums.js';
import { referenceSlope, traverseLine, type TraverseKeys } from '../traverse.js';
import { FACING } from '../words.js';

const setup = z.strictObject({
  method: choice({
    label: 'Method',
    choices: [
      { value: 'faced-disc', label: 'a disc faced here, read past its centre' },
      { value: 'reversed-disc', label: 'a disc turned half round' },
    ],
  }),
});
const reading = z.strictObject({
  at: measure('length', { label: 'Past the centre', example: '60 mm' }),
  turn: turnKey(),
});
type Setup = z.output<typeof setup>;

function estimate({ setup, slots, instrument }: CheckInput<Setup, TraverseKeys>): Estimates {
  const reversed = setup.method === 'reversed-disc';
  const line = traverseLine(slots);
  if (!line) return { estimates: [], notes: [tooFew('the centre and the rim beyond it')] };
  // Past the centre a faced disc shows the slide's error twice; a disc turned half round shows it once.
  const factor = reversed ? 1000 : 500;
  const once =
    reversed && line.turned.pairs.length === 0 ? 'the spindle has to be turned half round and the disc read there again' : undefined;
  const slope = linearEstimate(
    'slope',
    line.weights.map((weight) => factor * weight),
    { open: line.open ?? once },
  );
  const disc = reversed && !line.open ? referenceSlope('discSlope', line, 1000) : [];
  const span = spanOf(slots.map(({ keys }) => keys.at));
  return {
    estimates: [slope, ...disc],
    notes: instrument ? shortBase(reversed ? span : 2 * span) : [],
    fits: lineFits(slots, line, { widens: ['slope'] }),
  };
}

/** A disc faced here is not turned, and the part the tool travelled itself reads nothing. */
function faults({ method }: Setup, readings: readonly Reading<TraverseKeys>[]): Fault[] {
  if (method === 'reversed-disc') return [];
  return readings.flatMap(({ at, turn }, i): Fault[] => [
    ...(turn === undefined
      ? []
      : [
          {
            path: `readings[${i}].turn`,
            message: 'is for a disc turned half round: give setup.method "reversed-disc"',
            example: 'leave it out',
          },
        ]),
    ...(at < 0
      ? [
          {
            path: `readings[${i}].at`,
            message: 'is on the side that the tool travelled: there a faced disc reads nothing whatever it is. Read past the centre',
            example: '60 mm',
          },
        ]
      : []),
  ]);
}

export const crossSlideSquareness = defineCheck({
  id: 'cross-slide-squareness',
  family: 'traverse',
  title: 'Cross slide',
  question: 'Does it face flat, or a little hollow?',
  choose: 'Last of all: headstock and saddle both go into it.',
  machines: ['lathe', 'turning-centre'],
  setup,
  reading,
  plan: stationPlan('How many places from centre to rim', 3),
  conditions: z.strictObject({}),
  slotKeys: ['at', 'turn'],
  reads: 'indicator',
  quantities: {
    slope: {
      label: 'Facing',
      subject: 'The cross slide',
      dimension: 'slope',
      spokenOver: 300,
      work: { perUnit: 0.1, what: (size) => `hollow in a faced disc of ${size(200, 'length')}` },
      unit: 'um/m',
      limit: [0, 67],
      words: FACING,
    },
    discSlope: unlimited('The disc itself', 'slope', 'um/m'),
  },
  slots: ({ method }, { stations = 3, places }) =>
    method === 'reversed-disc'
      ? closed(
          ([0, 180] as const).flatMap((turn) =>
            (places ?? stepped(stations, 120 / (stations - 1))).map((at, i) => ({
              keys: { at, turn },
              label: (size) => `${size(at, 'length')} toward the rear`,
              movable: 'places',
              ask: i === 0 && turn === 180 ? 'Turn the spindle half round by hand.' : undefined,
            })),
          ),
          ({ turn }) => String(turn),
        )
      : closed(plannedPlaces(places ?? stepped(stations, 90 / (stations - 1)), (at) => (size) => `${size(at, 'length')} past the centre`)),
  faults,
  estimate,
  corrections: { slope: { plus: ['scrape'], minus: ['scrape'] } },
  part: SADDLE,
  picture: { drawing: 'faced-disc' },
  hangsOn: ['bed-twist', 'way-straightness', 'spindle-axis', 'saddle-squareness'],
  rests: ['headstock', 'saddle'],
  after: ['dovetail-over-pins', 'sub-spindle'],
  knows: [{ quantity: 'slope', name: 'facing' }],
  fromJob: {
    facing: ({ hollow, diameter }) => {
      const slope = (2000 * hollow) / diameter;
      return [
        {
          quantity: 'slope',
          zone: [0, slope],
          sum: `${say(hollow)} µm over the radius of ${say(diameter / 2)} mm = ${say(slope)} µm/m; never crowned`,
        },
      ];
    },
  },
  helps: [longerBase('read over a larger disc'), MORE_SET_UPS],
  reseat: 'Take a light facing cut again and read it',
  counting: 'On a faced disc the rim beyond the centre shows the error twice; where the tool itself went it shows nothing.',
  cautions: [ISOLATE, 'Feed override at minimum for the first approach of any powered alignment.'],
  cannotSee: ['Whether the headstock or the saddle causes it: facing hollow = axis − saddle squareness.'],
  advice: ['Read from the centre to the rim beyond it, not over the part the tool has travelled.'],
});
