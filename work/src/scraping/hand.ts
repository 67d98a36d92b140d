import { median } from '@isometra/core';
import type { DeskEntry, Surface } from '@isometra/contract';
import { betweenMeasures, NEWEST, ofKind, removes, type Grade, type Of } from './entries.js';

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

/**
 * Depths of a pass that were learned between two measurements: what the aim went by over its lever and over the passes that
 * one side had more than the other; oldest first. Two kinds of pass at once teach neither; nor does what is smaller than its doubt.
 */
export function learnedPasses(
  { aim, zones, material }: Surface,
  entries: readonly DeskEntry[],
  blades = bladesOf(entries),
): readonly LearnedPass[] {
  const bearing = zones.filter(({ use }) => use === 'bear').map(({ id }) => id);
  return betweenMeasures(entries).flatMap(({ before, after, passes: all }): LearnedPass[] => {
    const passes = all.filter(removes);
    const counts = bearing.map((id) => passes.filter(({ content }) => content.zone === id).length);
    const more = Math.max(...counts) - Math.min(...counts);
    const [grade, over] = [only(passes.map(({ content }) => content.grade)), only(passes.map(({ content }) => content.kind))];
    if (!aim || more < 1 || grade === null || over === null) return [];
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
  return { took, pass: { rough: of('rough', 'whole', now), fine: of('fine', 'whole', now) } };
}
