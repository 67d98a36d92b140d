import * as z from 'zod';

/** One thing wrong with an input: where, what, and what would be taken instead. */
export interface Fault {
  /** As a person would point at it: `readings[2].value`. Empty for the whole file. */
  readonly path: string;
  readonly message: string;
  readonly example: string;
}

/** More faults than this are counted, not listed. */
export const MOST_FAULTS = 50;

/** The first faults, and how many more there are. */
export function listedFaults(faults: readonly Fault[]): readonly Fault[] {
  if (faults.length <= MOST_FAULTS) return faults;
  const more = faults.length - MOST_FAULTS;
  return [...faults.slice(0, MOST_FAULTS), { path: '', message: `and ${more} more`, example: 'put these right first' }];
}

/** Thrown when an input makes no sense; carries every fault at once. */
export class FaultError extends Error {
  readonly faults: readonly Fault[];

  constructor(all: readonly Fault[]) {
    const faults = listedFaults(all);
    super(faults.map((fault) => `${fault.path}: ${fault.message}`).join('; '));
    this.faults = faults;
    this.name = 'FaultError';
  }
}

/** `['readings', 2, 'value']` → `readings[2].value`. */
export function pathText(path: readonly PropertyKey[]): string {
  let text = '';
  for (const key of path) text += typeof key === 'number' ? `[${key}]` : text === '' ? String(key) : `.${String(key)}`;
  return text;
}

/** The nearest of some known words, when it is near enough to be a typing mistake. */
export function nearest(word: string, known: readonly string[]): string | undefined {
  let best: string | undefined;
  let bestDistance = Math.max(2, Math.floor(word.length / 3)) + 1;
  for (const candidate of known) {
    const distance = editDistance(word.toLowerCase(), candidate.toLowerCase());
    if (distance < bestDistance) [best, bestDistance] = [candidate, distance];
  }
  return best;
}

function editDistance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      next[j] = Math.min(row[j] + 1, next[j - 1] + 1, row[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1));
    }
    row = next;
  }
  return row[b.length];
}

/**
 * Faults from a failed Zod parse.
 *
 * @param prefix path of the value that was parsed.
 * @param knownKeys keys that would have been taken, to name the likely one for a misspelt key.
 */
export function faultsOf(error: z.ZodError, prefix: readonly PropertyKey[], knownKeys: readonly string[] = []): Fault[] {
  return error.issues.flatMap((issue) => {
    const path = [...prefix, ...issue.path];
    if (issue.code === 'unrecognized_keys') return issue.keys.map((key) => unknownKey([...path, key], issue.path.length ? [] : knownKeys));
    const example = issue.code === 'custom' && typeof issue.params?.['example'] === 'string' ? issue.params['example'] : exampleFor(issue);
    return [{ path: pathText(path), message: issue.message, example }];
  });
}

/** The fault of a key that nothing reads. */
export function unknownKey(path: readonly PropertyKey[], known: readonly string[]): Fault {
  const key = String(path[path.length - 1]);
  const near = nearest(key, known);
  const hint = near ? `; did you mean "${near}"?` : known.length ? `; known keys are ${known.join(', ')}` : '';
  return { path: pathText(path), message: `unknown key "${key}"${hint}`, example: near ?? known[0] ?? 'leave it out' };
}

const article = (word: string): string => ('aeiou'.includes(word.charAt(0)) ? `an ${word}` : `a ${word}`);

/** Our words for what the schema library finds, where a schema has none of its own. */
function plainWords(issue: z.core.$ZodRawIssue): string | undefined {
  if (issue.code === 'invalid_type')
    return issue.input === undefined ? `is missing: give ${article(issue.expected)}` : `must be ${article(issue.expected)}`;
  if (issue.code === 'invalid_value') return `must be one of ${issue.values.map(String).join(', ')}`;
  return undefined;
}
z.config({ customError: plainWords });

/** What would do of a type, as it stands in a file. */
const TYPES: Readonly<Record<string, string>> = {
  ...{ number: '1', int: '1', string: '"text"', boolean: 'true', null: 'null' },
  ...{ object: '{ … }', record: '{ … }', array: '[ … ]', tuple: '[ … ]' },
};

/** What would do; where the schema library tells nothing of it, to leave it out always does. */
function exampleFor(issue: z.core.$ZodIssue): string {
  return exampleOf(issue) ?? 'leave it out';
}

function exampleOf(issue: z.core.$ZodIssue): string | undefined {
  if (issue.code === 'invalid_value') return String(issue.values[0]);
  if (issue.code === 'invalid_type') return TYPES[issue.expected];
  if (issue.code === 'too_small') return String(issue.minimum);
  if (issue.code === 'too_big') return String(issue.maximum);
  // Of several that would do the first: 0 where it is 0 or 180.
  if (issue.code === 'invalid_union')
    return issue.errors
      .flat()
      .flatMap((one) => exampleOf(one) ?? [])
      .at(0);
  return undefined;
}
