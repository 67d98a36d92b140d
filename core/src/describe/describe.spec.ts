import { readdirSync, readFileSync } from 'node:fs';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { CHECKS } from '../checks/registry.js';
import { planMove } from '../moves/registry.js';
import { MEANINGS } from './meanings.js';
import { describable, fileSchema } from './describe.js';

const casesOf = (kind: 'checks' | 'moves') =>
  ['cases', 'cases-own'].flatMap((folder) => {
    const root = new URL(`../../${folder}/${kind}/`, import.meta.url);
    return readdirSync(root)
      .filter((name) => name.endsWith('.json'))
      .map((name) => ({ name, file: fileOf(JSON.parse(readFileSync(new URL(name, root), 'utf8'))) }));
  });
const fileOf = ({ sheet, move }: Record<string, Record<string, unknown>>) => sheet ?? move;

describe('what a file may hold', () => {
  const ajv = new Ajv2020({ strict: false, allErrors: true });

  for (const kind of ['checks', 'moves'] as const)
    it(`the JSON Schemas take every case of the ${kind}`, () => {
      for (const { name, file } of casesOf(kind)) {
        const schema = fileSchema(String(file['check'] ?? file['move']));
        if (!schema) throw new Error(`${name}: no schema`);
        const takes = ajv.compile(schema);
        expect(takes(file))
          .withContext(`${name}: ${ajv.errorsText(takes.errors)}`)
          .toBeTrue();
      }
    });

  it('a JSON Schema refuses a key that is not known, a choice that is none, and a file without readings', () => {
    const takes = ajv.compile(fileSchema('bed-twist') ?? {});
    const sheet = {
      ...{ format: 'isometra-sheet/1', check: 'bed-twist', setup: {} },
      readings: [{ at: 80, end: 'forward', value: 1 }],
    };
    expect(takes(sheet)).toBeTrue();
    expect(takes({ ...sheet, setup: { bedlength: 3 } })).toBeFalse();
    expect(takes({ ...sheet, readings: [{ at: 80, end: 'backward', value: 1 }] })).toBeFalse();
    expect(takes({ ...sheet, readings: undefined })).toBeFalse();
  });

  it('every key has a meaning, or words to choose from', () => {
    const bare = describable().flatMap(({ name, parts }) =>
      parts.flatMap(({ part, fields }) => fields.filter(({ label }) => !label).map(({ path }) => `${name} ${part} ${path}`)),
    );
    expect(bare).toEqual([]);
    const told = new Set(describable().flatMap(({ parts }) => parts.flatMap(({ fields }) => fields.map(({ label }) => label))));
    const idle = Object.entries(MEANINGS).filter(([, { label }]) => !told.has(label));
    expect(idle).withContext('meanings of keys that are gone').toEqual([]);
  });

  it('every check and move is described, and a move by an example that would be taken', () => {
    const all = describable();
    expect(all.filter(({ kind }) => kind === 'check').map(({ name }) => name)).toEqual([...CHECKS.keys()]);
    for (const { kind, name, example } of all)
      if (kind === 'move')
        expect(() => planMove(example))
          .withContext(name)
          .not.toThrow();
  });
});
