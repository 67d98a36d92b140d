import * as z from 'zod';
import { whoSchema } from './common.js';

/** A secret that was given out, without the secret: what it is for, who made it and when. */
export const givenOutSchema = z.object({ id: z.string(), name: z.string(), by: z.string(), at: z.string() });
export type GivenOut = z.infer<typeof givenOutSchema>;

/** A secret that is asked for. @param ask for what it is: "say whose calendar reads it". */
export const newGivenOut = (ask: string) =>
  z.strictObject({
    name: z
      .string({ error: `is missing: ${ask}` })
      .trim()
      .min(1, { error: `is missing: ${ask}` })
      .max(60, { error: 'must have at most 60 characters' }),
    by: whoSchema,
  });
