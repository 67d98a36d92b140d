import * as z from 'zod';
import { CHECKS, choice, count, fieldRegistry, measure, optionalMeasure, supportSchema, type CheckDefinition } from '@isometra/core';
import { idSchema, versionSchema } from './common.js';
import { MACHINE_KINDS, machineFamily } from './machineKinds.js';

export { MACHINE_KINDS, machineFamily };

const text = (max: number, missing = 'is missing: give a text') =>
  z
    .string({ error: (issue) => (issue.input === undefined ? missing : 'must be a text') })
    .trim()
    .max(max, { error: `must have at most ${max} characters` });

const base = z
  .strictObject({
    length: measure('length', { label: 'Base length', above: 0, max: 5000, example: '160 mm', help: 'Along the bed.' }),
    width: measure('length', { label: 'Base width', above: 0, max: 5000, example: '110 mm', help: 'Across the bed.' }),
    overhang: optionalMeasure('length', {
      label: 'Centre beyond the base',
      min: 0,
      max: 5000,
      example: '60 mm',
      help: 'From the headstock end of the base to the point of the centre.',
    }),
    bolt: optionalMeasure('length', {
      label: 'Clamp bolt',
      above: 0,
      max: 200,
      example: '16 mm',
      help: 'Diameter of the bolts that pass through the base.',
    }),
    bolts: count({ label: 'Clamp bolts', min: 0, max: 4, example: '1', help: 'In a row along the middle of the base.' }),
    handleWidth: optionalMeasure('length', {
      label: 'Handle notch width',
      above: 0,
      max: 1000,
      example: '24 mm',
      rare: true,
      help: 'Room for the clamp lever at the front edge.',
    }),
    handleDepth: optionalMeasure('length', { label: 'Handle notch depth', above: 0, max: 1000, example: '15 mm', rare: true }),
  })
  .optional()
  .register(fieldRegistry, { label: 'Tailstock base', group: true });

const adjuster = z
  .strictObject({
    pitch: measure('length', { label: 'Adjuster screw pitch', above: 0, max: 20, example: '1.5 mm' }),
    layout: choice({
      label: 'Adjuster',
      choices: [
        { value: 'opposed-screws', label: 'two screws, one each side' },
        { value: 'single-screw', label: 'one screw that pulls and pushes' },
      ],
    }),
  })
  .optional()
  .register(fieldRegistry, { label: 'Sideways adjuster', group: true });

const eccentric = z
  .strictObject({
    throw: measure('deviation', { label: 'Eccentric throw', above: 0, unit: 'um', example: '0.4 mm' }),
    angle: measure('angle', {
      label: 'Eccentric angle now',
      min: -360,
      max: 360,
      example: '0',
      help: '0 with the throw straight up, 90 toward the operator.',
    }),
  })
  .optional()
  .register(fieldRegistry, { label: 'Eccentric sleeve', group: true, rare: true });

const feet = z
  .strictObject({
    track: measure('length', {
      label: 'Across the feet',
      above: 0,
      max: 10_000,
      example: '450 mm',
      help: 'From the front foot to the rear one of a pair.',
    }),
    pitch: measure('length', { label: 'Foot screw pitch', above: 0, max: 20, example: '2 mm' }),
  })
  .optional()
  .register(fieldRegistry, { label: 'Levelling feet', group: true, rare: true });

const capShims = z
  .strictObject({
    shim: measure('length', { label: 'Shim under the cap now', min: 0, max: 20, example: '0.3 mm', help: 'The same on both sides.' }),
    layer: measure('deviation', { label: 'Peel layer', above: 0, max: 1000, example: '25 um' }),
  })
  .optional()
  .register(fieldRegistry, { label: 'Split bearings', group: true, rare: true });

const jacks = z
  .strictObject({
    length: measure('length', { label: 'Between the two jacks', above: 0, max: 20_000, example: '900 mm' }),
    pitch: measure('length', { label: 'Jack screw pitch', above: 0, max: 20, example: '1.5 mm' }),
  })
  .optional()
  .register(fieldRegistry, { label: 'Jacks at a loose way', group: true, rare: true });

/** What sits on faces: its supports, and the points whose movement matters. Places in mm in the frame's own axes. */
export const castingSchema = z.strictObject({
  id: z.string({ error: 'must be a text' }).min(1).max(40),
  name: z.string({ error: 'must be a text' }).trim().min(1, { error: 'is missing: give it a name' }).max(60),
  frame: z.enum(['lathe', 'mill'], { error: 'must be "lathe" or "mill"' }),
  origin: z.tuple([z.number(), z.number(), z.number()], { error: 'must be three numbers, mm' }),
  supports: z.array(supportSchema).min(1, { error: 'must name one support at least' }).max(60),
  watch: z.array(z.strictObject({ id: z.string().min(1).max(60), at: z.tuple([z.number(), z.number(), z.number()]) })).max(20),
});
export type Casting = z.infer<typeof castingSchema>;

/** Castings that are asked for, by what they carry. */
export const CASTING_NAMES: Readonly<Record<string, string>> = {
  headstock: 'Headstock',
  'tailstock-base': 'Tailstock base',
  saddle: 'Saddle',
  feet: 'Machine feet',
  column: 'Column foot',
};

/** The card of a machine: what it is and how it is adjusted. Lengths as typed, bare numbers in mm. */
export const machineCardSchema = z.strictObject({
  number: text(24, 'is missing: give the shop number')
    .min(1, { error: 'is missing: give the shop number' })
    .register(fieldRegistry, { label: 'Shop number', help: 'As painted on it: L-14.' }),
  nickname: text(60).optional().register(fieldRegistry, { label: 'Nickname' }),
  kind: z
    .enum(MACHINE_KINDS.map((kind) => kind.value) as [string, ...string[]], { error: 'must be one of the kinds of machine' })
    .register(fieldRegistry, { label: 'Kind', choices: MACHINE_KINDS }),
  swing: optionalMeasure('length', { label: 'Swing over bed', above: 0, max: 20_000, example: '360 mm' }),
  centreDistance: optionalMeasure('length', { label: 'Between centres', above: 0, max: 50_000, example: '1500 mm' }),
  base,
  adjuster,
  eccentric,
  feet,
  jacks,
  capShims,
  castings: z.array(castingSchema).max(12).optional().register(fieldRegistry, { label: 'Supports', hidden: true }),
  notes: text(2000).optional().register(fieldRegistry, { label: 'Notes' }),
});

/** A card as typed: what is stored and shown again. */
export type MachineCardText = z.input<typeof machineCardSchema>;
/** A card in base units (mm, µm, degrees). */
export type MachineCard = z.output<typeof machineCardSchema>;

export const machineSchema = z.strictObject({ id: idSchema, card: machineCardSchema, version: versionSchema });

export interface Machine {
  readonly id: string;
  readonly card: MachineCardText;
  readonly version: number;
}

/** Checks that a machine of this kind can be asked. */
export function checksFor(kind: string): CheckDefinition[] {
  return [...CHECKS.values()].filter((check) => check.machines.includes(machineFamily(kind)));
}
