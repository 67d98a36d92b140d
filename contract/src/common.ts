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

export const whenSchema = z.iso.datetime({ error: 'must be a time like 2026-01-31T08:00:00.000Z' });

/** The highest price that is taken. */
export const MOST_PRICE = 10_000_000;

/** A reason in a few words. */
export const reasonSchema = z
  .string({ error: (issue) => (issue.input === undefined ? 'is missing: say why' : 'must be a text') })
  .trim()
  .min(1, { error: 'is missing: say why' })
  .max(200, { error: 'must have at most 200 characters' });

export const text = (max: number, missing = 'is missing: give a text') =>
  z
    .string({ error: (issue) => (issue.input === undefined ? missing : 'must be a text') })
    .trim()
    .max(max, { error: `must have at most ${max} characters` });

/** What went wrong, for programs: stable, as the texts are not. */
export const ERROR_CODES = [
  'invalid',
  'not-json',
  'not-found',
  'no-such-address',
  'stale',
  'duplicate',
  'conflict',
  'discarded',
  'date-in-doubt',
  'done',
  'too-many',
  'too-large',
  'takes-too-long',
  'too-many-requests',
  'forbidden',
  'not-paired',
  'disk-full',
  'database-away',
  'server-error',
] as const;
export type ErrorCode = (typeof ERROR_CODES)[number];

/** The one shape in which the API tells what is wrong. */
export const apiErrorsSchema = z.object({
  /** One of ERROR_CODES; a later version may know more. */
  code: z.string().optional(),
  errors: z.array(z.object({ path: z.string(), message: z.string(), example: z.string() })),
  requestId: z.string().optional(),
  /** On 409: the row as it is now. */
  current: z.unknown().optional(),
});
export type ApiErrors = z.infer<typeof apiErrorsSchema>;

/** Whether what is wrong wants the name of its field before it, "is missing"; otherwise it is a sentence by itself. */
export const wantsSubject = (message: string): boolean =>
  /^(is|are|must|has|have|does|lies|takes|cannot|needs|may|refers|names)\b/.test(message);

export const conditionsSchema = z.record(z.string().max(40), z.union([z.string().max(200), z.number(), z.boolean()]));

/** A free JSON object: a setup or plan as typed, validated by the check it belongs to. */
export const textObjectSchema = z.record(z.string().max(60), z.unknown());

/** The name of a picture that is kept: the SHA-256 of its bytes. */
export const pictureNameSchema = z.string().regex(/^[0-9a-f]{64}$/, { error: 'must be the name of a picture that was kept' });

/** What is kept as typed under a key is read by a schema of its own: what is wrong with it belongs to its fields. */
export const readBy =
  (key: string, schema: z.ZodType) =>
  (value: Readonly<Record<string, unknown>>, context: z.RefinementCtx): void => {
    for (const issue of schema.safeParse(value[key]).error?.issues ?? [])
      context.addIssue({ ...(issue as z.core.$ZodIssueCustom), path: [key, ...issue.path] });
  };
