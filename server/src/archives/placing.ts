import { isDeepStrictEqual } from 'node:util';
import { stateHash, type Content } from './files.js';
import type { ThingKind } from './things.js';

/** How a thing of an archive stands to the one that is here. */
export type Standing = 'same' | 'newer there' | 'newer here' | 'both changed';

const seenOf = (content: Content): readonly string[] => (content['seen'] ?? []) as readonly string[];

/**
 * Which of two states of one thing comes after the other. A state that is known to have been at the other shop was what that shop went on
 * from; where neither was, both changed it since they had it in common.
 */
export function standingOf(kind: ThingKind, ours: Content, theirs: Content): Standing {
  const [here, there] = [stateHash(kind, ours), stateHash(kind, theirs)];
  if (here === there) return 'same';
  // What nobody here has chosen gives way.
  if (kind === 'shop' && ours['by'] === null) return 'newer there';
  if (kind === 'shop' && theirs['by'] === null) return 'newer here';
  if (seenOf(theirs).includes(here)) return 'newer there';
  return seenOf(ours).includes(there) ? 'newer here' : 'both changed';
}

type State = Content & { readonly version: number };
const statesOf = (content: Content): readonly State[] => (content['earlier'] ?? []) as readonly State[];

/** Earlier states of theirs that are not kept here, under their own numbers. */
export function missingStates(ours: Content, theirs: Content): Content[] {
  const known = new Set(statesOf(ours).map(({ version }) => version));
  return statesOf(theirs).filter(({ version }) => !known.has(version));
}

/**
 * Earlier states of theirs where both went on from something in common: those that are not the same here, numbered after all of ours.
 *
 * @returns them, and the number that the state which is taken has then.
 */
export function branchedStates(ours: Content, theirs: Content): { readonly states: readonly Content[]; readonly version: number } {
  const here = new Map(statesOf(ours).map((state) => [state.version, state]));
  const other = statesOf(theirs).filter((state) => !isDeepStrictEqual(here.get(state.version)?.['state'], state['state']));
  const last = Math.max(Number(ours['version'] ?? 0), Number(theirs['version'] ?? 0), ...here.keys());
  return {
    states: other.map((state, i) => ({ ...state, version: last + 1 + i })),
    version: last + Math.max(1, other.length),
  };
}
