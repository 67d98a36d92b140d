import type { DeskEntry, EntryKind, Surface, Zone } from '@isometra/contract';

export type Of<Kind extends EntryKind> = Extract<DeskEntry, { kind: Kind }>;
export type Grade = Of<'pass'>['content']['grade'];

/** Entries of one kind, in order. */
export const ofKind = <Kind extends EntryKind>(entries: readonly DeskEntry[], kind: Kind): Of<Kind>[] =>
  entries.filter((entry): entry is Of<Kind> => entry.kind === kind);

/** Whether somebody said with it that this evening is done. */
export const endsEvening = ({ kind }: DeskEntry): boolean => kind === 'done';

const orders = new WeakMap<readonly DeskEntry[], ReadonlyMap<DeskEntry, number>>();

/** The place of an entry among all; −1 where it is not among them. Counted once for a list: months of passes are many. */
export function placeIn(all: readonly DeskEntry[], entry: DeskEntry | undefined): number {
  let order = orders.get(all);
  if (!order) {
    order = new Map(all.map((known, i) => [known, i]));
    orders.set(all, order);
  }
  return (entry && order.get(entry)) ?? -1;
}

/** Those of some that came after one of all; all of them where there is none. */
export const since = <Entry extends DeskEntry>(
  entries: readonly Entry[],
  start: DeskEntry | undefined,
  all: readonly DeskEntry[],
): readonly Entry[] => {
  const from = placeIn(all, start);
  return entries.filter((entry) => placeIn(all, entry) > from);
};

/** What was learned lately tells more than what was long ago: so many of the newest count. */
export const NEWEST = 5;

/** Two measurements, one after the other, and the passes made between them. */
export interface Between {
  readonly before: Of<'measure'>;
  readonly after: Of<'measure'>;
  readonly passes: readonly Of<'pass'>[];
}

/** Every two measurements that follow one another, oldest first. */
export function betweenMeasures(entries: readonly DeskEntry[]): readonly Between[] {
  const measures = ofKind(entries, 'measure');
  return measures.slice(1).map((after, i) => ({
    before: measures[i],
    after,
    passes: ofKind(entries.slice(placeIn(entries, measures[i]), placeIn(entries, after)), 'pass'),
  }));
}

const BEARS = 0.03;
const ONE_ONLY = 0.3;

/** Whether of two prints of one place only one shows that it bears there: parts of it that are blue. */
export const onlyOneBears = (one: number, other: number): boolean =>
  Math.max(one, other) > BEARS && Math.min(one, other) < ONE_ONLY * Math.max(one, other);

/** Whether a straightedge is too short for all of its face at once: it takes bites. */
export const takesBites = ({ width, reference }: Pick<Surface, 'width' | 'reference'>): boolean => reference.length + 0.5 < width;

/** Whether end A of a face is at the right as the face lies. */
export const endAAtRight = ({ turned, mirrored }: Pick<Surface, 'turned' | 'mirrored'>): boolean => (turned === 180) !== mirrored;

/** The prints of the blue that is on it now: the last one, and the last with each end pressed. */
export function printsOfBlue(entries: readonly DeskEntry[]): {
  readonly last?: Of<'print'>;
  readonly a?: Of<'print'>;
  readonly b?: Of<'print'>;
} {
  const prints = since(ofKind(entries, 'print'), ofKind(entries, 'blue').at(-1), entries);
  const by = (end: 'A' | 'B') => prints.findLast(({ content }) => content.pressed === end);
  return { last: prints.at(-1), a: by('A'), b: by('B') };
}

/** Whether a print can tell of a zone: a straightedge that is shorter than the face reached all of it, but for a sliver. */
export function reached({ outline }: Zone, { bite }: Of<'print'>['content']): boolean {
  if (!bite) return true;
  const xs = outline.map(({ x }) => x);
  const [least, most] = [Math.min(...xs), Math.max(...xs)];
  const seen = Math.min(most, bite.from + bite.length) - Math.max(least, bite.from);
  return seen >= REACHED * (most - least);
}
const REACHED = 0.8;

/** A face with what stands of it, and the depth of a pass as far as it is known. */
export interface Known {
  readonly surface: Surface;
  readonly entries: readonly DeskEntry[];
  /** Depth of the passes to come, µm, by the hand and the blade that are at it now. */
  readonly pass: Readonly<Record<Grade, { readonly depth: number }>>;
  /** Depth that a pass took, µm, by the hand and the blade that made it. */
  readonly took: (pass: Of<'pass'>) => number;
}

/** Middle of a zone along the face, mm from end A. */
export const middleOf = ({ outline }: Zone): { readonly x: number; readonly y: number } => ({
  x: (Math.min(...outline.map(({ x }) => x)) + Math.max(...outline.map(({ x }) => x))) / 2,
  y: (Math.min(...outline.map(({ y }) => y)) + Math.max(...outline.map(({ y }) => y))) / 2,
});

/** Passes that bring a zone down; relief is another depth, and breaking up none. */
export const removes = ({ content }: Of<'pass'>): boolean => content.kind === 'whole' || content.kind === 'blue-only';

/** What passes have taken off a zone, µm. */
export const taken = (passes: readonly Of<'pass'>[], zone: string, { took }: Pick<Known, 'took'>): number =>
  passes.filter((entry) => entry.content.zone === zone && removes(entry)).reduce((sum, entry) => sum + took(entry), 0);
