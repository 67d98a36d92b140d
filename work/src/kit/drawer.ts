import { parseQuantity } from '@isometra/core';

interface ShimRow {
  readonly thickness: string | number;
  readonly count: number;
}

/** Leaves that a shim plan uses, µm: of one pile, or of those under the front and the rear of a base. */
export function leavesUsed(plan: Readonly<Record<string, unknown>>): number[] {
  const piles = [plan, plan['frontLeaves'], plan['rearLeaves']] as ({ readonly leaves?: unknown } | undefined)[];
  return piles.flatMap((pile) => (Array.isArray(pile?.leaves) ? (pile.leaves as number[]) : []));
}

/** A drawer of the shop, with what lies in it. */
export interface Drawer {
  readonly id: string;
  readonly stock: readonly ShimRow[];
}

const thick = ({ thickness }: ShimRow): number => {
  const parsed = parseQuantity(thickness, 'deviation');
  return parsed.ok ? parsed.value : NaN;
};

/**
 * Drawers after leaves were taken out of them (`by` −1) or put back (`by` 1): each leaf from the first drawer that
 * has one of its thickness, whatever unit that was typed in. A leaf that no drawer has is not taken.
 *
 * @returns the drawers that changed.
 */
export function leavesMoved(drawers: readonly Drawer[], leaves: readonly number[], by: 1 | -1): Drawer[] {
  const rows = drawers.map(({ id, stock }) => ({ id, stock: stock.map((row) => ({ ...row })), changed: false }));
  for (const leaf of leaves) {
    for (const drawer of rows) {
      const row = drawer.stock.find((entry) => Math.abs(thick(entry) - leaf) < 1e-6 && entry.count + by >= 0);
      if (!row) continue;
      row.count += by;
      drawer.changed = true;
      break;
    }
  }
  return rows.filter(({ changed }) => changed).map(({ id, stock }) => ({ id, stock }));
}
