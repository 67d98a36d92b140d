import { CHECKS, MOVES, type Finding } from '@isometra/core';
import { hasAll } from '@isometra/contract';

/**
 * Whether a kind of move can be made on a kind of machine: it has what is moved, and metal comes off only what slides on itself, never
 * linear guides.
 */
export function doable(kind: string, machineKind: string, check: string): boolean {
  const move = MOVES.get(kind);
  const worked = hasAll(machineKind, CHECKS.get(check)?.part?.needs);
  return hasAll(machineKind, move?.needs) && (worked || !move?.metal);
}

/** A finding with the moves that can be made on a kind of machine: a slide on linear guides is not scraped. */
export function onMachine(finding: Finding, machineKind: string): Finding {
  const moves = finding.moves.filter(({ kind }) => doable(kind, machineKind, finding.check));
  return moves.length === finding.moves.length ? finding : { ...finding, moves };
}
