import { median, pivotsOf, type Band } from '@isometra/core';
import type { DeskEntry } from '@isometra/contract';
import { middleOf, ofKind, placeIn, removes, since, type Known, type Of } from './entries.js';
import type { DeskZone, Left } from './left.js';
import type { Turned } from './notes.js';

/** What shows how a face stands now; a new plan was made of such a look. */
const LOOKS: ReadonlySet<DeskEntry['kind']> = new Set(['blue', 'print', 'hinge', 'measure', 'plan', 'believed']);
/** Passes over one zone between two looks, before a habit is known; no habit is longer. */
const USUAL = 2;
/** Stretches between two looks that tell a habit. */
const TELLING = 2;

/** Passes that were made over one zone: the most of any. */
function mostOverOne(passes: readonly Of<'pass'>[]): number {
  const counts = new Map<string, number>();
  for (const { content } of passes.filter(removes)) counts.set(content.zone, (counts.get(content.zone) ?? 0) + 1);
  return Math.max(0, ...counts.values());
}

/** After how many passes over a zone this face is looked at again, as it has been done at it: one or two. */
export function habitOf(entries: readonly DeskEntry[]): number {
  const looks = entries.filter(({ kind }) => LOOKS.has(kind));
  const stretches = looks.slice(1).flatMap((look, i) => {
    const most = mostOverOne(ofKind(entries.slice(placeIn(entries, looks[i]), placeIn(entries, look)), 'pass'));
    return most > 0 ? [most] : [];
  });
  return stretches.length < TELLING || median(stretches) > 1.5 ? USUAL : 1;
}

/** Passes over a zone since the face was looked at last, where they are as many as go before the next look; null before that. */
export function dueForLook(entries: readonly DeskEntry[], zone: string): number | null {
  const last = entries.findLast(({ kind }) => LOOKS.has(kind));
  const passes = since(ofKind(entries, 'pass'), last, entries).filter((pass) => pass.content.zone === zone);
  const made = mostOverOne(passes);
  return made >= habitOf(entries) ? made : null;
}

/** Where a straightedge must turn if what a plan leaves is what stands there, and where it does. */
export interface Otherwise {
  /** Zones that it would bear on by the plan. */
  readonly expected: readonly string[];
  /** Where it bears, mm from end A of the face. */
  readonly centre: number;
}

/** Part of the straightedge by which its turn may differ from what a plan lets expect: a plan is known to a pass, a print better. */
const PLAN_ROOM = 0.2;

interface Strip {
  readonly id: string;
  readonly from: number;
  readonly to: number;
  readonly at: number;
  readonly height: number;
}

/** Zones that bear, side by side along the face; undefined where some lie beside one another across. */
function stripsOf(zones: readonly DeskZone[]): readonly Strip[] | undefined {
  const strips = zones
    .filter(({ zone, depth }) => zone.use === 'bear' && depth !== null)
    .map(({ zone, depth }) => {
      const xs = zone.outline.map(({ x }) => x);
      return { id: zone.id, from: Math.min(...xs), to: Math.max(...xs), at: middleOf(zone).x, height: depth ?? 0 };
    })
    .sort((one, other) => one.from - other.from);
  return strips.every(({ from }, i) => i === 0 || from >= strips[i - 1].to - 1) ? strips : undefined;
}

/** Corners of the highest line that lies on all of some places. */
function hullOf(strips: readonly Strip[]): readonly Strip[] {
  const hull: Strip[] = [];
  const slope = (one: Strip, other: Strip): number => (other.height - one.height) / (other.at - one.at);
  for (const strip of strips) {
    while (hull.length > 1 && slope(hull[hull.length - 2], hull[hull.length - 1]) <= slope(hull[hull.length - 1], strip)) hull.pop();
    hull.push(strip);
  }
  return hull;
}

/**
 * How far each strip lies under a straightedge that rests on them with its middle over a place, µm: once for each way it may lie.
 * It rests on the two corners about its middle; with its middle over one of them it rocks to either side.
 */
function gapsUnder(strips: readonly Strip[], middle: number): readonly (readonly number[])[] {
  const hull = hullOf(strips);
  const edges = hull.slice(1).map((end, i) => ({ start: hull[i], end, slope: (end.height - hull[i].height) / (end.at - hull[i].at) }));
  const under = edges.filter(({ start, end }) => middle >= start.from && middle <= end.to);
  const level = under.reduce((sum, { slope }) => sum + slope, 0) / (under.length || 1);
  const lies = (base: Strip, slope: number) => strips.map(({ at, height }) => base.height + slope * (at - base.at) - height);
  const ways = under.map(({ start, slope }) => lies(start, slope));
  return under.length === 2 ? [...ways, lies(under[1].start, level)] : ways;
}

/** A gap of just one pass still bears, however its figures were rounded, µm. */
const ROUNDING = 1e-9;

/**
 * Whether the straightedge, pushed in the middle of a plan, turns elsewhere than what the plan still wants off lets expect. A plan
 * that tilts a straight face leaves a slant, which no straightedge sees: only what bows tells.
 *
 * @returns null where it goes with the plan, where it cannot be told, and once metal has come off or somebody said which to believe.
 */
export function turnsOtherwise({ entries, pass }: Known, { zones, from }: Left, turned: Turned | null): Otherwise | null {
  const hinge = ofKind(entries, 'hinge').at(-1);
  const plan = ofKind(entries, 'plan').at(-1);
  if (from !== 'plan' || !turned || !hinge || turned.code === 'hinge-rocks' || placeIn(entries, plan) > placeIn(entries, hinge))
    return null;
  const after = since(entries, hinge, entries);
  if (after.some((entry) => entry.kind === 'believed' || (entry.kind === 'pass' && removes(entry)))) return null;
  const reach = stripsOf(zones)?.filter(({ from: start, to }) => to > turned.from && start < turned.from + turned.length) ?? [];
  if (reach.length < 3) return null;
  const ways = gapsUnder(reach, turned.from + turned.length / 2).map((gaps) =>
    reach.filter((_, i) => gaps[i] <= pass.rough.depth + ROUNDING),
  );
  if (!ways.length || ways.some((bears) => turnsAs(bears, turned))) return null;
  return { expected: ways[0].map(({ id }) => id), centre: turned.centre };
}

/**
 * Whether a straightedge that bears on some strips turns where it was seen to turn, as nearly as a plan is known. The pressure goes
 * along a line, so that its own weight stands over its middle.
 */
function turnsAs(bears: readonly Strip[], { a, b, from, length }: Turned): boolean {
  const clip = (x: number) => Math.min(length, Math.max(0, x - from));
  const places = bears.map((strip) => ({ from: clip(strip.from), to: clip(strip.to) }));
  const off = places.map((place) => (place.from + place.to - length) / 2);
  const sum = (of: (off: number) => number) => places.reduce((total, place, i) => total + (place.to - place.from) * of(off[i]), 0);
  const tilt =
    -sum((x) => x) /
    Math.max(
      sum((x) => x * x),
      1e-9,
    );
  const bands = places.map((place, i): Band => ({ ...place, pressure: places.length > 1 ? Math.max(0, 1 + tilt * off[i]) : 1 }));
  const pivots = pivotsOf(bands, length);
  return !pivots || Math.max(Math.abs(a - pivots.a), Math.abs(b - pivots.b)) <= PLAN_ROOM * length;
}
