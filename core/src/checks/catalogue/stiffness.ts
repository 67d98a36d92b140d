import { slotsWhere } from '../../instruments/slots.js';
import * as z from 'zod';
import { measure } from '../../input/fields.js';
import { ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates } from '../define.js';
import { swingEstimate } from '../estimate.js';
import { locksKey } from '../gibPlay.js';
import { tooFew } from '../notes.js';
import { differenceForm } from '../play.js';
import { unlimited } from '../quantities.js';

const setup = z.strictObject({ force: measure('force', { label: 'Push or twist by hand', above: 0, example: '100 N' }) });
const reading = z.strictObject({
  stroke: z.enum(['push', 'pull', 'rest'], { error: 'must be "push", "pull" or "rest"' }),
  locks: locksKey(),
});

type Setup = z.output<typeof setup>;

function estimate({ setup, slots }: CheckInput<Setup, z.output<typeof reading>>): Estimates {
  const [push, pull, rest] = (['push', 'pull', 'rest'] as const).map((hand) => slotsWhere(slots, ({ keys }) => keys.stroke === hand));
  const both = differenceForm(slots.length, push, pull);
  // The force goes both ways, so push to pull is twice what one push moves.
  const form = both?.map((weight) => weight / 2) ?? differenceForm(slots.length, push.length ? push : pull, rest);
  if (!form) return { estimates: [], notes: [tooFew('a push and a pull')] };
  return {
    estimates: [
      swingEstimate(
        'compliance',
        form.map((weight) => (weight * 100) / setup.force),
      ),
    ],
    notes: [],
  };
}

export const stiffness = defineCheck({
  id: 'stiffness',
  family: 'play',
  title: 'Stiffness',
  question: 'How much does a hand move it?',
  choose: 'At the start: a limit below what a hand moves will not be held under a cut.',
  machines: ['lathe', 'mill', 'turning-centre'],
  setup,
  reading,
  plan: z.strictObject({}),
  conditions: z.strictObject({}),
  slotKeys: ['stroke', 'locks'],
  reads: 'indicator',
  quantities: {
    compliance: unlimited('A hand’s push of 100 N (22 lbf) moves it by', 'deviation', 'um', { magnitude: true, byHand: true }),
  },
  slots: () => (['push', 'pull'] as const).map((hand) => ({ keys: { stroke: hand }, label: hand === 'push' ? 'Pushed' : 'Pulled' })),
  estimate,
  corrections: {},
  picture: { drawing: 'push-pull' },
  hangsOn: [],
  counting: 'Half of the swing from push to pull, brought to 100 N.',
  cautions: [ISOLATE],
  cannotSee: ['What a cut does: it shakes as well as pushes.'],
  advice: ['Push with a spring balance, or with your own weight that you know.'],
});
