/** Where something lies where it is drawn, in the units of the drawing or px. */
export interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** A label where it was drawn. */
export interface Lying extends Box {
  /** 1 where a reading gives way down, away from its mark; −1 where it does so up; 0 for words of the drawing, which come after readings. */
  readonly gives: 1 | -1 | 0;
}

/** How a label gives way: px down and to the right; undefined where no place is free and it is left out. */
export type Cleared = { readonly down: number; readonly right: number } | undefined;

/** px that two boxes may share: the empty rim round letters. */
const RIM = 2;
/** px by which letters may stand over the edge of their drawing. */
const EDGE = 4;
/** More labels than a drawing has room for. */
export const MANY = 120;
/** Lines that are tried, + away from the mark. */
const LINES = [0, 1, -1, 2, -2, 3];
/** Then the same beside it, in parts of its width. */
const BESIDE = [0, -0.5, 0.5, -1, 1];

const meet = (one: Box, other: Box): boolean =>
  one.left + RIM < other.right && other.left + RIM < one.right && one.top + RIM < other.bottom && other.top + RIM < one.bottom;

/** Height of a line, px: the next one just clears this one. */
const lineOf = ({ top, bottom }: Box): number => bottom - top - RIM;

export const movedBy = (box: Box, down: number, right: number): Box => ({
  left: box.left + right,
  right: box.right + right,
  top: box.top + down,
  bottom: box.bottom + down,
});

const within = (box: Box, edge: Box): boolean =>
  box.top >= edge.top - EDGE && box.bottom <= edge.bottom + EDGE && box.left >= edge.left - EDGE && box.right <= edge.right + EDGE;

/**
 * How each label gives way so that none lies on another, on a mark or over the edge: readings first in their order, each on the nearest
 * free line, rather away from its mark; then the words of the drawing. What finds no place is left out: the table and the names of the
 * marks say it too.
 *
 * @param edge of the drawing. @param marks which no label may lie on.
 * @example two labels in one place, both below their marks: nothing, and a line down.
 */
export function cleared(labels: readonly Lying[], edge: Box, marks: readonly Box[] = []): Cleared[] {
  const laid: Box[] = [...marks];
  const found = new Map<Lying, Cleared>();
  for (const label of [...labels.filter(({ gives }) => gives !== 0), ...labels.filter(({ gives }) => gives === 0)]) {
    // Words stay by what they name.
    const [beside, lines] = label.gives === 0 ? [BESIDE.slice(0, 3), LINES.slice(0, 3)] : [BESIDE, LINES];
    const tried = beside.flatMap((part) =>
      lines.map((line) => ({ down: line * (label.gives || -1) * lineOf(label) + 0, right: part * (label.right - label.left) })),
    );
    const free = tried.find(({ down, right }) => {
      const there = movedBy(label, down, right);
      return within(there, edge) && !laid.some((other) => meet(there, other));
    });
    if (free) laid.push(movedBy(label, free.down, free.right));
    found.set(label, free);
  }
  return labels.map((label) => found.get(label));
}
