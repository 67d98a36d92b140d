/** A connected patch: how large, px, and one place in it. */
export interface Patch {
  readonly surface: number;
  readonly at: number;
}

/** The number a label stands for, with every label on the way there shortened. */
function rootOf(parents: Int32Array, label: number): number {
  let root = label;
  while (parents[root] !== root) {
    parents[root] = parents[parents[root]];
    root = parents[root];
  }
  return root;
}

/**
 * Connected patches of a mask, corners counting as connected, largest labels joined as they meet (two passes, union–find).
 * Patches smaller than `least` px are taken off the mask.
 */
export function patchesOf(mask: Uint8Array, width: number, height: number, least: number): Patch[] {
  const { labels, parents, last } = labelled(mask, width, height);
  const sizes = new Int32Array(last + 1);
  const places = new Int32Array(last + 1);
  for (let i = 0; i < labels.length; i++) {
    if (!labels[i]) continue;
    const root = rootOf(parents, labels[i]);
    labels[i] = root;
    if (sizes[root]++ === 0) places[root] = i;
  }
  for (let i = 0; i < labels.length; i++) if (labels[i] && sizes[labels[i]] < least) mask[i] = 0;
  const patches: Patch[] = [];
  for (let label = 1; label <= last; label++)
    if (sizes[label] >= least && sizes[label] > 0) patches.push({ surface: sizes[label], at: places[label] });
  return patches;
}

/** Two labels that turned out to be one patch have the lower root. */
function join(parents: Int32Array, one: number, other: number): void {
  const [a, b] = [rootOf(parents, one), rootOf(parents, other)];
  parents[Math.max(a, b)] = Math.min(a, b);
}

/** The label of a place from its four neighbours before; 0 where none has one. In the first row nothing is above. */
function labelFrom(labels: Int32Array, parents: Int32Array, width: number, x: number, i: number): number {
  const above = labels[i - width] || 0;
  if (above) return above;
  const before = x > 0 ? labels[i - width - 1] || labels[i - 1] : 0;
  // What is above joins what is beside it already; only the one above to the right can bring two together.
  const aboveRight = x + 1 < width ? labels[i - width + 1] || 0 : 0;
  if (before && aboveRight) join(parents, before, aboveRight);
  return before || aboveRight;
}

/** The first pass: a label for each place of the mask, and which labels turned out to be one patch. */
function labelled(mask: Uint8Array, width: number, height: number) {
  const labels = new Int32Array(mask.length);
  // A label is new only where none of the four neighbours before has one: at most every second place of every second row.
  const parents = new Int32Array((((width + 1) >> 1) * ((height + 1) >> 1) || 1) + 1);
  let last = 0;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      if (!mask[i]) continue;
      labels[i] = labelFrom(labels, parents, width, x, i);
      if (labels[i]) continue;
      labels[i] = ++last;
      parents[last] = last;
    }
  return { labels, parents, last };
}
