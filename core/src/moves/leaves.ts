import * as z from 'zod';
import { fieldRegistry, measure } from '../input/fields.js';
import { figure, listOf, maybe } from './answer.js';
import type { PlanWords } from './jobSteps.js';

/** Shim stock of one thickness (µm) and how many leaves of it there are. */
export interface Stock {
  readonly thickness: number;
  readonly count: number;
}

interface Pile {
  readonly leaves: readonly number[];
  readonly total: number;
}

/** A few leaves, as how many of each thickness: thicknesses by index, not falling. */
interface Handful {
  readonly indices: readonly number[];
  readonly total: number;
}

/** Every handful of so many leaves that the stock allows. */
function handfuls(stock: readonly Stock[], leaves: number): Handful[] {
  const all: Handful[] = [{ indices: [], total: 0 }];
  let grown = all.slice();
  for (let size = 1; size <= leaves; size++) {
    grown = grown.flatMap(({ indices, total }) => {
      const from = indices[indices.length - 1] ?? 0;
      return stock.slice(from).flatMap(({ thickness, count }, k): Handful[] => {
        const index = from + k;
        const used = indices.reduce((sum, other) => sum + (other === index ? 1 : 0), 0);
        return used < count ? [{ indices: [...indices, index], total: total + thickness }] : [];
      });
    });
    all.push(...grown);
  }
  return all;
}

/**
 * The piles of a number of leaves that come nearest to a thickness from below and from above. Piles are put
 * together from two handfuls of at most three, so that six leaves out of sixty thicknesses take no time.
 */
function nearestPiles(stock: readonly Stock[], halves: readonly Handful[], size: number, thickness: number): Pile[] {
  const first = halves.filter(({ indices }) => indices.length === size >> 1);
  const second = halves.filter(({ indices }) => indices.length === size - (size >> 1)).sort((a, b) => a.total - b.total);
  let below: Pile | undefined;
  let above: Pile | undefined;
  const pileOf = (one: Handful, other: Handful): Pile | undefined => {
    const indices = [...one.indices, ...other.indices];
    const enough = indices.every((index) => indices.filter((entry) => entry === index).length <= stock[index].count);
    return enough
      ? { leaves: indices.map((index) => stock[index].thickness).sort((a, b) => b - a), total: one.total + other.total }
      : undefined;
  };
  for (const one of first) {
    const wanted = thickness - one.total;
    let [low, high] = [0, second.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (second[middle].total <= wanted + CLOSE) low = middle + 1;
      else high = middle;
    }
    for (let k = low - 1; k >= 0 && (!below || one.total + second[k].total > below.total + CLOSE); k--) {
      const pile = pileOf(one, second[k]);
      if (pile) {
        below = pile;
        break;
      }
    }
    for (let k = low; k < second.length && (!above || one.total + second[k].total < above.total - CLOSE); k++) {
      const pile = pileOf(one, second[k]);
      if (pile) {
        above = pile;
        break;
      }
    }
  }
  return [below, above].filter((pile) => pile !== undefined);
}

const CLOSE = 1e-9;

/**
 * Choose leaves for a thickness: the fewest within tolerance, and of those the nearest.
 *
 * @param thickness µm, positive. @param tolerance ± µm.
 * @returns leaves thickest first with total and error (total − thickness), or the nearest piles
 *   below and above when nothing fits (null where there is none).
 */
export function chooseLeaves(thickness: number, stock: readonly Stock[], tolerance = 5, maxLeaves = 4) {
  const merged = mergeStock(stock);
  const halves = handfuls(merged, Math.ceil(maxLeaves / 2));
  let below: Pile | undefined;
  let above: Pile | undefined;
  for (let size = 1; size <= maxLeaves; size++) {
    const piles = nearestPiles(merged, halves, size, thickness);
    const fitting = piles
      .filter(({ total }) => Math.abs(total - thickness) <= tolerance + CLOSE)
      .sort((a, b) => Math.abs(a.total - thickness) - Math.abs(b.total - thickness));
    if (fitting.length) return { leaves: fitting[0].leaves, total: fitting[0].total, error: fitting[0].total - thickness };
    for (const pile of piles) {
      if (pile.total < thickness && better(pile, below, thickness)) below = pile;
      if (pile.total > thickness && better(pile, above, thickness)) above = pile;
    }
  }
  return { leaves: null, below: described(below, thickness), above: described(above, thickness) };
}

function better(pile: Pile, than: Pile | undefined, thickness: number): boolean {
  if (!than) return true;
  const [a, b] = [Math.abs(pile.total - thickness), Math.abs(than.total - thickness)];
  return a < b - CLOSE || (a < b + CLOSE && pile.leaves.length < than.leaves.length);
}

function described(pile: Pile | undefined, thickness: number) {
  return pile ? { leaves: pile.leaves, total: pile.total, error: pile.total - thickness } : null;
}

function mergeStock(stock: readonly Stock[]): Stock[] {
  const counts = new Map<number, number>();
  for (const { thickness, count } of stock) counts.set(thickness, (counts.get(thickness) ?? 0) + count);
  return [...counts].map(([thickness, count]) => ({ thickness, count }));
}

export const stockSchema = z
  .array(
    z.strictObject({
      thickness: measure('deviation', { label: 'Thickness of one leaf', above: 0, example: '0.05 mm' }),
      count: z
        .preprocess(
          // As it is typed in a form.
          (raw) => (typeof raw === 'string' && /^\s*\d+\s*$/.test(raw) ? Number(raw) : raw),
          z.int({ error: 'must be a whole number of leaves' }).min(0, { error: 'must be 0 or more leaves' }).max(999),
        )
        .register(fieldRegistry, { label: 'Leaves of this thickness', example: '4' }),
    }),
  )
  .max(60, { error: 'must have at most 60 thicknesses' })
  .register(fieldRegistry, { label: 'Shim stock', group: true });

const nearPile = (label: string) =>
  z
    .object({
      leaves: listOf(figure('deviation', 'Leaf'), 'Leaves, thickest first'),
      total: figure('deviation', 'Together'),
      error: figure('deviation', 'Together, less what is wanted'),
    })
    .nullish()
    .register(fieldRegistry, { label });

/** What choosing leaves answers: a pile that fits, or the nearest below and above it. */
export const leavesAnswer = {
  leaves: listOf(figure('deviation', 'Leaf'), 'Leaves, thickest first; null where no pile fits').nullish(),
  total: maybe('deviation', 'Leaves together'),
  error: maybe('deviation', 'Leaves together, less what is wanted'),
  below: nearPile('Nearest pile below, where none fits'),
  above: nearPile('Nearest pile above, where none fits'),
};
type LeavesAnswer = z.output<z.ZodObject<typeof leavesAnswer>>;

type LeafWords = Pick<PlanWords, 'size' | 'landsIn'>;

const pileWords = (leaves: readonly number[], words: LeafWords): string => leaves.map(words.size).join(' + ');

/**
 * Leaves in words: "0.100 mm + 0.020 mm", '' for none at all; where none fit, the nearest below and above. Undefined where leaves
 * were not chosen.
 *
 * @param carries how far a total thickness, µm, carries the part; for whether that brings it into its limits.
 */
export function leavesWords(plan: LeavesAnswer, words: LeafWords, carries = (total: number): number => total): string | undefined {
  const { leaves, below, above } = plan;
  if (leaves === undefined) return undefined;
  if (leaves) return pileWords(leaves, words);
  const lands = (total: number): string => (words.landsIn ? (words.landsIn(carries(total)) ? ', within limits' : ', still out') : '');
  const near = [
    ...(below ? [`${pileWords(below.leaves, words)} (${words.size(below.total)}, too thin${lands(below.total)})`] : []),
    ...(above ? [`${pileWords(above.leaves, words)} (${words.size(above.total)}, too thick${lands(above.total)})`] : []),
  ];
  return near.length ? `nothing in the drawer fits; nearest ${near.join(' or ')}` : 'nothing in the drawer fits';
}

/** The leaves of any plan in words, as `leavesWords` has them. */
export const planLeavesWords = (plan: Readonly<Record<string, unknown>>, words: LeafWords): string | undefined =>
  leavesWords(z.object(leavesAnswer).safeParse(plan).data ?? {}, words);
