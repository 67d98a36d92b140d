import * as z from 'zod';

/** When something was put in the archive, and by whom: it is kept, and offered nowhere. Kept apart so that the first page loads little. */
export const archivedSchema = z.object({ at: z.string(), by: z.string() });
export type Archived = z.infer<typeof archivedSchema>;

/** What can be put in the archive. */
export const ARCHIVED = ['machines', 'kit', 'limits', 'surveys'] as const;
export type ArchivedKind = (typeof ARCHIVED)[number];
