import * as z from 'zod';
import { CHECKS, fieldRegistry, MOVES, optionalMeasure, supportSchema, type MachineFamily, type MoveDefinition } from '@isometra/core';
import { idSchema, text, versionSchema } from './common.js';
import { isFor, MACHINE_KINDS } from './machineKinds.js';

const place = z.tuple([z.number(), z.number(), z.number()], { error: 'must be three numbers, mm' });

/** What sits on faces: its supports, and the points whose movement matters. Places in mm in the frame's own axes. */
export const castingSchema = z.strictObject({
  id: z.string({ error: 'must be a text' }).min(1).max(40),
  name: z.string({ error: 'must be a text' }).trim().min(1, { error: 'is missing: give it a name' }).max(60),
  frame: z.enum(['lathe', 'mill'], { error: 'must be "lathe" or "mill"' }),
  origin: place,
  supports: z.array(supportSchema).min(1, { error: 'must name one support at least' }).max(60),
  watch: z.array(z.strictObject({ id: z.string().min(1).max(60), at: place })).max(20),
});
export type Casting = z.infer<typeof castingSchema>;

/** A casting that is asked for: what it carries, and on which machines it is. */
interface CastingKind {
  readonly id: string;
  readonly name: string;
  readonly machines: readonly MachineFamily[];
  /** The spindle sits in it: what moves it moves the axis. */
  readonly spindle?: true;
}

export const CASTINGS: readonly CastingKind[] = [
  { id: 'headstock', name: 'Headstock', machines: ['lathe', 'turning-centre'], spindle: true },
  { id: 'tailstock-base', name: 'Tailstock base', machines: ['lathe'] },
  { id: 'saddle', name: 'Saddle', machines: ['lathe', 'turning-centre', 'mill'] },
  { id: 'column', name: 'Column foot', machines: ['mill'] },
  { id: 'feet', name: 'Machine feet', machines: ['lathe', 'turning-centre', 'mill'] },
];

/** What each kind of move needs to know of a machine: a field of its card. */
const moveFields: Record<string, z.ZodType> = Object.assign({}, ...[...MOVES.values()].map((move) => move.card ?? {}));

const count = (most: number, label: string, example: string) =>
  z.coerce
    .number({ error: 'must be a number' })
    .min(1, { error: 'must be 1 or more' })
    .max(most, { error: `must be ${most} or fewer` })
    .optional()
    .register(fieldRegistry, { label, example });

/** After how many days or hours of running a check of this machine wants to be read again, although nothing was moved. */
const readAgain = (kind?: string) => {
  const checks = [...CHECKS.values()].filter((check) => kind === undefined || isFor(kind, check));
  return z
    .array(
      z
        .strictObject({
          check: z
            .enum(checks.map(({ id }) => id) as [string, ...string[]], { error: 'must be one of the checks of this machine' })
            .register(fieldRegistry, { label: 'Check', choices: checks.map(({ id, title }) => ({ value: id, label: title })) }),
          days: z.coerce
            .number({ error: 'must be a number of days' })
            .int({ error: 'must be whole days' })
            .min(1, { error: 'must be 1 day or more' })
            .max(3650, { error: 'must be 3650 days or fewer' })
            .optional()
            .register(fieldRegistry, { label: 'Days', example: '90' }),
          hours: count(100_000, 'Or hours of running', '500'),
          perWeek: count(168, 'Hours a week', '20'),
        })
        .refine(({ days, hours }) => days !== undefined || hours !== undefined, {
          path: ['days'],
          message: 'is missing: give days, or hours of running',
        })
        .refine(({ hours, perWeek }) => hours === undefined || perWeek !== undefined, {
          path: ['perWeek'],
          message: 'is missing: how many hours a week does the machine run?',
        }),
    )
    .max(40)
    .refine((rows) => new Set(rows.map(({ check }) => check)).size === rows.length, { message: 'names a check twice' })
    .optional()
    .register(fieldRegistry, {
      label: 'Read again by time',
      help: 'A result settles with weeks and with work, although nothing was moved. By days, or by hours of running with how many there are a week; whichever comes first. Bed and table level are due after 30 days unless this says otherwise.',
      rare: true,
    });
};

/** The card of a machine: what it is and how it is adjusted. Lengths as typed, bare numbers in mm. */
export const machineCardSchema = z.strictObject({
  number: text(24, 'is missing: give the shop number')
    .min(1, { error: 'is missing: give the shop number' })
    .register(fieldRegistry, { label: 'Shop number', help: 'As painted on it: L-14.' }),
  nickname: text(60).optional().register(fieldRegistry, { label: 'Nickname' }),
  kind: z
    .enum(MACHINE_KINDS.map((kind) => kind.value) as [string, ...string[]], {
      error: ({ input }) => (input === undefined ? 'is missing: choose what kind of machine it is' : 'must be one of the kinds of machine'),
    })
    .register(fieldRegistry, { label: 'Kind', choices: MACHINE_KINDS }),
  swing: optionalMeasure('length', { label: 'Swing over bed', above: 0, max: 20_000, example: '360 mm' }),
  centreDistance: optionalMeasure('length', { label: 'Between centres', above: 0, max: 50_000, example: '1500 mm' }),
  ...moveFields,
  castings: z.array(castingSchema).max(12).optional().register(fieldRegistry, { label: 'Supports', hidden: true }),
  readAgain: readAgain(),
  notes: text(2000).optional().register(fieldRegistry, { label: 'Notes' }),
});

/** What a machine must be and have for a field to be on its card; a field that is not here is on every card. */
const ONLY_ON: Readonly<Record<string, Pick<MoveDefinition, 'machines' | 'needs'>>> = {
  swing: { machines: ['lathe', 'turning-centre'] },
  ...Object.fromEntries([...MOVES.values()].flatMap((move) => Object.keys(move.card ?? {}).map((key) => [key, move]))),
  // The screws of a head are told with the head.
  adjuster: { machines: ['lathe', 'turning-centre'], needs: ['tailstock'] },
  centreDistance: { machines: ['lathe', 'turning-centre'], needs: ['tailstock'] },
};

/**
 * The fields of the card that a kind of machine has: no tailstock is asked of a mill. What is kept is read by the whole.
 * Of a machine whose kind is not told yet only what every card has is asked.
 */
export function cardFieldsFor(kind: string | undefined): z.ZodObject {
  const shape: Readonly<Record<string, z.ZodType>> = machineCardSchema.shape;
  if (kind === undefined) {
    const { readAgain: _ofAKind, ...fields } = shape;
    return z.strictObject(Object.fromEntries(Object.entries(fields).filter(([key]) => !(key in ONLY_ON))));
  }
  const fields = Object.entries(shape).filter(([key]) => isFor(kind, ONLY_ON[key] ?? {}));
  return z.strictObject({ ...Object.fromEntries(fields), readAgain: readAgain(kind) });
}

/** A card in base units (mm, µm, degrees). */
export type MachineCard = z.output<typeof machineCardSchema> & Readonly<Record<string, unknown>>;

export const machineSchema = z.strictObject({ id: idSchema, card: machineCardSchema, version: versionSchema });
