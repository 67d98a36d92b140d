import * as z from 'zod';
import type { MachineFamily, MachineFeature } from '../checks/define.js';
import type { Part } from '../checks/parts.js';
import { FaultError, faultsOf, type Fault } from '../input/faults.js';
import type { JobDrawing } from './drawing.js';
import type { JobStep, StepFacts } from './jobSteps.js';
import type { ScrewRule } from './screwDial.js';

type Told = Readonly<Record<string, unknown>>;

/** The answer of a move as it is kept and sent: plain data, numbers in the units that docs/formats gives. */
export type MovePlan = Told;

/** Fields of a machine's card, by their keys. */
export type CardShape = Readonly<Record<string, z.ZodType>>;
/** A machine's card as far as these fields say it, in base units. */
export type CardOf<Card extends CardShape> = { readonly [Key in keyof Card]?: z.output<Card[Key]> };
/** A plan of this kind as far as it is known: one that was kept by an older version may lack figures. */
export type PlanOf<Answer extends z.ZodObject> = Partial<z.output<Answer>>;

/** What a check knows when it asks for a move: in the units of its quantity. */
export interface CorrectionFacts {
  readonly quantity: string;
  readonly value: number;
  readonly aim: number;
  /** Aim − value of every quantity of the check; 0 for those that are in. */
  readonly amounts: Readonly<Record<string, number>>;
  /** What the hardware already says. */
  readonly given: Told;
}

/** What a shop knows that a plan needs: a machine's card in base units, the leaves in its drawers, a gain that was learned. */
export interface HardwareFacts<Card = Told> {
  readonly card: Card;
  readonly stock?: readonly unknown[];
  readonly gain?: number | null;
  readonly part?: Part;
  /** What this kind of machine has. */
  readonly has?: readonly MachineFeature[];
}

/** What a machine card says of the screws or bolts that move a part. */
export interface ScrewsOnCard {
  readonly layout?: string;
  /** Which of two opposed screws moves the part, where it has been seen. */
  readonly rule?: ScrewRule;
  readonly bolts?: number;
}

/** One of the dials that are watched at once, and what the part must do there, µm. */
export interface DialOf {
  readonly where: string;
  readonly amount: number;
}

/** What does not depend on how the input and the plan of a move are typed. */
interface MoveFacts {
  readonly kind: string;
  readonly title: string;
  /** Among other ways to make the same correction: "turn the adjusting screws". */
  readonly name: string;
  /** How it is spoken of: "Bring it" 0.021 mm toward you. */
  readonly verb: string;
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
  /** It takes metal off: planned only for what is out, never for what is too close to call. */
  readonly metal?: true;
  /** It lays leaves in: they are counted out of the drawers. */
  readonly leaves?: true;
  /** What its job card has beside the steps: the change sheet of a register, the setting of a sine plate. */
  readonly panel?: 'register' | 'sine-plate';
  /** Who corrects the error along a slide, and the error square to it. */
  readonly curedBy?: 'control' | 'bolts';
  /** Inputs that a check fills in, for moves that need more than one amount. */
  fill?(facts: CorrectionFacts): Told;
  /** Machines that have what it moves; all of them if left out. */
  readonly machines?: readonly MachineFamily[];
  /** What a machine must have for it. */
  readonly needs?: readonly MachineFeature[];
  /** Offered only where the machine card says that there is such a thing. */
  readonly ifOnCard?: true;
  /** Named in a finding only where the sheet's hardware has it: what few machines have is no first guess. */
  readonly ifEquipped?: true;
  /** An input that would be taken, for the docs and the specs. */
  readonly example?: Told;
}

/** One kind of move, described once: what it needs, what it works out, its words and its steps. */
export interface MoveDefinition extends MoveFacts {
  readonly input: z.ZodObject;
  /** What it works out; empty for what is done by hand and eye. */
  readonly answer: z.ZodObject;
  /** Fields of a machine's card that it needs. */
  readonly card?: CardShape;
  plan?(input: Told): MovePlan;
  /** What a plan, followed exactly, does: in the unit of the input under `amountKey` or `slopeKey`, and signed like it. */
  does?(input: Told, plan: MovePlan): number;
  /** The figures of a plan that the hand goes by: two plans that agree in them are one to it. */
  readonly handFigures?: readonly string[];
  /** Dials that are watched at once, where it takes more than one. */
  dials?(plan: MovePlan): readonly DialOf[];
  /** How far leaves of a total thickness, µm, carry the part; the thickness itself where left out. */
  carries?(plan: MovePlan, total: number): number;
  /** Its input as far as card and drawers know it; undefined when this machine has no such thing. */
  hardware?(facts: HardwareFacts): Told | undefined;
  /** What the machine card says of its screws and bolts. */
  screws?(card: Told, part: Part | undefined, quantity?: string): ScrewsOnCard | undefined;
  /** What the card must say once it is done, or once it is not done after all: fields of the card's parts. */
  standsAt?(plan: MovePlan, done: boolean): Readonly<Record<string, Told>> | undefined;
  /** What its job card draws; undefined where the facts do not say enough to draw it right. */
  drawing?(facts: StepFacts): JobDrawing | undefined;
  /** The numbered steps of its job card; a plain one where there are none. */
  steps?(facts: StepFacts): readonly JobStep[];
}

/** A move as its file writes it: input, answer and card are typed from their schemas. */
interface TypedMove<
  Input extends z.ZodObject,
  Answer extends z.ZodObject,
  Card extends CardShape,
  Sees extends CardShape,
> extends MoveFacts {
  readonly input: Input;
  readonly answer?: Answer;
  readonly card?: Card;
  /** Fields of other moves that its words need too. */
  readonly sees?: Sees;
  readonly plan?: (input: z.output<Input>) => z.input<Answer>;
  readonly does?: (input: z.output<Input>, plan: z.output<Answer>) => number;
  readonly handFigures?: readonly (keyof z.output<Answer> & string)[];
  readonly dials?: (plan: PlanOf<Answer>) => readonly DialOf[];
  readonly carries?: (plan: PlanOf<Answer>, total: number) => number;
  readonly hardware?: (facts: HardwareFacts<CardOf<Card & Sees>>) => Told | undefined;
  readonly screws?: (card: CardOf<Card & Sees>, part: Part | undefined, quantity?: string) => ScrewsOnCard | undefined;
  readonly standsAt?: (plan: PlanOf<Answer>, done: boolean) => Readonly<Record<string, Told>> | undefined;
  readonly drawing?: (facts: StepFacts<PlanOf<Answer>, CardOf<Card & Sees>>) => JobDrawing | undefined;
  readonly steps?: (facts: StepFacts<PlanOf<Answer>, CardOf<Card & Sees>>) => readonly JobStep[];
}

/** A kept plan, figure by figure: what does not fit its schema is left out. */
function readPlan<Answer extends z.ZodObject>(answer: Answer, raw: MovePlan): PlanOf<Answer> {
  const shape: Readonly<Record<string, z.ZodType>> = answer.shape;
  const known = Object.entries(shape).flatMap(([key, schema]) => {
    const read = key in raw ? schema.safeParse(raw[key]) : undefined;
    return read?.success && read.data !== undefined ? [[key, read.data]] : [];
  });
  return Object.fromEntries(known) as PlanOf<Answer>;
}

/** A move with its own answer: its plans can be read with their types. */
export type Defined<Answer extends z.ZodObject> = MoveDefinition & { readonly answer: Answer };

const NO_ANSWER = z.object({});

/** Describe a move: kept plans are read by its answer before they come to its functions. */
export function defineMove<
  Input extends z.ZodObject,
  Answer extends z.ZodObject = z.ZodObject,
  Card extends CardShape = CardShape,
  Sees extends CardShape = CardShape,
>(move: TypedMove<Input, Answer, Card, Sees>): Defined<Answer> {
  const { plan, does, dials, carries, hardware, screws, standsAt, drawing, steps, sees: _sees, ...facts } = move;
  const answer = (move.answer ?? NO_ANSWER) as Answer;
  const known = (raw: MovePlan) => readPlan(answer, raw);
  // Inputs and cards were read by these same schemas before they come here.
  const typed = (input: Told) => input as z.output<Input>;
  const onCard = (card: Told) => card as CardOf<Card & Sees>;
  return {
    ...facts,
    answer,
    ...(plan && { plan: (input: Told): MovePlan => plan(typed(input)) }),
    ...(does && { does: (input: Told, raw: MovePlan) => does(typed(input), raw as z.output<Answer>) }),
    ...(dials && { dials: (raw: MovePlan) => dials(known(raw)) }),
    ...(carries && { carries: (raw: MovePlan, total: number) => carries(known(raw), total) }),
    ...(hardware && { hardware: (of: HardwareFacts) => hardware({ ...of, card: onCard(of.card) }) }),
    ...(screws && { screws: (card: Told, part: Part | undefined, quantity?: string) => screws(onCard(card), part, quantity) }),
    ...(standsAt && { standsAt: (raw: MovePlan, done: boolean) => standsAt(known(raw), done) }),
    ...(drawing && { drawing: (of: StepFacts) => drawing({ ...of, plan: known(of.plan), card: onCard(of.card) }) }),
    ...(steps && { steps: (of: StepFacts) => steps({ ...of, plan: known(of.plan), card: onCard(of.card) }) }),
  };
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
