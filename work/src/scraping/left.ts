import { gripOf, zonePasses } from '@isometra/core';
import type { DeskEntry, Zone } from '@isometra/contract';
import {
  middleOf,
  ofKind,
  onlyOneBears,
  placeIn,
  printsOfBlue,
  reached,
  since,
  taken,
  type Grade,
  type Known,
  type Of,
} from './entries.js';
import { trustNotes, type Turned } from './notes.js';

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

/** What tells how much is left, and how much that is. */
export interface Left {
  readonly zones: readonly DeskZone[];
  readonly from: 'plan' | 'print' | 'hinge' | null;
}

const FIRST_ANGLE = 45;
const HIGH_SHARE = 1.1;
/** Part of the bearing by which two tries at one end may differ. */
const TRY_ROOM = 0.1;

/** Zones that are high by how the straightedge turns: about its one place, or its ends; none where it bears evenly. */
function highByTurn({ surface }: Known, { centre, code, length }: Turned): ReadonlySet<string> {
  const bearing = surface.zones.filter(({ use }) => use === 'bear');
  const at = (place: number) =>
    [...bearing].sort((one, other) => Math.abs(middleOf(one).x - place) - Math.abs(middleOf(other).x - place)).at(0)?.id ?? '';
  if (code === 'hinge-high' || code === 'hinge-crowned') return new Set([at(centre)]);
  if (code === 'hinge-light-middle' || code === 'hinge-hollow') return new Set([at(centre - length / 2), at(centre + length / 2)]);
  return new Set();
}

/** Prints of the blue that is on it now by where the straightedge lay, the last of each. */
function bitesOf(entries: readonly DeskEntry[]): readonly Of<'print'>[] {
  const prints = since(ofKind(entries, 'print'), ofKind(entries, 'blue').at(-1), entries);
  return [...new Map(prints.map((print) => [print.content.bite?.from ?? -1, print])).values()];
}

/** Part of each zone that a print shows as blue; what it did not reach is left out. */
const sharesIn = ({ surface }: Known, { content }: Of<'print'>): ReadonlyMap<string, number> =>
  new Map(
    content.result.zones
      .filter(({ id }) => surface.zones.some((zone) => zone.id === id && reached(zone, content)))
      .map(({ id, bearingShare }) => [id, bearingShare]),
  );

/**
 * Two bites where they overlap: what bears in both is high. Where only one of them bears in the overlap, the other one leaned, or
 * there is a step: then what one alone reached cannot be told.
 */
function joined(bites: readonly ReadonlyMap<string, number>[]): ReadonlyMap<string, number> {
  return bites.reduce((told, bite) => {
    const { common, differ } = overlapOf(told, bite);
    if (common.length === 0 || differ) return new Map(common.map((id) => [id, Math.min(told.get(id) ?? 0, bite.get(id) ?? 0)]));
    return new Map([...told, ...bite].map(([id, share]) => [id, Math.min(told.get(id) ?? share, bite.get(id) ?? share)]));
  });
}

/** Zones that two bites both reached, and whether only one of them bears there. */
function overlapOf(
  first: ReadonlyMap<string, number>,
  second: ReadonlyMap<string, number>,
): { readonly common: readonly string[]; readonly differ: boolean } {
  const common = [...second.keys()].filter((id) => first.has(id));
  const of = (shares: ReadonlyMap<string, number>) => common.reduce((sum, id) => sum + (shares.get(id) ?? 0), 0) / (common.length || 1);
  return { common, differ: onlyOneBears(of(first), of(second)) };
}

/** Zones in which only one of two bites bears, of the blue that is on it now. */
export function differingBites(known: Known): readonly string[] {
  const bites = bitesOf(known.entries).map((print) => sharesIn(known, print));
  const zones = bites.slice(1).flatMap((bite, i) => {
    const { common, differ } = overlapOf(bites[i], bite);
    return differ ? common : [];
  });
  return [...new Set(zones)];
}

/** Part of each zone that counts as high in the last print. Where both ends were pressed, or in two bites, only what is blue in both. */
function sharesOf(known: Known): ReadonlyMap<string, number> {
  const { a, b, last } = printsOfBlue(known.entries);
  if (!last) return new Map();
  const bites = bitesOf(known.entries);
  const shares = bites.length > 1 ? joined(bites.map((print) => sharesIn(known, print))) : sharesIn(known, last);
  if (!a || !b || bites.length > 1) return shares;
  const other = sharesIn(known, last === a ? b : a);
  return new Map([...shares].map(([id, share]) => [id, Math.min(share, other.get(id) ?? share)]));
}

/** Zones that bear more than their part; all that bear at all, where none does. */
function highShares(shares: ReadonlyMap<string, number>): ReadonlySet<string> {
  const values = [...shares.values()];
  const most = (HIGH_SHARE * values.reduce((sum, value) => sum + value, 0)) / (values.length || 1);
  const even = values.every((value) => value < most);
  return new Set([...shares].filter(([, share]) => share > 0 && (even || share >= most)).map(([id]) => id));
}

/** The plan that the work goes by: the last one, unless a straightedge is believed against it. */
function planThatStands(entries: readonly DeskEntry[]): Of<'plan'> | undefined {
  const plan = ofKind(entries, 'plan').at(-1);
  const believed = since(ofKind(entries, 'believed'), plan, entries).at(-1);
  return believed?.content.which === 'straightedge' ? undefined : plan;
}

/** What is left for each zone, and what tells it. */
export function leftOf(known: Known, turned: Turned | null): Left {
  const { surface, entries, pass } = known;
  const passes = ofKind(entries, 'pass');
  const plan = planThatStands(entries);
  const shares = sharesOf(known);
  const print = ofKind(entries, 'print').at(-1);
  const hinge = ofKind(entries, 'hinge').at(-1);
  const place = (entry: DeskEntry | undefined) => placeIn(entries, entry);
  const highest = highShares(shares);
  const planned = (id: string) => plan?.content.depths.find(({ zone }) => zone === id)?.depth ?? 0;
  /** The most that a plan still wanted of a zone when something was written down; now, where nothing is named. */
  const wanted = (until?: DeskEntry): number => {
    if (!plan) return 0;
    const own = since(passes, plan, entries).filter((entry) => until === undefined || place(entry) < place(until));
    return Math.max(...plan.content.depths.map(({ zone, depth }) => depth - taken(own, zone, known)));
  };
  // A plan tells until it is worked off; what was seen in the middle of it does not turn the work elsewhere.
  const tells = (entry: DeskEntry | undefined): boolean =>
    entry !== undefined && (!plan || (place(entry) > place(plan) && wanted(entry) < pass.fine.depth));
  const seen = (): 'print' | 'hinge' | null => {
    const [printed, swung] = [print?.content.result.zones.length && tells(print) ? place(print) : -1, tells(hinge) ? place(hinge) : -1];
    // Of one and the same look, a print that the straightedge belies misled.
    if (printed > swung) return swung >= 0 && trustNotes(known, turned).length ? 'hinge' : 'print';
    return turned && swung >= 0 ? 'hinge' : null;
  };
  const usual = plan ? 'plan' : null;
  const from = plan && wanted() >= pass.fine.depth ? 'plan' : (seen() ?? usual);
  const start = from && { plan, print, hinge }[from];
  const own = since(passes, start ?? undefined, entries);
  const high = from === 'hinge' && turned ? highByTurn(known, turned) : null;
  const zones = surface.zones.map((zone): DeskZone => {
    const done = own.filter((entry) => entry.content.zone === zone.id).length;
    const all = passes.filter((entry) => entry.content.zone === zone.id).length;
    const share = shares.get(zone.id) ?? null;
    const base = { zone, done, share, angle: (FIRST_ANGLE + 90 * all) % 180 };
    if (zone.use !== 'bear' || from === null) return { ...base, left: null, depth: null, grade: 'rough' };
    if (from === 'plan') {
      const depth = Math.max(0, planned(zone.id) - taken(own, zone.id, known));
      const { rough, fine } = zonePasses(depth, pass.rough.depth, pass.fine.depth, surface.passes.keepFine);
      return { ...base, depth, left: rough + fine, grade: rough > 0 ? 'rough' : 'fine' };
    }
    // What no bite has told of is unknown, not low.
    if (from === 'print' && share === null) return { ...base, left: null, depth: null, grade: 'fine' };
    const is = (high ?? highest).has(zone.id);
    return { ...base, depth: null, left: is && done === 0 ? 1 : 0, grade: from === 'hinge' ? 'rough' : 'fine' };
  });
  return { zones, from };
}

/** The turns of one hinge: the mean of two tries; they rock where the tries lie further apart than a tenth of the bearing. */
function meanTurn({ a, b, again, length }: Of<'hinge'>['content']): {
  readonly a: number;
  readonly b: number;
  readonly rocks: boolean;
} {
  if (!again) return { a, b, rocks: false };
  const rocks = Math.max(Math.abs(again.a - a), Math.abs(again.b - b)) > TRY_ROOM * length;
  return { a: (a + again.a) / 2, b: (b + again.b) / 2, rocks };
}

/** How the straightedge turned last, on the face: where it bears, and how far that is from the time before. */
export function turnedOf(entries: readonly DeskEntry[]): Turned | null {
  const [before, now] = [undefined, ...ofKind(entries, 'hinge')].slice(-2);
  if (!now) return null;
  const centre = ({ content }: Of<'hinge'>) => {
    const { a, b } = meanTurn(content);
    return content.from + (a + b) / 2;
  };
  const { a, b, rocks } = meanTurn(now.content);
  const { length } = now.content;
  const grip = (a - b) / length;
  return {
    ...{ a, b, length, grip, from: now.content.from },
    code: rocks ? 'hinge-rocks' : gripOf(grip).code,
    centre: centre(now),
    moved: before ? centre(now) - centre(before) : null,
  };
}

/** The highest first; each next pass takes in one more. */
export const nextOf = (zones: readonly DeskZone[]): DeskZone | undefined =>
  zones
    .filter(({ left }) => (left ?? 0) > 0)
    .sort((one, other) => (other.left ?? 0) - (one.left ?? 0) || one.done - other.done)
    .at(0);
