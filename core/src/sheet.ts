import * as z from 'zod';
import { FaultError, faultsOf, nearest, pathText, unknownKey, type Fault } from './faults.js';
import { valueKindOf, type CheckDefinition, type QuantityInfo } from './checks/define.js';
import { CHECKS } from './checks/registry.js';
import type { Zone } from './calls/verdict.js';
import { readInstrument, type Instrument } from './instruments/instrument.js';
import { readingValue, type ValueKind } from './instruments/reading.js';
import type { Reading } from './instruments/slots.js';
import { readMoveInput } from './moves/define.js';
import { MOVES, unknownMove } from './moves/registry.js';
import { parseQuantity } from './units/parse.js';

export const SHEET_FORMAT = 'isometra-sheet/1';

/** A sheet that has been read: everything in base units. */
export interface Sheet {
  readonly check: CheckDefinition;
  readonly instrument: Instrument | undefined;
  readonly setup: Readonly<Record<string, unknown>>;
  readonly readings: readonly Reading[];
  readonly limits: Readonly<Record<string, Zone>>;
  readonly aims: Readonly<Record<string, number>>;
  readonly hardware: Readonly<Record<string, Record<string, unknown>>>;
}

const KEYS = ['format', 'check', 'instrument', 'setup', 'readings', 'limits', 'aims', 'hardware'];

/** Reading keys that every family takes. `conditions` are free; `set` is the number of the set-up. */
const COMMON_READING = {
  value: z.unknown().optional(),
  set: z.int({ error: 'must be the number of the set-up: 1, 2, …' }).min(1, { error: 'must be 1 or more' }).optional(),
  conditions: z.record(z.string(), z.union([z.string(), z.number(), z.boolean()])).optional(),
};

type Raw = Record<string, unknown>;
const isObject = (value: unknown): value is Raw => typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * Read a sheet (docs/sheets.md): check every part of it and bring all values to base units.
 *
 * @throws FaultError with every fault at once, each with its path and an example.
 */
export function readSheet(raw: unknown): Sheet {
  if (!isObject(raw))
    throw new FaultError([
      { path: '', message: 'must be a sheet: an object', example: `{ "format": "${SHEET_FORMAT}", "check": "tailstock-traverse", … }` },
    ]);
  const faults: Fault[] = [];
  for (const key of Object.keys(raw)) if (!KEYS.includes(key)) faults.push(unknownKey([key], KEYS));
  if (raw['format'] !== SHEET_FORMAT) faults.push({ path: 'format', message: `must be "${SHEET_FORMAT}"`, example: SHEET_FORMAT });
  const check = readCheck(raw['check'], faults);
  const { instrument, faults: instrumentFaults } = raw['instrument'] === undefined ? { faults: [] } : readInstrument(raw['instrument']);
  faults.push(...instrumentFaults);
  const hardware = readHardware(raw['hardware'], faults);
  if (!check) throw new FaultError(faults);

  const setup = readPart(check.setup, raw['setup'], ['setup'], faults);
  const readings = readReadings(check, setup, raw['readings'], instrument, instrumentFaults.length > 0, faults);
  const limits = readLimits(check.quantities, raw['limits'], faults);
  const aims = readAims(check.quantities, raw['aims'], faults);
  if (setup && readings && faults.length === 0) faults.push(...(check.faults?.(setup, readings, instrument) ?? []));
  if (faults.length || !setup || !readings) throw new FaultError(faults);
  return { check, instrument, setup, readings, limits, aims, hardware };
}

function readCheck(id: unknown, faults: Fault[]): CheckDefinition | undefined {
  const known = [...CHECKS.keys()];
  if (typeof id !== 'string') {
    faults.push({ path: 'check', message: `is missing: name the check, one of ${known.join(', ')}`, example: known[0] });
    return undefined;
  }
  const check = CHECKS.get(id);
  if (!check)
    faults.push({
      path: 'check',
      message: `"${id}" is not a check worked out here; there are ${known.join(', ')}`,
      example: nearest(id, known) ?? known[0],
    });
  return check;
}

function readPart(schema: z.ZodObject, raw: unknown, path: readonly PropertyKey[], faults: Fault[]): Raw | undefined {
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

function readReadings(
  check: CheckDefinition,
  setup: Raw | undefined,
  raw: unknown,
  instrument: Instrument | undefined,
  instrumentFaulty: boolean,
  faults: Fault[],
): Reading[] | undefined {
  if (!Array.isArray(raw)) {
    faults.push({ path: 'readings', message: 'must be a list of readings', example: '[ { "at": 20, "value": "0 div" } ]' });
    return undefined;
  }
  const schema = readingSchemaOf(check);
  const kind = valueKindOf(check, setup);
  return raw.flatMap((entry: unknown, index) => {
    const path = ['readings', index];
    if (!isObject(entry)) {
      faults.push({ path: pathText(path), message: 'must be a reading: an object', example: '{ "at": 20, "value": "0 div" }' });
      return [];
    }
    const known = remembered(entry, check, instrument);
    if (known) return [known];
    const before = faults.length;
    const keys = readPart(schema, entry, path, faults);
    const told = entry['value'] === undefined && keys ? check.valueFrom?.(keys) : undefined;
    const value = told ?? readValue(kind, entry['value'], instrument, instrumentFaulty, [...path, 'value'], faults);
    if (!keys || value === undefined || faults.length > before) return [];
    const reading: Reading = { ...keys, set: (keys['set'] as number | undefined) ?? 1, value };
    remember(entry, check, instrument, reading);
    return [reading];
  });
}

function readValue(
  kind: ValueKind,
  raw: unknown,
  instrument: Instrument | undefined,
  instrumentFaulty: boolean,
  path: readonly PropertyKey[],
  faults: Fault[],
): number | undefined {
  const parsed = readingValue(raw, kind, instrument);
  if (!parsed.ok) {
    if (!(instrumentFaulty && typeof raw === 'number'))
      faults.push({ path: pathText(path), message: parsed.message, example: parsed.example });
    return undefined;
  }
  if (kind === 'size' && !(parsed.value > 0)) {
    faults.push({ path: pathText(path), message: 'must be more than 0 mm', example: '38.24 mm' });
    return undefined;
  }
  return parsed.value;
}

interface Remembered {
  readonly check: CheckDefinition;
  readonly instrument: Instrument | undefined;
  readonly reading: Reading;
}

const readings = new WeakMap<object, Remembered>();

/**
 * A frozen reading cannot change, so it need not be read again for the same check and instrument: on a
 * bench with hundreds of readings only the new one is. Readings that are not frozen are read every time.
 */
function remembered(entry: object, check: CheckDefinition, instrument: Instrument | undefined): Reading | undefined {
  const known = readings.get(entry);
  return known?.check === check && known.instrument === instrument ? known.reading : undefined;
}

function remember(entry: object, check: CheckDefinition, instrument: Instrument | undefined, reading: Reading): void {
  if (Object.isFrozen(entry)) readings.set(entry, { check, instrument, reading });
}

/** A value in a quantity's own unit: number or text with a unit. */
function quantityValue(info: QuantityInfo, raw: unknown) {
  return parseQuantity(raw, info.dimension, info.unit);
}

function known(quantities: Readonly<Record<string, QuantityInfo>>, part: string, raw: unknown, faults: Fault[]): [string, unknown][] {
  if (raw === undefined) return [];
  if (!isObject(raw)) {
    faults.push({ path: part, message: 'must be an object of quantity names', example: '{ "offsetHorizontal": … }' });
    return [];
  }
  return Object.entries(raw).filter(([name]) => {
    if (Object.hasOwn(quantities, name)) return true;
    faults.push(unknownKey([part, name], Object.keys(quantities)));
    return false;
  });
}

function readLimits(quantities: Readonly<Record<string, QuantityInfo>>, raw: unknown, faults: Fault[]): Record<string, Zone> {
  const limits: Record<string, Zone> = {};
  for (const [name, value] of known(quantities, 'limits', raw, faults)) {
    const path = `limits.${name}`;
    const example = '[-15, 15]';
    if (!Array.isArray(value) || value.length !== 2) {
      faults.push({ path, message: 'must be a zone of two values, low and high', example });
      continue;
    }
    const bounds = value.map((bound: unknown, i) => {
      if (bound === null) return null;
      const parsed = quantityValue(quantities[name], bound);
      if (parsed.ok) return parsed.value;
      faults.push({ path: `${path}[${i}]`, message: parsed.message, example: parsed.example });
      return undefined;
    });
    const [low, high] = bounds;
    if (low === undefined || high === undefined) continue;
    if (low !== null && high !== null && !(low < high))
      faults.push({ path, message: 'must have its low value below its high value', example });
    else limits[name] = [low, high];
  }
  return limits;
}

function readAims(quantities: Readonly<Record<string, QuantityInfo>>, raw: unknown, faults: Fault[]): Record<string, number> {
  const aims: Record<string, number> = {};
  for (const [name, value] of known(quantities, 'aims', raw, faults)) {
    const parsed = quantityValue(quantities[name], value);
    if (parsed.ok) aims[name] = parsed.value;
    else faults.push({ path: `aims.${name}`, message: parsed.message, example: parsed.example });
  }
  return aims;
}

function readHardware(raw: unknown, faults: Fault[]): Record<string, Raw> {
  const hardware: Record<string, Raw> = {};
  if (raw === undefined) return hardware;
  if (!isObject(raw)) {
    faults.push({ path: 'hardware', message: 'must be an object of move kinds', example: '{ "adjuster": { "pitch": 1.5 } }' });
    return hardware;
  }
  for (const [kind, value] of Object.entries(raw)) {
    const definition = MOVES.get(kind);
    if (!definition) {
      faults.push({ path: `hardware.${kind}`, message: unknownMove(kind), example: nearest(kind, [...MOVES.keys()]) ?? 'adjuster' });
    } else if (!isObject(value)) {
      faults.push({ path: `hardware.${kind}`, message: 'must be an object', example: '{ "pitch": 1.5 }' });
    } else {
      const read = readMoveInput(definition, value, ['hardware', kind], true);
      faults.push(...read.faults);
      if (read.input) hardware[kind] = read.input;
    }
  }
  return hardware;
}
