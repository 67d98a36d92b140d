import * as z from 'zod';
import { whoSchema } from './common.js';

/** A token with which a spreadsheet or a screen reads; it is told once, when it is made. */
export const tokenSchema = z.object({ id: z.string(), name: z.string(), by: z.string(), at: z.string() });
export type Token = z.infer<typeof tokenSchema>;
export const newTokenSchema = z.strictObject({
  name: z
    .string({ error: 'is missing: say what reads with it' })
    .trim()
    .min(1, { error: 'is missing: say what reads with it' })
    .max(60, { error: 'must have at most 60 characters' }),
  by: whoSchema,
});
export const madeTokenSchema = tokenSchema.extend({ token: z.string() });
export type MadeToken = z.infer<typeof madeTokenSchema>;
