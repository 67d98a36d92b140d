import * as z from 'zod';
import { measure, plainNumber, quantitySchema } from '../input/fields.js';
import { cyclesAnEvening, cyclesLeft, eveningsFor } from '../scraping/cycles.js';
import { bare, groupOf } from './answer.js';
import { defineMove } from './define.js';

const minutes = (label: string, example: string, least: { above?: number; min?: number }) =>
  plainNumber({ label, example, max: 1440, ...least });

const range = (label: string) =>
  groupOf({ expected: bare('Expected'), low: bare('Low end of the range that holds eight of ten'), high: bare('High end of it') }, label);

/** When it will be done: cycles and evenings, each with the range that holds it eight times of ten. */
export const forecast = defineMove({
  kind: 'forecast',
  title: 'Forecast the end',
  name: 'cycles and evenings',
  verb: 'Still to take off',
  input: z.strictObject({
    passDepths: z
      .array(quantitySchema('deviation', { above: 0 }, '5 um'), { error: 'must be a list of depths' })
      .min(1, { error: 'must name one depth at least: what a pass has taken so far' })
      .max(1000, { error: 'must have at most 1000 depths' }),
    left: measure('deviation', { label: 'Left to take off', min: 0, example: '120 um' }),
    session: minutes('An evening', '90', { above: 0 }),
    setUp: minutes('Setting up', '10', { min: 0 }),
    cycle: minutes('One cycle', '15', { above: 0 }),
  }),
  answer: z.object({ cycles: range('Cycles still to come'), evenings: range('Evenings still to come') }),
  plan: ({ passDepths, left, session, setUp, cycle }) => {
    const cycles = cyclesLeft(passDepths, left);
    return { cycles, evenings: eveningsFor(cycles, cyclesAnEvening(session, setUp, cycle)) };
  },
  example: { passDepths: ['5 um', '6 um'], left: '60 um', session: 90, setUp: 10, cycle: 15 },
});
