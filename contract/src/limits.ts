import * as z from 'zod';
import type { LimitSheet } from '@isometra/core';
import { archivedSchema } from './archived.js';
import { idSchema, versionSchema, whoSchema } from './common.js';

/** A limit sheet of the shop's own, as sent; the content is checked by the core. */
export const limitSheetWriteSchema = z.strictObject({
  id: idSchema,
  content: z.unknown(),
  /** The version that was changed; 1 for a new one. */
  version: versionSchema,
  by: whoSchema,
});

/** A limit sheet with its history: every version is kept, because surveys were judged by it. */
export const storedLimitSheetSchema = z.object({
  id: z.string(),
  content: z.custom<LimitSheet>((sheet) => typeof sheet === 'object' && sheet !== null && 'lines' in sheet),
  version: z.number(),
  by: z.string(),
  at: z.string(),
  archived: archivedSchema.optional(),
});
export type StoredLimitSheet = z.infer<typeof storedLimitSheetSchema>;
