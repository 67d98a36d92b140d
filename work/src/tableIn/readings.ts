import {
  fieldInfo,
  dialDivisions,
  parseQuantity,
  readingValue,
  sentence,
  type Beside,
  type CheckDefinition,
  type Dimension,
  type Instrument,
  type SizeWriter,
  type ValueKind,
} from '@isometra/core';
import type { ReadingWrite, RoundWrite, StoredReading } from '@isometra/contract';
import type * as z from 'zod';
import { isTenTimes, liesApart, lineOf } from '../judging/tenTimes.js';
import { placeKeysOf, placeOf } from '../notebook/keyOf.js';
import { faultWords, keyLabel, readingFaults } from '../sheets/door.js';
import { readingTold } from '../sheets/sheet.js';
import type { BenchSlot } from '../sheets/slots.js';
import { cellOf, type Cell } from './cell.js';
import { unitsOf, type InField, type Mapping } from './fields.js';
import type { InRow } from './rows.js';
import { raggedFault, type Table, type TableRow } from './table.js';

type Keys = StoredReading['keys'];
type Key = Keys[string];

/** A round that a table of readings goes into. */
export interface ReadingsAbout {
  readonly check: CheckDefinition;
  readonly round: Pick<RoundWrite, 'check' | 'setup' | 'instrument'>;
  readonly instrument: Instrument | undefined;
  /** Its places in working order, with what was read there. */
  readonly slots: readonly BenchSlot[];
  readonly setUp: number;
  /** What a reading of a place is read on. */
  readonly kindOf: (keys: Keys) => ValueKind;
  /** How a place is written. */
  readonly size: SizeWriter;
  /** Places that the plan does not have are taken as they stand in the table. */
  readonly ownPlaces?: boolean;
  /** Index of the place of the first row, where no column tells places; `startOf` says it where it is left out. */
  readonly start?: number;
}

/**
 * The place that a table without places begins at: the first one where it has a row for each place (read once more, what stands is
 * known again), else the first that is not read yet.
 */
export function startOf(rows: number, slots: readonly BenchSlot[]): number {
  if (rows >= slots.filter(({ closing }) => !closing).length) return 0;
  return slots.find(({ done }) => !done)?.index ?? 0;
}

/** What a row is written as. */
export type ReadingIn = Pick<ReadingWrite, 'keys' | 'value' | 'set'>;

const VALUE_UNITS: Readonly<Record<ValueKind, readonly string[]>> = {
  indicator: ['div', 'um', 'mm', 'thou', 'tenths', 'in'],
  level: ['div', 'um/m', 'mm/m', 'thou/ft', 'arcsec'],
  size: ['mm', 'in'],
  gap: ['mm', 'um', 'thou', 'in'],
  none: [],
};
/** What a place along a machine lies apart from the next one at least, mm or degrees. */
const SAME_PLACE = 0.02;
const KEY_NAMES: Readonly<Record<string, readonly string[]>> = {
  at: ['place', 'position', 'station', 'where', 'x', 'along'],
  side: ['way', 'edge'],
  plane: ['direction'],
  angle: ['angle', 'turn'],
};
const BESIDE_NAMES: Readonly<Record<string, readonly string[]>> = {
  go: ['enters', 'goes in', 'go', 'thickest that enters'],
  noGo: ['does not enter', 'no go', 'not go', 'nogo', 'thinnest that does not'],
  drag: ['feel', 'felt', 'drag'],
};

const infoOf = ({ reading }: CheckDefinition, key: string) => {
  const schema = reading.shape[key] as z.ZodType | undefined;
  return schema && fieldInfo(schema);
};

/** Keys by which the places of a round differ. */
const keysOf = ({ check, slots }: Pick<ReadingsAbout, 'check' | 'slots'>): string[] =>
  [...placeKeysOf(check)].filter((key) => new Set(slots.map(({ keys }) => keys[key])).size > 1);

/** What a place is asked beside its figure, or in place of one. */
const besideAt = ({ beside = [] }: CheckDefinition, keys: Keys): readonly Beside[] => beside.filter(({ when }) => when?.(keys) ?? true);
/** Whether what a place says is felt, not read off a scale: leaves, a drag. */
const isFelt = (check: CheckDefinition, keys: Keys): boolean => besideAt(check, keys).some(({ instead }) => instead === true);

/** What may stand beside the readings of a round: which leaf entered, how warm the part was. */
function besideFields({ check, slots }: Pick<ReadingsAbout, 'check' | 'slots'>): InField[] {
  const asked = (check.beside ?? []).filter(({ when }) => slots.some(({ keys }) => when?.(keys) ?? true));
  return asked.map(({ key }): InField => {
    const info = infoOf(check, key);
    const names = [key, ...(BESIDE_NAMES[key] ?? [])].map((name) => name.toLowerCase());
    return {
      ...{ key: `beside.${key}`, label: keyLabel(check, key), names },
      ...(info?.choices ? { choices: info.choices.map(({ value, label }) => ({ value: String(value), label })) } : {}),
      ...(info?.dimension && !info.choices && { units: unitsOf(info.dimension) }),
    };
  });
}

/** What a table may tell of the readings of a round: where each belongs, what the dial showed or a leaf found, and what stands beside it. */
export function readingFields(about: Pick<ReadingsAbout, 'check' | 'slots' | 'kindOf' | 'instrument'>): InField[] {
  const { check, slots } = about;
  const places = keysOf(about).map((key): InField => {
    const info = infoOf(check, key);
    const values = [...new Set(slots.map(({ keys }) => keys[key]))].filter((value) => value !== undefined);
    const numeric = values.every((value) => typeof value === 'number');
    const known = info?.choices?.filter(({ value }) => values.includes(value));
    return {
      ...{ key: `keys.${key}`, label: keyLabel(check, key), names: [key, ...(KEY_NAMES[key] ?? [])] },
      ...(numeric && { units: unitsOf(info?.dimension ?? 'number') }),
      ...(!numeric && { choices: known?.length ? known : values.map((value) => ({ value: String(value), label: wordsOf(value) })) }),
    };
  });
  const scaled = slots.find(({ keys }) => !isFelt(check, keys));
  const beside = besideFields(about);
  if (!scaled && slots.length > 0) return [...places, ...beside];
  const kind = about.kindOf(scaled?.keys ?? {});
  const required = slots.every(({ keys }) => !isFelt(check, keys));
  const units = VALUE_UNITS[kind].filter((unit) => unit !== 'div' || about.instrument);
  const names = ['value', 'reading', 'reads', 'dial', 'indicator', 'level', 'size', 'diameter', 'readings'];
  return [
    ...places,
    { key: 'value', label: 'Reading', required, names, units, ...((kind === 'indicator' || kind === 'level') && { signed: true }) },
    ...beside,
  ];
}

const wordsOf = (value: Key): string => (typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value));

/** What the columns of a row say beside its reading, as it would be typed. A text: what is wrong with it. */
function toldBeside(table: Table, row: TableRow, mapping: Mapping, fields: readonly InField[]): Readonly<Record<string, string>> | string {
  const told: Record<string, string> = {};
  for (const field of fields.filter(({ key }) => key.startsWith('beside.'))) {
    const { text, fault } = cellOf(table, row, field, mapping);
    if (fault !== undefined) return fault;
    if (text !== undefined) told[field.key.slice('beside.'.length)] = text;
  }
  return told;
}

/** What the columns of a row say of its place; what is left out is not told. A text: what is wrong with it. */
function toldKeys(table: Table, row: TableRow, mapping: Mapping, fields: readonly InField[], about: ReadingsAbout): Keys | string {
  const told: Record<string, Key> = {};
  for (const field of fields.filter(({ key }) => key.startsWith('keys.'))) {
    const key = field.key.slice('keys.'.length);
    const { text, fault } = cellOf(table, row, field, mapping);
    if (fault !== undefined) return fault;
    if (text === undefined) continue;
    const value = field.units ? quantity(text, infoOf(about.check, key)?.dimension ?? 'number') : ownValue(text, key, about);
    if (value === undefined) return `${field.label} "${text}" cannot be read`;
    told[key] = value;
  }
  return told;
}

function quantity(text: string, dimension: Dimension): number | undefined {
  const parsed = parseQuantity(text, dimension);
  return parsed.ok ? Number(parsed.value.toFixed(3)) : undefined;
}

const ownValue = (text: string, key: string, { slots }: ReadingsAbout): Key | undefined =>
  slots.map(({ keys }) => keys[key]).find((value) => value !== undefined && String(value) === text);

const agrees = (one: Key | undefined, other: Key): boolean =>
  typeof one === 'number' && typeof other === 'number' ? Math.abs(one - other) < SAME_PLACE : one === other;
const fits = (keys: Keys, told: Keys): boolean => Object.entries(told).every(([key, value]) => agrees(keys[key], value));

/** A table on its way into a round, row by row: what was laid where so far. */
class Laying {
  private readonly taken = new Set<number>();
  private readonly matched = new Set<string>();
  /** The place of the last row that was laid, and what it read. */
  private last: { readonly place: string; readonly value: number } | null = null;
  private readonly read: { readonly line: string; readonly place: string; readonly divisions: number }[] = [];
  private readonly firstPlane: Key | undefined;

  constructor(private readonly about: ReadingsAbout) {
    this.firstPlane = about.slots.find(({ readings }) => readings.length > 0)?.keys['plane'] ?? about.slots[0]?.keys['plane'];
  }

  /**
   * What a row becomes.
   *
   * @param told what its columns say of its place; none: it is the place with this `index`. @param beside what they say beside the
   *   reading. @param text its reading; undefined where no cell tells one.
   */
  lay(number: number, told: Keys, beside: Readonly<Record<string, string>>, text: string | undefined, index: number): InRow<ReadingIn> {
    const { check } = this.about;
    const place = this.placeFor(told, index);
    const says = [text, ...Object.values(beside)].filter(Boolean).join(' · ');
    if (typeof place === 'string') return { number, what: this.words(told), says, state: 'faulty', reason: place };
    const row = { number, what: this.called(place.keys, place.slot), says };
    const asked = besideAt(check, place.keys).map(({ key }) => key);
    const idle = Object.keys(beside).find((key) => !asked.includes(key));
    if (idle !== undefined) return { ...row, state: 'faulty', reason: `${keyLabel(check, idle)} is not asked at this place` };
    const at = { ...place, keys: { ...place.keys, ...beside } };
    if (isFelt(check, place.keys)) return this.layFelt(row, at, text);
    return text === undefined ? { ...row, state: 'faulty', reason: 'has no reading' } : this.layRead(row, at, text);
  }

  /** A row whose place is felt: leaves or a hand tell it, and no scale. */
  private layFelt(row: Pick<InRow<ReadingIn>, 'number' | 'what' | 'says'>, place: Place, text: string | undefined): InRow<ReadingIn> {
    const { check, setUp } = this.about;
    if (text !== undefined) return { ...row, state: 'faulty', reason: 'has a reading, and this place is felt' };
    const { length } = besideAt(check, place.keys).filter(({ key, instead }) => instead && place.keys[key] !== undefined);
    if (length === 0) return { ...row, state: 'faulty', reason: 'has no reading' };
    if (this.feltAlready(place.keys)) return { ...row, state: 'same' };
    const fault = this.faultOf(place, null, 0, 'none');
    if (fault) return { ...row, state: 'faulty', reason: fault };
    this.remember(place, NaN, 'none');
    return { ...row, state: 'new', value: { keys: place.keys, value: null, set: setUp } };
  }

  /** A row whose place is read off a scale. */
  private layRead(row: Pick<InRow<ReadingIn>, 'number' | 'what' | 'says'>, place: Place, text: string): InRow<ReadingIn> {
    const kind = this.about.kindOf(place.keys);
    const parsed = readingValue(text, kind, this.about.instrument);
    if (!parsed.ok) return { ...row, state: 'faulty', reason: `The reading ${parsed.message}. Example: ${parsed.example}` };
    if (this.stands(place.keys, parsed.value)) return { ...row, state: 'same' };
    const fault = this.faultOf(place, text, parsed.value, kind);
    if (fault) return { ...row, state: 'faulty', reason: fault };
    const doubt = this.doubtOf(place.keys, parsed.value, kind);
    this.remember(place, parsed.value, kind);
    return {
      ...{ ...row, state: 'new', value: { keys: place.keys, value: text, set: this.about.setUp } },
      ...(doubt && { doubt: true, reason: doubt }),
    };
  }

  /** A row whose reading cannot be taken. */
  unread(number: number, told: Keys, says: string, index: number, reason: string): InRow<ReadingIn> {
    const place = this.placeFor(told, index);
    const what = typeof place === 'string' ? this.words(told) : this.called(place.keys, place.slot);
    return { number, what, says, state: 'faulty', reason };
  }

  private words(told: Keys): string {
    return Object.entries(told)
      .map(([key, value]) => this.keyWords(key, value))
      .join(', ');
  }

  private keyWords(key: string, value: Key): string {
    const dimension = infoOf(this.about.check, key)?.dimension;
    if (typeof value === 'number') return dimension === 'length' ? this.about.size(value, 'length') : String(value);
    return infoOf(this.about.check, key)?.choices?.find((choice) => choice.value === value)?.label ?? wordsOf(value);
  }

  private called(keys: Keys, slot?: BenchSlot): string {
    return slot ? sentence(slot.label, this.about.size) : this.words(keys);
  }

  private open = (slot: BenchSlot): boolean => !slot.done && !this.taken.has(slot.index);

  /** Where a row belongs: where its columns say, or where it stands in the order. A text: why nowhere. */
  private placeFor(told: Keys, index: number): Place | string {
    if (Object.keys(told).length) return this.named(told);
    const slot = this.about.slots[index];
    return slot ? { keys: slot.keys, slot } : 'the round has no more places';
  }

  private named(told: Keys): Place | string {
    const { slots, check } = this.about;
    const found = slots.filter(({ keys }) => fits(keys, told));
    const names = new Set(found.map(({ keys }) => placeOf(check, keys)));
    if (names.size > 1) return `${names.size} places of the round are ${this.words(told)}: ${this.missing(told)}`;
    if (found.length === 0) return this.stray(told);
    const [name] = names;
    const again = this.last?.place === name;
    return { keys: found[0].keys, slot: (again ? undefined : found.find(this.open)) ?? found[0] };
  }

  private missing(told: Keys): string {
    const labels = keysOf(this.about)
      .filter((key) => !(key in told))
      .map((key) => keyLabel(this.about.check, key).toLowerCase());
    return `say which column is "${labels.join('", "')}"`;
  }

  private stray(told: Keys): Place | string {
    const at = told['at'];
    const { slots, check, size } = this.about;
    const others = slots.filter(({ keys }) => fits(keys, Object.fromEntries(Object.entries(told).filter(([key]) => key !== 'at'))));
    const model = others.find(({ keys }) => typeof keys['at'] === 'number');
    if (this.about.ownPlaces && typeof at === 'number' && model) {
      const distinct = new Set(others.map(({ keys }) => placeOf(check, { ...keys, at })));
      if (distinct.size === 1) return { keys: { ...model.keys, at } };
      return `${distinct.size} kinds of places are ${this.words(told)}: ${this.missing(told)}`;
    }
    const near = others.map(({ keys }) => keys['at']).filter((place): place is number => typeof place === 'number');
    if (typeof at !== 'number' || near.length === 0) return `no place of the round is ${this.words(told)}`;
    const nearest = near.reduce((best, place) => (Math.abs(place - at) < Math.abs(best - at) ? place : best));
    return `no place of the round is at ${size(at, 'length')}; the nearest is at ${size(nearest, 'length')}`;
  }

  /** Whether the round has this very reading already; each one stands for one row. */
  private stands(keys: Keys, value: number): boolean {
    const kind = this.about.kindOf(keys);
    return this.matches(keys, (reading) => {
      const parsed = readingValue(reading.value, kind, this.about.instrument);
      return parsed.ok && Math.abs(parsed.value - value) < 1e-9;
    });
  }

  /** Whether this place was felt so already. */
  private feltAlready(keys: Keys): boolean {
    const { check } = this.about;
    const said = (of: Keys, key: string): unknown => (check.reading.shape[key] as z.ZodType).safeParse(of[key]).data;
    return this.matches(keys, (reading) => besideAt(check, keys).every(({ key }) => said(reading.keys, key) === said(keys, key)));
  }

  private matches(keys: Keys, same: (reading: StoredReading) => boolean): boolean {
    const name = placeOf(this.about.check, keys);
    const readings = this.about.slots.filter((slot) => placeOf(this.about.check, slot.keys) === name).flatMap((slot) => slot.readings);
    const known = readings.find((reading) => !this.matched.has(reading.id) && same(reading));
    if (known) this.matched.add(known.id);
    return known !== undefined;
  }

  private faultOf({ keys, slot }: Place, text: string | null, value: number, kind: ValueKind): string | undefined {
    const { check, round, instrument, setUp } = this.about;
    const repeat = this.last?.place === placeOf(check, keys);
    if (slot && !this.open(slot) && !repeat)
      return slot.done
        ? `was read already: ${slot.readings.map((reading) => readingTold(check.id, reading)).join(', ')}. Put it right on the bench`
        : 'stands in the table already, with other places between';
    if (kind === 'indicator' && instrument?.range && Math.abs(dialDivisions(value, instrument)) > instrument.range) {
      const travel = this.about.size(instrument.range * instrument.graduation, 'deviation');
      return `${text ?? ''} is more than the dial can travel: ${travel} from end to end. Which unit is the column in?`;
    }
    const [fault] = readingFaults(round, { keys, value: text, set: setUp, supersedes: null });
    return fault && faultWords(round.check, fault, round.instrument);
  }

  private divisions(value: number): number {
    return this.about.instrument ? value / this.about.instrument.graduation : NaN;
  }

  private doubtOf(keys: Keys, value: number, kind: ValueKind): string | undefined {
    const { check, instrument } = this.about;
    if (kind === 'indicator' && this.firstPlane !== undefined && keys['plane'] !== this.firstPlane)
      return 'The dial is set over for this direction. Its needle counts the same way there as in the first one';
    const place = placeOf(check, keys);
    if (instrument && this.last?.place === place && liesApart(this.last.value, value, instrument.graduation))
      return 'differs from the row before, which is of the same place, by more than two divisions. Both stand';
    const others = this.read.filter((one) => one.line === lineOf(keys) && one.place !== place).map((one) => one.divisions);
    if (instrument && kind === 'indicator' && isTenTimes(others, this.divisions(value)))
      return 'is about ten times what the other places of its line read. It is as it stands';
    return undefined;
  }

  private remember({ keys, slot }: Place, value: number, kind: ValueKind): void {
    const place = placeOf(this.about.check, keys);
    if (slot) this.taken.add(slot.index);
    this.last = { place, value };
    if (kind === 'indicator') this.read.push({ line: lineOf(keys), place, divisions: this.divisions(value) });
  }
}

interface Place {
  readonly keys: Keys;
  readonly slot?: BenchSlot;
}

/** Whether no column tells places: rows are taken in working order. */
export const isByOrder = ({ fields }: Mapping): boolean =>
  Object.entries(fields).every(([key, { column }]) => !key.startsWith('keys.') || column === null);

/** Rows in their order, the empty ones between them with them: where order tells the place, an empty row is a place that was passed over. */
function withGaps(rows: readonly TableRow[]): TableRow[] {
  const first = rows[0]?.number ?? 0;
  const known = new Map(rows.map((row) => [row.number, row]));
  const last = rows.at(-1)?.number ?? -1;
  return Array.from({ length: last - first + 1 }, (_, i) => known.get(first + i) ?? { number: first + i, cells: [] });
}

/** How many places a table takes where order tells them: an empty row between two others passes one over. */
export const placesTaken = ({ rows }: Table): number => withGaps(rows).length;

/**
 * Lay a table of readings on the places of a round. Where no column tells the place, rows are taken in working order: a row that cannot
 * be read, or an empty one, leaves its place out and never moves those below it. Rows of one place one after another are repeats; a
 * reading that the round has already is told as such and not written twice.
 *
 * @returns a row for each row of the table, in its order.
 */
export function readingRows(table: Table, mapping: Mapping, about: ReadingsAbout): InRow<ReadingIn>[] {
  const fields = readingFields(about);
  const value = fields.find(({ key }) => key === 'value');
  const laying = new Laying(about);
  const byOrder = isByOrder(mapping);
  const rows = byOrder ? withGaps(table.rows) : table.rows;
  const start = about.start ?? startOf(rows.length, about.slots);
  // A column beside the readings may well be their places, under a name that nobody here knows.
  const unsure = byOrder && table.head.length > 1;
  const laid = rows.map((row, i): InRow<ReadingIn> => {
    const told = byOrder ? {} : toldKeys(table, row, mapping, fields, about);
    const ragged = raggedFault(row);
    const { text, fault }: Cell = ragged ? { fault: ragged } : value ? cellOf(table, row, value, mapping) : {};
    const beside = ragged ? {} : toldBeside(table, row, mapping, fields);
    const says = row.cells.filter(Boolean).slice(0, 4).join(' · ');
    if (typeof told === 'string') return { number: row.number, what: '', says, state: 'faulty', reason: told };
    if (!byOrder && Object.keys(told).length === 0) return { number: row.number, what: '', says, state: 'faulty', reason: 'says no place' };
    const wrong = fault ?? (typeof beside === 'string' ? beside : undefined);
    if (wrong !== undefined || typeof beside === 'string') return laying.unread(row.number, told, says, start + i, wrong ?? '');
    return laying.lay(row.number, told, beside, text, start + i);
  });
  return unsure ? laid.map(inOrderOnly) : laid;
}

const IN_ORDER = 'No column says the place: the rows stand in working order';

/** A row that order alone gives its place: it is taken once somebody has said that the order is right. */
function inOrderOnly(row: InRow<ReadingIn>): InRow<ReadingIn> {
  if (row.state !== 'new') return row;
  return { ...row, doubt: true, reason: row.reason === undefined ? IN_ORDER : `${row.reason}. ${IN_ORDER}` };
}
