import { FaultError } from './faults.js';

/** No sheet of ours is nested deeper: beyond this nothing is read, because reading would only overflow. */
const DEEPEST = 32;

/**
 * Refuse what is nested too deeply, before anything walks through it.
 *
 * @throws FaultError at the path where it goes too deep.
 */
export function refuseDeep(raw: unknown): void {
  const waiting: { readonly value: unknown; readonly depth: number; readonly path: string }[] = [{ value: raw, depth: 0, path: '' }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { value, depth, path } = next;
    if (typeof value !== 'object' || value === null) continue;
    if (depth > DEEPEST)
      throw new FaultError([{ path: path.slice(0, 200), message: `is nested deeper than ${DEEPEST} levels`, example: 'a plain value' }]);
    for (const key of Object.keys(value)) {
      const part = (value as Readonly<Record<string, unknown>>)[key];
      if (typeof part === 'object' && part !== null)
        waiting.push({ value: part, depth: depth + 1, path: depth < 3 ? (path ? `${path}.${key}` : key) : path });
    }
  }
}
