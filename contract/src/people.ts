import * as z from 'zod';
import { text, whoSchema } from './common.js';
import { workingSchema } from './plan.js';

/** Somebody who works in the shop, by initials; or initials that were a typing mistake for somebody else’s. */
export const personSchema = z.strictObject({
  initials: whoSchema,
  name: text(60),
  /** Whose they were meant to be; null for a person. */
  meant: whoSchema.nullable(),
  /** When they work; null where nobody has told it. Left out of a change, it stays. */
  working: workingSchema.nullable().optional(),
});
export type Person = z.infer<typeof personSchema>;
export const personWriteSchema = z
  .strictObject({ ...personSchema.shape, by: whoSchema })
  .refine(({ initials, meant }) => initials !== meant, { path: ['meant'], error: 'are these initials themselves: give somebody else’s' });

/** Initials that are used in the shop: added on its page, or only seen. */
export const listedPersonSchema = personSchema.extend({
  /** How many entries of the logbook they stand on. */
  entries: z.int(),
  /** Whether somebody has added them; otherwise they were only used. */
  added: z.boolean(),
});
export type ListedPerson = z.infer<typeof listedPersonSchema>;
