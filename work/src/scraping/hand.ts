import { median } from '@isometra/core';
import type { DeskEntry, Surface } from '@isometra/contract';
import { betweenMeasures, middleOf, NEWEST, ofKind, placeIn, removes, type Grade, type Of } from './entries.js';

type Over = 'whole' | 'blue-only';

/** The depth of a pass that two measurements taught, µm; whose it was and with which blade, where there was one only. */
export interface LearnedPass {
  readonly depth: number;
  readonly grade: Grade;
  readonly over: Over;
  readonly by: string | null;
  readonly blade: string | null;
  readonly material: Surface['material'];
  readonly at: string;
}

/** Who scrapes, and with what. */
export interface Hand {
  readonly by: string | null;
  readonly blade: string | null;
}

/** Depth of a pass, µm, and from how many it was learned: with the blade in hand, by the person, or by anybody. */
export interface PassDepth {
  readonly depth: number;
  readonly learned: number;
  readonly whose: 'blade' | 'person' | 'anybody' | 'nobody';
  /** What it was learned from, the newest last, µm; the usual depth where nothing was. */
  readonly from: readonly number[];
}

/** The blade in hand at each pass. */
function bladesOf(entries: readonly DeskEntry[]): ReadonlyMap<DeskEntry, string> {
  const blades = new Map<DeskEntry, string>();
  let name: string | undefined;
  for (const entry of entries) {
    if (entry.kind === 'blade') name = entry.content.name;
    if (entry.kind === 'pass' && name !== undefined) blades.set(entry, name);
  }
  return blades;
}

const only = <T>(values: readonly T[]): T | null => {
  const [first] = values;
  return values.every((value) => value === first) ? (first ?? null) : null;
};

/** Passes that a bout must be worth to tell of one: fewer are lost in what else a measurement shows. */
const LEAST_WORTH = 0.95;

/** Passes over each zone, by its number. */
type Counts = Readonly<Record<string, number>>;

/** What a bout had of passes that the aim goes by: over one side more than over the other, as the plan wanted it. */
type Worth = (counts: Counts) => number;

/** The slope of some figures along a face by least squares, over all of its length: figures by zone, places of their middles. */
function overLength(figures: readonly number[], places: readonly number[], length: number): number {
  const middle = places.reduce((sum, place) => sum + place, 0) / (places.length || 1);
  const squares = places.reduce((sum, place) => sum + (place - middle) ** 2, 0);
  return squares > 0 ? (length * places.reduce((sum, place, i) => sum + (place - middle) * figures[i], 0)) / squares : 0;
}

/**
 * How many passes a bout was worth. A wedge that comes off in strips goes by the slant of all its passes, not by the zone that had
 * most of them; anything else by what one zone had more than another.
 *
 * @param plan the plan that was worked by; a wedge says which way the face was to be tilted.
 */
function worthOf({ zones, width, height }: Surface, plan: Of<'plan'>['content'] | undefined): Worth {
  const bearing = zones.filter(({ use }) => use === 'bear');
  const of = (counts: Counts) => bearing.map(({ id }) => counts[id] ?? 0);
  const most: Worth = (counts) => Math.max(...of(counts)) - Math.min(...of(counts));
  if (plan?.from !== 'wedge') return most;
  const depths = bearing.map(({ id }) => plan.depths.find(({ zone }) => zone === id)?.depth ?? 0);
  const [xs, ys] = [bearing.map((zone) => middleOf(zone).x), bearing.map((zone) => middleOf(zone).y)];
  const [along, across] = [overLength(depths, xs, width), overLength(depths, ys, height)];
  // Tilted both ways at once: one figure tells of neither alone.
  if (Math.min(Math.abs(along), Math.abs(across)) > 0.1 * Math.max(Math.abs(along), Math.abs(across))) return most;
  const [places, length, way] = Math.abs(along) > Math.abs(across) ? [xs, width, Math.sign(along)] : [ys, height, Math.sign(across)];
  return (counts) => way * overLength(of(counts), places, length);
}

/** Passes of a bout over each zone. */
function countsOf(passes: readonly Of<'pass'>[]): Counts {
  const counts: Record<string, number> = {};
  for (const { content } of passes) counts[content.zone] = (counts[content.zone] ?? 0) + 1;
  return counts;
}

/** The plan that was worked by when a measurement was made. */
const planAt = (entries: readonly DeskEntry[], measure: DeskEntry): Of<'plan'>['content'] | undefined =>
  ofKind(entries, 'plan').findLast((plan) => placeIn(entries, plan) < placeIn(entries, measure))?.content;

/**
 * Depths of a pass that were learned between two measurements: what the aim went by over its lever and over the passes that
 * one side had more than the other; oldest first. Two kinds of pass at once teach neither; nor does what is smaller than its doubt.
 */
export function learnedPasses(surface: Surface, entries: readonly DeskEntry[], blades = bladesOf(entries)): readonly LearnedPass[] {
  const { aim, material } = surface;
  return betweenMeasures(entries).flatMap(({ before, after, passes: all }): LearnedPass[] => {
    const passes = all.filter(removes);
    const more = worthOf(surface, planAt(entries, after))(countsOf(passes));
    const [grade, over] = [only(passes.map(({ content }) => content.grade)), only(passes.map(({ content }) => content.kind))];
    if (!aim || more < LEAST_WORTH || grade === null || over === null) return [];
    const went = Math.abs(before.content.value - aim.wanted) - Math.abs(after.content.value - aim.wanted);
    if (went <= Math.hypot(before.content.doubt, after.content.doubt)) return [];
    const [by, blade] = [only(passes.map((pass) => pass.by)), only(passes.map((pass) => blades.get(pass) ?? null))];
    return [{ depth: went / aim.lever / more, grade, over: over as Over, by, blade, material, at: after.at }];
  });
}

/** The depth of a pass for a hand: what it took with that blade; else with any; else what anybody takes; else the usual one. */
export function passDepth(learned: readonly LearnedPass[], grade: Grade, over: Over, { by, blade }: Hand, first: number): PassDepth {
  const kin = learned.filter((pass) => pass.grade === grade && pass.over === over);
  const own = by === null ? [] : kin.filter((pass) => pass.by === by);
  const tries = [
    ['blade', blade === null ? [] : own.filter((pass) => pass.blade === blade)],
    ['person', own],
    ['anybody', kin],
  ] as const;
  for (const [whose, passes] of tries) {
    const from = passes.slice(-NEWEST).map(({ depth }) => depth);
    if (from.length) return { depth: median(from), learned: passes.length, whose, from };
  }
  return { depth: first, learned: 0, whose: 'nobody', from: [first] };
}

/** Two measurements with passes of both grades between them, over whole zones: how far one zone came down, µm, and by how many of each. */
interface Mixed {
  readonly came: number;
  readonly doubt: number;
  readonly rough: number;
  readonly fine: number;
  readonly by: string | null;
}

function mixedBouts(surface: Surface, entries: readonly DeskEntry[]): readonly Mixed[] {
  const { aim } = surface;
  return betweenMeasures(entries).flatMap(({ before, after, passes: all }): Mixed[] => {
    const passes = all.filter(removes);
    if (!aim || new Set(passes.map(({ content }) => content.grade)).size < 2 || passes.some(({ content }) => content.kind !== 'whole'))
      return [];
    const worth = worthOf(surface, planAt(entries, after));
    const each = (grade: Grade) => worth(countsOf(passes.filter(({ content }) => content.grade === grade)));
    const [rough, fine] = [each('rough'), each('fine')];
    const went = Math.abs(before.content.value - aim.wanted) - Math.abs(after.content.value - aim.wanted);
    const doubt = Math.hypot(before.content.doubt, after.content.doubt);
    if (rough < 0 || fine < 0 || rough + fine < LEAST_WORTH || went <= doubt) return [];
    return [{ came: went / aim.lever, doubt: doubt / aim.lever, rough, fine, by: only(passes.map((pass) => pass.by)) }];
  });
}

/** By how much of itself the depth of a pass is unknown before any was learned. */
const AT_FIRST = 0.4;

/**
 * Depths of both grades from bouts that had both: two unknowns, least squares with what is held of them before. They hold for the
 * passes to come alone: what was counted keeps the depth it was counted with.
 *
 * @param prior what is held of each before, µm; the more surely, the less it moves.
 */
function fromMixed(bouts: readonly Mixed[], prior: Readonly<Record<Grade, PassDepth>>): { readonly rough: number; readonly fine: number } {
  const sure = ({ depth, learned }: PassDepth): number => (AT_FIRST * depth) ** 2 / (1 + learned);
  let [rough, fine] = [prior.rough.depth, prior.fine.depth];
  // Covariance of the two: [rough, both, fine].
  let [a, b, c] = [sure(prior.rough), 0, sure(prior.fine)];
  for (const bout of bouts) {
    const [ra, rb] = [a * bout.rough + b * bout.fine, b * bout.rough + c * bout.fine];
    const spread = bout.rough * ra + bout.fine * rb + Math.max(bout.doubt, 1e-6) ** 2;
    const off = (bout.came - bout.rough * rough - bout.fine * fine) / spread;
    [rough, fine] = [rough + ra * off, fine + rb * off];
    [a, b, c] = [a - (ra * ra) / spread, b - (ra * rb) / spread, c - (rb * rb) / spread];
  }
  return { rough, fine };
}

/** Depths of the passes to come, with what mixed bouts add where no bout of one grade has told of a grade. */
function withMixed(
  pass: Readonly<Record<Grade, PassDepth>>,
  bouts: readonly Mixed[],
  by: string | null,
): Readonly<Record<Grade, PassDepth>> {
  const own = bouts.filter((bout) => bout.by !== null && bout.by === by).slice(-NEWEST);
  const [whose, told] = own.length ? (['person', own] as const) : (['anybody', bouts.slice(-NEWEST)] as const);
  if (!told.length) return pass;
  const found = fromMixed(told, pass);
  const one = (grade: Grade): PassDepth => {
    // Nothing cuts less than a quarter of what is usual: a figure below that is a measurement that was off.
    const depth = Math.max(found[grade], pass[grade].depth / 4);
    return pass[grade].learned || !told.some((bout) => bout[grade] > 0)
      ? pass[grade]
      : { depth, learned: told.length, whose, from: [depth] };
  };
  return { rough: one('rough'), fine: one('fine') };
}

/** Passes as they are made: by the hand that is at it now for those to come, by its own for each that was made. */
export interface Hands {
  readonly pass: Readonly<Record<Grade, PassDepth>>;
  readonly took: (pass: Of<'pass'>) => number;
}

/**
 * @param elsewhere what was learned on other faces of the shop: it counts where the material is the same.
 * @param by who is at it now; left out, whoever wrote last.
 */
export function handsOf(surface: Surface, entries: readonly DeskEntry[], elsewhere: readonly LearnedPass[], by?: string): Hands {
  const blades = bladesOf(entries);
  const learned = [...elsewhere.filter(({ material }) => material === surface.material), ...learnedPasses(surface, entries, blades)].sort(
    (one, other) => one.at.localeCompare(other.at),
  );
  const now: Hand = { by: by ?? entries.at(-1)?.by ?? null, blade: ofKind(entries, 'blade').at(-1)?.content.name ?? null };
  const of = (grade: Grade, over: Over, hand: Hand): PassDepth => {
    const whole = passDepth(learned, grade, 'whole', hand, surface.passes[grade]);
    return over === 'whole' ? whole : passDepth(learned, grade, over, hand, whole.depth);
  };
  const known = new Map<string, number>();
  const took = (pass: Of<'pass'>): number => {
    const { grade, kind } = pass.content;
    const hand = { by: pass.by, blade: blades.get(pass) ?? null };
    const key = `${grade} ${kind} ${hand.by}\n${hand.blade ?? ''}`;
    const depth = known.get(key) ?? of(grade, kind === 'blue-only' ? 'blue-only' : 'whole', hand).depth;
    known.set(key, depth);
    return depth;
  };
  const alone = { rough: of('rough', 'whole', now), fine: of('fine', 'whole', now) };
  return { took, pass: withMixed(alone, mixedBouts(surface, entries), now.by) };
}
