import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { FaultError } from './input/faults.js';
import { planMove } from './moves/registry.js';
import { solve } from './solve/solve.js';

type Tree = Record<string, unknown>;

const load = (part: string, key: string): Tree[] =>
  readdirSync(new URL(`../cases/${part}/`, import.meta.url))
    .filter((name) => name.endsWith('.json'))
    .map((name) => JSON.parse(readFileSync(new URL(`../cases/${part}/${name}`, import.meta.url), 'utf8'))[key]);

/** Every place in a file, from its root. */
const placesIn = (tree: unknown, at: readonly string[] = []): (readonly string[])[] =>
  tree !== null && typeof tree === 'object'
    ? Object.entries(tree).flatMap(([key, value]) => [[...at, key], ...placesIn(value, [...at, key])])
    : [];

/** Where in an answer a number stands that is none. */
function unfinished(tree: unknown, at = ''): string[] {
  if (typeof tree === 'number') return Number.isFinite(tree) ? [] : [at];
  return tree !== null && typeof tree === 'object' ? Object.entries(tree).flatMap(([key, value]) => unfinished(value, `${at}.${key}`)) : [];
}

const ODD = fc.constantFrom<unknown>(
  ...[null, true, '', ' ', 'x', '12 um', '0.5 thou', '1e400', 'NaN', '½', '3/0', '1/2/3', '5 1/2 div', 'rear', 'sub', '-0'],
  ...[0, -0, -1, 1, 12, 45, 90, 180, 360, 1e15, 1e308, -1e308, 1e-320, 0.001],
  ...[[], {}, [1], { a: 1 }, 'constructor', '__proto__'],
);

/** A file that makes sense, with one thing in it made another or taken out. */
const meddled = (files: readonly Tree[]): fc.Arbitrary<Tree> =>
  fc.constantFrom(...files).chain((file) =>
    fc.record({ at: fc.constantFrom(...placesIn(file)), value: ODD, out: fc.boolean() }).map(({ at, value, out }) => {
      const tree = structuredClone(file);
      const holder = at.slice(0, -1).reduce<Tree>((part, key) => part[key] as Tree, tree);
      const key = at[at.length - 1];
      if (!out) holder[key] = value;
      else if (Array.isArray(holder)) holder.splice(Number(key), 1);
      else delete holder[key];
      return tree;
    }),
  );

/** What is wrong with how a file is answered: numbers that are none, a refusal without a place, words or an example. */
function wrongWith(work: (file: unknown) => unknown, file: Tree): string[] {
  try {
    return unfinished(work(file));
  } catch (error) {
    if (!(error instanceof FaultError)) throw error;
    if (error.faults.length === 0) return ['no fault is named'];
    return error.faults
      .filter(
        ({ path, message, example }) => typeof path !== 'string' || [message, example].some((text) => /^$|undefined|\[object/.test(text)),
      )
      .map((fault) => JSON.stringify(fault));
  }
}

describe('a file that somebody meddled with', () => {
  for (const [what, work, files] of [
    ['a sheet', solve, load('checks', 'sheet')],
    ['a move sheet', planMove, load('moves', 'move')],
  ] as const) {
    it(`is answered in plain numbers, or every fault names its place and shows what would do: ${what}`, () => {
      expect(files.length).toBeGreaterThan(10);
      fc.assert(
        fc.property(meddled(files), (file) => {
          // Thrown, so that what failed is made small.
          const wrong = wrongWith(work, file);
          if (wrong.length) throw new Error(`${wrong.join('; ')} of ${JSON.stringify(file)}`);
        }),
        { numRuns: 600 },
      );
    });
  }
});
