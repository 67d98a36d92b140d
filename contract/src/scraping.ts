import * as z from 'zod';
import { idSchema, pictureNameSchema, reasonSchema, text, versionSchema, whenSchema, whoSchema } from './common.js';

/** A picture as the server has it. */
export const storedPictureSchema = z.object({
  hash: pictureNameSchema,
  type: z.enum(['png', 'jpeg']),
  width: z.int(),
  height: z.int(),
  size: z.int(),
});
export type StoredPicture = z.infer<typeof storedPictureSchema>;

const mm = (most: number) => z.number({ error: 'must be a number, mm' }).positive({ error: 'must be more than 0' }).max(most);
const um = (most = 10_000) => z.number({ error: 'must be a number, µm' }).min(-most).max(most);
const minutes = z.number({ error: 'must be minutes' }).positive({ error: 'must be more than 0' }).max(1440);
const pointSchema = z.strictObject({ x: z.number().min(-20_000).max(20_000), y: z.number().min(-20_000).max(20_000) });

/** What a zone of a face is there for: to show contact, to be kept low, or not to be looked at. */
export const ZONE_USES = ['bear', 'relieve', 'ignore'] as const;

/** A zone, numbered as it is on the part. Corners round it, mm on the face. */
export const zoneSchema = z.strictObject({
  id: z.string().regex(/^[1-9]\d?$/, { error: 'must be a number from 1 to 99, as on the part' }),
  use: z.enum(ZONE_USES, { error: 'must be "bear", "relieve" or "ignore"' }),
  outline: z.array(pointSchema).min(3, { error: 'must have three corners at least' }).max(24),
});
export type Zone = z.infer<typeof zoneSchema>;

export const MATERIALS = ['iron', 'bronze', 'bearing-metal', 'liner'] as const;
export const SURFACE_USES = ['moving', 'general', 'fixed'] as const;

/**
 * Two faces that go together: the flanks of one dovetail, its angle in degrees, whose ends A lie together or apart; or two that
 * must be one plane, where the corner of the other one lies on the drawing of this one, mm.
 */
const mateSchema = z.discriminatedUnion('as', [
  z.strictObject({
    as: z.literal('flank'),
    surfaceId: idSchema,
    angle: z.number({ error: 'must be an angle in degrees' }).min(30, { error: 'must be 30 at least' }).max(89),
    apart: z.boolean(),
  }),
  z.strictObject({
    as: z.literal('plane'),
    surfaceId: idSchema,
    x: z.number({ error: 'must be a number, mm' }).min(-20_000).max(20_000),
    y: z.number({ error: 'must be a number, mm' }).min(-20_000).max(20_000),
  }),
]);
export type Mate = z.infer<typeof mateSchema>;

/** A face that is scraped: what it is and what it is to become. */
export const surfaceSchema = z.strictObject({
  id: idSchema,
  machineId: idSchema,
  name: text(60).min(1, { error: 'is missing: give the face a name' }),
  /** The casting that it is on: what is relieved there makes what was read on it stale. */
  part: text(60),
  use: z.enum(SURFACE_USES, { error: 'must be "moving", "general" or "fixed"' }),
  /** Spots for a square, where it is not the usual of its use. */
  target: z.strictObject({ low: z.number().min(1).max(60), high: z.number().min(1).max(60) }).nullable(),
  material: z.enum(MATERIALS, { error: 'must be one of iron, bronze, bearing-metal, liner' }),
  /** A bonded liner: its thickness as it was put on and what it must keep, µm. */
  liner: z.strictObject({ thickness: um().positive(), keep: um().min(0) }).nullable(),
  width: mm(20_000),
  height: mm(20_000),
  /** The inside of a bearing shell, unrolled: its bore, mm; across is half way round, from joint face to joint face. */
  shell: z.strictObject({ diameter: mm(5000) }).optional(),
  /** How it lies on the bench: turned by so much, and seen as in a mirror when it is shown as on the machine. */
  turned: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]),
  mirrored: z.boolean(),
  zones: z.array(zoneSchema).min(1, { error: 'must have one zone at least' }).max(40),
  /** The straightedge or plate it is blued with. */
  reference: z.strictObject({ kitId: idSchema.nullable(), name: text(60), length: mm(20_000) }),
  /** What it is scraped true by: a check of the machine, one of its quantities, and how that goes with the depth (µm of it for 1 µm of metal). */
  aim: z
    .strictObject({
      check: z.string().max(60),
      quantity: z.string().max(60),
      unit: z.string().max(12),
      wanted: z.number(),
      room: z.number().positive(),
      lever: z.number().positive(),
    })
    .nullable(),
  /** Depth of a pass, µm, before any was learned; and the finishing passes that are kept to the end. */
  passes: z.strictObject({ rough: um(200).positive(), fine: um(100).positive(), keepFine: z.int().min(0).max(20) }),
  /** An evening and what it is made of; the full check with its stripping, minutes, after so many passes over the deepest zone. */
  evening: z.strictObject({
    session: minutes,
    setUp: z.number().min(0).max(1440),
    cycle: minutes,
    check: z.number().min(0).max(10_000).optional(),
    every: z.int().min(1).max(50).optional(),
  }),
  /** The face that it goes with; told by one of the two. */
  mate: mateSchema.nullable().optional(),
  /** Held back to compare with: nothing comes off it until that is lifted. */
  heldBack: z.boolean().optional(),
  /** Begun by mistake, or worked on no more: it stays as it was written down, and nothing more is. */
  putAway: z.boolean().optional(),
  version: versionSchema,
});
export type Surface = z.infer<typeof surfaceSchema>;

const zoneId = z.string().max(2);
const film = z.number().positive().max(100).nullable();

/** What a print showed, by photograph or by eye. */
export const printResultSchema = z.strictObject({
  spots: z.int().min(0).max(1_000_000),
  spotsPerSquare: z.number().min(0).max(1000).nullable(),
  bearingShare: z.number().min(0).max(1).nullable(),
  largestBare: z.number().min(0).max(20_000).nullable(),
  zones: z
    .array(
      z.strictObject({
        id: zoneId,
        spots: z.int().min(0),
        spotsPerSquare: z.number().min(0),
        bearingShare: z.number().min(0).max(1),
        area: z.number().min(0),
      }),
    )
    .max(40),
});
export type PrintResult = z.infer<typeof printResultSchema>;

/** What is written down at the desk: a row of its own for each, never changed, only put right by another. */
export const ENTRY_CONTENTS = {
  /** Blued and laid against its reference: a new print to work from. Film in µm; which end of the straightedge was pressed. */
  blue: z.strictObject({
    film,
    dye: z.boolean(),
    pressed: z.enum(['A', 'B']).nullable(),
    /** A bearing shell: which halves were clamped on the spindle. */
    clamped: z.enum(['lower', 'upper', 'both']).optional(),
  }),
  /** Both halves of a bearing clamped without shim: whether the spindle locks. */
  lock: z.strictObject({ locks: z.boolean() }),
  /** One pass over a zone. */
  pass: z.strictObject({
    zone: zoneId,
    kind: z.enum(['whole', 'blue-only', 'relief', 'break-up']),
    grade: z.enum(['rough', 'fine']),
    /** Degrees of the strokes to the face. */
    angle: z.number().min(0).max(180),
  }),
  /** Where the straightedge turned, mm from end A of the face: pushed at A, pushed at B. `from`: where its own end A lay. */
  hinge: z.strictObject({
    from: z.number().min(0).max(20_000),
    length: mm(20_000),
    a: z.number().min(0).max(20_000),
    b: z.number().min(0).max(20_000),
    /** Pushed once more at each end. */
    again: z.strictObject({ a: z.number().min(0).max(20_000), b: z.number().min(0).max(20_000) }).optional(),
  }),
  /** A print that was read. The photograph with how it was read, or a count by eye. */
  print: z.strictObject({
    picture: pictureNameSchema.nullable(),
    film,
    pressed: z.enum(['A', 'B']).nullable(),
    corners: z.array(pointSchema).length(4).nullable(),
    /** A straightedge shorter than the face: where its end A lay and how long it is, mm. What it did not reach is unknown. */
    bite: z.strictObject({ from: z.number().min(0).max(20_000), length: mm(20_000) }).optional(),
    threshold: z.number().min(0.2).max(0.8),
    result: printResultSchema,
  }),
  /** What the aim reads now, in its unit, and how surely; from a round where there was one. */
  measure: z.strictObject({ value: z.number().min(-1e6).max(1e6), doubt: z.number().min(0).max(1e6), roundId: idSchema.nullable() }),
  /** Depth that is still to come off each zone, µm, and where that was known from. */
  plan: z.strictObject({
    depths: z
      .array(z.strictObject({ zone: zoneId, depth: um().min(0) }))
      .min(1)
      .max(40),
    from: z.enum(['wedge', 'plane', 'headstock', 'print', 'hand', 'pins']),
    why: text(200),
  }),
  /** How far it is, and who says so why. */
  state: z.strictObject({ state: z.enum(['rough', 'contact', 'measure', 'accept']), why: reasonSchema }),
  /** Another blade, or a fresh edge. */
  blade: z.strictObject({
    name: text(40),
    stroke: z.number().min(0).max(200).nullable(),
    /** Its width, mm: strips narrower than it are joined. */
    width: z.number().positive().max(200).optional(),
  }),
  /** A straightedge turned elsewhere than a plan let expect: which of the two the work goes by. */
  believed: z.strictObject({ which: z.enum(['plan', 'straightedge'], { error: 'must be "plan" or "straightedge"' }) }),
  /** Done for tonight. */
  done: z.strictObject({}),
  /** Taken back: what it supersedes no longer counts. */
  withdrawn: z.strictObject({}),
} as const;
export type EntryKind = keyof typeof ENTRY_CONTENTS;
export const ENTRY_KINDS = Object.keys(ENTRY_CONTENTS) as EntryKind[];

const entryOf = <Kind extends EntryKind>(kind: Kind) =>
  z.strictObject({
    id: idSchema,
    surfaceId: idSchema,
    kind: z.literal(kind),
    content: ENTRY_CONTENTS[kind],
    /** The entry that this one puts in its place. */
    supersedes: idSchema.nullable().default(null),
    by: whoSchema,
    at: whenSchema,
  });

/** One thing written down at the scraping desk. */
export const deskEntrySchema = z.discriminatedUnion(
  'kind',
  [
    entryOf('blue'),
    entryOf('lock'),
    entryOf('pass'),
    entryOf('hinge'),
    entryOf('print'),
    entryOf('measure'),
    entryOf('plan'),
    entryOf('state'),
    entryOf('blade'),
    entryOf('believed'),
    entryOf('done'),
    entryOf('withdrawn'),
  ],
  { error: `must be one of ${ENTRY_KINDS.join(', ')}` },
);
export type DeskEntry = z.infer<typeof deskEntrySchema>;

/** A face as the server has it, with everything written down at it, oldest first. */
export const storedSurfaceSchema = z.object({ ...surfaceSchema.shape, entries: z.array(deskEntrySchema).readonly() });
export type StoredSurface = z.infer<typeof storedSurfaceSchema>;
