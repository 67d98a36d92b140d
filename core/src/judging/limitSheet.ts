import { CHECKS } from '../checks/registry.js';
import type { CheckDefinition, QuantityInfo } from '../checks/define.js';
import { usualAim, type Zone } from './verdict.js';
import { nearest, unknownKey, type Fault } from '../input/faults.js';
import { parseQuantity } from '../units/parse.js';
import { drift, NO_EFFECT, shiftedZone, type AxisEffect } from './planned.js';
import { lengthRead, startingZone, variantOf, zoneOver, type LimitRule } from './zones.js';

export const LIMITS_FORMAT = 'isometra-limits/1';

/** One line of a limit sheet: the zone of one quantity, in its own unit. */
export interface LimitLine extends LimitRule {
  readonly check: string;
  readonly quantity: string;
  /** For which kind of set-up, where the quantity has several. */
  readonly when?: string;
  /** Why the zone or the aim is what it is. */
  readonly reason?: string;
}

/** By what a survey judges: a name and the lines that differ from or repeat the catalogue. */
export interface LimitSheet {
  readonly format: typeof LIMITS_FORMAT;
  readonly name: string;
  readonly lines: readonly LimitLine[];
}

type Raw = Readonly<Record<string, unknown>>;

const isObject = (raw: unknown): raw is Raw => typeof raw === 'object' && raw !== null && !Array.isArray(raw);
const SHEET_KEYS = ['format', 'name', 'lines'];
const LINE_KEYS = ['check', 'quantity', 'when', 'zone', 'over', 'aim', 'reason'];

/** One name for one line: no two lines of a sheet may have the same. */
export const lineName = ({ check, quantity, when }: Pick<LimitLine, 'check' | 'quantity' | 'when'>): string =>
  [check, quantity, ...(when ? [when] : [])].join('/');

/** Quantities of a check that a limit sheet can limit: those the catalogue limits. */
export function limitable(check: CheckDefinition): [string, QuantityInfo][] {
  return Object.entries(check.quantities).filter(([, info]) => info.limit !== undefined);
}

/** One bound or aim: a number in the quantity's unit or a text with one; null where there is none. */
function bound(info: QuantityInfo, raw: unknown, path: string, faults: Fault[]): number | null | undefined {
  if (raw === null || raw === undefined || raw === '') return null;
  const parsed = parseQuantity(raw, info.dimension, info.unit);
  if (parsed.ok) return parsed.value;
  faults.push({ path, message: parsed.message, example: parsed.example });
  return undefined;
}

function readZone(info: QuantityInfo, raw: unknown, path: string, faults: Fault[]): Zone | undefined {
  const example = info.magnitude ? '[null, 10]' : '[-15, 15]';
  if (!Array.isArray(raw) || raw.length !== 2) {
    faults.push({ path, message: 'must be a zone of two values, low and high', example });
    return undefined;
  }
  const [low, high] = raw.map((entry: unknown, i) => bound(info, entry, `${path}[${i}]`, faults));
  if (low === undefined || high === undefined) return undefined;
  if (low === null && high === null) {
    faults.push({ path, message: 'has neither a low nor a high bound: give one at least', example });
    return undefined;
  }
  if (low !== null && high !== null && !(low < high)) {
    faults.push({ path, message: `must have its low value (${low}) below its high value (${high})`, example });
    return undefined;
  }
  if (info.magnitude && high === null) {
    faults.push({ path: `${path}[1]`, message: 'is missing: a size needs the most it may be', example: '10' });
    return undefined;
  }
  return info.magnitude ? [null, high] : [low, high];
}

function readOver(raw: unknown, info: QuantityInfo, path: string, faults: Fault[]): LimitRule['over'] {
  if (raw === undefined || raw === null) return undefined;
  if (!info.over) {
    faults.push({ path, message: 'is not for this quantity: its limit does not grow with a length', example: 'leave it out' });
    return undefined;
  }
  if (!isObject(raw)) {
    faults.push({ path, message: 'must be an object with a length', example: '{ "length": "1000 mm", "least": 5 }' });
    return undefined;
  }
  const length = parseQuantity(raw['length'], 'length');
  const least = bound(info, raw['least'], `${path}.least`, faults);
  if (!length.ok || !(length.value > 0)) {
    faults.push({ path: `${path}.length`, message: length.ok ? 'must be more than 0 mm' : length.message, example: '1000 mm' });
    return undefined;
  }
  return { length: length.value, ...(typeof least === 'number' && { least }) };
}

function readAim(info: QuantityInfo, zone: Zone, raw: Raw, path: string, faults: Fault[]): number | undefined {
  const aim = bound(info, raw['aim'], `${path}.aim`, faults);
  if (aim === null || aim === undefined) return undefined;
  const [low, high] = zone;
  if ((low !== null && aim < low) || (high !== null && aim > high)) {
    faults.push({ path: `${path}.aim`, message: `must lie in its zone, from ${low ?? 'no bound'} to ${high ?? 'no bound'}`, example: '0' });
  } else if (typeof raw['reason'] !== 'string' || raw['reason'].trim() === '') {
    faults.push({ path: `${path}.reason`, message: 'is missing: a target of its own needs a reason', example: 'wears down' });
  }
  return aim;
}

function quantityOf(raw: Raw, path: string, faults: Fault[]): { check: CheckDefinition; name: string; info: QuantityInfo } | undefined {
  const checks = [...CHECKS.values()].filter((check) => limitable(check).length);
  const id = String(raw['check'] ?? '');
  const check = checks.find((entry) => entry.id === id);
  if (!check) {
    const near = nearest(id, [...checks.map((entry) => entry.id)]);
    const message = id === '' ? 'is missing: give a check' : `"${id}" is not a check that has a limit`;
    faults.push({ path: `${path}.check`, message, example: near ?? 'bed-twist' });
    return undefined;
  }
  const name = String(raw['quantity'] ?? '');
  const known = limitable(check);
  const found = known.find(([key]) => key === name);
  if (found) return { check, name, info: found[1] };
  const names = known.map(([key]) => key);
  const message = name === '' ? `is missing: ${check.id} limits ${names.join(', ')}` : `"${name}" is not limited by ${check.id}`;
  faults.push({ path: `${path}.quantity`, message, example: nearest(name, names) ?? names[0] });
  return undefined;
}

/** Which of several zones of a quantity a line is for. */
function readWhen(raw: unknown, { variants = [] }: QuantityInfo, path: string, faults: Fault[]): string | undefined {
  if (raw === undefined || raw === '') return undefined;
  const [when, kinds] = [String(raw), variants.map((variant) => variant.key)];
  if (!kinds.includes(when)) {
    const message = kinds.length ? `"${when}" is not one of ${kinds.join(', ')}` : 'is not for this quantity: it has one zone only';
    faults.push({ path, message, example: kinds[0] ?? 'leave it out' });
  }
  return when;
}

function readReason(raw: unknown, path: string, faults: Fault[]): string {
  if (typeof raw === 'string' && raw.length <= 200) return raw.trim();
  if (raw !== undefined) faults.push({ path, message: 'must be a text of at most 200 characters', example: 'wears down' });
  return '';
}

function readLine(raw: unknown, path: string, faults: Fault[]): LimitLine | undefined {
  if (!isObject(raw)) {
    faults.push({
      path,
      message: 'must be a line: an object',
      example: '{ "check": "bed-twist", "quantity": "twistPerMetre", "zone": [-20, 20] }',
    });
    return undefined;
  }
  const before = faults.length;
  for (const key of Object.keys(raw))
    if (!LINE_KEYS.includes(key)) faults.push({ ...unknownKey([key], LINE_KEYS), path: `${path}.${key}` });
  const found = quantityOf(raw, path, faults);
  if (!found) return undefined;
  const { check, name, info } = found;
  const when = readWhen(raw['when'], info, `${path}.when`, faults);
  const zone = readZone(info, raw['zone'], `${path}.zone`, faults);
  const over = readOver(raw['over'], info, `${path}.over`, faults);
  const aim = zone && readAim(info, zone, raw, path, faults);
  const reason = readReason(raw['reason'], `${path}.reason`, faults);
  if (!zone || faults.length > before) return undefined;
  return {
    check: check.id,
    quantity: name,
    ...(when && { when }),
    zone,
    ...(over && { over }),
    ...(aim !== undefined && { aim }),
    ...(reason && { reason }),
  };
}

/**
 * Read a limit sheet as written in a file: every line's zone in its quantity's own unit.
 *
 * @returns the sheet, or every fault with paths like `lines[3].zone[1]`.
 */
export function readLimitSheet(raw: unknown): { readonly sheet?: LimitSheet; readonly faults: readonly Fault[] } {
  if (!isObject(raw))
    return { faults: [{ path: '', message: 'must be a limit sheet: an object', example: `{ "format": "${LIMITS_FORMAT}", … }` }] };
  const faults: Fault[] = [];
  for (const key of Object.keys(raw)) if (!SHEET_KEYS.includes(key)) faults.push(unknownKey([key], SHEET_KEYS));
  if (raw['format'] !== LIMITS_FORMAT) faults.push({ path: 'format', message: `must be "${LIMITS_FORMAT}"`, example: LIMITS_FORMAT });
  const name = typeof raw['name'] === 'string' ? raw['name'].trim() : '';
  if (!name || name.length > 60)
    faults.push({
      path: 'name',
      message: name ? 'must have at most 60 characters' : 'is missing: give it a name',
      example: 'Long lathe, builder’s sheet',
    });
  if (!Array.isArray(raw['lines'])) {
    faults.push({ path: 'lines', message: 'must be a list of lines', example: '[ … ]' });
    return { faults };
  }
  const seen = new Map<string, number>();
  const lines = raw['lines'].flatMap((entry: unknown, i): LimitLine[] => {
    const line = readLine(entry, `lines[${i}]`, faults);
    if (!line) return [];
    const first = seen.get(lineName(line));
    if (first !== undefined) {
      faults.push({
        path: `lines[${i}]`,
        message: `limits ${lineName(line)} again, after lines[${first}]`,
        example: 'one line for each quantity',
      });
      return [];
    }
    seen.set(lineName(line), i);
    return [line];
  });
  return faults.length ? { faults } : { faults, sheet: { format: LIMITS_FORMAT, name, lines } };
}

/**
 * The zones and aims by which a sheet judges one round of a check; quantities without a line keep the catalogue's.
 *
 * @param setup of the check, read. @param places `at` of the readings, mm.
 * @param pending what planned changes will do to the axis: zones and aims of what follows it shift by minus that.
 */
export function judgedBy(
  sheet: LimitSheet,
  check: CheckDefinition,
  setup: Raw,
  places: readonly number[],
  pending: AxisEffect = NO_EFFECT,
) {
  const limits: Record<string, Zone> = {};
  const aims: Record<string, number> = {};
  for (const [name, info] of limitable(check)) {
    const by = drift(info, pending, setup);
    const variant = variantOf(info, setup);
    // What a variant guesses is the weight of what is off; a load that is hung on besides does not tell of it.
    const known = variant?.guesses === true && drift(info, { ...pending, loadX: 0, loadY: 0 }, setup) !== 0;
    const when = known ? undefined : variant?.key;
    const line = sheet.lines.find((entry) => entry.check === check.id && entry.quantity === name && entry.when === when);
    // What has no line and is not shifted keeps the catalogue's.
    if (!line && by === 0) continue;
    const usual = () => (known ? info.limit : startingZone(check, name, setup, places));
    const zone = line ? zoneOver(line.zone, line.over, lengthRead(check, setup, places)) : usual();
    if (!zone) continue;
    limits[name] = shiftedZone(zone, by);
    const aim = line?.aim ?? (by === 0 ? undefined : usualAim(info, zone));
    if (aim !== undefined) aims[name] = aim - by;
  }
  return { limits, aims };
}
