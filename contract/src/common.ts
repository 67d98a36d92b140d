import * as z from 'zod';

/** A client-made UUID: a write with the same one is safe to send twice. */
export const idSchema = z.uuid({ error: 'must be a UUID' });

export const versionSchema = z.int({ error: 'must be the version that was read' }).min(1);

/** Initials of who did it. */
export const whoSchema = z
  .string({ error: (issue) => (issue.input === undefined ? 'is missing: give your initials' : 'must be initials') })
  .trim()
  .min(1, { error: 'is missing: give your initials' })
  .max(8, { error: 'must be at most 8 characters: initials' });

/** The one shape in which the API tells what is wrong. */
export interface ApiErrors {
  readonly errors: readonly { readonly path: string; readonly message: string; readonly example: string }[];
  readonly requestId?: string;
  /** On 409: the row as it is now. */
  readonly current?: unknown;
}

export const conditionsSchema = z.record(z.string().max(40), z.union([z.string().max(200), z.number(), z.boolean()]));

/** A free JSON object: a setup or plan as typed, validated by the check it belongs to. */
export const textObjectSchema = z.record(z.string().max(60), z.unknown());
