import { alongBed, CHECKS, upsets, type AlongBed } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';
import { doneMoves } from '../notebook/doneMoves.js';

/** What one quantity does along the bed. */
export interface Curve {
  readonly quantity: string;
  readonly curve: AlongBed;
}

/**
 * The curve of each quantity of a check along the bed, from the last round at each place that no move has upset since.
 * Only like goes with like: the same check, with the same thing swept. None where fewer than two places were read.
 *
 * @param rounds rounds of one survey, oldest first.
 */
export function curvesAlong(rounds: readonly RoundHead[], checkId: string): Curve[] {
  const check = CHECKS.get(checkId);
  if (!check) return [];
  const read = rounds.filter(({ check: id, conditions, finding }) => id === checkId && finding && typeof conditions['place'] === 'number');
  // One place is the rule while a round is being read: nothing else is looked at then.
  if (new Set(read.map(({ conditions }) => conditions['place'])).size < 2) return [];
  const moved = doneMoves(rounds)
    .filter((move) => move.check.id === checkId || upsets(move.check, checkId))
    .at(-1)?.doneAt;
  const fresh = read.filter(({ at }) => moved === undefined || at > moved);
  const swept = fresh.at(-1)?.conditions['swept'];
  const byPlace = new Map(
    fresh.filter(({ conditions }) => conditions['swept'] === swept).map((round) => [round.conditions['place'] as number, round]),
  );
  if (byPlace.size < 2) return [];
  return Object.keys(check.quantities).flatMap((quantity): Curve[] => {
    const found = [...byPlace].flatMap(([at, { finding }]) => {
      const told = finding?.quantities[quantity];
      return told && told.limit !== null && !told.because?.length ? [{ at, told }] : [];
    });
    const last = found.at(-1)?.told;
    if (found.length < 2 || !last?.limit) return [];
    const places = found.map(({ at, told: { value, expanded } }) => ({ at, value, expanded }));
    return [{ quantity, curve: alongBed(places, last.limit, last.aim ?? 0) }];
  });
}
