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

/** What a report is made in: its rounds are worked out, then it is printed. */
export const REPORT_STEPS = ['rounds', 'printing'] as const;
export type ReportStep = (typeof REPORT_STEPS)[number];

/** A line of the answer while a report is made: how far it is, the ticket by which it is fetched, or why there is none. */
export const reportLineSchema = z.union([
  z.object({ doing: z.enum(REPORT_STEPS), done: z.int().min(0), of: z.int().min(0) }),
  z.object({ ticket: z.uuid() }),
  z.object({ errors: z.array(z.object({ path: z.string(), message: z.string(), example: z.string() })) }),
]);
export type ReportLine = z.infer<typeof reportLineSchema>;
