import * as z from 'zod';
import { idSchema, pictureNameSchema, text, whenSchema, whoSchema } from './common.js';

/** Where something lies on a picture: parts of its width and height, from its upper left corner. */
const spot = z.tuple([z.number().min(0).max(1), z.number().min(0).max(1)], { error: 'must be two numbers from 0 to 1' });
export type Spot = z.infer<typeof spot>;

/** What is drawn over a photograph. It stays apart from it: the photograph itself is never changed. */
export const markSchema = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ kind: z.literal('line'), points: z.array(spot).min(2).max(400) }),
    z.strictObject({ kind: z.literal('arrow'), from: spot, to: spot }),
    z.strictObject({ kind: z.literal('words'), at: spot, text: text(80).min(1) }),
  ],
  { error: 'must be a line, an arrow or words' },
);
export type Mark = z.infer<typeof markSchema>;

export const markedPictureSchema = z.strictObject({
  /** Name of a picture that was sent before: its SHA-256. */
  hash: pictureNameSchema,
  marks: z.array(markSchema).max(100, { error: 'must be at most 100 marks' }),
});
export type MarkedPicture = z.infer<typeof markedPictureSchema>;

/** The most pictures of one note, and the most characters. */
export const MOST_PICTURES = 12;
export const MOST_NOTE = 10_000;

/** The screen that something was written on. */
export const remarkPlaceSchema = z.strictObject({
  /** The address of the screen. */
  path: z
    .string()
    .max(300)
    .regex(/^\/(?!\/)/, { error: 'must be an address in this shop' }),
  /** What it is called: "Bar between centres, round 3, at 420 mm". */
  words: text(200),
});
export type RemarkPlace = z.infer<typeof remarkPlaceSchema>;

/** Whether a note holds nothing: one that supersedes another takes it back. */
export const isTakenBack = ({ text: words, pictures }: { readonly text: string; readonly pictures: readonly unknown[] }): boolean =>
  words === '' && pictures.length === 0;

/**
 * A note written from any screen, with photographs. A line that begins with `[ ]` is a thing to do, with `[x]` one that is done. Never
 * changed: another supersedes it; one with neither words nor pictures takes it back.
 */
export const remarkSchema = z
  .strictObject({
    id: idSchema,
    machineId: idSchema.nullable(),
    /** The check or the face that was open. */
    part: z.string().max(60).nullable(),
    place: remarkPlaceSchema,
    text: text(MOST_NOTE),
    pictures: z.array(markedPictureSchema).max(MOST_PICTURES, { error: `must be at most ${MOST_PICTURES} photographs` }),
    supersedes: idSchema.nullable(),
    by: whoSchema,
    at: whenSchema,
  })
  .refine((remark) => !isTakenBack(remark) || remark.supersedes !== null, {
    path: ['text'],
    error: 'is missing: write something, or add a photograph',
  });
export type Remark = z.infer<typeof remarkSchema>;
