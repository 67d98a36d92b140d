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

/** Part of its usual depth by which a pass differs from hand to hand, as long as nothing is known of it. */
const USUAL_SPREAD = 0.35;

/** What is believed of a roughing and a finishing pass, µm, and how surely: their variances, and what they share. */
interface Believed {
  readonly rough: number;
  readonly fine: number;
  readonly cov: readonly [rough: number, both: number, fine: number];
}

const usualOf = ({ passes: { rough, fine } }: Surface): Believed => ({
  ...{ rough, fine },
  cov: [(USUAL_SPREAD * rough) ** 2, 0, (USUAL_SPREAD * fine) ** 2],
});

/**
 * One measurement more: so many roughing and finishing passes took so much together. Least squares with what was believed before.
 *
 * @param took µm, with its standard doubt.
 */
function believing({ rough, fine, cov: [a, b, c] }: Believed, [nr, nf]: readonly [number, number], took: number, doubt: number): Believed {
  const [gainRough, gainFine] = [a * nr + b * nf, b * nr + c * nf];
  const spread = nr * gainRough + nf * gainFine + doubt ** 2;
  const off = (took - nr * rough - nf * fine) / spread;
  return {
    rough: rough + gainRough * off,
    fine: fine + gainFine * off,
    cov: [a - gainRough ** 2 / spread, b - (gainRough * gainFine) / spread, c - gainFine ** 2 / spread],
  };
}

/** What was scraped between two measurements: how many passes of each grade one side had more than the other, and what they took. */
interface Bout {
  readonly more: readonly [rough: number, fine: number];
  readonly over: Over;
  readonly took: number;
  readonly doubt: number;
  readonly by: string | null;
  readonly blade: string | null;
  readonly at: string;
}

/** Bouts that teach: one kind of pass, more on one side, and a change that is more than its doubt. */
function boutsOf({ aim, zones }: Surface, entries: readonly DeskEntry[], blades: ReadonlyMap<DeskEntry, string>): readonly Bout[] {
  const bearing = zones.filter(({ use }) => use === 'bear').map(({ id }) => id);
  return betweenMeasures(entries).flatMap(({ before, after, passes: all }): Bout[] => {
    const passes = all.filter(removes);
    const count = (id: string, grade?: Grade): number =>
      passes.filter(({ content }) => content.zone === id && (grade === undefined || content.grade === grade)).length;
    const ordered = [...bearing].sort((one, other) => count(one) - count(other));
    const [least, most] = [ordered[0], ordered.at(-1)];
    const over = only(passes.map(({ content }) => content.kind));
    if (!aim || most === undefined || count(most) - count(least) < 1 || over === null) return [];
    const went = Math.abs(before.content.value - aim.wanted) - Math.abs(after.content.value - aim.wanted);
    const doubt = Math.hypot(before.content.doubt, after.content.doubt);
    if (went <= doubt) return [];
    const more = (['rough', 'fine'] as const).map((grade) => count(most, grade) - count(least, grade)) as [number, number];
    const [by, blade] = [only(passes.map((pass) => pass.by)), only(passes.map((pass) => blades.get(pass) ?? null))];
    return [{ more, over: over as Over, took: went / aim.lever, doubt: doubt / 2 / Math.abs(aim.lever), by, blade, at: after.at }];
  });
}

/**
 * Depths of a pass that were learned between two measurements: what the aim went by over its lever and over the passes that
 * one side had more than the other; oldest first. Where both grades were made they are two unknowns: least squares over all bouts of
 * that hand so far, with the usual depths to begin with. Whole zones and blue only at once teach neither; nor does what is smaller
 * than its doubt.
 */
export function learnedPasses(surface: Surface, entries: readonly DeskEntry[], blades = bladesOf(entries)): readonly LearnedPass[] {
  const believed = new Map<string, Believed>();
  return boutsOf(surface, entries, blades).flatMap(({ more, took, doubt, ...bout }): LearnedPass[] => {
    const hand = `${bout.over}\n${bout.by}\n${bout.blade}`;
    const now = believing(believed.get(hand) ?? usualOf(surface), more, took, doubt);
    believed.set(hand, now);
    const learned = (grade: Grade, depth: number): LearnedPass => ({ ...bout, depth, grade, material: surface.material });
    const [rough, fine] = more;
    if (fine === 0) return [learned('rough', took / rough)];
    if (rough === 0) return [learned('fine', took / fine)];
    return now.rough > 0 && now.fine > 0 ? [learned('rough', now.rough), learned('fine', now.fine)] : [];
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
