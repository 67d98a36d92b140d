import * as z from 'zod';
import { figure } from './answer.js';
import { defineMove, type PlanOf } from './define.js';
import { RADIAN, sleeveCard, sleeveInput, turnWords, wrap } from './eccentric.js';
import { after, ISOLATE, isZero, partOf, SNUG, watch, type JobStep, type StepFacts } from './jobSteps.js';

const answer = z.object({
  angle: figure('angle', 'The angle to leave the sleeve at: the middle of its travel'),
  turn: figure('angle', 'By how much the sleeve is turned'),
  ways: figure('deviation', 'What the body must be moved by, signed like the amount'),
  heightChange: figure('deviation', 'How far the height changes, + up'),
});

function steps(facts: StepFacts<PlanOf<typeof answer>>): JobStep[] {
  const { plan, words, amount = 0 } = facts;
  const { turn = 0, ways = 0, heightChange = 0 } = plan;
  const { name } = partOf(facts);
  const [moved, height] = [words.size(Math.abs(ways)), words.size(Math.abs(heightChange))];
  const back = ways * amount < 0;
  return [
    { text: 'Scribe a line across the joint of the sleeve to mark where it is now.', caution: ISOLATE },
    watch(facts),
    ...(turn === 0
      ? []
      : [
          {
            text: `Loosen the lock of the sleeve until it just turns, and turn it ${turnWords(turn)}, back to 0°. Lock it.`,
            caution: SNUG,
          },
        ]),
    {
      text: `Loosen the clamp to snug and move the body of the ${name} with its adjusting screws until the needle reads its target: ${moved} ${back ? 'the other way' : facts.direction}.`,
      needle: true,
      ...(turn === 0 && { caution: SNUG }),
    },
    ...(isZero(height)
      ? []
      : [{ text: `The height changes with the sleeve: ${height} ${heightChange > 0 ? 'up' : 'down'}. Read it again.` }]),
    ...after,
  ];
}

/**
 * An eccentric sleeve is set back to the middle of its travel, and the body under it is moved instead: by the amount, and by what
 * the sleeve gave before. It then has travel left for later.
 *
 * @returns `angle` 0 and `turn`, degrees; `ways` and `heightChange`, µm.
 */
export const sleeveMiddle = defineMove({
  kind: 'sleeve-middle',
  title: 'Set the sleeve to its middle and move the body',
  name: 'sleeve to its middle, and move the body',
  verb: 'Bring it',
  amountKey: 'amount',
  signed: true,
  input: sleeveInput,
  plan: ({ throw: throwUm, angle, amount }) => ({
    angle: 0,
    turn: -wrap(angle) + 0,
    ways: amount + throwUm * Math.sin(angle * RADIAN),
    heightChange: throwUm * (1 - Math.cos(angle * RADIAN)),
  }),
  answer,
  does: ({ throw: throwUm, angle }, { ways }) => ways - throwUm * Math.sin(angle * RADIAN),
  handFigures: ['ways', 'turn'],
  machines: ['lathe', 'turning-centre'],
  needs: ['tailstock'],
  sees: sleeveCard,
  standsAt: ({ turn }, done) => (turn === undefined ? undefined : { eccentric: { angle: `${Number((done ? 0 : -turn).toFixed(1))} deg` } }),
  ifOnCard: true,
  ifEquipped: true,
  hardware: ({ card }) => card.eccentric,
  drawing: ({ plan: { turn } }) => (turn === undefined || turn === 0 ? undefined : { shows: 'sleeve', from: -turn, to: 0 }),
  steps,
  example: { throw: '0.4 mm', angle: 30, amount: '21 um' },
});
