import type * as z from 'zod';
import type { Fault } from '../faults.js';
import type { Zone } from '../calls/verdict.js';
import type { Instrument } from '../instruments/instrument.js';
import type { Reading, Slot } from '../instruments/slots.js';
import type { ValueKind } from '../instruments/reading.js';
import type { MoveKind } from '../moves/kinds.js';
import type { Part } from '../moves/parts.js';
import type { Dimension } from '../units/dimensions.js';
import type { Estimate } from './estimate.js';

/** How much a note matters: to know, to be careful, or not to trust the round. */
export type Severity = 'info' | 'warning' | 'serious';

/** A remark on a finding. The code is stable, the text is for people. */
export interface Note {
  readonly code: string;
  readonly severity: Severity;
  readonly text: string;
  readonly quantity?: string;
}

/** Direction words of a signed quantity: where the part stands, and which way a move takes it. */
export interface Words {
  readonly plus: string;
  readonly minus: string;
  readonly movePlus: string;
  readonly moveMinus: string;
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
  readonly applies: (setup: Readonly<Record<string, unknown>>) => boolean;
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
  readonly magnitude?: boolean;
  readonly over?: Over;
  readonly work?: WorkDone;
  readonly variants?: readonly Variant[];
  /** How it goes with the spindle axis when a change still to come is made: its share of the slope and of the height at the nose. */
  readonly follows?: { readonly slopeV?: number; readonly height?: number };
  /** How far a hand moves the machine: compared with the limits of the rungs that follow. */
  readonly byHand?: true;
}

/** How a quantity is put right: which moves, the first being the usual one. */
export interface Correction {
  readonly plus: readonly MoveKind[];
  readonly minus: readonly MoveKind[];
}

/** One set-up of a round as a solver sees it. */
export interface CheckInput<Setup> {
  readonly setup: Setup;
  readonly slots: readonly Slot[];
  readonly instrument: Instrument | undefined;
}

export interface Estimates {
  readonly estimates: readonly Estimate[];
  readonly notes: readonly Note[];
}

/** A place to put the instrument, in working order, as the bench asks for it. */
export interface PlannedSlot {
  /** Reading keys of the slot. */
  readonly keys: Readonly<Record<string, string | number | boolean>>;
  /** "Front, near the headstock". */
  readonly label: string;
  /** What the hands do before this reading, when something changes. */
  readonly ask?: string;
  /** Read again to close the round. */
  readonly closing?: boolean;
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
  readonly what: string;
}

/** Height of one place of a profile. */
export interface HeightAt {
  /** mm. */
  readonly at: number;
  /** µm. */
  readonly height: number;
}

/** What an error does to work, for people: µm for each unit of the quantity, and of what. */
export interface WorkDone {
  readonly perUnit: number;
  readonly what: string;
}

/** One check, described once: the bench, the server and the command line are drawn from it. */
export interface CheckDefinition<Shape extends z.ZodObject = z.ZodObject, Plan extends z.ZodObject = z.ZodObject> {
  readonly id: string;
  readonly family: string;
  readonly title: string;
  readonly question: string;
  /** When to choose this check rather than its neighbours. */
  readonly choose: string;
  readonly machines: readonly string[];
  readonly setup: Shape;
  readonly reading: z.ZodObject;
  /** Reading keys that tell one place from another. */
  readonly slotKeys: readonly string[];
  readonly valueKind: ValueKind;
  /** Where the set-up decides what readings are read on. */
  readonly valueKindFor?: (setup: z.output<Shape>) => ValueKind;
  /** A value told by other keys than `value` (two leaves that bound a gap), µm. */
  readonly valueFrom?: (keys: Readonly<Record<string, unknown>>) => number | undefined;
  readonly quantities: Readonly<Record<string, QuantityInfo>>;
  /** Choices of the measuring plan that are not part of a sheet: stations, planes. */
  readonly plan: Plan;
  /** What a round of this check is taken under: asked for before the first reading. */
  readonly conditions: z.ZodObject;
  readonly slots: (setup: z.output<Shape>, plan: z.output<Plan>) => readonly PlannedSlot[];
  readonly estimate: (input: CheckInput<z.output<Shape>>) => Estimates;
  /** Faults of a setup or its readings that no single field shows. */
  readonly faults?: (setup: z.output<Shape>, readings: readonly Reading[], instrument: Instrument | undefined) => readonly Fault[];
  readonly corrections: Readonly<Record<string, Correction>>;
  /** What a correction moves or works on, for the words of its job card. */
  readonly part?: Part;
  readonly watch?: (quantity: string, setup: z.output<Shape>, slots: readonly Slot[]) => Watch | undefined;
  /** Heights along what was read, µm over mm, to be drawn with their line and zone; places ascending. */
  readonly profile?: (setup: z.output<Shape>, slots: readonly Slot[]) => readonly HeightAt[];
  /** What would leave less droop to take out, with numbers. */
  readonly sagHelp?: (setup: z.output<Shape>, slots: readonly Slot[]) => readonly string[];
  /** The casting whose pose its quantities are: scraped or shimmed on its faces. */
  readonly casting?: string;
  /** Two quantities that are one place in a picture across the machine. */
  readonly target?: Target;
  /** Whose line the result refers to; checks of another kind have none. */
  readonly view?: 'carriage' | 'spindle';
  /** The length, mm, that a quantity stated `over` a length was read over; `places` are the `at` of its readings. */
  readonly lengthOf?: (setup: z.output<Shape>, places: readonly number[]) => number | undefined;
  /** What a kind of move is given for a correction, when it is not the correction itself. */
  readonly amountFor?: (kind: MoveKind, amount: number, setup: z.output<Shape>, slots: readonly Slot[], quantity: string) => number;
  /** What must be right for the result to be right: named when two methods disagree. */
  readonly trusts?: readonly string[];
  /** Checks that ask the same question another way: they stand side by side. */
  readonly sameQuestion?: string;
  /** What the remaining error of each quantity counts: whole, or half of the readings' difference. */
  readonly counting?: string;
  /** Rungs whose results a move here makes stale. */
  readonly upsets: readonly string[];
  readonly cautions: readonly string[];
  readonly cannotSee: readonly string[];
  /** Guidance shown while measuring. */
  readonly advice: readonly string[];
}

/** Describe a check. Only there to have the setup and the plan typed from their schemas. */
export function defineCheck<Shape extends z.ZodObject, Plan extends z.ZodObject>(
  definition: CheckDefinition<Shape, Plan>,
): CheckDefinition {
  return definition as unknown as CheckDefinition;
}

/** What the readings of a check are read on, for a set-up. */
export function valueKindOf(check: CheckDefinition, setup: Readonly<Record<string, unknown>> | undefined): ValueKind {
  return (setup && check.valueKindFor?.(setup)) ?? check.valueKind;
}

/** Toward or away from the operator (h). */
export const LATERAL: Words = {
  plus: 'toward the operator',
  minus: 'away from the operator',
  movePlus: 'toward the operator',
  moveMinus: 'away from the operator',
};

/** High or low (v). */
export const HEIGHT: Words = { plus: 'high', minus: 'low', movePlus: 'up', moveMinus: 'down' };

/** Where an axis points, sideways (h). */
export const AXIS: Words = {
  plus: 'pointing toward the operator',
  minus: 'pointing away from the operator',
  movePlus: 'toward the operator at its free end',
  moveMinus: 'away from the operator at its free end',
};

/** Where the spindle axis points to the carriage, sideways. */
export const AXIS_SIDEWAYS: QuantityInfo = {
  label: 'Spindle axis sideways',
  subject: 'The axis',
  dimension: 'slope',
  unit: 'um/m',
  limit: [0, 50],
  work: { perUnit: 0.2, what: 'taper on diameter over 100 mm' },
  words: AXIS,
};
