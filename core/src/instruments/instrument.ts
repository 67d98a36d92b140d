import * as z from 'zod';
import { choice, optionalNumber, quantitySchema, fieldRegistry } from '../input/fields.js';
import { faultsOf, type Fault } from '../input/faults.js';
import type { Dimension } from '../units/dimensions.js';

/**
 * What a reading of an instrument means.
 * Lengths in µm, a level's graduation and accuracy in µm/m, force in N, angle in degrees.
 */
export interface Instrument {
  readonly kind: InstrumentKind;
  readonly graduation: number;
  /** Divisions from one end of the travel to the other. */
  readonly range?: number;
  /** +1: the needle counts up when the surface comes toward the instrument. Undefined until nudged. */
  readonly sense?: 1 | -1;
  readonly leverAngle: number;
  /** Fraction of a division that can be read. */
  readonly readTo: number;
  readonly accuracy: number;
  readonly holderSag: number;
  readonly contactForce: number;
}

const KINDS = ['plunger', 'lever', 'level', 'micrometer', 'feeler'] as const;
export type InstrumentKind = (typeof KINDS)[number];

/** What the `value` of a reading is read on: a dial, a level's vial, a micrometer over a size, leaves in a gap, or nothing at all. */
export type ValueKind = 'indicator' | 'level' | 'size' | 'gap' | 'none';

/** Which instruments can read a kind of value; µm/m taken for µm is a wrong move. */
export const KINDS_FOR: Readonly<Record<ValueKind, readonly InstrumentKind[]>> = {
  indicator: ['plunger', 'lever'],
  level: ['level'],
  size: ['micrometer'],
  gap: ['feeler'],
  none: [],
};

/** Whether an instrument has a needle that can count either way. */
export const hasNeedle = (instrument: Pick<Instrument, 'kind'>): boolean => KINDS_FOR.indicator.includes(instrument.kind);

function instrumentShape(isLevel: boolean) {
  const dimension: Dimension = isLevel ? 'slope' : 'deviation';
  return {
    kind: choice({
      label: 'Kind',
      choices: [
        { value: 'lever', label: 'lever indicator' },
        { value: 'plunger', label: 'plunger indicator' },
        { value: 'micrometer', label: 'micrometer' },
        { value: 'level', label: 'level' },
        { value: 'feeler', label: 'feeler leaves' },
      ],
    }),
    graduation: quantitySchema(dimension, { above: 0 }, isLevel ? '20 um/m' : '0.01 mm').register(fieldRegistry, {
      label: 'One division',
      dimension,
      help: 'What one graduation on the dial stands for.',
      example: isLevel ? '0.02 mm/m' : '0.002 mm',
      engraved: true,
      usual: isLevel ? [2, 500] : [0.6, 100],
    }),
    range: optionalNumber({ label: 'Range', help: 'Divisions from end to end of the travel.', above: 0, example: '100' }),
    sense: z
      .union([z.literal(1), z.literal(-1)], { error: 'must be 1 or -1' })
      .optional()
      .register(fieldRegistry, { label: 'Sense', hidden: true }),
    leverAngle: quantitySchema('angle', { min: 0, below: 90 }, '15').optional().register(fieldRegistry, {
      label: 'Lever angle',
      dimension: 'angle',
      help: 'Between the lever and the surface. 0 for a plunger.',
    }),
    readTo: optionalNumber({
      label: 'Read to',
      help: 'Part of a division you can read: 0.5 is half a division.',
      above: 0,
      max: 1,
      example: '0.5',
    }),
    accuracy: quantitySchema(dimension, { min: 0 }, isLevel ? '10 um/m' : '1 um')
      .optional()
      .register(fieldRegistry, {
        label: 'Accuracy ±',
        dimension,
        help: 'From its certificate; half a graduation when left out.',
      }),
    holderSag: quantitySchema('deviation', {}, '-12 um').optional().register(fieldRegistry, {
      label: 'Holder sag',
      dimension: 'deviation',
      help: 'Holder on a stiff true bar, zeroed at the top, read at the bottom. Normally negative.',
    }),
    contactForce: quantitySchema('force', { min: 0 }, '0.15 N').optional().register(fieldRegistry, {
      label: 'Contact force',
      dimension: 'force',
      example: '0.15 N',
      // The press of a stylus is told in ounces, a push by hand in pounds.
      engraved: true,
      help: 'How hard the stylus presses. 0 when not known.',
    }),
  };
}

/** The instrument of a sheet; a level's graduation and accuracy are slopes. */
export const instrumentSchema = z.strictObject(instrumentShape(false));
const levelSchema = z.strictObject(instrumentShape(true));

/** What is asked of an instrument of a kind: a level's division is a slope. */
export function instrumentSchemaFor(kind: unknown): typeof instrumentSchema {
  return kind === 'level' ? levelSchema : instrumentSchema;
}

/**
 * Read an instrument, filling in the usual values.
 *
 * @returns the instrument, or every fault with a path that begins at `instrument`.
 */
export function readInstrument(raw: unknown): { readonly instrument?: Instrument; readonly faults: readonly Fault[] } {
  const known = typeof raw === 'object' && raw !== null ? instruments.get(raw) : undefined;
  if (known) return { instrument: known, faults: [] };
  const read = parseInstrument(raw);
  // A frozen description cannot change: the same one stands for the same instrument from now on.
  if (read.instrument && Object.isFrozen(raw)) instruments.set(raw as object, read.instrument);
  return read;
}

const instruments = new WeakMap<object, Instrument>();

function parseInstrument(raw: unknown): { instrument?: Instrument; faults: Fault[] } {
  const kind = typeof raw === 'object' && raw !== null ? (raw as { kind?: unknown }).kind : undefined;
  const schema = instrumentSchemaFor(kind);
  const parsed = schema.safeParse(raw);
  const faults = parsed.success ? [] : faultsOf(parsed.error, ['instrument'], Object.keys(schema.shape));
  if (typeof raw === 'object' && raw !== null && kind === undefined) {
    faults.push({ path: 'instrument.kind', message: `is missing: give one of ${KINDS.join(', ')}`, example: 'lever' });
  }
  if (!parsed.success || faults.length) return { faults };
  const { kind: known, graduation, leverAngle, readTo, accuracy, holderSag, contactForce, ...rest } = parsed.data;
  return {
    faults,
    instrument: {
      ...rest,
      kind: known ?? 'plunger',
      graduation,
      leverAngle: leverAngle ?? 0,
      readTo: readTo ?? 0.5,
      accuracy: accuracy ?? graduation / 2,
      holderSag: holderSag ?? 0,
      contactForce: contactForce ?? 0,
    },
  };
}

/** The smallest change that can be told on the dial, µm (µm/m for a level). */
export function readableStep(instrument: Instrument): number {
  return instrument.readTo * instrument.graduation;
}

/** µm (or µm/m) of surface movement for one µm shown on the dial: sense and lever angle. */
export function dialFactor(instrument: Instrument): number {
  return (instrument.sense ?? 1) * Math.cos((instrument.leverAngle * Math.PI) / 180);
}
