import * as z from 'zod';
import { idSchema, pictureNameSchema, whenSchema } from './common.js';

/** The format of an archive as its manifest names it. */
export const ARCHIVE_FORMAT = 'isometra-archive/1';
export const MANIFEST = 'manifest.json';

const initials = z.string().max(8);
const line = (most: number) => z.string().max(most);
const free = z.record(z.string(), z.unknown());
const count = z.int().min(0);
const day = z.iso.date();
/** Since when it is put away, and by whom; null where it is not. */
const archived = free.nullable();

/** What keeps its earlier states, oldest first, and the fingerprints of those states of it that other shops are known to have had. */
const kept = {
  earlier: z.array(z.strictObject({ version: count, state: free, by: initials.nullable(), at: whenSchema.nullable() })),
  seen: z.array(pictureNameSchema),
};
const seen = { seen: kept.seen };
const signed = { by: initials, at: whenSchema };

/** One thing a file: what stands in it, by the folder it lies in. Figures and texts stand as they were typed. */
export const ARCHIVE_FILES = {
  /** A setting of the shop: its time zone, its page. */
  shop: z.strictObject({
    name: z.string().regex(/^[a-z][a-z-]{0,39}$/),
    value: line(100_000),
    by: initials.nullable(),
    at: whenSchema,
    ...kept,
  }),
  people: z.strictObject({ initials, name: line(60), meant: initials.nullable(), working: free.nullable(), ...seen }),
  kit: z.strictObject({
    id: idSchema,
    kind: line(24),
    name: line(60),
    data: free,
    care: free.nullable(),
    dueOn: day.nullable(),
    version: count,
    archived,
    ...kept,
    /** Its photographs lie beside it, in a folder of its id. */
    photos: z.array(z.strictObject({ id: idSchema, mime: z.enum(['image/jpeg', 'image/png']), ...signed })),
  }),
  limits: z.strictObject({
    id: idSchema,
    name: line(60),
    version: count,
    archived,
    ...seen,
    versions: z.array(z.strictObject({ id: idSchema, version: count, content: free, ...signed })),
  }),
  machines: z.strictObject({ id: idSchema, card: free, version: count, archived, ...kept }),
  plans: z.strictObject({ machineId: idSchema, settled: free, version: count, ...kept }),
  surveys: z.strictObject({
    id: idSchema,
    machineId: idSchema,
    title: line(120),
    startedAt: whenSchema,
    endedAt: whenSchema.nullable(),
    school: line(8),
    rungs: z.array(line(60)).nullable(),
    skipped: z.array(free).nullable(),
    startingLimits: line(24).nullable(),
    limitVersionId: idSchema.nullable(),
    archived,
    version: count,
    ...kept,
    checks: z.array(z.strictObject({ id: idSchema, kind: line(60) })),
    notes: z.array(z.strictObject({ id: idSchema, kind: line(24), content: free, supersedes: idSchema.nullable(), ...signed })),
    namedDates: z.array(z.strictObject({ namedOn: day, p10: day, p50: day, p90: day })),
  }),
  rounds: z.strictObject({
    id: idSchema,
    surveyId: idSchema,
    machineId: idSchema,
    kind: line(60),
    setup: free,
    plan: free,
    instrument: free.nullable(),
    instrumentName: line(60).nullable(),
    conditions: free,
    purpose: free.nullable(),
    note: line(2000).nullable(),
    ahead: z.boolean(),
    struck: free.nullable(),
    ...signed,
    version: count,
    ...kept,
    readings: z.array(
      z.strictObject({
        id: idSchema,
        sequence: count,
        keys: free,
        value: line(60).nullable(),
        /** Whether it was sent as a plain number. */
        bare: z.boolean(),
        setUp: count,
        supersedes: idSchema.nullable(),
        why: line(200).nullable(),
        ...signed,
      }),
    ),
  }),
  moves: z.strictObject({
    id: idSchema,
    roundId: idSchema,
    kind: line(40),
    quantity: line(60),
    amount: z.number(),
    unit: line(20),
    direction: line(60),
    plan: free,
    ticks: z.array(count),
    shift: line(60).nullable(),
    made: free.nullable(),
    by: initials,
    begunAt: whenSchema,
    doneAt: whenSchema.nullable(),
    version: count,
    ...seen,
  }),
  surfaces: z.strictObject({
    id: idSchema,
    machineId: idSchema,
    name: line(60),
    card: free,
    version: count,
    ...kept,
    entries: z.array(z.strictObject({ id: idSchema, kind: line(12), content: free, supersedes: idSchema.nullable(), ...signed })),
  }),
  'strip-downs': z.strictObject({
    id: idSchema,
    machineId: idSchema,
    name: line(60),
    archived: z.boolean(),
    begunAt: whenSchema,
    version: count,
    ...seen,
  }),
  parts: z.strictObject({
    id: idSchema,
    stripDownId: idSchema,
    number: count,
    place: z.number(),
    details: free,
    need: free.nullable(),
    fitted: free.nullable(),
    pictures: z.array(free),
    needState: line(10).nullable(),
    standing: z.literal(true).nullable(),
    version: count,
    ...kept,
  }),
  remarks: z.strictObject({
    id: idSchema,
    machineId: idSchema.nullable(),
    part: line(60).nullable(),
    place: free,
    path: line(300),
    text: line(20_000),
    pictures: z.array(free),
    supersedes: idSchema.nullable(),
    ...signed,
  }),
  /** What is known of a photograph that lies beside it. */
  pictures: z.strictObject({
    hash: pictureNameSchema,
    type: z.enum(['jpeg', 'png']),
    width: count,
    height: count,
    size: count,
    ...signed,
  }),
  /** Entries of the logbook, in the order in which they were written: of a survey, of a machine beside its surveys, or of the shop. */
  log: z.strictObject({
    machineId: idSchema.nullable(),
    surveyId: idSchema.nullable(),
    entries: z.array(
      z.strictObject({
        ...signed,
        what: line(40),
        text: line(40_000),
        part: line(60).nullable(),
        thing: line(16).nullable(),
        thingId: idSchema.nullable(),
        was: line(200).nullable(),
      }),
    ),
  }),
} as const;

export type ArchiveKind = keyof typeof ARCHIVE_FILES;
export const ARCHIVE_KINDS = Object.keys(ARCHIVE_FILES) as readonly ArchiveKind[];
export type ArchiveFile<Kind extends ArchiveKind = ArchiveKind> = z.infer<(typeof ARCHIVE_FILES)[Kind]>;

/** What an archive is of. */
export const archiveScopeSchema = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('shop') }),
  z.strictObject({ of: z.literal('machine'), id: idSchema, number: z.string().max(24) }),
  z.strictObject({ of: z.literal('survey'), id: idSchema, title: z.string().max(120), machine: z.string().max(24) }),
]);
export type ArchiveScope = z.infer<typeof archiveScopeSchema>;

export const archivedFileSchema = z.strictObject({ path: z.string().max(200), size: count, sha256: pictureNameSchema });
export type ArchivedFile = z.infer<typeof archivedFileSchema>;

/** The table of contents of an archive: everything else in the zip stands in it with its size and its SHA-256. */
export const manifestSchema = z.strictObject({
  format: z.literal(ARCHIVE_FORMAT),
  program: z.strictObject({ name: z.literal('Isometra'), version: z.string().max(20) }),
  written: whenSchema,
  scope: archiveScopeSchema,
  /** How many of each kind. */
  holds: z.record(z.string(), count),
  files: z.array(archivedFileSchema),
});
export type Manifest = z.infer<typeof manifestSchema>;

/** Whose state stands where an archive and the shop differ. */
export const CONFLICTS = ['ours', 'theirs', 'ask'] as const;
export type Conflicts = (typeof CONFLICTS)[number];

const differenceShape = { field: z.string(), ours: z.string().nullable(), theirs: z.string().nullable() };
/** Something that both the shop and the archive changed since they had it in common, side by side. */
export const archiveDifferenceSchema = z.object({
  /** Where it lies in the archive: the key to answer it by. */
  path: z.string(),
  called: z.string(),
  fields: z.array(z.object(differenceShape)),
});
export type ArchiveDifference = z.infer<typeof archiveDifferenceSchema>;

/** What taking an archive in does, or did. */
export const archiveResultSchema = z.object({
  manifest: manifestSchema.omit({ files: true }),
  /** Things by kind: that come in, that are newer in the archive, that are the same or newer here. */
  added: z.record(z.string(), count),
  newer: z.record(z.string(), count),
  known: z.record(z.string(), count),
  /** Lists that grow: readings, notes, entries of the logbook that come in with things that are known. */
  grown: z.record(z.string(), count),
  /** What both changed. In an answer to an import they are settled, in the way that was chosen. */
  differences: z.array(archiveDifferenceSchema),
  /** Machines that come in under another number, because theirs is taken. */
  renamed: z.array(z.object({ from: z.string(), to: z.string() })),
  /** Whether it was written. */
  taken: z.boolean(),
});
export type ArchiveResult = z.infer<typeof archiveResultSchema>;

/** A line of the answer while an archive is read or taken in: how far it has come, or how it ended. */
export const archiveLineSchema = z.union([
  z.object({ doing: z.string(), done: count, of: count }),
  z.object({ result: archiveResultSchema }),
  z.object({ errors: z.array(z.object({ path: z.string(), message: z.string(), example: z.string() })) }),
]);
export type ArchiveLine = z.infer<typeof archiveLineSchema>;
