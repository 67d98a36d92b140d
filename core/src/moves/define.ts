import type * as z from 'zod';
import type { MachineFamily, MachineFeature } from '../checks/define.js';
import type { Part } from '../checks/parts.js';
import { FaultError, faultsOf, type Fault } from '../input/faults.js';
import type { JobFacts, JobStep } from './jobSteps.js';

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

/** What a shop knows that a plan needs: a machine's card in base units, the leaves in its drawers, a gain that was learned. */
export interface HardwareFacts {
  readonly card: Readonly<Record<string, unknown>>;
  readonly stock?: readonly unknown[];
  readonly gain?: number | null;
  readonly part?: Part;
  /** What this kind of machine has. */
  readonly has?: readonly MachineFeature[];
}

/** One kind of move, described once: what it needs, what it works out, its words and its steps. */
export interface MoveDefinition {
  readonly kind: string;
  readonly title: string;
  /** Among other ways to make the same correction: "turn the adjusting screws". */
  readonly name: string;
  /** How it is spoken of: "Bring it" 0.021 mm toward you. */
  readonly verb: string;
  readonly input: z.ZodObject;
  /** Name of the input that a check's correction (µm, signed like the quantity) fills in. */
  readonly amountKey?: string;
  /** The input that a correction of a slope (µm/m) fills in, where it is another one. */
  readonly slopeKey?: string;
  /** The input that a correction of a twist (µm/m per m) fills in. */
  readonly twistKey?: string;
  /** The input without which a slope or a twist is no amount: the distance it acts over. */
  readonly overKey?: string;
  /** Whether the correction may be negative. */
  readonly signed?: boolean;
  /** Its plan goes in proportion to its amount: it can be made for another amount than the round asks for. */
  readonly scales?: true;
  /** It takes metal off: planned only for what is out, never for what is too close to call. */
  readonly metal?: true;
  /** It lays leaves in: they are counted out of the drawers. */
  readonly leaves?: true;
  /** What its job card has beside the steps: the change sheet of a register, the setting of a sine plate. */
  readonly panel?: 'register' | 'sine-plate';
  /** Who puts right what lies along a slide, and what lies square to it. */
  readonly curedBy?: 'control' | 'bolts';
  /** Inputs that a check fills in, for moves that need more than one amount. */
  readonly fill?: (facts: CorrectionFacts) => Readonly<Record<string, unknown>>;
  /** The arithmetic; left out for what is done by hand and eye. */
  readonly plan?: (input: Readonly<Record<string, unknown>>) => MovePlan;
  /** Machines that have what it moves; all of them if left out. */
  readonly machines?: readonly MachineFamily[];
  /** What a machine must have for it. */
  readonly needs?: readonly MachineFeature[];
  /** Fields of a machine's card that it needs. */
  readonly card?: Readonly<Record<string, z.ZodType>>;
  /** Its input as far as card and drawers know it; undefined when this machine has no such thing. */
  readonly hardware?: (facts: HardwareFacts) => Readonly<Record<string, unknown>> | undefined;
  /** What the machine card tells for the words of its steps. */
  readonly onCard?: (card: Readonly<Record<string, unknown>>, part: Part | undefined) => Partial<JobFacts> | undefined;
  /** What the card must say once it is done, or once it is not done after all: fields of the card's parts. */
  readonly standsAt?: (plan: MovePlan, done: boolean) => Readonly<Record<string, Readonly<Record<string, unknown>>>> | undefined;
  /** Offered only where the machine card says that there is such a thing. */
  readonly ifOnCard?: true;
  /** The numbered steps of its job card; a plain one where there are none. */
  readonly steps?: (facts: JobFacts) => readonly JobStep[];
  /** An input that would be taken, for the docs and the specs. */
  readonly example?: Readonly<Record<string, unknown>>;
}

/** Describe a move; the input is typed from its schema. */
export function defineMove<Shape extends z.ZodObject>(
  definition: Omit<MoveDefinition, 'input' | 'plan'> & { readonly input: Shape; readonly plan?: (input: z.output<Shape>) => MovePlan },
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
