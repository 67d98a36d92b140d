import {
  cardFieldsFor,
  careSchema,
  KIT_KINDS,
  KIT_NAMES,
  KIT_SCHEMAS,
  kitItemSchema,
  machineCardSchema,
  MACHINE_KINDS,
  oneKit,
  type KitItem,
  type KitKind,
  type Machine,
} from '@isometra/contract';
import { bareSchema, faultsOf, fieldInfo, instrumentSchemaFor, type Fault } from '@isometra/core';
import * as z from 'zod';
import { kitFaults } from '../kit/kit.js';
import { cellOf, dated } from './cell.js';
import { unitsOf, type InField, type Mapping } from './fields.js';
import type { InRow } from './rows.js';
import { raggedFault, type Table, type TableRow } from './table.js';

/** Words that a table of somebody else may have over a column. */
const NAMES: Readonly<Record<string, readonly string[]>> = {
  name: ['item', 'instrument', 'description', 'tool'],
  'care.certificate': ['certificate', 'certificate number', 'certificate no', 'cert'],
  'care.certified': ['certified', 'certified on', 'calibrated', 'calibrated on', 'calibration date'],
  'care.due': ['due', 'due on', 'due again on', 'next due', 'next calibration'],
  number: ['machine', 'shop number', 'no', 'nr'],
  centreDistance: ['between centres', 'centre distance', 'bed length'],
  'data.graduation': ['one division', 'graduation', 'resolution', 'division'],
};

/** A field of a table for a leaf of a schema; undefined for what no single cell can tell. */
function fieldOf(key: string, schema: z.ZodType): InField | undefined {
  const info = fieldInfo(schema);
  const bare = bareSchema(schema);
  if (!info || info.hidden || ['object', 'array', 'boolean'].includes(bare.def.type)) return undefined;
  const named = { key, label: info.label, names: [key.replace(/^.*\./, ''), ...(NAMES[key] ?? [])] };
  if (info.choices) return { ...named, choices: info.choices };
  if (bare instanceof z.ZodISODate) return { ...named, day: true };
  return info.dimension ? { ...named, units: unitsOf(info.dimension) } : named;
}

/** Fields by their key, each once: two kinds of kit have a length. */
function fieldsOf(prefix: string, shapes: readonly Readonly<Record<string, unknown>>[]): InField[] {
  const found = new Map<string, InField>();
  for (const [key, schema] of shapes.flatMap((shape) => Object.entries(shape))) {
    const field = fieldOf(`${prefix}${key}`, schema as z.ZodType);
    const known = field && found.get(field.key);
    const units = [...new Set([...(known?.units ?? []), ...(field?.units ?? [])])];
    if (field) found.set(field.key, units.length ? { ...field, units } : field);
  }
  return [...found.values()];
}

const KIND_OF_INSTRUMENT = 'data.kind';

/** What a table may tell of kit: what it is, its certificate, and what is asked of its kind. */
export function kitFields(): InField[] {
  const { notes: _lists, ...care } = careSchema.shape;
  const { kind: instrumentKind, ...instrument } = instrumentSchemaFor(undefined).shape;
  const level = { graduation: instrumentSchemaFor('level').shape.graduation };
  return [
    { key: 'name', label: 'Name', required: true, names: NAMES['name'] },
    {
      ...{ key: 'kind', label: 'Kind of kit', required: true, names: ['kind', 'type', 'sort'] },
      choices: KIT_KINDS.filter((kind) => kind !== 'shim-stock').map((value) => ({ value, label: KIT_NAMES[value].one })),
    },
    { ...fieldOf(KIND_OF_INSTRUMENT, instrumentKind)!, label: 'Kind of instrument', names: ['kind of instrument', 'instrument kind'] },
    ...fieldsOf('care.', [care]),
    ...fieldsOf('data.', [instrument, level, ...Object.values(KIT_SCHEMAS).map(({ shape }) => shape)]),
    { key: 'id', label: 'Id', names: ['id'] },
    { key: 'data', label: 'Everything of its kind (data)', names: ['data'] },
  ];
}

/** What a table may tell of machines. */
export function machineFields(): InField[] {
  const { number: _number, kind: _kind, nickname: _nickname, notes: _notes, ...rest } = machineCardSchema.shape;
  return [
    { key: 'number', label: 'Shop number', required: true, names: NAMES['number'] },
    {
      ...{ key: 'kind', label: 'Kind', required: true, names: ['type', 'kind of machine'] },
      choices: MACHINE_KINDS.map(({ value, label }) => ({ value, label })),
    },
    { key: 'nickname', label: 'Nickname', names: ['name', 'called'] },
    ...fieldsOf('', [rest]).filter(({ units }) => units),
    { key: 'notes', label: 'Notes', names: ['remarks', 'note'] },
    { key: 'id', label: 'Id', names: ['id'] },
  ];
}

/** What a row tells, by the key of the field; with what cannot be read. */
function told(table: Table, row: TableRow, fields: readonly InField[], mapping: Mapping) {
  const ragged = raggedFault(row);
  if (ragged) return { of: new Map<string, string>(), faults: [ragged] };
  const cells = fields.map((field) => ({ field, ...cellOf(table, row, field, mapping) }));
  const of = new Map(cells.flatMap(({ field, text }) => (text === undefined ? [] : [[field.key, text] as const])));
  return { of, faults: cells.flatMap(({ fault }) => fault ?? []) };
}

/** Those of a part, without the words before the point: `care.due` → `due`. */
const part = (of: ReadonlyMap<string, string>, prefix: string): Record<string, string> =>
  Object.fromEntries([...of].flatMap(([key, text]) => (key.startsWith(prefix) ? [[key.slice(prefix.length), text]] : [])));

/** A thing that a table tells of, beside the one that the shop has. */
interface Told<Value> {
  readonly what: string;
  readonly reasons: readonly string[];
  readonly value: Value;
  readonly known: Value | undefined;
  /** What of it a table may tell: compared, and shown where it changes. */
  readonly facts: (value: Value) => Readonly<Record<string, unknown>>;
  readonly labels: ReadonlyMap<string, string>;
}

/** A fact as people read it. */
function shown(value: unknown): string {
  if (value === undefined || value === '') return 'not given';
  if (typeof value === 'string') return dated(value);
  return JSON.stringify(value);
}

function inRow<Value>(number: number, { what, reasons, value, known, facts, labels }: Told<Value>): InRow<Value> {
  if (reasons.length) return { number, what, says: '', state: 'faulty', reason: reasons.join('; ') };
  const [now, before] = [facts(value), known ? facts(known) : {}];
  const changes = Object.keys(now).filter((key) => JSON.stringify(now[key]) !== JSON.stringify(before[key]));
  const label = (key: string): string => labels.get(key) ?? key;
  if (known && changes.length === 0) return { number, what, says: 'is here already', state: 'same' };
  const says = changes
    .map((key) => (known ? `${label(key)}: ${shown(before[key])} → ${shown(now[key])}` : `${label(key)} ${shown(now[key])}`))
    .join(', ');
  return { number, what, says, state: known ? 'changed' : 'new', value };
}

/** What cannot be stored, in a sentence with the field's label. */
const faultsToWords = (faults: readonly Fault[], labels: ReadonlyMap<string, string>): string[] =>
  faults.map(({ path, message, example }) => `${labels.get(path) ?? path} ${message}${example ? `. Example: ${example}` : ''}`);

/** A row that another row of the table tells of too. */
class Once {
  private readonly seen = new Map<string, number>();

  /** @param name of what a row is about. @returns why the row cannot stand, where an earlier one has the same name. */
  of(name: string, number: number): string[] {
    const key = name.trim().toLowerCase();
    if (key === '') return [];
    const before = this.seen.get(key);
    if (before === undefined) this.seen.set(key, number);
    return before === undefined ? [] : [`is in row ${before} already`];
  }
}

const same = (one: string, other: string | undefined): boolean => one.trim().toLowerCase() === other?.trim().toLowerCase();

/** Everything of a kind in one cell, as the table that leaves the shop has it; or what is wrong with it. */
function dataOf(text: string | undefined): { readonly data: Record<string, unknown>; readonly faults: readonly string[] } {
  if (text === undefined) return { data: {}, faults: [] };
  try {
    return { data: z.record(z.string(), z.unknown()).parse(JSON.parse(text)), faults: [] };
  } catch {
    return { data: {}, faults: ['Everything of its kind: is no JSON object. Example: {"length":"900 mm"}'] };
  }
}

const keysOfKind = (kind: KitKind, instrument: unknown): readonly string[] =>
  Object.keys(kind === 'instrument' ? instrumentSchemaFor(instrument).shape : KIT_SCHEMAS[kind].shape);

/** What the rows of a table make of things of one kind. @param tell what a row is about, from what its cells tell and what of them cannot be read. */
function thingRows<Value>(
  table: Table,
  mapping: Mapping,
  fields: readonly InField[],
  tell: (of: ReadonlyMap<string, string>, faults: readonly string[], labels: ReadonlyMap<string, string>) => Omit<Told<Value>, 'labels'>,
): InRow<Value>[] {
  const labels = new Map(fields.map(({ key, label }) => [key, label]));
  const once = new Once();
  return table.rows.map((row) => {
    const { of, faults } = told(table, row, fields, mapping);
    const thing = tell(of, faults, labels);
    return inRow(row.number, { ...thing, labels, reasons: [...once.of(thing.what, row.number), ...thing.reasons] });
  });
}

/**
 * What each row of a table makes of the shop's kit: a new piece, a change of one that has the same id or name, nothing new, or why it
 * cannot be taken. Cells that are empty leave what is known as it is.
 *
 * @param newId an id for a new piece.
 */
export function kitRows(table: Table, mapping: Mapping, kit: readonly KitItem[], newId: () => string): InRow<KitItem>[] {
  return thingRows(table, mapping, kitFields(), (of, faults, labels) => {
    const cell = dataOf(of.get('data'));
    const known = knownKit(kit, of);
    const kind = (of.get('kind') ?? known?.kind) as KitKind | undefined;
    const value = itemOf(of, { ...known?.data, ...cell.data, ...part(of, 'data.') }, known, newId);
    const unread = [...faults, ...cell.faults];
    const reasons = unread.length ? unread : kitReasons(value, kind, known, of, labels);
    return { what: value.name, reasons, value, known, facts: kitFacts };
  });
}

/** A name as it is written here, where a row means the same one. */
const writtenAs = (known: string, text: string | undefined): string => (text === undefined || same(text, known) ? known : text);

/** The piece of the shop that a row is about: by its id, else by its name. */
const knownKit = (kit: readonly KitItem[], of: ReadonlyMap<string, string>): KitItem | undefined =>
  kit.find((item) => item.id === of.get('id')) ?? kit.find((item) => same(item.name, of.get('name')));

function itemOf(of: ReadonlyMap<string, string>, data: KitItem['data'], known: KitItem | undefined, newId: () => string): KitItem {
  const before = known ?? { id: newId(), kind: 'instrument' as const, name: '', care: {}, photos: [], version: 0 };
  const { id, photos, version, kind, name, care } = before;
  return {
    ...{ id, photos, version, data, name: writtenAs(name, of.get('name')), care: { ...care, ...part(of, 'care.') } },
    kind: (of.get('kind') as KitKind | undefined) ?? kind,
  };
}

/** What a table may tell of a piece of kit, by the key of the field. */
const kitFacts = ({ name, kind, care, data }: KitItem): Readonly<Record<string, unknown>> => {
  const { notes: _notes, ...rest } = care;
  const under = (prefix: string, facts: object) => Object.fromEntries(Object.entries(facts).map(([key, fact]) => [prefix + key, fact]));
  return { name, kind, ...under('care.', rest), ...under('data.', data) };
};

function kitReasons(
  value: KitItem,
  kind: KitKind | undefined,
  known: KitItem | undefined,
  of: ReadonlyMap<string, string>,
  labels: ReadonlyMap<string, string>,
): string[] {
  if (value.name === '') return ['Name is missing: give it a name'];
  if (kind === undefined) return ['Kind of kit is missing: say what kind it is'];
  if (known && known.kind !== kind) return [`is ${oneKit(known.kind)} here, and ${oneKit(kind)} in the table`];
  if (known?.archived) return ['is in the archive here: take it out first'];
  const own = keysOfKind(kind, value.data['kind']);
  const beside = Object.keys(part(of, 'data.')).filter((key) => !own.includes(key));
  if (beside.length) return beside.map((key) => `${labels.get(`data.${key}`) ?? key} does not belong to ${oneKit(kind)}`);
  const parsed = kitItemSchema.safeParse({ ...value, version: Math.max(1, value.version) });
  const plain = parsed.success ? [] : faultsOf(parsed.error, [], []);
  return faultsToWords([...plain, ...kitFaults(value)], labels);
}

/** What each row of a table makes of the shop's machines; as for kit, a machine being known by its id or its number. */
export function machineRows(table: Table, mapping: Mapping, machines: readonly Machine[], newId: () => string): InRow<Machine>[] {
  return thingRows(table, mapping, machineFields(), (of, faults, labels) => {
    const known = machines.find(({ id }) => id === of.get('id')) ?? machines.find(({ card }) => same(card.number, of.get('number')));
    const { id: _id, ...own } = Object.fromEntries(of);
    const card = {
      ...known?.card,
      ...own,
      number: writtenAs(known?.card.number ?? '', own['number']),
      kind: own['kind'] ?? known?.card.kind ?? '',
    };
    const value: Machine = { id: known?.id ?? newId(), card, version: known?.version ?? 0 };
    const reasons = faults.length ? faults : cardReasons(value, known, own, labels);
    return { what: card.number, reasons, value, known, facts: (machine) => machine.card };
  });
}

function cardReasons(
  { card }: Machine,
  known: Machine | undefined,
  own: Readonly<Record<string, string>>,
  labels: ReadonlyMap<string, string>,
): string[] {
  if (card.number === '') return ['Shop number is missing: give the shop number'];
  if (card.kind === '') return ['Kind is missing: say what kind of machine it is'];
  if (known && known.card.kind !== card.kind) return ['is another kind of machine here: put its card right'];
  if (known?.archived) return ['is in the archive here: take it out first'];
  const fields = cardFieldsFor(card.kind).shape;
  const beside = Object.keys(own).filter((key) => !(key in fields));
  if (beside.length) return beside.map((key) => `${labels.get(key) ?? key} does not belong to this kind of machine`);
  const parsed = machineCardSchema.safeParse(card);
  return parsed.success ? [] : faultsToWords(faultsOf(parsed.error, [], []), labels);
}
