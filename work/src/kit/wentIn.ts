import { hasUnit, MOVES, parseQuantity } from '@isometra/core';
import type { MoveWrite } from '@isometra/contract';
import { leavesUsed } from './drawer.js';

/** Leaves as somebody says them, µm; or what is wrong with it, and what would do. */
export type Leaves = { readonly ok: true; readonly leaves: readonly number[] } | { readonly ok: false; readonly message: string };

const TRY = 'Example: 0.05 + 0.02 mm';
/** More than this is no shim. */
const THICKEST = 20_000;

/**
 * "0.05 + 0.02 mm", "2 thou and 1 thou", "2 x 0.05 mm": each leaf by itself. A leaf without a unit has that of the
 * next one that has; one at least must be told. "nothing" is no leaf.
 */
export function leavesOf(text: string): Leaves {
  const plain = text.trim();
  if (/^(nothing|none|0)$/i.test(plain)) return { ok: true, leaves: [] };
  const parts = plain.split(/\s*(?:\+|&|;|\band\b)\s*/i).filter(Boolean);
  if (parts.length === 0) return { ok: false, message: `What went in is missing. ${TRY}` };
  const leaves: number[] = [];
  for (const [i, part] of parts.entries()) {
    const [, times, size] = /^(?:(\d{1,2})\s*[x×*]\s*)?(.+)$/i.exec(part) ?? [];
    const unit = parts.slice(i).map(unitOf).find(Boolean) ?? parts.map(unitOf).filter(Boolean).at(-1);
    if (!unit) return { ok: false, message: `"${part}" has no unit. ${TRY}` };
    const parsed = parseQuantity(hasUnit(size) ? size : `${size} ${unit}`, 'deviation');
    if (!parsed.ok || parsed.value <= 0 || parsed.value > THICKEST) return { ok: false, message: `"${part}" is no leaf of shim. ${TRY}` };
    leaves.push(...Array.from({ length: Number(times ?? 1) }, () => parsed.value));
  }
  return { ok: true, leaves };
}

const unitOf = (part: string): string | undefined => /[a-zµ"]+\s*$/i.exec(part)?.[0].trim();

/** The leaves that a move leaves in the machine, none once they were taken out again: those that really went in where somebody said so, or those of its plan. */
export const leavesIn = ({ kind, plan, made }: Pick<MoveWrite, 'kind' | 'plan' | 'made'>): readonly number[] =>
  MOVES.get(kind)?.leaves === true && !made?.takenOut ? (made?.wentIn ?? leavesUsed(plan)) : [];

/**
 * How much of what was wanted the leaves of a plan do, or a sleeve as far as it goes: 1 where they make it exactly, 1.06 where the
 * nearest pile is thicker by so much.
 * A needle that is watched goes as far as the leaves, not as far as was wished.
 */
export function partReached(kind: string, plan: MoveWrite['plan'], amount: number): number {
  // A sleeve that comes to its end before all of it is done.
  if (typeof plan['reach'] === 'number' && amount !== 0) return plan['reach'] / amount;
  const leaves = leavesUsed(plan);
  if (MOVES.get(kind)?.leaves !== true || !Array.isArray(plan['leaves']) || leaves.length === 0) return 1;
  const total = leaves.reduce((sum, leaf) => sum + leaf, 0);
  const [shim, error] = [plan['shim'], plan['error']];
  const wanted = typeof shim === 'number' ? shim : typeof error === 'number' ? total - error : total;
  const does = (pile: number): number => MOVES.get(kind)?.carries?.(plan, pile) ?? pile;
  const part = does(total) / does(wanted);
  return Number.isFinite(part) && part > 0 ? part : 1;
}

/** What a move really was, signed like its quantity: by the leaves that went in where one pile was wanted, or else as planned. */
export function reallyMoved({ kind, amount, unit, made, plan }: Pick<MoveWrite, 'kind' | 'amount' | 'unit' | 'made' | 'plan'>): number {
  const move = MOVES.get(kind);
  if (typeof plan['reach'] === 'number') return plan['reach'];
  if (!made?.wentIn || unit !== 'um' || move?.leaves !== true || !('leaves' in plan)) return amount;
  const total = made.wentIn.reduce((sum, leaf) => sum + leaf, 0);
  return Math.sign(amount) * (move.carries?.(plan, total) ?? total);
}
