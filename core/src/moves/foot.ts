import * as z from 'zod';
import type { Part } from '../checks/parts.js';
import { measure } from '../input/fields.js';

const length = measure('length', { label: 'Length', above: 0, max: 10_000, example: '260 mm' });

/** A length for each lean of a column. */
export const footWaysSchema = z.partialRecord(z.enum(['leanX', 'leanY']), length);

/** The foot of a column by its machine card: how long it is the way each lean goes; undefined where it is not told. */
export function footWays(card: Readonly<Record<string, unknown>>, part: Part | undefined): Readonly<Record<string, number>> | undefined {
  const foot = card['foot'] as { readonly across: number; readonly along: number } | undefined;
  return part?.foot && foot ? { leanX: foot.across, leanY: foot.along } : undefined;
}

/** The length that a quantity acts over, under the name that a move has for it. */
export function footWay(given: Readonly<Record<string, unknown>>, quantity: string, name: string): Readonly<Record<string, unknown>> {
  const own = (given['ways'] as Readonly<Record<string, number>> | undefined)?.[quantity];
  return own === undefined ? {} : { [name]: own };
}
