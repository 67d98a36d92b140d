import type { DeskEntry, EntryKind, Surface, Zone } from '@isometra/contract';

export type Of<Kind extends EntryKind> = Extract<DeskEntry, { kind: Kind }>;
export type Grade = Of<'pass'>['content']['grade'];

/** Entries of one kind, in order. */
export const ofKind = <Kind extends EntryKind>(entries: readonly DeskEntry[], kind: Kind): Of<Kind>[] =>
  entries.filter((entry): entry is Of<Kind> => entry.kind === kind);
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
