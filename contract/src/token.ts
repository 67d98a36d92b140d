import * as z from 'zod';
import { givenOutSchema, newGivenOut, type GivenOut } from './givenOut.js';

/** A token with which a spreadsheet or a screen reads; it is told once, when it is made. */
export const tokenSchema = givenOutSchema;
export type Token = GivenOut;
export const newTokenSchema = newGivenOut('say what reads with it');
export const madeTokenSchema = tokenSchema.extend({ token: z.string() });
export type MadeToken = z.infer<typeof madeTokenSchema>;
