import { dequal } from 'dequal';
import { CHECKS, exampleFor, parseQuantity, type Dimension, type Figures, type QuantityInfo, type UnitSystem } from '@isometra/core';
import type { Mate, Surface, Zone } from '@isometra/contract';
import { gridZones, nestedZones } from '@isometra/work';
import * as z from 'zod';

const FIRST_TEXT: Readonly<Record<string, string>> = {
  ...{ name: '', part: 'saddle', edge: '', shape: 'flat', diameter: '', use: 'general', material: 'iron' },
  ...{ layout: 'strips', numbers: '', turned: '0', aim: '', mate: '', as: 'flank', angle: '55', apart: '', mateX: '', mateY: '' },
  ...{ width: '', height: '', reference: '', columns: '4', rows: '1', rough: '12 um', fine: '5 um', keepFine: '2' },
  ...{ session: '150', setUp: '20', cycle: '25', check: '', every: '3' },
  ...{ thickness: '', keep: '', wanted: '0', room: '', lever: '' },
};

const pointSchema = z.object({ x: z.number(), y: z.number() });
export const draftSchema = z.object({
  // What was begun before something else was asked for is filled up.
  text: z.record(z.string(), z.string()).transform((text): Record<string, string> => ({ ...FIRST_TEXT, ...text })),
  uses: z.record(z.string(), z.enum(['bear', 'relieve', 'ignore'])),
  mirrored: z.boolean(),
  heldBack: z.boolean().default(false),
  putAway: z.boolean().default(false),
  /** Strokes that were drawn round zones, mm on the face. */
  drawn: z.array(z.array(pointSchema)).default([]),
});
export type Draft = z.infer<typeof draftSchema>;

/** A figure that is asked for: its words, the dimension that it is typed in, an example. */
export interface FaceFigure {
  readonly label: string;
  /** `aim`: in what the face is scraped true by. */
  readonly dimension: Dimension | 'count' | 'minutes' | 'aim';
  readonly example: string;
}

export const FIGURES = {
  width: { label: 'Length, end A to end B', dimension: 'length', example: '400 mm' },
  diameter: { label: 'Bore', dimension: 'length', example: '80 mm' },
  height: { label: 'Width', dimension: 'length', example: '60 mm' },
  reference: { label: 'Straightedge or plate, length', dimension: 'length', example: '500 mm' },
  columns: { label: 'Zones along', dimension: 'count', example: '4' },
  rows: { label: 'across', dimension: 'count', example: '1' },
  rough: { label: 'A roughing pass takes', dimension: 'deviation', example: '12 um' },
  fine: { label: 'a finishing pass', dimension: 'deviation', example: '5 um' },
  keepFine: { label: 'finishing passes kept to the end', dimension: 'count', example: '2' },
  session: { label: 'An evening, minutes', dimension: 'minutes', example: '150' },
  setUp: { label: 'setting up', dimension: 'minutes', example: '20' },
  cycle: { label: 'one blue and its passes', dimension: 'minutes', example: '25' },
  check: { label: 'The full check with its stripping, minutes', dimension: 'minutes', example: '180' },
  every: { label: 'after so many passes', dimension: 'count', example: '3' },
  thickness: { label: 'Liner, thickness', dimension: 'length', example: '1.5 mm' },
  keep: { label: 'it must keep', dimension: 'length', example: '1.1 mm' },
  wanted: { label: 'Wanted', dimension: 'aim', example: '0' },
  room: { label: 'within', dimension: 'aim', example: '20' },
  lever: { label: 'it changes, for 1 µm of metal, by', dimension: 'count', example: '2' },
  angle: { label: 'Angle of the dovetail', dimension: 'angle', example: '55' },
  mateX: { label: 'Its corner lies, along this one, at', dimension: 'length', example: '0 mm' },
  mateY: { label: 'across it, at', dimension: 'length', example: '300 mm' },
} as const satisfies Record<string, FaceFigure>;
export type FigureName = keyof typeof FIGURES;

/** What a face is scraped true by: a quantity of a check. */
export function aimInfoOf({ aim = '' }: Readonly<Partial<Record<string, string>>>): QuantityInfo | undefined {
  const [check, quantity] = aim.split('/');
  return CHECKS.get(check)?.quantities[quantity];
}

/** What a figure is a measure of; null for what is counted. @param text what is typed for the face so far. */
export function measureOf(name: FigureName, text: Readonly<Partial<Record<string, string>>>): Dimension | null {
  const { dimension } = FIGURES[name];
  if (dimension === 'aim') return aimInfoOf(text)?.dimension ?? null;
  return dimension === 'count' || dimension === 'minutes' ? null : dimension;
}

/** A text that would do. */
export function exampleOf(name: FigureName, text: Readonly<Partial<Record<string, string>>>): string {
  const { dimension, example } = FIGURES[name];
  return dimension === 'aim' && example !== '0' ? `${example} ${aimInfoOf(text)?.unit ?? ''}`.trim() : example;
}

/** Where a corner lies may be anything; a thickness is asked about where it is far from a liner's. */
export const readOf = (name: FigureName): Pick<Figures, 'usual'> => (name === 'mateX' || name === 'mateY' ? { usual: 'anything' } : {});

/** What may be left out. */
const OPTIONAL: ReadonlySet<FigureName> = new Set(['check', 'every']);

export const FIRST: Draft = {
  text: FIRST_TEXT,
  uses: {},
  mirrored: false,
  heldBack: false,
  putAway: false,
  drawn: [],
};

/** A figure as typed, in mm, µm, degrees or as a number; null where it is none. */
export function figureOf({ text: typed }: Draft, field: FigureName): number | null {
  const text = typed[field]?.trim() ?? '';
  const dimension = measureOf(field, typed);
  if (text === '') return null;
  if (dimension === null) return Number.isFinite(Number(text)) ? Number(text) : null;
  const parsed = parseQuantity(text, dimension);
  return parsed.ok ? parsed.value : null;
}

/** Figures that this face needs, in the order in which they stand. */
export function asked({ text }: Draft): FigureName[] {
  return [
    'width',
    text['shape'] === 'shell' ? 'diameter' : 'height',
    'reference',
    ...(text['material'] === 'liner' ? (['thickness', 'keep'] as const) : []),
    ...(text['aim'] ? (['wanted', 'room', 'lever'] as const) : []),
    ...(text['mate'] ? (text['as'] === 'flank' ? (['angle'] as const) : (['mateX', 'mateY'] as const)) : []),
    ...(['rough', 'fine', 'keepFine', 'session', 'setUp', 'cycle', 'check', 'every'] as const),
  ];
}

/** The first thing that is missing or cannot be read, in a sentence; nothing where all is there. */
export function faultIn(draft: Draft, system: UnitSystem): string | undefined {
  if (!draft.text['name'].trim()) return 'Name: is missing. Example: Saddle, flat way';
  const missing = asked(draft).find((field) => {
    const left = !draft.text[field]?.trim();
    return figureOf(draft, field) === null && !(left && OPTIONAL.has(field));
  });
  if (missing === undefined) {
    const numbers = numbersOf(draft);
    const count = inOrder(draft, figureOf(draft, 'width') ?? 1, figureOf(draft, 'height') ?? 1).length;
    if (numbers === null || (numbers.length > 0 && numbers.length !== count))
      return `Numbers on the part: must be ${count} different ones from 1 to 99, or none. Example: ${Array.from({ length: count }, (_, i) => count - i).join(' ')}`;
    if (draft.text['mate'] && draft.text['as'] === 'flank' && !draft.text['apart'])
      return 'Ends A of the two flanks: say whether they lie together or apart.';
    return undefined;
  }
  const { label } = FIGURES[missing];
  const dimension = measureOf(missing, draft.text);
  const example = exampleFor({ ...(dimension && { dimension }), example: exampleOf(missing, draft.text) }, system);
  const typed = draft.text[missing]?.trim();
  return `${label}: ${typed ? `"${typed}" cannot be read` : 'is missing'}. Example: ${example}`;
}

const whole = (draft: Draft, field: FigureName, most: number): number =>
  Math.min(most, Math.max(1, Math.round(figureOf(draft, field) ?? 1)));

function laid(draft: Draft, width: number, height: number): Zone[] {
  const layout = draft.text['layout'];
  if (layout === 'nested') return nestedZones(width, height, whole(draft, 'columns', 12));
  if (layout === 'drawn') return draft.drawn.length ? [] : gridZones(width, height, 1, 1);
  return gridZones(width, height, whole(draft, 'columns', 20), whole(draft, 'rows', 20));
}

/** Numbers of zones as they stand on the part; null where something else was typed. */
function numbersOf({ text }: Draft): readonly string[] | null {
  const words = (text['numbers'] ?? '').split(/[\s,;]+/).filter(Boolean);
  return words.every((word) => /^[1-9]\d?$/.test(word)) && new Set(words).size === words.length ? words : null;
}

/** Zones as they are laid out, with those that were drawn lying on them, numbered in that order. */
function inOrder(draft: Draft, width: number, height: number): Zone[] {
  const within = (value: number, most: number) => Math.min(most, Math.max(0, value));
  const base = laid(draft, width, height);
  const drawn = draft.drawn.map((outline, i): Zone => ({
    id: String(base.length + i + 1),
    use: 'bear',
    outline: outline.map(({ x, y }) => ({ x: within(x, width), y: within(y, height) })),
  }));
  return [...base, ...drawn];
}

/** The zones of a face, numbered as on the part where that was said. */
export function zonesOf(draft: Draft, width: number, height: number): Zone[] {
  const zones = inOrder(draft, width, height);
  const numbers = numbersOf(draft);
  const numbered = numbers?.length === zones.length ? zones.map((zone, i) => ({ ...zone, id: numbers[i] })) : zones;
  return numbered.map((zone) => ({ ...zone, use: draft.uses[zone.id] ?? zone.use }));
}

function mateFrom(draft: Draft): Mate | null {
  const { mate, as, apart } = draft.text;
  if (!mate) return null;
  const figure = (field: FigureName) => figureOf(draft, field) ?? NaN;
  return as === 'flank'
    ? { as: 'flank', surfaceId: mate, angle: figure('angle'), apart: apart === 'apart' }
    : { as: 'plane', surfaceId: mate, x: figure('mateX'), y: figure('mateY') };
}

/** Width and height of a face, mm; of a bearing shell half its round is the height. */
function sizeFrom(draft: Draft) {
  const bore = draft.text['shape'] === 'shell' ? figureOf(draft, 'diameter') : undefined;
  const height = bore === undefined ? figureOf(draft, 'height') : bore && (Math.PI * bore) / 2;
  return { bore, width: figureOf(draft, 'width'), height };
}

/** The face as it is described so far; null before its size is known. What is missing is no number. */
export function surfaceFrom(
  draft: Draft,
  known: (Surface & { readonly entries: readonly { readonly kind: string }[] }) | undefined,
  { machineId, edge }: { readonly machineId: string; readonly edge: string | undefined },
): Surface | null {
  const { text, mirrored } = draft;
  const figure = (field: FigureName) => figureOf(draft, field) ?? NaN;
  const { bore, width, height } = sizeFrom(draft);
  // Nothing typed is no size either.
  if (!(Number(width) > 0 && Number(height) > 0)) return null;
  return {
    ...{ id: known?.id ?? '', machineId, version: known?.version ?? 0 },
    ...{ name: text['name'].trim(), part: text['part'].trim(), width: Number(width), height: Number(height), mirrored },
    use: text['use'] as Surface['use'],
    material: text['material'] as Surface['material'],
    ...(bore && { shell: { diameter: bore } }),
    target: known?.target ?? null,
    liner: linerFrom(draft),
    turned: Number(text['turned']) as Surface['turned'],
    // Zones that passes were counted on stay as they are.
    zones: known?.entries.some(({ kind }) => kind === 'pass') ? known.zones : zonesOf(draft, Number(width), Number(height)),
    reference: referenceFrom(draft, edge ?? known?.reference.name),
    aim: aimFrom(draft),
    passes: { rough: figure('rough'), fine: figure('fine'), keepFine: figure('keepFine') },
    evening: eveningFrom(draft),
    ...besidesFrom(draft, known),
  };
}

const referenceFrom = (draft: Draft, name = 'reference'): Surface['reference'] => ({
  kitId: draft.text['edge'] || null,
  name,
  length: figureOf(draft, 'reference') ?? NaN,
});

function linerFrom(draft: Draft): Surface['liner'] {
  const figure = (field: FigureName) => figureOf(draft, field) ?? NaN;
  return draft.text['material'] === 'liner' ? { thickness: 1000 * figure('thickness'), keep: 1000 * figure('keep') } : null;
}

/** What the face is scraped for: a quantity of a check, and how near. */
function aimFrom(draft: Draft): Surface['aim'] {
  const figure = (field: FigureName) => figureOf(draft, field) ?? NaN;
  const [check, quantity] = draft.text['aim'].split('/');
  if (!quantity) return null;
  const unit = CHECKS.get(check)?.quantities[quantity]?.unit ?? '';
  return { check, quantity, unit, wanted: figure('wanted'), room: figure('room'), lever: figure('lever') };
}

function eveningFrom(draft: Draft): Surface['evening'] {
  const figure = (field: FigureName) => figureOf(draft, field) ?? NaN;
  const [full, every] = [figureOf(draft, 'check'), figureOf(draft, 'every')];
  return {
    ...{ session: figure('session'), setUp: figure('setUp'), cycle: figure('cycle') },
    ...(full !== null && { check: full }),
    ...(full !== null && every !== null && { every }),
  };
}

/** What not every face has: told where it is, or where it was and is no more. */
function besidesFrom(draft: Draft, known: Surface | undefined): Pick<Surface, 'mate' | 'heldBack' | 'putAway'> {
  const { heldBack, putAway } = draft;
  const mate = mateFrom(draft);
  return {
    ...(mate || known?.mate ? { mate } : {}),
    ...(heldBack || known?.heldBack ? { heldBack } : {}),
    ...(putAway || known?.putAway ? { putAway } : {}),
  };
}

const same = (zones: readonly Zone[], laidOut: readonly Zone[]): boolean =>
  zones.length === laidOut.length && zones.every(({ outline }, i) => dequal(outline, laidOut[i].outline));

/** How zones were laid out: as a grid, one inside the other, or drawn. */
function layoutOf({ zones, width, height }: Surface): Pick<Draft, 'drawn'> & { readonly text: Record<string, string> } {
  const rows = new Set(zones.map(({ outline }) => Math.min(...outline.map(({ y }) => y)))).size;
  const columns = Math.max(1, Math.round(zones.length / rows));
  if (same(zones, gridZones(width, height, columns, rows)))
    return { drawn: [], text: { layout: 'strips', columns: String(columns), rows: String(rows) } };
  if (same(zones, nestedZones(width, height, zones.length)))
    return { drawn: [], text: { layout: 'nested', columns: String(zones.length), rows: '1' } };
  return { drawn: zones.map(({ outline }) => [...outline]), text: { layout: 'drawn', columns: '1', rows: '1' } };
}

function mateTexts(mate: Mate | null | undefined): Record<string, string> {
  if (!mate) return {};
  const { as, surfaceId } = mate;
  return as === 'flank'
    ? { mate: surfaceId, as, angle: String(mate.angle), apart: mate.apart ? 'apart' : 'together' }
    : { mate: surfaceId, as, mateX: `${mate.x} mm`, mateY: `${mate.y} mm` };
}

function aimTexts(aim: Surface['aim']): Record<string, string> {
  if (!aim) return { aim: '', wanted: '0', room: '', lever: '' };
  const { check, quantity, wanted, room, lever, unit } = aim;
  return { aim: `${check}/${quantity}`, wanted: wanted ? `${wanted} ${unit}` : '0', room: `${room} ${unit}`, lever: String(lever) };
}

/** A face as it was typed: figures with their units. */
export function draftOf(surface: Surface): Draft {
  const { name, part, use, material, turned, aim, width, height, reference, passes, evening, liner, zones, mirrored, shell } = surface;
  const { drawn, text: layout } = layoutOf(surface);
  const text = {
    ...FIRST.text,
    ...{ name, part, use, material, turned: String(turned) },
    ...{ width: `${width} mm`, height: `${height} mm`, reference: `${reference.length} mm`, edge: reference.kitId ?? '' },
    ...(shell ? { shape: 'shell', diameter: `${shell.diameter} mm` } : { shape: 'flat', diameter: '' }),
    ...layout,
    numbers: zones.every(({ id }, i) => id === String(i + 1)) ? '' : zones.map(({ id }) => id).join(' '),
    ...{ rough: `${passes.rough} um`, fine: `${passes.fine} um`, keepFine: String(passes.keepFine) },
    ...{ session: String(evening.session), setUp: String(evening.setUp), cycle: String(evening.cycle) },
    ...{ check: evening.check === undefined ? '' : String(evening.check), every: String(evening.every ?? 3) },
    ...(liner ? { thickness: `${liner.thickness / 1000} mm`, keep: `${liner.keep / 1000} mm` } : { thickness: '', keep: '' }),
    ...aimTexts(aim),
    ...mateTexts(surface.mate),
  };
  const uses = Object.fromEntries(zones.map(({ id, use: own }) => [id, own]));
  return { text, mirrored, drawn, heldBack: surface.heldBack ?? false, putAway: surface.putAway ?? false, uses };
}
