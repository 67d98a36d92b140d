import type * as z from 'zod';
import type { Fault } from '../input/faults.js';
import type { Instrument, ValueKind } from '../instruments/instrument.js';
import type { SpokenBase } from '../instruments/reading.js';
import type { Reading, Slot, Values } from '../instruments/slots.js';
import type { Dimension } from '../units/dimensions.js';
import type { Said } from '../units/said.js';
import type { Estimate, HeightAt } from './estimate.js';
import type { MachineFamily, MachineFeature } from './machines.js';
import type { Part } from './parts.js';
import type { Fit, Shape } from './fits.js';
import type { Fact, HelpAct, JobRules, Picture } from './facets.js';
import type { Zone } from './zone.js';

export type { MachineFamily, MachineFeature } from './machines.js';
export type { Drawing, Fact, HelpAct, JobFigures, JobRules, JobZone, Picture } from './facets.js';
export type { Zone } from './zone.js';

/** How much a note matters: to know, to be careful, or not to trust the round. */
export type Severity = 'info' | 'warning' | 'serious';

/** A remark on a finding. The code is stable, the text is for people; a check writes it with its sizes open (`Note<Said>`). */
export interface Note<Text extends Said = string> {
  readonly code: string;
  readonly severity: Severity;
  readonly text: Text;
  readonly quantity?: string;
  /** What depends on this check waits until this is put right. */
  readonly halts?: true;
  /** Of a reading that is taken for misread: the keys that tell its place, what it would have to read, and what the mistake looks like. */
  readonly place?: Readonly<Record<string, unknown>>;
  readonly value?: number;
  readonly unit?: string;
  readonly guess?: 'turn' | 'sign' | 'decimal' | 'exchanged' | 'none';
  /** What the readings should have lain on, and the places that may be to blame where the round cannot tell which. */
  readonly shape?: Shape;
  readonly places?: readonly Readonly<Record<string, unknown>>[];
  /** By how many times a result is carried beyond the base it was read over, or an uncertainty has grown. */
  readonly factor?: number;
}

/** The way a thing is out, as an arrow can point: toward and away from the operator, and the rest of the compass. */
export type Way = 'toward' | 'away' | 'left' | 'right' | 'up' | 'down';

/** Direction words of a signed quantity: where the part stands, and which way a move takes it. */
export interface Words {
  readonly plus: string;
  readonly minus: string;
  readonly movePlus: string;
  readonly moveMinus: string;
  /** Which side of its joint comes up for a + move; the other one for a − move. */
  readonly raised?: readonly [plus: string, minus: string];
  /** Which way an arrow points for + and for −; left out where no arrow would be true. */
  readonly arrow?: readonly [plus: Way, minus: Way];
}

/** A zone stated for a length: over another it is in proportion, and never narrower than `least`. */
export interface Over {
  /** mm. */
  readonly length: number;
  /** In the quantity's unit. */
  readonly least?: number;
}

/** Another zone for a kind of set-up: a column with its head off, rolling bearings. */
export interface Variant {
  readonly key: string;
  readonly label: string;
  readonly limit: Zone;
  readonly applies: (setup: Values) => boolean;
  /** It stands for a change still to come: where that is known, the plain zone goes with it instead. */
  readonly guesses?: true;
}

export interface QuantityInfo {
  readonly label: string;
  readonly dimension: Dimension;
  readonly unit: string;
  /** What stands out of place, for a sentence: "Tailstock centre". */
  readonly subject?: string;
  readonly limit?: Zone;
  /** Where a move steers when it is not the middle of the zone. */
  readonly aim?: number;
  readonly words?: Words;
  /** A size: it cannot be negative, has no lower limit and its aim is 0. */
  readonly magnitude?: boolean;
  /** How many times itself a dial swings that is carried round it: its limit is said both ways. */
  readonly swings?: number;
  readonly over?: Over;
  /** mm that a slope is said over: "0.02 mm in 300 mm". */
  readonly spokenOver?: number;
  readonly work?: WorkDone;
  readonly variants?: readonly Variant[];
  /** How it goes when a change still to come is made: its share of the slope and height of the axis, or of the lean of the column. */
  readonly follows?: {
    readonly slopeV?: number;
    readonly height?: number;
    readonly leanX?: number;
    readonly leanY?: number;
    readonly loadX?: number;
    readonly loadY?: number;
    readonly tilt?: number;
    readonly nod?: number;
    /** Set-ups in which the change is still to come; all of them if left out. */
    readonly when?: (setup: Values) => boolean;
    /** Which of them that speaks of; all if left out. */
    readonly only?: readonly string[];
  };
  /** How far a hand moves the machine: compared with the limits of the rungs that follow. */
  readonly byHand?: true;
}

/** How a quantity is put right: kinds of moves, the first being the usual one. */
export interface Correction {
  readonly plus: readonly string[];
  readonly minus: readonly string[];
  /** What a move does says where the pivot lies, not what the screw is worth: no gain is learned. */
  readonly noGain?: true;
}

/** What a quantity is called, and how it is put right, for the way it was read. */
export interface AsRead {
  readonly info: Partial<Pick<QuantityInfo, 'label' | 'words'>>;
  readonly correction: Correction;
}

/** One set-up of a round as a solver sees it. */
export interface CheckInput<Setup, Keys = Values> {
  readonly setup: Setup;
  readonly slots: readonly Slot<Keys>[];
  readonly instrument: Instrument | undefined;
}

export interface Estimates {
  readonly estimates: readonly Estimate[];
  readonly notes: readonly Note<Said>[];
  /** What the readings must lie on if none was misread. */
  readonly fits?: readonly Fit[];
}

/** A place to put the instrument, in working order, as the bench asks for it. */
export interface PlannedSlot {
  /** Reading keys of the slot. */
  readonly keys: Readonly<Record<string, string | number | boolean>>;
  /** "Front, near the headstock". */
  readonly label: Said;
  /** What the hands do before this reading, when something changes. */
  readonly ask?: string;
  /** Read again to close the round. */
  readonly closing?: boolean;
  /** The list of the plan that holds this place, where the user may move it. */
  readonly movable?: string;
}

/** Where to watch the needle during a move and which way it goes for a + move. */
export interface Watch {
  readonly where: string;
  readonly sense: 1 | -1;
  /** µm now, as a deviation; 0 when the dial is zeroed for the move. */
  readonly now: number;
  /** µm on the dial for each µm moved. */
  readonly scale: number;
}

/** Where something stands across the machine: sideways and in height. Slopes are drawn at a length. */
export interface Target {
  readonly h: string;
  readonly v: string;
  /** mm out, at which slopes are drawn; left out where the quantities are distances. */
  readonly at?: number;
  /** "Free end of a bar 300 mm out". */
  readonly what: Said;
}

/** What an error does to work, for people: µm for each unit of the quantity, and of what. */
export interface WorkDone {
  readonly perUnit: number;
  readonly what: Said;
}

/** A fact of one reading, asked beside its figure: it tells no place from another. */
export interface Beside {
  /** Name of the reading key. */
  readonly key: string;
  /** It stands for the figure: what is felt is not read. */
  readonly instead?: true;
  /** It is as a rule the same at the next place: kept in the field. */
  readonly stays?: true;
  /** Only at these places; everywhere if left out. */
  readonly when?: (keys: Values) => boolean;
}

/** A result carried from a short base over a longer length, mm. */
export interface Carried {
  readonly base: number;
  readonly over: number;
  /** How many times an error of one reading is multiplied. */
  readonly factor: number;
}

/** One check, described once: the bench, the server and the command line are drawn from it. */
export interface CheckDefinition<Setup = Values, Plan = Values, Keys = Values> {
  readonly id: string;
  readonly family: string;
  readonly title: string;
  readonly question: string;
  /** When to choose this check rather than its neighbours. */
  readonly choose: string;
  readonly machines: readonly MachineFamily[];
  /** What a machine must have to be asked this: no gib on linear guides. */
  readonly needs?: readonly MachineFeature[];

  readonly setup: z.ZodObject;
  readonly reading: z.ZodObject;
  /** Choices of the measuring plan that are not part of a sheet: stations, planes, places of the user's own. */
  readonly plan: z.ZodObject;
  /** What a round of this check is taken under: asked for before the first reading. */
  readonly conditions: z.ZodObject;
  /**
   * Conditions that name which of several like things was read: the station of a turret. Each stands for itself from round to
   * round, and a move on one leaves the others good.
   */
  readonly apart?: readonly string[];
  /** Of those its first choice goes without saying: the usual one. */
  readonly usually?: readonly string[];
  /** Conditions whose rounds are drawn apart: the same question, and values that do not belong on one line. */
  readonly drawnApart?: readonly string[];
  /** Its faces, told apart by the plane of their readings, stand for themselves from round to round. */
  readonly planesApart?: true;
  /** What carries it by a slide of the control, so that a register can shift it. */
  readonly carried?: 'turret' | 'sub';
  /** Reading keys that tell one place from another. */
  readonly slotKeys: readonly (keyof Keys & string)[];
  /** Facts of a reading that are asked beside its figure. */
  readonly beside?: readonly Beside[];

  /** What readings are read on; from this, which instruments fit. */
  readonly reads: ValueKind;
  /** Where the set-up, or the keys of a reading, decide what it is read on. */
  readsFor?(setup: Setup, keys: Partial<Keys>): ValueKind;
  /** What some of its places may be read on instead. */
  readonly alsoReads?: readonly ValueKind[];
  /** A value told by other keys than `value` (two leaves that bound a gap, drag by feel), µm. */
  valueFrom?(keys: Keys): number | undefined;
  /** What sizes are spoken over, where the set-up gives a base. */
  spokenOver?(setup: Setup): SpokenBase | undefined;
  /** A size that the set-up states, mm: a reading more than a twentieth off it is a typing mistake. */
  statedSize?(setup: Setup): number | undefined;
  /** The size that was turned down, mm: a pad may have any size from that on down. */
  turnedFrom?(setup: Setup): number | undefined;

  readonly quantities: Readonly<Record<string, QuantityInfo>>;
  slots(setup: Setup, plan: Plan): readonly PlannedSlot[];
  estimate(input: CheckInput<Setup, Keys>): Estimates;
  /** Faults of a setup or its readings that no single field shows. */
  faults?(setup: Setup, readings: readonly Reading<Keys>[], instrument: Instrument | undefined): readonly Fault[];

  readonly corrections: Readonly<Record<string, Correction>>;
  /** Words and moves of a quantity where how it was read decides them: a way read from its side is pulled over, not lowered. */
  asRead?(quantity: string, slots: readonly Slot<Keys>[]): AsRead | undefined;
  /** What a correction moves or works on, for the words of its job card. */
  readonly part?: Part;
  watch?(quantity: string, setup: Setup, slots: readonly Slot<Keys>[]): Watch | undefined;
  /** What a kind of move is given for a correction, when it is not the correction itself. */
  amountFor?(kind: string, amount: number, setup: Setup, slots: readonly Slot<Keys>[], quantity: string): number | undefined;
  /** Heights along what was read, µm over mm, to be drawn with their line and zone; places ascending. */
  profile?(setup: Setup, slots: readonly Slot<Keys>[]): readonly HeightAt[];
  /** What would leave less droop to take out, with numbers. */
  sagHelp?(setup: Setup, slots: readonly Slot<Keys>[]): readonly Said[];
  /** The casting whose pose its quantities are: scraped or shimmed on its faces. */
  readonly casting?: string;
  /** Two quantities that are one place in a picture across the machine. */
  readonly target?: Target;
  /** A move here sets the bearings: done before the axis is read, or after it with the drop planned. */
  readonly setsBearings?: true;
  /** It cuts the work: the size to stop at while warm is told, and what is left for further cuts. */
  readonly cuts?: true;
  /** The quantity that throws four drilled holes out of true. */
  readonly drilled?: string;
  /** It measures what is made in a step by hand: the cut that proves the whole. */
  readonly proves?: true;
  /** Whose line the result refers to; checks of another kind have none. */
  readonly view?: 'carriage' | 'spindle';
  /** The length, mm, that a quantity stated `over` a length was read over; `places` are the `at` of its readings. */
  lengthOf?(setup: Setup, places: readonly number[]): number | undefined;

  readonly picture: Picture;
  /** The rungs it depends on: a move there makes its result stale, and they stand before it. */
  readonly hangsOn: readonly string[];
  /** Castings on whose seats it rests: one of them that rocks halts it, another one does not. Left out, whichever rocks. */
  readonly rests?: readonly string[];
  /** Rungs that stand before it in the working order although a move there leaves it good. */
  readonly after?: readonly string[];
  /** What it makes known of the machine. */
  readonly knows?: readonly Fact[];
  /**
   * What its profile makes known, for a kind of set-up; `asRead` where it is a size, which is not to be
   * taken off its line; the quantity whose `doubt` is that of its heights.
   */
  readonly knowsProfile?: {
    readonly name: string;
    readonly when?: (setup: Values) => boolean;
    readonly asRead?: true;
    readonly doubt?: string;
  };
  /** How its limits follow from stated work. */
  readonly fromJob?: JobRules;
  /** The size that a quantity is a part of, for a set-up: where that is out, the part has a move although it has no limit of its own. */
  partOf?(quantity: string, setup: Setup): string | undefined;
  /** What helps its doubts beside reading more often and finer. */
  readonly helps?: readonly HelpAct[];
  /** What another set-up is: "Take the bar out, put it back and read again". Left out where nothing is set up. */
  readonly reseat?: string;
  /**
   * Standard deviation of its readings from one set-up to the next, in their unit, until rounds have taught a better one. Left
   * out, or 0, where nothing is reseated or the seat drops out of the result.
   */
  readonly reseatSpread?: number;
  /** The same where it depends on what is measured, and how. */
  reseatSpreadFor?(quantity: string, setup: Setup): number;
  /** How far a quantity was carried beyond the base it was read over, and both lengths in mm. */
  reach?(quantity: string, setup: Setup, slots: readonly Slot<Keys>[]): Carried | undefined;
  /** Days after which a result wants to be read again, when nothing was moved. */
  readonly goodFor?: number;

  /** What must be right for the result to be right: named when two methods disagree. */
  readonly trusts?: readonly string[];
  /** Checks that ask the same question another way: they stand side by side, and a move on one makes all of them stale. */
  readonly sameQuestion?: string;
  /** What the remaining error of each quantity counts: whole, or half of the readings' difference. */
  readonly counting?: string;
  readonly cautions: readonly string[];
  readonly cannotSee: readonly string[];
  /** Guidance shown while measuring. */
  readonly advice: readonly string[];
}

/** A check as it is written: set-up, plan and keys typed from their schemas. */
export type CheckFacts<Setup extends z.ZodObject, Plan extends z.ZodObject, Keys extends z.ZodObject> = CheckDefinition<
  z.output<Setup>,
  z.output<Plan>,
  z.output<Keys>
> & { readonly setup: Setup; readonly plan: Plan; readonly reading: Keys };

/** Describe a check. The typing of its parts ends here: outside, a check is one of many. */
export function defineCheck<Setup extends z.ZodObject, Plan extends z.ZodObject, Keys extends z.ZodObject>(
  facts: CheckFacts<Setup, Plan, Keys>,
): CheckDefinition {
  return facts;
}

/** Whether the readings of a check may differ from one set-up to the next by how something seats. */
export const reseats = ({ reseatSpread, reseatSpreadFor }: CheckDefinition): boolean =>
  reseatSpread !== undefined || reseatSpreadFor !== undefined;

/** What a planned round of a check is read on: what its first place asks for. */
export function plannedKind(check: CheckDefinition, setup: Values, plan: Values): ValueKind {
  if (!check.readsFor) return check.reads;
  const [facts, places] = [check.setup.safeParse(setup), check.plan.safeParse(plan)];
  const known = facts.success ? facts.data : setup;
  return readsOf(check, known, facts.success && places.success ? check.slots(facts.data, places.data)[0]?.keys : undefined);
}

/** What the readings of a check are read on, for a set-up and, where it matters, the keys of one reading. */
export function readsOf(check: CheckDefinition, setup: Values | undefined, keys: Values = {}): ValueKind {
  return (setup && check.readsFor?.(setup, keys)) ?? check.reads;
}
