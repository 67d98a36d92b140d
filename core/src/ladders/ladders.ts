import type { CheckDefinition } from '../checks/define.js';
import { CHECKS } from '../checks/registry.js';

export type MachineFamily = 'lathe' | 'mill' | 'turning-centre';

const TAILSTOCK = ['tailstock-traverse', 'tailstock-sweep', 'tailstock-test-cut'];

/** Default order of work by kind of machine. Source: docs/methods/ladders.md. */
export const LADDERS: Readonly<Record<MachineFamily, readonly string[]>> = {
  lathe: [
    'stiffness',
    'bar-qualification',
    'bed-twist',
    'way-straightness',
    'tailstock-way-parallelism',
    'seat',
    'spindle-play',
    'spindle-runout',
    'spindle-axis',
    'chuck-test-cut',
    'centre-runout',
    'quill-parallelism',
    ...TAILSTOCK,
    'saddle-squareness',
    'dovetail-over-pins',
    'cross-slide-squareness',
  ],
  mill: [
    'stiffness',
    'table-level',
    'way-straightness',
    'seat',
    'knee-gib-play',
    'saddle-gib-play',
    'table-gib-play',
    'dovetail-over-pins',
    'table-parallelism-x',
    'table-parallelism-y',
    'motion-straightness-x',
    'motion-straightness-y',
    'axis-squareness',
    'slot-parallelism',
    'column-lean',
    'spindle-runout',
    'head-tram',
    'vice-parallelism',
  ],
  'turning-centre': [
    'stiffness',
    'bar-qualification',
    'bed-twist',
    'way-straightness',
    'tailstock-way-parallelism',
    'seat',
    'spindle-play',
    'spindle-runout',
    'spindle-axis',
    'turret-face',
    'turret-bore',
    'guide-bush',
    'sub-spindle',
    'cross-slide-squareness',
  ],
};

const title = (id: string): string => CHECKS.get(id)?.title ?? id;

/** Whether a move on one check makes the result of another worthless. */
export const upsets = (moved: CheckDefinition, other: string): boolean => moved.upsets.includes(other);

/**
 * What is wrong with an order of rungs: for each rung, those it hangs on (a move there upsets it)
 * that stand below it. Two rungs that upset each other may stand either way round.
 *
 * @param order check ids in working order.
 * @returns by rung, the rungs that should come before it; nothing for a rung that stands well.
 */
export function misplaced(order: readonly string[]): ReadonlyMap<string, readonly string[]> {
  const found = new Map<string, string[]>();
  for (const [i, id] of order.entries()) {
    const own = CHECKS.get(id);
    const later = order.slice(i + 1).filter((other) => {
      const check = CHECKS.get(other);
      return check && own && upsets(check, id) && !upsets(own, other);
    });
    if (later.length) found.set(id, later);
  }
  return found;
}

/** The same in a sentence; empty when the rung stands well. */
export function misplacedText(id: string, later: readonly string[] | undefined): string {
  if (!later?.length) return '';
  const names = later.map((other) => `“${title(other)}”`);
  return `${title(id)} hangs on ${names.join(' and ')}, which ${later.length > 1 ? 'come' : 'comes'} after it: a move there would upset it.`;
}

const AXIS = ['spindle-axis', 'chuck-test-cut'];
const PLAY = 'spindle-play';

/** Whether the bearings are lifted and set before the axis is read; undefined where an order has not both. */
export function bearingsFirst(order: readonly string[]): boolean | undefined {
  const [play, axis] = [order.indexOf(PLAY), order.indexOf(AXIS[0])];
  return play < 0 || axis < 0 ? undefined : play < axis;
}

/**
 * The same order with the bearings before the headstock, or after it: then what the bearings will still
 * drop is a planned change of the axis.
 */
export function withBearings(order: readonly string[], first: boolean): string[] {
  if (bearingsFirst(order) === undefined || bearingsFirst(order) === first) return [...order];
  const rest = order.filter((id) => id !== PLAY);
  const places = AXIS.map((id) => rest.indexOf(id)).filter((place) => place >= 0);
  const runout = rest.indexOf('spindle-runout');
  const place = first ? (runout >= 0 && runout < places[0] ? runout : places[0]) : Math.max(...places) + 1;
  return [...rest.slice(0, place), PLAY, ...rest.slice(place)];
}
