import type * as z from 'zod';
import {
  ENTRY_CONTENTS,
  machineCardSchema,
  NOTE_CONTENTS,
  partSchema,
  personSchema,
  planSettledSchema,
  remarkSchema,
  storedShopCardSchema,
  timeZoneSchema,
  type KitItem,
  type Surface,
} from '@isometra/contract';
import type { ArchiveFile, ArchiveKind } from '@isometra/contract/archive';
import { CHECKS, MOVES, pathText, type Fault } from '@isometra/core';
import { contentOf, kitFaults, surfaceFaults } from '@isometra/work';
import type { Content } from './files.js';

const faultsOf = (schema: z.ZodType, value: unknown, path: readonly PropertyKey[]): Fault[] =>
  schema.safeParse(value).error?.issues.map((issue) => ({
    path: pathText([...path, ...issue.path]),
    message: issue.message,
    example: 'what this version of Isometra writes there',
  })) ?? [];

const oneOf = (known: Iterable<string>, value: string, path: string): Fault[] => {
  const all = [...known];
  return all.includes(value) ? [] : [{ path, message: `"${value}" is not known to this version of Isometra`, example: all[0] }];
};

/** What a list of entries by their kind may hold. */
const byKind = (
  contents: Readonly<Record<string, z.ZodType>>,
  rows: readonly { readonly kind: string; readonly content: unknown }[],
  field: string,
) =>
  rows.flatMap(({ kind, content }, i) => {
    const schema = contents[kind];
    return schema ? faultsOf(schema, content, [field, i, 'content']) : oneOf(Object.keys(contents), kind, `${field}[${i}].kind`);
  });

function settingFaults(name: string, value: string): Fault[] {
  if (name === 'time-zone') return faultsOf(timeZoneSchema, value, ['value']);
  if (name !== 'card') return oneOf(['card', 'time-zone'], name, 'name');
  try {
    return faultsOf(storedShopCardSchema, JSON.parse(value), ['value']);
  } catch {
    return [{ path: 'value', message: 'is not JSON', example: '{"card":{},"mark":null,"version":1}' }];
  }
}

/** What is looked at of a thing beyond the form of its file, by its kind. */
const LOOKS: { readonly [Kind in ArchiveKind]?: (file: ArchiveFile<Kind>) => Fault[] } = {
  shop: ({ name, value }) => settingFaults(name, value),
  people: ({ seen: _seen, ...person }) => faultsOf(personSchema, person, []),
  machines: ({ card }) => faultsOf(machineCardSchema, card, ['card']),
  kit: ({ kind, data }) => kitFaults({ kind, data } as Pick<KitItem, 'kind' | 'data'>),
  limits: ({ versions }) =>
    versions.flatMap(({ content }, i) =>
      contentOf(content).faults.map((fault) => ({ ...fault, path: `versions[${i}].content.${fault.path}` })),
    ),
  plans: ({ settled }) => faultsOf(planSettledSchema, settled, ['settled']),
  surveys: ({ notes }) => byKind(NOTE_CONTENTS, notes, 'notes'),
  // What of a set-up or a reading cannot be read silences that part of its round, here as there.
  rounds: ({ kind }) => oneOf(CHECKS.keys(), kind, 'kind'),
  moves: ({ kind }) => oneOf(MOVES.keys(), kind, 'kind'),
  surfaces: ({ id, machineId, name, version, card, entries }) => [
    ...surfaceFaults({ ...card, id, machineId, name, version } as Surface),
    ...byKind(ENTRY_CONTENTS, entries, 'entries'),
  ],
  parts: ({ id, stripDownId, number, place, details, need, fitted, pictures, standing, version }) =>
    faultsOf(
      partSchema,
      { id, stripDownId, number, place, details, need, fitted, pictures, version, ...(!standing && { removed: true }) },
      [],
    ),
  remarks: ({ path: _path, ...remark }) => faultsOf(remarkSchema, remark, []),
};

/** What the shop could not read of a thing, though its file has the right form: a card of an unknown kind of machine, an entry that is none. */
export const contentFaults = (kind: ArchiveKind, content: Content): Fault[] =>
  (LOOKS[kind] as ((file: Content) => Fault[]) | undefined)?.(content).slice(0, 20) ?? [];
