import type { PlanChange, PlanItem, PlannedPerson } from '@isometra/contract';
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

/**
 * The same, with the minutes of whoever does each thing, as far as that is settled: somebody who is named alone for it, or the only person
 * that is planned with.
 *
 * @param known with the minutes of everybody.
 */
export function jobItemsBy(
  known: KnownToDo,
  changes: readonly PlanChange[],
  people: readonly Pick<PlannedPerson, 'id'>[],
): readonly PlanItem[] {
  const itemsOf = (by: string): readonly PlanItem[] => jobItems({ ...known, takes: (asked) => known.takes({ by, ...asked }) });
  const named = new Map(changes.flatMap(({ key, who }) => (who?.length === 1 ? [[key, who[0]] as const] : [])));
  const byWhom = new Map([...new Set(named.values())].map((id) => [id, new Map(itemsOf(id).map((one) => [one.key, one]))] as const));
  const all = people.length === 1 ? itemsOf(people[0].id) : jobItems(known);
  return all.map((one) => byWhom.get(named.get(one.key) ?? '')?.get(one.key) ?? one);
}

const OF_A_RUNG: readonly PlanItem['kind'][] = ['read', 'move'];

/** The check that an item of the ladder is about. */
const checkOf = ({ key, kind }: PlanItem): string | undefined => (OF_A_RUNG.includes(kind) ? key.split(' ')[1] : undefined);
