import * as z from 'zod';
import { fieldRegistry, measure } from '../input/fields.js';
import { figure, maybe } from './answer.js';
import { defineMove, type PlanOf } from './define.js';
import { after, ISOLATE, isZero, SNUG, watch, type JobStep, type StepFacts } from './jobSteps.js';

export const RADIAN = Math.PI / 180;

/** An angle brought into (−180, 180]. */
export function wrap(degrees: number): number {
  const turned = (((degrees % 360) + 540) % 360) - 180;
  return turned === -180 ? 180 : turned;
}

/**
 * Turn an eccentric sleeve for a horizontal move. The throw points (throw·sin θ, throw·cos θ) in
 * (horizontal, up). Of the two angles that give the move, the one nearest the present is taken.
 *
 * @param throwUm throw, µm. @param angle present angle, degrees. @param amount wanted horizontal change, µm.
 * @returns new `angle` and `turn` (degrees), `heightChange` (µm, + up); out of reach also `reach`:
 *   the part of the amount that can be had, signed, and `ways`: what its ways must be moved by instead, µm, with the
 *   sleeve in the middle of its travel.
 */
export function turnEccentric(throwUm: number, angle: number, amount: number) {
  const now = Math.sin(angle * RADIAN);
  const wanted = now + amount / throwUm;
  const within = Math.max(-1, Math.min(1, wanted));
  const one = Math.asin(within) / RADIAN;
  const turns = [wrap(one - angle), wrap(180 - one - angle)];
  const turn = Math.abs(turns[0]) <= Math.abs(turns[1]) ? turns[0] : turns[1];
  const heightChange = throwUm * (Math.cos((angle + turn) * RADIAN) - Math.cos(angle * RADIAN));
  const plan = { angle: wrap(angle + turn), turn, heightChange };
  // With the sleeve back in the middle of its travel the ways have all of it to do, and what the sleeve gave before.
  return Math.abs(wanted) <= 1 ? plan : { ...plan, reach: throwUm * (within - now), ways: throwUm * wanted };
}

/** What a machine card says of an eccentric sleeve. */
export const sleeveCard = {
  eccentric: z
    .strictObject({
      throw: measure('deviation', { label: 'Eccentric throw', above: 0, unit: 'um', example: '0.4 mm', engraved: true }),
      angle: measure('angle', {
        label: 'Eccentric angle now',
        min: -360,
        max: 360,
        example: '0',
        help: '0 with the throw straight up, 90 toward the operator.',
      }),
    })
    .optional()
    .register(fieldRegistry, { label: 'Eccentric sleeve', group: true, rare: true }),
};

const answer = z.object({
  angle: figure('angle', 'The angle to leave it at'),
  turn: figure('angle', 'By how much it is turned'),
  heightChange: figure('deviation', 'How far the height changes, + up'),
  reach: maybe('deviation', 'What it can do of the amount, where it cannot do all'),
  ways: maybe('deviation', 'What the ways must do instead, with the sleeve back in the middle'),
});

/** What a plan of a sleeve is made from, whether it is turned or set back. */
export const sleeveInput = z.strictObject({
  throw: measure('deviation', { label: 'Throw', above: 0, example: '0.4 mm', engraved: true }),
  angle: measure('angle', { label: 'Angle now', min: -360, max: 360, example: '0' }),
  amount: measure('deviation', { label: 'Amount', example: '21 um' }),
});

/** "by 30.0° counterclockwise, seen from the tailstock’s end": from up toward the operator, who is on the left there. */
export const turnWords = (turn: number): string =>
  `by ${Math.abs(turn).toFixed(1)}° ${turn < 0 ? 'clockwise' : 'counterclockwise'}, seen from the tailstock’s end`;

function steps(facts: StepFacts<PlanOf<typeof answer>>): JobStep[] {
  const { plan, words } = facts;
  const { angle = 0, turn = 0, reach, heightChange = 0 } = plan;
  const [able, height] = [reach, heightChange].map((um) => words.size(Math.abs(um ?? 0)));
  return [
    { text: 'Scribe a line across the joint to mark where the sleeve is now.', caution: ISOLATE },
    watch(facts),
    { text: 'Loosen the lock of the sleeve until it just turns.', caution: SNUG },
    {
      text: `Turn it ${turnWords(turn)}, to ${angle.toFixed(1)}°, ${reach === undefined ? 'until the needle reads its target' : `where the needle has gone ${able} of its way and no more`}.`,
      needle: true,
    },
    ...(reach === undefined
      ? []
      : [
          {
            text: `The sleeve can move it ${able} and no further, and then has no travel left. Better choose “sleeve to its middle, and move the body” above. Or leave it here, and move the rest with the adjusting screws after a new round.`,
          },
        ]),
    ...(isZero(height) ? [] : [{ text: `The height changes with it: ${height} ${heightChange > 0 ? 'up' : 'down'}. Read it again.` }]),
    ...after,
  ];
}

/** An eccentric sleeve under the centre or the quill. The angle it is left at is where the next card starts. */
export const eccentric = defineMove({
  kind: 'eccentric',
  title: 'Turn the eccentric sleeve',
  name: 'turn the eccentric sleeve',
  verb: 'Bring it',
  amountKey: 'amount',
  signed: true,
  input: sleeveInput,
  plan: ({ throw: throwUm, angle, amount }) => turnEccentric(throwUm, angle, amount),
  answer,
  does: ({ throw: throwUm, angle }, plan) => throwUm * (Math.sin(plan.angle * RADIAN) - Math.sin(angle * RADIAN)),
  handFigures: ['angle', 'turn'],
  machines: ['lathe', 'turning-centre'],
  needs: ['tailstock'],
  card: sleeveCard,
  standsAt: ({ angle, turn }, done) =>
    angle !== undefined && turn !== undefined
      ? { eccentric: { angle: `${Number((done ? angle : wrap(angle - turn)).toFixed(1))} deg` } }
      : undefined,
  ifOnCard: true,
  hardware: ({ card }) => card.eccentric,
  drawing: ({ plan: { angle, turn } }) =>
    angle === undefined || turn === undefined ? undefined : { shows: 'sleeve', from: wrap(angle - turn), to: angle },
  steps,
  example: { throw: '0.4 mm', angle: 0, amount: '21 um' },
});
