import {
  CHECKS,
  cyclesAnEvening,
  cyclesLeft,
  eveningsFor,
  gripOf,
  median,
  SPOT_TARGETS,
  spotCall,
  zonePasses,
  type Expected,
  type SpotCall,
} from '@isometra/core';
import type { DeskEntry, Surface, Zone } from '@isometra/contract';
import { middleOf, ofKind, placeIn, printsOfBlue, since, taken, type Grade, type Known, type Of, type PassDepth } from './deskEntries.js';
import { standing } from './deskFaults.js';
import { forgottenNotes, printNotes, progressNotes, teeterNotes, trustNotes, type DeskNote, type Turned } from './deskNotes.js';
import { priceOf } from './deskPlan.js';

/** A zone as it is worked on. */
export interface DeskZone {
  readonly zone: Zone;
  /** Passes left; null where nobody knows yet. */
  readonly left: number | null;
  /** Depth left, µm; null without a plan. */
  readonly depth: number | null;
  readonly grade: Grade;
  /** Passes made since the plan, the print or the turn that tells what is left; all of them where nothing does. */
  readonly done: number;
  /** Degrees of the strokes of the next pass: it turns by 90 after each. */
  readonly angle: number;
  /** Part that was blue in the last print. */
  readonly share: number | null;
}

export type DeskStep =
  | { readonly code: 'begin' | 'measure' | 'blue' | 'read-print' | 'plan' | 'accepted' | 'accept' | 'turn-or-blue' }
  | { readonly code: 'pass'; readonly zone: string; readonly grade: Grade; readonly angle: number };

export type Reminder = 'lock-test' | 'burrs' | 'wipe' | 'glare' | 'chips' | 'blade';

export interface Desk {
  readonly zones: readonly DeskZone[];
  /** What tells how much is left. */
  readonly from: 'plan' | 'print' | 'hinge' | null;
  /** The zone to work now. */
  readonly next: string | null;
  readonly step: DeskStep;
  /** Which blue it is, from the first. */
  readonly cycle: number;
  readonly state: Of<'state'>['content']['state'];
  readonly turned: Turned | null;
  readonly prints: readonly Of<'print'>[];
  readonly spots: (SpotCall & { readonly perSquare: number; readonly target: readonly [number, number] }) | null;
  /** The aim as it was measured last; whether it is within its room. */
  readonly aim: { readonly value: number; readonly doubt: number; readonly met: boolean; readonly at: string } | null;
  /** Depth of a pass as it was learned, µm; from how many. */
  readonly pass: Readonly<Record<Grade, PassDepth>>;
  readonly forecast: { readonly cycles: Expected; readonly evenings: Expected } | null;
  /** Evenings that were forecast when the plan was made, and what it took; once nothing is left. */
  readonly hindsight: { readonly expected: number; readonly took: number } | null;
  readonly minutesTonight: number;
  readonly passesTonight: number;
  readonly reminders: readonly Reminder[];
  readonly notes: readonly DeskNote[];
  /** µm of a liner that are left over what it must keep; null without one. */
  readonly linerLeft: number | null;
  /** The pass that can be taken back. */
  readonly last: Of<'pass'> | null;
}

/** Evenings apart: so long without a touch, ms. */
const NIGHT = 3 * 3_600_000;
const BLADE_AFTER = 40;
const FIRST_ANGLE = 45;
const OF_NOW = 5;
const HIGH_SHARE = 1.1;

/** Evenings of work, each from its first touch to its last. */
export function eveningsOf(entries: readonly DeskEntry[]): readonly (readonly DeskEntry[])[] {
  const evenings: DeskEntry[][] = [];
  for (const entry of entries) {
    const last = evenings.at(-1)?.at(-1);
    if (!last || last.kind === 'done' || Date.parse(entry.at) - Date.parse(last.at) > NIGHT) evenings.push([entry]);
    else evenings.at(-1)?.push(entry);
  }
  return evenings;
}

const minutesOf = (evening: readonly DeskEntry[]): number =>
  evening.length ? (Date.parse(evening[evening.length - 1].at) - Date.parse(evening[0].at)) / 60_000 : 0;

/**
 * Depths of a pass that were learned between two measurements: what the aim went by over its lever and over the passes that
 * one side had more than the other; newest last, µm.
 */
export function learnedDepths({ aim, zones }: Surface, entries: readonly DeskEntry[]): Readonly<Record<Grade, readonly number[]>> {
  const learned: Record<Grade, number[]> = { rough: [], fine: [] };
  const bearing = zones.filter(({ use }) => use === 'bear').map(({ id }) => id);
  const measures = ofKind(entries, 'measure');
  for (let i = 1; aim && i < measures.length; i++) {
    const between = entries.slice(placeIn(entries, measures[i - 1]), placeIn(entries, measures[i]));
    const passes = ofKind(between, 'pass').filter(({ content }) => content.kind !== 'relief' && content.kind !== 'break-up');
    const counts = bearing.map((id) => passes.filter(({ content }) => content.zone === id).length);
    const more = Math.max(...counts) - Math.min(...counts);
    const [before, after] = [measures[i - 1].content, measures[i].content];
    const went = Math.abs(before.value - aim.wanted) - Math.abs(after.value - aim.wanted);
    // Two grades at once teach neither; nor does what is smaller than its doubt.
    const grades = new Set(passes.map(({ content }) => content.grade));
    if (more < 1 || grades.size !== 1 || went <= Math.hypot(before.doubt, after.doubt)) continue;
    learned[[...grades][0]].push(went / aim.lever / more);
  }
  return learned;
}

const passOf = (known: readonly number[], first: number) => ({
  depth: known.length ? median(known.slice(-OF_NOW)) : first,
  learned: known.length,
});

/** Zones that are high by how the straightedge turns: about its one place, or its ends; none where it bears evenly. */
function highByTurn({ surface }: Known, { centre, code, length }: Turned): ReadonlySet<string> {
  const bearing = surface.zones.filter(({ use }) => use === 'bear');
  const at = (place: number) =>
    [...bearing].sort((one, other) => Math.abs(middleOf(one).x - place) - Math.abs(middleOf(other).x - place)).at(0)?.id ?? '';
  if (code === 'hinge-high' || code === 'hinge-crowned') return new Set([at(centre)]);
  if (code === 'hinge-light-middle' || code === 'hinge-hollow') return new Set([at(centre - length / 2), at(centre + length / 2)]);
  return new Set();
}

/** Part of each zone that counts as high in the last print. Where both ends were pressed, only what is blue in both. */
function sharesOf({ entries }: Known): ReadonlyMap<string, number> {
  const { a, b, last } = printsOfBlue(entries);
  const shares = new Map((last?.content.result.zones ?? []).map(({ id, bearingShare }) => [id, bearingShare]));
  if (!a || !b) return shares;
  const other = new Map((last === a ? b : a).content.result.zones.map(({ id, bearingShare }) => [id, bearingShare]));
  return new Map([...shares].map(([id, share]) => [id, Math.min(share, other.get(id) ?? share)]));
}

/** What is left for each zone, and what tells it. */
function leftOf(known: Known, turned: Turned | null): Pick<Desk, 'zones' | 'from'> {
  const { surface, entries, pass } = known;
  const passes = ofKind(entries, 'pass');
  const plan = ofKind(entries, 'plan').at(-1);
  const shares = sharesOf(known);
  const print = ofKind(entries, 'print').at(-1);
  const hinge = ofKind(entries, 'hinge').at(-1);
  const place = (entry: DeskEntry | undefined) => placeIn(entries, entry);
  const values = [...shares.values()];
  const mean = values.reduce((sum, value) => sum + value, 0) / (values.length || 1);
  const planned = (id: string) => plan?.content.depths.find(({ zone }) => zone === id)?.depth ?? 0;
  /** The most that a plan still wanted of a zone when something was written down; now, where nothing is named. */
  const wanted = (until?: DeskEntry): number => {
    if (!plan) return 0;
    const own = since(passes, plan, entries).filter((entry) => until === undefined || place(entry) < place(until));
    return Math.max(...plan.content.depths.map(({ zone, depth }) => depth - taken(own, zone, pass)));
  };
  // A plan tells until it is worked off; what was seen in the middle of it does not turn the work elsewhere.
  const tells = (entry: DeskEntry | undefined): boolean =>
    entry !== undefined && (!plan || (place(entry) > place(plan) && wanted(entry) < pass.fine.depth));
  const seen =
    (print && values.length && tells(print) ? place(print) : -1) > (tells(hinge) ? place(hinge) : -1)
      ? 'print'
      : turned && tells(hinge)
        ? 'hinge'
        : null;
  const from = plan && wanted() >= pass.fine.depth ? 'plan' : (seen ?? (plan ? 'plan' : null));
  const start = from === 'plan' ? plan : from === 'print' ? print : from === 'hinge' ? hinge : undefined;
  const own = since(passes, start, entries);
  const high = from === 'hinge' && turned ? highByTurn(known, turned) : null;
  const zones = surface.zones.map((zone): DeskZone => {
    const done = own.filter((entry) => entry.content.zone === zone.id).length;
    const all = passes.filter((entry) => entry.content.zone === zone.id).length;
    const share = shares.get(zone.id) ?? null;
    const base = { zone, done, share, angle: (FIRST_ANGLE + 90 * all) % 180 };
    if (zone.use !== 'bear' || from === null) return { ...base, left: null, depth: null, grade: 'rough' };
    if (from === 'plan') {
      const depth = Math.max(0, planned(zone.id) - taken(own, zone.id, pass));
      const { rough, fine } = zonePasses(depth, pass.rough.depth, pass.fine.depth, surface.passes.keepFine);
      return { ...base, depth, left: rough + fine, grade: rough > 0 ? 'rough' : 'fine' };
    }
    const is = high
      ? high.has(zone.id)
      : (share ?? 0) > 0 && ((share ?? 0) >= HIGH_SHARE * mean || values.every((value) => value < HIGH_SHARE * mean));
    return { ...base, depth: null, left: is && done === 0 ? 1 : 0, grade: from === 'hinge' ? 'rough' : 'fine' };
  });
  return { zones, from };
}

/** How the straightedge turned last, on the face: where it bears, and how far that is from the time before. */
function turnedOf(entries: readonly DeskEntry[]): Turned | null {
  const [before, now] = [undefined, ...ofKind(entries, 'hinge')].slice(-2);
  if (!now) return null;
  const centre = ({ from, a, b }: Of<'hinge'>['content']) => from + (a + b) / 2;
  const { a, b, length } = now.content;
  const grip = (a - b) / length;
  return {
    a,
    b,
    length,
    grip,
    code: gripOf(grip).code,
    centre: centre(now.content),
    moved: before ? centre(now.content) - centre(before.content) : null,
  };
}

function nextOf(zones: readonly DeskZone[]): DeskZone | undefined {
  // The highest first; each next pass takes in one more.
  return zones
    .filter(({ left }) => (left ?? 0) > 0)
    .sort((one, other) => (other.left ?? 0) - (one.left ?? 0) || one.done - other.done)
    .at(0);
}

function stepOf(
  { surface, entries }: Known,
  { zones, from }: Pick<Desk, 'zones' | 'from'>,
  desk: Pick<Desk, 'state' | 'aim' | 'spots'>,
): DeskStep {
  if (desk.state === 'accept') return { code: 'accepted' };
  const next = nextOf(zones);
  const last = entries.filter(({ kind }) => kind !== 'blade' && kind !== 'done' && kind !== 'state').at(-1);
  // With a plan the pass is next, whether its print was read or not; without one the print tells where.
  if (last?.kind === 'blue' && from !== 'plan') return { code: 'read-print' };
  if (next) return { code: 'pass', zone: next.zone.id, grade: next.grade, angle: next.angle };
  if (!last) return { code: 'begin' };
  if (last.kind === 'blue') return { code: 'read-print' };
  if (last.kind === 'pass')
    return { code: surface.aim && entries.some(({ kind }) => kind === 'plan') && !desk.aim?.met ? 'measure' : 'blue' };
  if (last.kind === 'hinge') return { code: 'turn-or-blue' };
  if (desk.aim?.met && desk.spots?.verdict === 'in') return { code: 'accept' };
  if (surface.aim && !desk.aim) return { code: 'measure' };
  if (desk.aim && !desk.aim.met) return { code: 'plan' };
  return { code: 'blue' };
}

function remindersOf({ shell }: Surface, entries: readonly DeskEntry[], step: DeskStep): Reminder[] {
  const passes = ofKind(entries, 'pass');
  const sinceBlade = since(passes, ofKind(entries, 'blade').at(-1), entries).length;
  const before = entries.at(-1);
  return [
    ...(shell && (step.code === 'begin' || step.code === 'measure') ? (['lock-test'] as const) : []),
    ...(step.code === 'blue' || step.code === 'begin' || step.code === 'turn-or-blue' ? (['burrs', 'wipe'] as const) : []),
    ...(step.code === 'measure' ? (['burrs'] as const) : []),
    ...(step.code === 'read-print' && before?.kind === 'blue' && !before.content.dye ? (['glare'] as const) : []),
    ...(before?.kind === 'done' && passes.length > 0 ? (['chips'] as const) : []),
    ...(step.code === 'pass' && sinceBlade >= BLADE_AFTER ? (['blade'] as const) : []),
  ];
}

function linerOf({ surface: { liner, zones }, entries, pass }: Known): number | null {
  if (!liner) return null;
  const passes = ofKind(entries, 'pass');
  const most = Math.max(...zones.map(({ id }) => taken(passes, id, pass)));
  return liner.thickness - liner.keep - most;
}

/** Where the work at a face stands: what is left where, what comes now, when it will be done, and what is to be minded. */
export function deskOf(surface: Surface, written: readonly DeskEntry[]): Desk {
  const entries = standing(written);
  const learned = learnedDepths(surface, entries);
  const pass = { rough: passOf(learned.rough, surface.passes.rough), fine: passOf(learned.fine, surface.passes.fine) };
  const known: Known = { surface, entries, pass };
  const turned = turnedOf(entries);
  const { zones, from } = leftOf(known, turned);
  const prints = ofKind(entries, 'print');
  const measured = ofKind(entries, 'measure').at(-1);
  const aim =
    surface.aim && measured
      ? {
          ...measured.content,
          at: measured.at,
          met: Math.abs(measured.content.value - surface.aim.wanted) + measured.content.doubt <= surface.aim.room,
        }
      : null;
  const state = ofKind(entries, 'state').at(-1)?.content;
  const target = surface.target ? ([surface.target.low, surface.target.high] as const) : SPOT_TARGETS[surface.use];
  const result = prints.at(-1)?.content.result;
  const area = result?.zones.reduce((sum, zone) => sum + zone.area, 0) || surface.width * surface.height;
  const spots =
    result && result.spotsPerSquare !== null
      ? { ...spotCall(result.spotsPerSquare, area, target), perSquare: result.spotsPerSquare, target }
      : null;
  const told = { state: state?.state ?? 'rough', aim, spots } as const;
  const step = stepOf(known, { zones, from }, told);
  const evenings = eveningsOf(entries);
  const tonight = evenings.at(-1) ?? [];
  const open = tonight.at(-1)?.kind === 'done' ? [] : tonight;
  const linerLeft = linerOf(known);
  const deepest = Math.max(0, ...zones.map(({ depth }) => depth ?? 0));
  const covered = surface.reference.length + 0.5 >= surface.width;
  return {
    ...{ zones, from, step, turned, prints, pass, linerLeft },
    ...told,
    next: step.code === 'pass' ? step.zone : null,
    cycle: ofKind(entries, 'blue').length,
    ...forecastOf(known, { zones, evenings, learned }),
    minutesTonight: minutesOf(open),
    passesTonight: ofKind(open, 'pass').length,
    reminders: remindersOf(surface, entries, step),
    notes: [
      ...progressNotes(known),
      ...teeterNotes(known),
      ...trustNotes(known, turned),
      ...printNotes(known),
      ...(told.state === 'contact' && aim && !aim.met ? [{ code: 'polished-early' as const, about: [] }] : []),
      ...(linerLeft !== null && deepest > linerLeft ? [{ code: 'liner-ends' as const, about: [linerLeft, deepest] }] : []),
      ...(ofKind(entries, 'pass').at(-1)?.content.kind === 'relief' ? [{ code: 'relieved' as const, about: [] }] : []),
      ...forgottenNotes(known),
      ...(covered ? [] : [{ code: 'reference-short' as const, about: [surface.reference.length] }]),
      ...(from === 'plan' && deepest > 0 && zones.every(({ grade, left }) => !left || grade === 'fine')
        ? [{ code: 'reserve' as const, about: [surface.passes.keepFine] }]
        : []),
    ],
    last: ofKind(entries, 'pass').at(-1) ?? null,
  };
}

/** Cycles and evenings still to come for the deepest zone; once nothing is left of a plan, how far its forecast was off. */
function forecastOf(
  { surface, entries, pass }: Known,
  {
    zones,
    evenings,
    learned,
  }: {
    readonly zones: readonly DeskZone[];
    readonly evenings: readonly (readonly DeskEntry[])[];
    readonly learned: ReturnType<typeof learnedDepths>;
  },
): Pick<Desk, 'forecast' | 'hindsight'> {
  const plan = ofKind(entries, 'plan').at(-1);
  if (!plan) return { forecast: null, hindsight: null };
  const { session, setUp, cycle } = surface.evening;
  const each = cyclesAnEvening(session, setUp, cycle);
  const grade: Grade = zones.some((zone) => zone.grade === 'rough' && (zone.left ?? 0) > 0) ? 'rough' : 'fine';
  const depths = learned[grade].slice(-OF_NOW);
  const known = depths.length ? depths : [pass[grade].depth];
  const expect = (passes: number) => cyclesLeft(known, passes * median(known));
  const left = Math.max(0, ...zones.map((zone) => zone.left ?? 0));
  if (left > 0) {
    const cycles = expect(left);
    return { forecast: { cycles, evenings: eveningsFor(cycles, each) }, hindsight: null };
  }
  const { cycles: planned } = priceOf(surface, plan.content, { rough: pass.rough.depth, fine: pass.fine.depth });
  const expected = eveningsFor(expect(planned), each).expected;
  const took = evenings.filter((evening) => evening.some(({ kind, at }) => kind === 'pass' && at > plan.at)).length;
  return { forecast: null, hindsight: took ? { expected, took } : null };
}

/**
 * What metal that came off makes stale, and when it last did: the check that a face is scraped true by; after a relief, which
 * may make a reading worse before it is true, every check that is read on that casting.
 */
export function scrapedOf(
  surfaces: readonly (Surface & { readonly entries: readonly DeskEntry[] })[],
): readonly { readonly check: string; readonly at: string }[] {
  return surfaces.flatMap(({ aim, part, entries }) => {
    const passes = ofKind(standing(entries), 'pass');
    const [last, relief] = [passes.at(-1), passes.filter(({ content }) => content.kind === 'relief').at(-1)];
    const onCasting = relief ? [...CHECKS.values()].filter(({ casting }) => casting !== undefined && casting === part) : [];
    return [
      ...(aim && last ? [{ check: aim.check, at: last.at }] : []),
      ...onCasting.map(({ id }) => ({ check: id, at: relief?.at ?? '' })),
    ];
  });
}
