import * as z from 'zod';

/** In which unit a report is written, and how much of it. */
export const PAPER_UNITS = ['mm', 'inch', 'both'] as const;
export const REPORT_DETAILS = ['short', 'full'] as const;

/** How a report is asked for. */
export const reportQuerySchema = z.strictObject({
  units: z.enum(PAPER_UNITS, { error: 'must be mm, inch or both' }).default('mm'),
  detail: z.enum(REPORT_DETAILS, { error: 'must be short or full' }).default('full'),
  /** Ids of the checks that it tells of, with commas between; all where left out. */
  checks: z
    .string()
    .max(4000)
    .transform((text) => text.split(',').filter(Boolean))
    .optional(),
});
export type ReportQuery = z.infer<typeof reportQuerySchema>;
