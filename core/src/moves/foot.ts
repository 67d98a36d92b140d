import * as z from 'zod';
import type { Part } from '../checks/parts.js';
import { fieldRegistry, measure, optionalNumber } from '../input/fields.js';
import type { CardOf } from './define.js';

const length = measure('length', { label: 'Length', above: 0, max: 10_000, example: '260 mm' });

/** The foot of a column: where its outermost bolts are, how many, and whether it is dowelled. */
export const footSchema = z.strictObject({
  across: measure('length', { label: 'Foot, left to right', above: 0, max: 10_000, example: '260 mm' }),
  along: measure('length', { label: 'Foot, front to rear', above: 0, max: 10_000, example: '340 mm' }),
  bolts: optionalNumber({ label: 'Bolts of the foot', min: 2, max: 24, example: '4' }),
  dowels: z.boolean({ error: 'must be true or false' }).optional().register(fieldRegistry, { label: 'Dowelled to the base' }),
});
export type Foot = z.output<typeof footSchema>;

/** The foot of a column on a machine card. */
export const footCard = {
  foot: footSchema.optional().register(fieldRegistry, { label: 'Column foot', group: true }),
};

/** A length for each lean of a column. */
export const footWaysSchema = z.partialRecord(z.enum(['leanX', 'leanY']), length);

/** The foot of a column by its machine card: how long it is the way each lean goes; undefined where it is not told. */
export function footWays({ foot }: CardOf<typeof footCard>, part: Part | undefined): Readonly<Record<string, number>> | undefined {
  return part?.foot && foot ? { leanX: foot.across, leanY: foot.along } : undefined;
}

/** The length that a quantity acts over, under the name that a move has for it. */
export function footWay(given: Readonly<Record<string, unknown>>, quantity: string, name: string): Readonly<Record<string, unknown>> {
  const own = (given['ways'] as Readonly<Record<string, number>> | undefined)?.[quantity];
  return own === undefined ? {} : { [name]: own };
}
