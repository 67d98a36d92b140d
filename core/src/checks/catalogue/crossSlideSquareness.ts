import * as z from 'zod';
import { choice, measure } from '../../fields.js';
import { defineCheck, type CheckInput, type Estimates, type Note } from '../define.js';
import { linearEstimate } from '../estimate.js';
import { ISOLATE, plannedPlaces, shortBase, stationPlan, stepped, tooFew } from '../common.js';
import { traverseLine } from '../traverse.js';
import { unlimited } from '../tailstock.js';
import { SADDLE } from '../../moves/parts.js';

const facingSetup = z.strictObject({
  method: choice({
    label: 'Method',
    choices: [
      { value: 'faced-disc', label: 'a disc faced here, read past its centre' },
      { value: 'reversed-disc', label: 'a disc turned half round' },
    ],
  }),
});
const facingReading = z.strictObject({
  at: measure('length', { label: 'Past the centre', example: '60 mm' }),
  turn: z.union([z.literal(0), z.literal(180)], { error: 'must be 0 or 180' }).optional(),
});

function facingEstimate({ setup, slots, instrument }: CheckInput<z.output<typeof facingSetup>>): Estimates {
  const line = traverseLine(slots, ['turn']);
  if (!line) return { estimates: [], notes: [tooFew('the centre and the rim beyond it')] };
  // Past the centre a faced disc shows the slide's error twice; a disc turned half round shows it once.
  const factor = setup.method === 'reversed-disc' ? 1000 : 500;
  const estimates = [
    linearEstimate(
      'slope',
      line.weights.map((weight) => factor * weight),
    ),
  ];
  if (setup.method === 'reversed-disc' && line.byWay.length === 2) {
    const [a, b] = line.byWay;
    estimates.push(
      linearEstimate(
        'discSlope',
        a.map((weight, i) => 500 * (weight - b[i])),
      ),
    );
  }
  const notes: Note[] =
    setup.method === 'reversed-disc' && line.byWay.length < 2
      ? [
          {
            code: 'disc-not-reversed',
            severity: 'warning',
            text: 'The disc has been read one way only: its own wobble is still in the result.',
          },
        ]
      : [];
  const places = slots.map((slot) => slot.keys['at'] as number);
  return { estimates, notes: [...notes, ...(instrument ? shortBase(2 * (Math.max(...places) - Math.min(...places))) : [])] };
}

export const crossSlideSquareness = defineCheck({
  id: 'cross-slide-squareness',
  family: 'traverse',
  title: 'Cross slide',
  question: 'Does it face flat, or a little hollow?',
  choose: 'Last of all: headstock and saddle both go into it.',
  machines: ['lathe', 'turning-centre'],
  setup: facingSetup,
  reading: facingReading,
  slotKeys: ['at', 'turn'],
  valueKind: 'indicator',
  quantities: {
    slope: {
      label: 'Facing',
      subject: 'The cross slide',
      dimension: 'slope',
      work: { perUnit: 0.1, what: 'hollow in a faced disc of 200 mm' },
      unit: 'um/m',
      limit: [0, 67],
      words: {
        plus: 'facing hollow',
        minus: 'facing crowned',
        movePlus: 'so that it faces more hollow',
        moveMinus: 'so that it faces less hollow',
      },
    },
    discSlope: unlimited('The disc itself', 'slope', 'um/m'),
  },
  plan: stationPlan('Places from centre to rim', 3),
  conditions: z.strictObject({}),
  slots: ({ method }, { stations = 3 }) =>
    method === 'reversed-disc'
      ? ([0, 180] as const).flatMap((turn) =>
          stepped(stations, 120 / (stations - 1)).map((at, i) => ({
            keys: { at, turn },
            label: `${at} mm toward the rear`,
            ask: i === 0 && turn === 180 ? 'Turn the spindle half round by hand.' : undefined,
          })),
        )
      : plannedPlaces(stepped(stations, 90 / (stations - 1)), (at) => `${at} mm past the centre`),
  estimate: facingEstimate,
  corrections: { slope: { plus: ['scrape'], minus: ['scrape'] } },
  part: SADDLE,
  counting: 'On a faced disc the rim beyond the centre shows the error twice; where the tool itself went it shows nothing.',
  upsets: [],
  cautions: [ISOLATE, 'Feed override at minimum for the first approach of any powered alignment.'],
  cannotSee: ['Whether the headstock or the saddle is to blame: facing hollow = axis − saddle squareness.'],
  advice: ['Read from the centre to the rim beyond it, not over the part the tool has travelled.'],
});
