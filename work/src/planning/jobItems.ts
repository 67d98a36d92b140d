import type { PlanItem } from '@isometra/contract';
import { ladderItems } from './ladderItems.js';
import { otherItems } from './otherItems.js';
import type { KnownToDo } from './toDo.js';

/**
 * Everything that is left to do on a machine, in working order: certificates, faces, planned changes and parts first, then the rungs of its
 * survey (after a machine that is apart has been put together), then what stands in notes. No list is typed.
 */
export function jobItems(known: KnownToDo): readonly PlanItem[] {
  const { before, beside, together } = otherItems(known);
  return [...before, ...ladderItems(known, together), ...beside];
}
