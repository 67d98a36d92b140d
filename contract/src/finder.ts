import * as z from 'zod';

const named = z.object({ id: z.string(), name: z.string() });

/** Everything in the shop that has a name, in short: what a search by name looks through. What is in the archive is in it too. */
export const finderSchema = z.object({
  machines: z.array(
    z.object({ id: z.string(), number: z.string(), nickname: z.string(), kind: z.string(), archived: z.literal(true).optional() }),
  ),
  faces: z.array(named.extend({ machineId: z.string() })),
  kit: z.array(named.extend({ archived: z.literal(true).optional() })),
  sheets: z.array(named.extend({ archived: z.literal(true).optional() })),
  /** Parts that came off, with where they belong; those without a number are the strip-downs themselves. */
  parts: z.array(named.extend({ machineId: z.string(), stripDownId: z.string(), number: z.number().nullable() })),
  people: z.array(z.string()),
  /** The rounds of each check of each machine: how many, and the id of the last one. */
  rounds: z.array(z.object({ machineId: z.string(), check: z.string(), count: z.number(), last: z.string() })),
});
export type Finder = z.infer<typeof finderSchema>;
