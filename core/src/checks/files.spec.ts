import { existsSync, readdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { MOVES } from '../moves/registry.js';
import { CHECKS } from './registry.js';

/** Source files of a folder, without specs. */
function filesOf(folder: string): string[] {
  const path = fileURLToPath(new URL(`../../src/${folder}/`, import.meta.url));
  expect(existsSync(path)).withContext(path).toBeTrue();
  return readdirSync(path).filter((name) => name.endsWith('.ts') && !name.endsWith('.spec.ts'));
}

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> => typeof value === 'object' && value !== null;

/** What a file exports that looks like a definition: it has the two fields by which one is known. */
async function definitionsIn(folder: string, file: string, known: readonly [string, string]): Promise<Readonly<Record<string, unknown>>[]> {
  const part = (await import(`../${folder}/${file.replace(/\.ts$/, '.js')}`)) as Record<string, unknown>;
  return Object.values(part).filter((value) => isRecord(value) && known.every((field) => field in value)) as Readonly<
    Record<string, unknown>
  >[];
}

describe('the files of the catalogue', () => {
  it('hold one check each, and every one is registered', async () => {
    const files = filesOf('checks/catalogue').filter((name) => name !== 'index.ts');
    expect(files.length).toBe(CHECKS.size);
    for (const file of files) {
      const found = await definitionsIn('checks/catalogue', file, ['id', 'question']);
      expect(found.length).withContext(file).toBe(1);
      for (const check of found)
        expect(CHECKS.get(String(check['id'])))
          .withContext(`${file} is not in the list of the catalogue`)
          .toBe(check as never);
    }
  });

  it('of the moves likewise', async () => {
    const found = new Set<string>();
    for (const file of filesOf('moves')) {
      for (const move of await definitionsIn('moves', file, ['kind', 'verb'])) {
        expect(MOVES.get(String(move['kind'])))
          .withContext(`${file} is not in the registry`)
          .toBe(move as never);
        found.add(String(move['kind']));
      }
    }
    expect([...found].sort()).toEqual([...MOVES.keys()].sort());
  });
});
