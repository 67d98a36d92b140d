import * as z from 'zod';
import { refuseDeep } from '../input/depth.js';
import { FaultError, nearest, unknownKey, type Fault } from '../input/faults.js';
import { askedUnit, quantitySchema } from '../input/fields.js';
import type { SetupSpread } from '../judging/budget.js';
import { readsOf, reseats, type CheckDefinition, type QuantityInfo, type Zone } from '../checks/define.js';
import { CHECKS } from '../checks/registry.js';
import { insideZone } from '../checks/zone.js';
import { beyondRange } from '../judging/roundNotes.js';
import { KINDS_FOR, readInstrument, type Instrument, type ValueKind } from '../instruments/instrument.js';
import type { Reading, Values } from '../instruments/slots.js';
import { parseQuantity } from '../units/parse.js';
import { isObject, readHardware } from './hardware.js';
import { readPart, readReadings } from './sheetReadings.js';

export const SHEET_FORMAT = 'isometra-sheet/1';

/** A sheet that has been read: everything in base units. */
export interface Sheet {
  readonly check: CheckDefinition;
  readonly instrument: Instrument | undefined;
  readonly setup: Values;
  readonly readings: readonly Reading[];
  readonly limits: Readonly<Record<string, Zone>>;
  readonly aims: Readonly<Record<string, number>>;
  readonly hardware: Readonly<Record<string, Record<string, unknown>>>;
  /** Spread between set-ups of this check learned elsewhere, in the unit of its readings. */
  readonly setupSpread?: SetupSpread;
}

const KEYS = ['format', 'check', 'instrument', 'setup', 'readings', 'limits', 'aims', 'hardware', 'setupSpread'];

/** That it is a sheet at all, of this format, with no key that a sheet does not have. */
function readOutside(raw: unknown, faults: Fault[]): asserts raw is Record<string, unknown> {
  if (!isObject(raw))
    throw new FaultError([
      { path: '', message: 'must be a sheet: an object', example: `{ "format": "${SHEET_FORMAT}", "check": "tailstock-traverse", … }` },
    ]);
  refuseDeep(raw);
  for (const key of Object.keys(raw)) if (!KEYS.includes(key)) faults.push(unknownKey([key], KEYS));
  if (raw['format'] !== SHEET_FORMAT) faults.push({ path: 'format', message: `must be "${SHEET_FORMAT}"`, example: SHEET_FORMAT });
}

/**
 * Read a sheet (docs/sheets.md): check every part of it and bring all values to base units.
 *
 * @throws FaultError with every fault at once, each with its path and an example.
 */
export function readSheet(raw: unknown): Sheet {
  const faults: Fault[] = [];
  readOutside(raw, faults);
  const check = readCheck(raw['check'], faults);
  const { instrument, faults: instrumentFaults } = raw['instrument'] === undefined ? { faults: [] } : readInstrument(raw['instrument']);
  faults.push(...instrumentFaults);
  const hardware = readHardware(raw['hardware'], faults);
  if (!check) throw new FaultError(faults);

  const setup = readPart(check.setup, raw['setup'], ['setup'], faults);
  const setupFaulty = setup === undefined;
  const readings = readReadings(
    { check, setup: setup ?? {}, instrument, instrumentFaulty: instrumentFaults.length > 0 },
    raw['readings'],
    faults,
  );
  const limits = readLimits(check.quantities, raw['limits'], faults);
  const aims = readAims(check.quantities, limits, raw['aims'], faults);
  const setupSpread = readSetupSpread(check, raw['setupSpread'], faults);
  if (instrument) faults.push(...unfit(check, setup, instrument, raw['readings']));
  if (!setupFaulty && readings && faults.length === 0)
    faults.push(...(check.faults?.(setup, readings, instrument) ?? []), ...beyondRange(readings, instrument));
  if (faults.length || setupFaulty || !readings) throw new FaultError(faults);
  return { check, instrument, setup, readings, limits, aims, hardware, ...(setupSpread && { setupSpread }) };
}

const spreadSchema = z.strictObject({
  s: quantitySchema('deviation', { min: 0 }, '1.5 um'),
  degrees: z
    .number({ error: 'must be a number of degrees of freedom' })
    .min(1, { error: 'must be 1 or more' })
    .max(10_000, { error: 'must be 10000 or less' }),
});

/** The spread between set-ups that a sheet hands over; refused where nothing of the check is set up again. */
function readSetupSpread(check: CheckDefinition, raw: unknown, faults: Fault[]): SetupSpread | undefined {
  if (raw === undefined) return undefined;
  if (!reseats(check)) {
    faults.push({ path: 'setupSpread', message: 'cannot be used: nothing is reseated in this check', example: 'leave it out' });
    return undefined;
  }
  return readPart(spreadSchema, raw, ['setupSpread'], faults) as SetupSpread | undefined;
}

/** An instrument that cannot read what this check asks: µm/m taken for µm is a wrong move. */
function unfit(check: CheckDefinition, setup: Values | undefined, instrument: Instrument, raw: unknown): Fault[] {
  const entries = Array.isArray(raw) ? raw.filter(isObject) : [];
  const kinds = [...new Set(entries.map((entry) => readsOf(check, setup, entry)))];
  if (kinds.length === 0) {
    const usual = readsOf(check, setup);
    // Nothing has been read: it may yet be read either way.
    if ([usual, ...(check.alsoReads ?? [])].some((kind) => KINDS_FOR[kind].includes(instrument.kind))) return [];
    kinds.push(usual);
  }
  // Leaves need no dial beside them: where some places are read on one, that one has to fit.
  const needed = kinds.length > 1 ? kinds.filter((kind) => kind !== 'gap') : kinds;
  return needed.flatMap((kind): Fault[] => {
    const fitting = KINDS_FOR[kind];
    if (fitting.includes(instrument.kind)) return [];
    return fitting.length === 0
      ? [{ path: 'instrument', message: 'is of no use here: this check is read without one', example: 'leave it out' }]
      : [
          {
            path: 'instrument.kind',
            message: `"${instrument.kind}" cannot read this: ${READ_ON[kind]}, so it takes a ${fitting.join(' or a ')}`,
            example: fitting[0],
          },
        ];
  });
}

const READ_ON: Readonly<Record<ValueKind, string>> = {
  indicator: 'it is read on a dial',
  level: 'it is read on a level’s vial',
  size: 'it is a size',
  gap: 'it is a gap',
  none: 'nothing is read',
};

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

/** A bound or an aim in a quantity's own unit; undefined where it is faulty. */
function boundOf(info: QuantityInfo, raw: unknown, path: string, faults: Fault[]): number | undefined {
  const parsed = quantityValue(info, raw);
  const asked = parsed.ok ? askedUnit(parsed, info.dimension) : undefined;
  if (parsed.ok && !asked) return parsed.value;
  faults.push({ path, message: asked ?? (parsed.ok ? '' : parsed.message), example: parsed.ok ? '0.012 mm' : parsed.example });
  return undefined;
}

/** What a zone cannot be: open on both sides, upside down, or a size that is limited from below only. */
function zoneFault(
  { magnitude }: QuantityInfo,
  low: number | null,
  high: number | null,
  { path, example }: { readonly path: string; readonly example: string },
): Fault | undefined {
  if (low === null && high === null) return { path, message: 'has neither a low nor a high bound: give one at least', example };
  if (magnitude && high === null)
    return { path: `${path}[1]`, message: 'is missing: a size cannot be negative, so only the most it may be limits it', example: '10' };
  if (low !== null && high !== null && !(low < high))
    return { path, message: `must have its low value (${low}) below its high value (${high})`, example };
  return magnitude && !((high ?? 0) > 0) ? { path: `${path}[1]`, message: 'must be more than 0: it is a size', example: '10' } : undefined;
}

function readLimits(quantities: Readonly<Record<string, QuantityInfo>>, raw: unknown, faults: Fault[]): Record<string, Zone> {
  const limits: Record<string, Zone> = {};
  for (const [name, value] of known(quantities, 'limits', raw, faults)) {
    const path = `limits.${name}`;
    const info = quantities[name];
    const example = info.magnitude ? '[null, 10]' : '[-15, 15]';
    if (!Array.isArray(value) || value.length !== 2) {
      faults.push({ path, message: 'must be a zone of two values, low and high', example });
      continue;
    }
    const [low, high] = value.map((bound: unknown, i) => (bound === null ? null : boundOf(info, bound, `${path}[${i}]`, faults)));
    if (low === undefined || high === undefined) continue;
    const fault = zoneFault(info, low, high, { path, example });
    if (fault) faults.push(fault);
    else limits[name] = info.magnitude ? [null, high] : [low, high];
  }
  return limits;
}

function readAims(
  quantities: Readonly<Record<string, QuantityInfo>>,
  limits: Readonly<Record<string, Zone>>,
  raw: unknown,
  faults: Fault[],
): Record<string, number> {
  const aims: Record<string, number> = {};
  for (const [name, value] of known(quantities, 'aims', raw, faults)) {
    const path = `aims.${name}`;
    const aim = boundOf(quantities[name], value, path, faults);
    if (aim === undefined) continue;
    if (quantities[name].magnitude && aim !== 0) faults.push({ path, message: 'is for a size, which aims at 0', example: '0' });
    else if (limits[name] && !insideZone(aim, limits[name])) faults.push(aimOutside(path, aim, limits[name]));
    else aims[name] = aim;
  }
  return aims;
}

/** An aim that does not lie in its zone. */
export function aimOutside(path: string, aim: number, [low, high]: Zone): Fault {
  return {
    path,
    message: `is outside its limits: ${aim} is not within ${low ?? 'no bound'} to ${high ?? 'no bound'}`,
    example: String(high ?? low ?? 0),
  };
}
