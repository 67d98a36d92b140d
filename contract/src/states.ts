import * as z from 'zod';

/** What keeps every earlier state of itself, by the name of its list. */
export const KEPT = ['machines', 'kit', 'surfaces', 'parts', 'shops', 'surveys', 'rounds', 'plans'] as const;
export type Kept = (typeof KEPT)[number];

/** One field of a form that changed, in its words: "Column foot: Foot, left to right"; null where it was not given before, or is not now. */
export const fieldChangeSchema = z.object({ field: z.string(), from: z.string().nullable(), to: z.string().nullable() });
export type FieldChange = z.infer<typeof fieldChangeSchema>;

const stateShape = {
  version: z.int(),
  /** Who made it so, and when; null where that was before earlier states were kept. */
  by: z.string().nullable(),
  at: z.string().nullable(),
};

/** One state of something, and what was changed to come to it from the one before. */
export const stateHeadSchema = z.object({ ...stateShape, changes: z.array(fieldChangeSchema).readonly() });
export type StateHead = z.infer<typeof stateHeadSchema>;

/** A state as it stood, whole. */
export const stateThenSchema = z.object({ ...stateShape, state: z.record(z.string(), z.unknown()) });
export type StateThen = z.infer<typeof stateThenSchema>;
