import * as z from 'zod';
import type { Finding } from '@isometra/core';
import {
  pictureNameSchema,
  conditionsSchema,
  idSchema,
  reasonSchema,
  textObjectSchema,
  versionSchema,
  whenSchema,
  whoSchema,
} from './common.js';
import { fieldChangeSchema } from './states.js';
import type { MachineCardText } from './storedMachine.js';
import { waySchema } from './way.js';

/** Who struck a round out, when and why. */
export const struckSchema = z.object({ why: z.string(), by: z.string(), at: z.string() });

/** What the round is for: the work of the tailstock. */
export const purposeSchema = z.strictObject({
  kind: z.enum(['turning', 'drilling']),
  length: z.union([z.string().max(40), z.number()]).optional(),
  diameter: z.union([z.string().max(40), z.number()]).optional(),
});

/** One set of readings for a check, as sent. Setup, plan and instrument are kept as typed. */
export const roundSchema = z.strictObject({
  id: idSchema,
  machineId: idSchema,
  check: z.string().max(60),
  setup: textObjectSchema,
  plan: textObjectSchema,
  instrument: textObjectSchema.nullable(),
  instrumentName: z.string().max(60).nullable(),
  conditions: conditionsSchema,
  purpose: purposeSchema.nullable(),
  note: z.string().max(2000).optional(),
  /** Cautions that were read and ticked before it was begun: told in the logbook, not kept with the round. */
  cautions: z.array(z.string().max(300)).max(20).optional(),
  by: whoSchema,
  at: whenSchema,
  version: versionSchema,
});
export type RoundWrite = z.infer<typeof roundSchema>;

/** A round that is struck out with the reason, or (without one) counts again. */
export const strikeSchema = z.strictObject({ id: idSchema, why: reasonSchema.nullable(), by: whoSchema, version: versionSchema });
export type Strike = z.infer<typeof strikeSchema>;

/** Another date for a round: when it was read, and why it said something else. */
export const redateSchema = z.strictObject({ id: idSchema, at: whenSchema, why: reasonSchema, by: whoSchema, version: versionSchema });
export type Redate = z.infer<typeof redateSchema>;

/** A reading: never changed, only superseded by another with a reason. `keys` and `value` as in a sheet. */
export const readingSchema = z.strictObject({
  id: idSchema,
  keys: z.record(z.string().max(40), z.union([z.string().max(60), z.number(), z.boolean()])),
  /** As typed; null withdraws the reading it supersedes, or where the keys tell it. */
  value: z.union([z.string().max(60), z.number()]).nullable(),
  set: z.int().min(1).max(99).default(1),
  supersedes: idSchema.nullable().default(null),
  why: z.string().max(200).nullable().default(null),
  by: whoSchema,
  at: whenSchema,
});
export type ReadingWrite = z.infer<typeof readingSchema>;

export const storedReadingSchema = readingSchema.extend({ roundId: z.string(), sequence: z.int() });
export type StoredReading = z.infer<typeof storedReadingSchema>;

const controlValue = z.number().min(-1e6).max(1e6);
const enteredSchema = z.strictObject({
  value: controlValue,
  how: z.enum(['plus', 'minus', 'next', 'taken', 'back']),
  at: whenSchema,
  by: whoSchema,
});
/** A register of a control while a value in it is changed. Values in the register's own unit, readings in µm. */
export const registerUseSchema = z.strictObject({
  name: z.string().min(1).max(40),
  axis: z.string().max(8),
  kind: z.enum(['added', 'reference']),
  unit: z.enum(['mm', 'inch']),
  programming: z.enum(['radius', 'diameter']),
  digits: z.int().min(1).max(6),
  /** What the two readings on that axis's own line differ by, + toward the operator. */
  total: z.number().min(-1e5).max(1e5),
  /** The value that stood there before anything was changed: never changed again. */
  old: z
    .strictObject({ value: controlValue, where: z.string().max(80), at: whenSchema, by: whoSchema, photo: pictureNameSchema.optional() })
    .nullable(),
  /** A jog by so much on the display, and what the two readings differed by before and after it. */
  jog: z.strictObject({ by: controlValue, before: z.number().min(-1e5).max(1e5), after: z.number().min(-1e5).max(1e5) }).nullable(),
  /** How often it was homed, and switched off and on, since the value was entered. */
  homings: z.int().min(0).max(20),
  power: z.int().min(0).max(20),
  entered: enteredSchema.nullable(),
  /** What was entered before that on the same change sheet, oldest first: nothing that stood in the control is forgotten. */
  earlier: z.array(enteredSchema).max(20).optional(),
});
export type RegisterUse = z.infer<typeof registerUseSchema>;

/** What was seen at the screw: by which dial it was moved, what it did on tightening, which screw it was. Figures in the unit of the move. */
export const madeSchema = z.strictObject({
  dial: z
    .strictObject({
      /** The dial of the kit; null for the one that the round was read on. */
      kitId: idSchema.nullable(),
      name: z.string().max(60),
      /** µm of one division. */
      graduation: z.number().positive({ error: 'must be more than 0' }).max(1000),
      /** Part of a division that it is read to. */
      readTo: z.number().positive().max(1),
      side: waySchema,
      /** 1 where the needle counts up when the stylus is pressed in, −1 where it counts down. */
      pressed: z.union([z.literal(1), z.literal(-1)], { error: 'must be 1 or -1' }),
      /** mm from what the part turns about, for an angle. */
      over: z.number().positive().max(100_000).nullable(),
    })
    .nullable(),
  /** What tightening was allowed for, signed like the quantity. */
  preset: z.number().max(1e6).min(-1e6),
  /** What it did on tightening, signed like the quantity; null where nobody looked. */
  tightened: z.number().max(1e6).min(-1e6).nullable(),
  /** False where the screw, sleeve or leaf came to its end before all of it was done. */
  reached: z.boolean().optional(),
  /** Which screw was found to drive it; null where nobody said. */
  rule: z.enum(['drive-far', 'drive-near']).nullable(),
  /** A head nodded in strokes with the table left alone and nothing tightened: what both sides read, µm, at a radius in mm. */
  nod: z
    .strictObject({
      radius: z.number().positive().max(5000),
      /** µm: doubt of one reading. */
      doubt: z.number().min(0).max(1000),
      /** Before the first stroke and after each one. */
      sides: z.array(z.strictObject({ operator: z.number().max(1e6).min(-1e6), column: z.number().max(1e6).min(-1e6) })).max(24),
    })
    .optional(),
  /** A register of the control as it was changed: what it is, its old value once it is locked, the jog, and what was entered. */
  register: registerUseSchema.optional(),
  /** Bolts as they were tightened, and what the needle read after each, divisions. */
  bolts: z
    .array(z.strictObject({ bolt: z.int().min(1).max(24), reads: z.number().min(-1e4).max(1e4) }))
    .max(96)
    .optional(),
  /** Eighths of a turn that a gib was given, − back, by which of its screws, and the drag felt after each, 0 free to 5 stiff. */
  felt: z
    .array(
      z.strictObject({
        eighths: z.int().min(-40).max(40),
        drag: z.number().min(0).max(5),
        screw: z.int().min(1).max(20).optional(),
      }),
    )
    .max(60)
    .optional(),
  /** A sine plate as it was set: mm between its rolls; what the block read with it closed, µm over mm, + higher at the end that is raised. */
  sine: z
    .strictObject({
      rolls: z.number().positive().max(2000),
      zero: z.strictObject({ reads: z.number().min(-5000).max(5000), over: z.number().positive().max(10_000) }).nullable(),
    })
    .optional(),
  /** Of a part that carries like things, a turret: it was moved with all of them, or one by itself. Left out, with all of them. */
  moved: z.enum(['all', 'one']).optional(),
  /** When what was put in came out again, or the part was brought back: from then on the move no longer stands. */
  takenOut: z.strictObject({ at: whenSchema, by: whoSchema }).optional(),
  /** What the card was begun for before its round or the machine card was put right: how much, which way, and whether it had been moved. */
  replanned: z
    .array(z.strictObject({ at: whenSchema, by: whoSchema, amount: z.number(), direction: z.string().max(60), moved: z.boolean() }))
    .max(12)
    .optional(),
  /** When the card was put away without being done: nothing was to be moved any more. */
  putAway: z.strictObject({ at: whenSchema, by: whoSchema }).optional(),
  /** What else was let go and set again with it: stops, belt, drive. */
  alsoSet: z.string().max(300).optional(),
  /** It was in already and was brought nearer because the user said so: which part of what was left, 1 for all of it. */
  nearer: z.number().positive().max(1).optional(),
  /** Leaves that really went in, µm; left out where it was what the plan said. */
  wentIn: z.array(z.number().positive().max(20_000)).max(24).optional(),
});
export type Made = z.infer<typeof madeSchema>;

/** What is written down of a move before anything was seen. */
export const NOTHING_SEEN: Made = { dial: null, preset: 0, tightened: null, rule: null };

/** A move that was decided on: a job card with ticks. It counts from when it was done, not from when it was begun. */
export const moveSchema = z.strictObject({
  id: idSchema,
  roundId: idSchema,
  kind: z.string().max(40),
  quantity: z.string().max(60),
  /** Signed like the quantity, in its unit. */
  amount: z.number(),
  unit: z.string().max(20),
  direction: z.string().max(60),
  plan: textObjectSchema,
  /** Steps that have been ticked, by number. */
  ticks: z.array(z.int().min(0).max(99)).max(100),
  /** Movement seen on tightening, as typed. */
  shift: z.string().max(60).nullable(),
  made: madeSchema.optional(),
  by: whoSchema,
  begunAt: whenSchema,
  doneAt: whenSchema.nullable(),
  version: versionSchema,
});
export type MoveWrite = z.infer<typeof moveSchema>;

const zoneSchema = z.tuple([z.number().nullable(), z.number().nullable()]).readonly();

/** What a list needs of a quantity: everything but where its doubt comes from. */
export const quantityHeadSchema = z.object({
  value: z.number(),
  unit: z.string(),
  expanded: z.number().nullable(),
  direction: z.string().nullable(),
  limit: zoneSchema.nullable(),
  aim: z.number().nullable(),
  verdict: z.enum(['in', 'out', 'unsure']).nullable(),
  because: z.array(z.string()).readonly().optional(),
  /** How far its set-ups lay apart, in the unit of the readings, and its degrees of freedom. */
  setUps: z.object({ s: z.number(), degrees: z.number() }).optional(),
});
export type QuantityHead = z.infer<typeof quantityHeadSchema>;

export const noteHeadSchema = z.object({
  code: z.string(),
  severity: z.enum(['info', 'warning', 'serious']),
  quantity: z.string().optional(),
  halts: z.literal(true).optional(),
});
export type NoteHead = z.infer<typeof noteHeadSchema>;

/** What a finding says, in short. */
export const findingHeadSchema = z.object({
  quantities: z.record(z.string(), quantityHeadSchema),
  notes: z.array(noteHeadSchema).readonly(),
  /** Heights off their line along what was read, where the survey is drawn from them. */
  profile: z
    .array(z.object({ at: z.number(), height: z.number() }))
    .readonly()
    .optional(),
});
export type FindingHead = z.infer<typeof findingHeadSchema>;

/** A round as lists have it: who read what when, under which conditions, and what it said. */
export const roundHeadSchema = z.object({
  id: z.string(),
  machineId: z.string(),
  /** The campaign it belongs to. */
  surveyId: z.string(),
  check: z.string(),
  /** 1 for the first round of this check on this machine. */
  number: z.number(),
  instrumentName: z.string().nullable(),
  conditions: conditionsSchema,
  by: z.string(),
  at: z.string(),
  version: z.number(),
  /** Place of its last reading among its readings; 0 where there is none. With the version it tells which of two is newer. */
  last: z.number(),
  /** From which side it was read, where its check has sides; and which way its needle counted, where somebody tried. */
  mounting: z.string().nullable(),
  sense: z.union([z.literal(1), z.literal(-1)]).nullable(),
  /** Planned places that were not read in its last set-up; left out where it was read to its end. */
  unread: z.int().min(1).optional(),
  /** Which face it was read on, where its check has several that stand for themselves. */
  face: z.string().optional(),
  moves: z.array(moveSchema).readonly(),
  finding: findingHeadSchema.nullable(),
  /** Its date lies beyond the server's own time: it does not rule until somebody has put it right. Left out where it does not. */
  ahead: z.literal(true).optional(),
  /** It was struck out: kept, and counted nowhere. */
  struck: struckSchema.optional(),
});
export type RoundHead = z.infer<typeof roundHeadSchema>;

/** What is wrong with one part of a stored round: it silences that part, not the whole. */
export interface RoundFault {
  readonly path: string;
  readonly message: string;
  readonly example: string;
}

/** A round as it was written down, with its readings and moves. */
export const storedRoundSchema = z.object({
  ...roundSchema.shape,
  id: z.string(),
  machineId: z.string(),
  /** The campaign it belongs to. */
  surveyId: z.string(),
  /** 1 for the first round of this check on this machine. */
  number: z.number(),
  readings: z.array(storedReadingSchema).readonly(),
  moves: z.array(moveSchema).readonly(),
  /** Its date lies beyond the server's own time: it does not rule until somebody has put it right. Left out where it does not. */
  ahead: z.literal(true).optional(),
  /** It was struck out: kept, and counted nowhere. */
  struck: struckSchema.optional(),
});
export type StoredRound = z.infer<typeof storedRoundSchema>;

/** Why a reading was taken back with nothing put in its place. */
export const WITHDRAWN: readonly string[] = ['withdrawn', 'place skipped'];

/** Something happened to a round: what was written, by whom. Who shows the round asks for it again where it is not known yet. */
export const roundNewsSchema = z.object({
  what: z.enum(['round', 'reading', 'move']),
  /** The readings that were taken; the move; the round itself. */
  ids: z.array(z.string()),
  by: z.string(),
});
export type RoundNews = z.infer<typeof roundNewsSchema>;

/** The machine card that an old round goes by: as it stood when its readings were taken, or its move was made. */
export const cardThenSchema = z.object({
  /** Until when the round was worked by: its last reading or its last move. */
  at: z.string(),
  card: z.custom<MachineCardText>((card) => typeof card === 'object' && card !== null && 'number' in card && 'kind' in card),
  /** What of the card matters to this round and has been changed since. */
  since: z.array(fieldChangeSchema).readonly(),
});
export type CardThen = z.infer<typeof cardThenSchema>;

/** What a round says, worked out for the judging of its survey. A bench works it out itself: this is for who only asks. */
export interface RoundFinding {
  readonly finding: Finding | null;
  /** What could not be used: a reading that its check does not take, a set-up that lacks something. */
  readonly faults: readonly RoundFault[];
  readonly coreVersion: string;
}

const written = Object.keys(roundSchema.shape) as (keyof RoundWrite)[];

/** The part of a round that was sent: what may be sent again, changed. All that was worked out or kept beside it is left off. */
export function roundWriteOf(round: RoundWrite): RoundWrite {
  return Object.fromEntries(written.filter((key) => round[key] !== undefined).map((key) => [key, round[key]])) as RoundWrite;
}
