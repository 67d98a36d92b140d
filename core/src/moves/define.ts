import type * as z from 'zod';
import { FaultError, faultsOf, type Fault } from '../faults.js';

/** The answer of a move: plain data, numbers in the units that docs/sheets.md gives. */
export type MovePlan = Readonly<Record<string, unknown>>;

/** What a check knows when it asks for a move: in the units of its quantity. */
export interface CorrectionFacts {
  readonly quantity: string;
  readonly value: number;
  readonly aim: number;
  /** Aim − value of every quantity of the check; 0 for those that are in. */
  readonly amounts: Readonly<Record<string, number>>;
  /** What the hardware already says. */
  readonly given: Readonly<Record<string, unknown>>;
}

/** One kind of move: what it needs and what it works out. */
export interface MoveDefinition {
  readonly kind: string;
  readonly title: string;
  readonly input: z.ZodObject;
  /** Name of the input that a check's correction (µm, signed like the quantity) fills in. */
  readonly amountKey?: string;
  /** The input that a correction of a slope (µm/m) fills in, where it is another one. */
  readonly slopeKey?: string;
  /** Whether the correction may be negative. */
  readonly signed?: boolean;
  /** Inputs that a check fills in, for moves that need more than one amount. */
  readonly fill?: (facts: CorrectionFacts) => Readonly<Record<string, unknown>>;
  readonly plan: (input: Readonly<Record<string, unknown>>) => MovePlan;
}

/** Describe a move; the input is typed from its schema. */
export function defineMove<Shape extends z.ZodObject>(
  definition: Omit<MoveDefinition, 'input' | 'plan'> & { readonly input: Shape; readonly plan: (input: z.output<Shape>) => MovePlan },
): MoveDefinition {
  return definition as unknown as MoveDefinition;
}

/**
 * Read the input of a move.
 *
 * @param prefix path of the input within its file, for the faults.
 * @param partial whether inputs may be missing, as in a check's `hardware`.
 */
export function readMoveInput(
  definition: MoveDefinition,
  raw: Readonly<Record<string, unknown>>,
  prefix: readonly string[],
  partial = false,
): { input?: Record<string, unknown>; faults: Fault[] } {
  const schema = partial ? definition.input.partial() : definition.input;
  const parsed = schema.safeParse(raw);
  if (parsed.success) return { input: parsed.data, faults: [] };
  return { faults: faultsOf(parsed.error, prefix, Object.keys(definition.input.shape)) };
}

/** Stop with one fault. */
export function refuse(path: string, message: string, example: string): never {
  throw new FaultError([{ path, message, example }]);
}
