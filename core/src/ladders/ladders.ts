import type { CheckDefinition, MachineFamily } from '../checks/define.js';
import { CHECKS, ladderOf } from '../checks/registry.js';

const idsOf = (family: MachineFamily): string[] => ladderOf(family).map(({ id }) => id);

/** Default order of work by kind of machine, from what each check depends on. Source: docs/methods/ladders.md. */
export const LADDERS: Readonly<Record<MachineFamily, readonly string[]>> = {
  lathe: idsOf('lathe'),
  mill: idsOf('mill'),
  'turning-centre': idsOf('turning-centre'),
};

const title = (id: string): string => CHECKS.get(id)?.title ?? id;

/** Checks whose moves move the same thing: the same casting under another question, or the same question asked another way. */
function moveTheSame(one: CheckDefinition, other: CheckDefinition): boolean {
  return (
    one.id === other.id ||
    (one.casting !== undefined && one.casting === other.casting) ||
    (one.sameQuestion !== undefined && one.sameQuestion === other.sameQuestion)
  );
}

/**
 * Whether a move on one check makes the result of another worthless: the other depends on it, asks the same
 * question, or reads the same casting; and what depends on that casting.
 */
export function upsets(moved: CheckDefinition, other: string): boolean {
  const check = CHECKS.get(other);
  if (!check || check.id === moved.id) return false;
  if (moveTheSame(moved, check)) return true;
  const together = [...CHECKS.values()].filter((entry) => moveTheSame(moved, entry));
  return together.some(({ id }) => check.hangsOn.includes(id));
}

/** The rungs that a move on a check makes stale. */
export const upsetBy = (moved: CheckDefinition): string[] => [...CHECKS.keys()].filter((id) => upsets(moved, id));

/**
 * What is wrong with an order of rungs: for each rung, those it depends on that stand below it. Two rungs that
 * depend on each other may stand either way round.
 *
 * @param order check ids in working order.
 * @returns by rung, the rungs that should come before it; nothing for a rung that stands well.
 */
export function misplaced(order: readonly string[]): ReadonlyMap<string, readonly string[]> {
  const found = new Map<string, string[]>();
  for (const [i, id] of order.entries()) {
    const later = order.slice(i + 1).filter((other) => CHECKS.get(id)?.hangsOn.includes(other) && !CHECKS.get(other)?.hangsOn.includes(id));
    if (later.length) found.set(id, later);
  }
  return found;
}

/** The same in a sentence; empty when the rung stands well. */
export function misplacedText(id: string, later: readonly string[] | undefined): string {
  if (!later?.length) return '';
  const names = later.map((other) => `“${title(other)}”`);
  return `${title(id)} depends on ${names.join(' and ')}, which ${later.length > 1 ? 'come' : 'comes'} after it: a move there would upset it.`;
}

const idsWhere = (use: (check: CheckDefinition) => boolean): string[] => [...CHECKS.values()].filter(use).map(({ id }) => id);
/** What sets the bearings, and what reads the casting that they carry. */
const BEARINGS = idsWhere((check) => check.setsBearings === true);
const CARRIED = [...CHECKS.values()].filter((check) => check.hangsOn.some((id) => BEARINGS.includes(id)));
const AXIS = idsWhere((check) => check.casting !== undefined && CARRIED.some(({ casting }) => casting === check.casting));

/** Whether the bearings are lifted and set before the axis is read; undefined where an order has not both. */
export function bearingsFirst(order: readonly string[]): boolean | undefined {
  const play = order.findIndex((id) => BEARINGS.includes(id));
  const axis = order.findIndex((id) => AXIS.includes(id));
  return play < 0 || axis < 0 ? undefined : play < axis;
}

/**
 * The same order with the bearings before the headstock, or after it: then what the bearings will still
 * drop is a planned change of the axis.
 */
export function withBearings(order: readonly string[], first: boolean): string[] {
  if (bearingsFirst(order) === undefined || bearingsFirst(order) === first) return [...order];
  const rest = order.filter((id) => !BEARINGS.includes(id));
  const play = order.filter((id) => BEARINGS.includes(id));
  const axis = rest.flatMap((id, place) => (AXIS.includes(id) ? [place] : []));
  const carried = rest.findIndex((id) => CARRIED.some((check) => check.id === id));
  const place = first ? Math.min(...axis, carried < 0 ? Infinity : carried) : Math.max(...axis) + 1;
  return [...rest.slice(0, place), ...play, ...rest.slice(place)];
}
