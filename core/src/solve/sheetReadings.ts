import * as z from 'zod';
import { faultsOf, pathText, type Fault } from '../input/faults.js';
import { readsOf, type CheckDefinition } from '../checks/define.js';
import type { Instrument } from '../instruments/instrument.js';
import { readingValue } from '../instruments/reading.js';
import type { Reading, Values } from '../instruments/slots.js';
import { isObject, type Raw } from './hardware.js';

/** Reading keys that every family takes. `conditions` are free; `set` is the number of the set-up. */
const COMMON_READING = {
  value: z.unknown().optional(),
  set: z.int({ error: 'must be the number of the set-up: 1, 2, …' }).min(1, { error: 'must be 1 or more' }).optional(),
  conditions: z.record(z.string(), z.union([z.string(), z.number(), z.boolean()])).optional(),
};

/** Read a part of a sheet by its schema; every fault is told, and then nothing is read. */
export function readPart(schema: z.ZodObject, raw: unknown, path: readonly PropertyKey[], faults: Fault[]): Raw | undefined {
  if (raw === undefined) {
    faults.push({ path: pathText(path), message: 'is missing: give an object, {} at least', example: '{}' });
    return undefined;
  }
  const parsed = schema.safeParse(raw);
  if (parsed.success) return parsed.data;
  faults.push(...faultsOf(parsed.error, path, Object.keys(schema.shape)));
  return undefined;
}

const readingSchemas = new WeakMap<CheckDefinition, z.ZodObject>();

/** The schema of one reading of a check; made once, because making it costs more than a hundred readings. */
function readingSchemaOf(check: CheckDefinition): z.ZodObject {
  const schema = readingSchemas.get(check) ?? z.strictObject({ ...COMMON_READING, ...check.reading.shape });
  readingSchemas.set(check, schema);
  return schema;
}

/** More than any round: beyond this a sheet is refused rather than worked at. */
const MOST_READINGS = 10_000;

interface Reader {
  readonly check: CheckDefinition;
  readonly setup: Values;
  readonly instrument: Instrument | undefined;
  readonly instrumentFaulty: boolean;
}

/** Read every reading of a sheet: keys and values in base units. Every fault of all of them is told. */
export function readReadings(reader: Reader, raw: unknown, faults: Fault[]): Reading[] | undefined {
  if (!Array.isArray(raw)) {
    faults.push({ path: 'readings', message: 'must be a list of readings', example: '[ { "at": 20, "value": "0 div" } ]' });
    return undefined;
  }
  if (raw.length > MOST_READINGS) {
    faults.push({ path: 'readings', message: `has ${raw.length} readings: ${MOST_READINGS} at most`, example: 'fewer readings' });
    return undefined;
  }
  const readings: Reading[] = [];
  raw.forEach((entry: unknown, index) => {
    if (!isObject(entry)) {
      faults.push({ path: `readings[${index}]`, message: 'must be a reading: an object', example: '{ "at": 20, "value": "0 div" }' });
      return;
    }
    const known = remembered(entry, reader);
    if (known) {
      readings.push(known);
      return;
    }
    const read = readReading(reader, entry, ['readings', index]);
    faults.push(...read.faults);
    if (read.reading) readings.push(read.reading);
  });
  return readings;
}

/** The key that is missing of several that tell a value together, where another of them is there. */
function otherHalf({ beside = [] }: CheckDefinition, keys: Raw): string | undefined {
  const instead = beside.filter(({ instead, when }) => instead && (when?.(keys) ?? true)).map(({ key }) => key);
  return instead.length > 1 && instead.some((key) => keys[key] !== undefined) ? instead.find((key) => keys[key] === undefined) : undefined;
}

/** The value that other keys of a reading tell where it gives none, and which of those keys is missing. */
function toldByKeys(check: CheckDefinition, entry: Raw, keys: Raw | undefined): { readonly value?: number; readonly lacking?: string } {
  if (entry['value'] !== undefined || !keys) return {};
  return { value: check.valueFrom?.(keys), lacking: otherHalf(check, keys) };
}

/** Read one reading: its keys and its value in base units, or every fault of it. */
function readReading(reader: Reader, entry: Raw, path: readonly PropertyKey[]): { reading?: Reading; faults: Fault[] } {
  const { check } = reader;
  const faults: Fault[] = [];
  const keys = readPart(readingSchemaOf(check), entry, path, faults);
  const { value: told, lacking } = toldByKeys(check, entry, keys);
  if (lacking !== undefined)
    return {
      faults: [{ path: pathText([...path, lacking]), message: 'is missing: two leaves bound a gap', example: '0.10 mm' }],
    };
  const value = told ?? readValue(reader, entry, [...path, 'value'], faults);
  if (entry['value'] !== undefined && keys && check.valueFrom?.(keys) !== undefined)
    faults.push({
      path: pathText([...path, 'value']),
      message: 'is told by the other keys of this reading already',
      example: 'leave it out',
    });
  if (!keys || value === undefined || faults.length) return { faults };
  const reading: Reading = { ...keys, set: (keys['set'] as number | undefined) ?? 1, value };
  remember(entry, reader, reading);
  return { reading, faults: [] };
}

function readValue(
  { check, setup, instrument, instrumentFaulty }: Reader,
  entry: Raw,
  path: readonly PropertyKey[],
  faults: Fault[],
): number | undefined {
  const raw = entry['value'];
  const kind = readsOf(check, setup, entry);
  const parsed = readingValue(raw, kind, instrument, kind === 'size' ? check.spokenOver?.(setup) : undefined);
  if (!parsed.ok) {
    if (!(instrumentFaulty && typeof raw === 'number'))
      faults.push({ path: pathText(path), message: parsed.message, example: parsed.example });
    return undefined;
  }
  const wrong = kind === 'size' ? implausible(parsed.value / 1000, check.statedSize?.(setup), check.turnedFrom?.(setup)) : undefined;
  if (wrong === undefined) return parsed.value;
  faults.push({ path: pathText(path), message: wrong, example: '38.24 mm' });
  return undefined;
}

/** Part of a stated size by which a reading of it may differ. */
const PLAUSIBLE = 0.05;

/** Part of a bar that nobody turns it down to: a decimal point or a unit has slipped. */
const LEAST_LEFT = 0.15;

/** What makes no sense of a size, mm. @param stated it is near this. @param from it was turned down from this. */
function implausible(size: number, stated: number | undefined, from: number | undefined): string | undefined {
  if (!(size > 0)) return 'must be more than 0 mm';
  const taken = `is taken for ${Number(size.toFixed(4))} mm`;
  if (stated !== undefined && Math.abs(size - stated) > PLAUSIBLE * stated)
    return `${taken}, more than 5 % off the ${Number(stated.toFixed(3))} mm stated`;
  if (from !== undefined && size > (1 + PLAUSIBLE) * from)
    return `${taken}, and the bar had ${Number(from.toFixed(3))} mm before it was turned`;
  if (from !== undefined && size < LEAST_LEFT * from)
    return `${taken}: nobody turns a bar of ${Number(from.toFixed(3))} mm down to that. Is the unit right?`;
  return undefined;
}

interface Remembered extends Pick<Reader, 'check' | 'setup' | 'instrument'> {
  readonly reading: Reading;
}

const readings = new WeakMap<object, Remembered>();

/**
 * A frozen reading cannot change, so it need not be read again for the same check, set-up and instrument: on a
 * bench with hundreds of readings only the new one is. Readings that are not frozen are read every time.
 */
function remembered(entry: object, { check, setup, instrument }: Reader): Reading | undefined {
  const known = readings.get(entry);
  // Only sizes depend on the set-up: what they are spoken over, and what they may be.
  const same = known?.check === check && known.instrument === instrument && (check.reads !== 'size' || known.setup === setup);
  return same ? known.reading : undefined;
}

function remember(entry: object, { check, setup, instrument }: Reader, reading: Reading): void {
  if (Object.isFrozen(entry)) readings.set(entry, { check, setup, instrument, reading });
}
