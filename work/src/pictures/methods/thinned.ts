/** So many places can be told apart on a drawing; of more, their figures lie on one another. */
export const MOST_DRAWN = 64;
/** Places before and after the one that is read, all of which are drawn. */
const NEAR = 10;

interface Place {
  readonly keys: Readonly<Record<string, unknown>>;
}

/** What a place has in common with those beside it: everything but where along the part it lies. */
function rowOf({ keys }: Place): string {
  const { at: _at, ...others } = keys;
  return JSON.stringify(others);
}

/**
 * Places that are drawn of very many: those about the one that is read now, and of each row the first, the last and as many
 * between them as there is room for. In the order in which they came.
 *
 * @param next which of them is read now; −1 for none.
 */
export function thinned<Of extends Place>(places: readonly Of[], next: number): readonly Of[] {
  if (places.length <= MOST_DRAWN) return places;
  const rows = new Map<string, Of[]>();
  for (const place of places) {
    const row = rowOf(place);
    const known = rows.get(row);
    if (known) known.push(place);
    else rows.set(row, [place]);
  }
  const keep = new Set(next < 0 ? [] : places.slice(Math.max(0, next - NEAR), next + NEAR + 1));
  const each = Math.max(2, Math.floor((MOST_DRAWN - 2 * NEAR) / rows.size));
  for (const row of rows.values()) {
    const step = Math.max(1, (row.length - 1) / (each - 1));
    for (let i = 0; i < row.length - 0.5; i += step) keep.add(row[Math.round(i)]);
    keep.add(row[row.length - 1]);
  }
  return places.filter((place) => keep.has(place));
}
