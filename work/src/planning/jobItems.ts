import type { PlanItem } from '@isometra/contract';
import { ladderItems } from './ladderItems.js';
import { otherItems } from './otherItems.js';
import type { KnownToDo } from './toDo.js';

/**
 * Everything that is left to do on a machine, in working order: parts and planned changes first, then the rungs of its survey (after a
 * machine that is apart has been put together), each face before the rung that it is scraped true by, then what stands in notes. Kit goes
 * for its certificate only where something of the plan is read with it. No list is typed.
 */
export function jobItems(known: KnownToDo): readonly PlanItem[] {
  const { before, faces, kit, beside, together } = otherItems(known);
  const ladder = ladderItems(known, together);
  const wanted = new Set(ladder.flatMap(({ after }) => after));
  const placed = new Set<string | null>();
  const rungs = ladder.flatMap((item) => {
    const check = checkOf(item);
    if (check === undefined || placed.has(check)) return [item];
    placed.add(check);
    return [...(faces.get(check) ?? []), item];
  });
  const others = [...faces].flatMap(([check, items]) => (placed.has(check) ? [] : items));
  return [...kit.filter(({ key }) => wanted.has(key)), ...before, ...others, ...rungs, ...beside];
}

const OF_A_RUNG: readonly PlanItem['kind'][] = ['read', 'move'];

/** The check that an item of the ladder is about. */
const checkOf = ({ key, kind }: PlanItem): string | undefined => (OF_A_RUNG.includes(kind) ? key.split(' ')[1] : undefined);
