import * as z from 'zod';
import { fieldRegistry, measure, optionalMeasure, quantitySchema } from '../input/fields.js';
import { bare, figure } from './answer.js';
import { defineMove, refuse } from './define.js';
import { headCard } from './headSteps.js';
import { nodFactors, nodLanding, nodOf, roundsFor } from './nodWays.js';

const sides = z.strictObject({ operator: quantitySchema('deviation', {}, '120 um'), column: quantitySchema('deviation', {}, '-40 um') });

/**
 * Where the nod pivot lies, from rounds read before anything is tightened in which the watched side changed by w and
 * the difference (operator − column) by D: k = Σ w·D/Σ D², P = R·(2k − 1); watched on the column side P = R·(2k + 1).
 * Its doubt 2R·√(u_w² + k²·u_D²)/√(Σ D²) tells within what the head lands after one move.
 *
 * @returns `pivot` and `doubt` mm, `landing` µm, rounds that the classic way and halving would take from here.
 * Source: docs/methods/moves.md.
 */
export const tramPivot = defineMove({
  kind: 'tram-pivot',
  title: 'Find the nod pivot',
  name: 'find the pivot',
  verb: 'Nod it',
  needs: ['swivel-head'],
  card: headCard,
  input: z.strictObject({
    radius: measure('length', { label: 'Radius of the sweep', above: 0, example: '110 mm' }),
    watched: z.enum(['operator', 'column'], { error: 'must be "operator" or "column"' }).optional(),
    rounds: z
      .array(z.strictObject({ before: sides, after: sides }), { error: 'must be a list of rounds' })
      .min(1, { error: 'must have one round at least, before and after the screw was turned' })
      .max(100, { error: 'must have at most 100 rounds' }),
    doubt: optionalMeasure('deviation', { label: 'Doubt of one reading', min: 0, example: '1 um' }),
    limit: optionalMeasure('slope', { label: 'Limit of the nod', above: 0, example: '65 um/m' }),
  }),
  answer: z.object({
    pivot: figure('length', 'The nod pivot behind the spindle'),
    doubt: figure('length', 'Within'),
    landing: figure('deviation', 'Within what the head lands after one move'),
    tooSmall: z.boolean().register(fieldRegistry, { label: 'The rounds changed too little to teach anything' }),
    classicRounds: bare('Rounds that the classic way would still take').nullable(),
    halvingRounds: bare('Rounds that halving would still take').nullable(),
  }),
  plan: ({ radius, watched = 'operator', rounds, doubt = 0, limit = 65 }) => {
    const changes = rounds.map(({ before, after }) => ({
      w: after[watched] - before[watched],
      d: after.operator - after.column - (before.operator - before.column),
    }));
    const squares = changes.reduce((sum, { d }) => sum + d ** 2, 0);
    if (!(squares > 0))
      return refuse(
        'rounds',
        'changed nothing between the two sides: the pivot cannot be learned from that',
        'before and after a turn of the screw',
      );
    const k = changes.reduce((sum, { w, d }) => sum + w * d, 0) / squares;
    const pivot = radius * (2 * k - (watched === 'operator' ? 1 : -1));
    // A change of one side is two readings, of the difference four.
    const [uw, ud] = [Math.SQRT2 * doubt, 2 * doubt];
    const u = (2 * radius * Math.sqrt(uw ** 2 + k ** 2 * ud ** 2)) / Math.sqrt(squares);
    const { after } = rounds[rounds.length - 1];
    const nod = Math.abs(nodOf(after, radius));
    const factors = nodFactors(pivot, radius);
    return {
      pivot,
      doubt: u,
      landing: nodLanding(after.operator - after.column, { pivot, doubt: u }, radius, doubt),
      // A first difference that its own doubt could have made teaches nothing.
      tooSmall: Math.sqrt(squares) < 4 * ud,
      classicRounds: factors ? roundsFor(nod, limit, factors.classic) : null,
      halvingRounds: factors ? roundsFor(nod, limit, factors.halving) : null,
    };
  },
  example: {
    radius: 110,
    rounds: [{ before: { operator: '120 um', column: '-40 um' }, after: { operator: '0 um', column: '-80 um' } }],
  },
});
