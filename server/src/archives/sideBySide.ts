import type { ArchiveDifference } from '@isometra/contract/archive';
import { KIT_SCHEMAS, machineCardSchema, type KitKind } from '@isometra/contract';
import { CHECKS } from '@isometra/core';
import { changesOf } from '@isometra/work';
import * as z from 'zod';
import { headOf, newestOf, type Content } from './files.js';
import type { ThingKind } from './things.js';

/** What a person would call a thing. */
const CALLED: Readonly<Partial<Record<ThingKind, (content: Content) => string>>> = {
  shop: ({ name }) => (name === 'card' ? 'The page of the shop' : 'The time zone of the shop'),
  people: ({ initials, name }) => [initials, name].filter(Boolean).join(', '),
  machines: ({ card }) => String((card as Content)['number']),
  plans: () => 'A plan',
  surveys: ({ title }) => `Survey “${title as string}”`,
  rounds: ({ kind, at }) => `${CHECKS.get(String(kind))?.title ?? String(kind)}, round of ${String(at).slice(0, 10)}`,
  moves: ({ quantity, begunAt }) => `Move of ${String(begunAt).slice(0, 10)}, ${String(quantity)}`,
  remarks: ({ text }) => `Note “${String(text).slice(0, 40)}”`,
  parts: ({ number }) => `Part ${String(number)}`,
};

/** What a person would call a thing of some kind. */
export const calledOf = (kind: ThingKind, content: Content): string => CALLED[kind]?.(content) ?? String(content['name']);

/** The form that a thing was typed in, as far as it has one. */
function formOf(kind: ThingKind, content: Content): z.ZodType | undefined {
  if (kind === 'machines') return z.object({ card: machineCardSchema });
  const data = kind === 'kit' ? KIT_SCHEMAS[content['kind'] as Exclude<KitKind, 'instrument'>] : undefined;
  return data && z.object({ data });
}

/** What is typed of a thing: its number of changes says nothing to a person. */
function typed(kind: ThingKind, content: Content): Content {
  const { version: _version, id: _id, ...others } = headOf(kind, content);
  if (kind === 'limits') return { ...others, ...(newestOf(content)?.['content'] as Content | undefined) };
  return kind === 'shop' ? { value: parsed(String(others['value'])) } : others;
}

function parsed(value: string): unknown {
  try {
    return JSON.parse(value);
  } catch {
    return value;
  }
}

/** What differs of a thing that both changed, side by side, in the words of its form. */
export function sideBySide(kind: ThingKind, path: string, ours: Content, theirs: Content): ArchiveDifference {
  return {
    path,
    called: calledOf(kind, ours),
    fields: changesOf(formOf(kind, ours), typed(kind, ours), typed(kind, theirs)).map(({ field, from, to }) => ({
      field,
      ours: from,
      theirs: to,
    })),
  };
}

/** Rows that both superseded, side by side. */
export function rowsSideBySide(
  kind: ThingKind,
  {
    path,
    field,
    theirs,
    ours,
  }: { readonly path: string; readonly field: string; readonly theirs: readonly Content[]; readonly ours: readonly Content[] },
  thing: Content,
): ArchiveDifference {
  const told = ({ value, text, kind: what, content, why }: Content): string =>
    [value ?? text ?? what, why ? `(${String(why)})` : '', content ? JSON.stringify(content) : ''].filter(Boolean).join(' ').slice(0, 300);
  return {
    path,
    called: calledOf(kind, thing),
    fields: theirs.map((row) => {
      const other = ours.find(({ supersedes }) => supersedes === row['supersedes']);
      return { field, ours: other ? told(other) : null, theirs: told(row) };
    }),
  };
}
