import * as z from 'zod';
import { archivedSchema } from './archived.js';
import type { Casting } from './machine.js';

/** After how long a check of a machine wants to be read again: days, hours of running with how many there are a week, or both. */
export interface ReadAgain {
  readonly check: string;
  readonly days?: number | undefined;
  readonly hours?: number | undefined;
  readonly perWeek?: number | undefined;
}

/** A card as typed: what is stored and shown again. Fields that moves ask for stand beside these under their own names. */
export interface MachineCardText {
  readonly number: string;
  readonly nickname?: string;
  readonly kind: string;
  readonly swing?: unknown;
  readonly centreDistance?: unknown;
  readonly castings?: readonly Casting[];
  readonly readAgain?: readonly ReadAgain[];
  readonly notes?: string;
  readonly [field: string]: unknown;
}
/** A machine as the server has it: its card as typed. Kept apart so that the list of machines is drawn before the metrology is loaded. */
export const storedMachineSchema = z.object({
  id: z.string(),
  card: z.custom<MachineCardText>((card) => typeof card === 'object' && card !== null && 'number' in card && 'kind' in card),
  version: z.number(),
  archived: archivedSchema.optional(),
});
export type Machine = z.infer<typeof storedMachineSchema>;
