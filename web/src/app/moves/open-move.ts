import { fieldInfo, MOVE_FORMAT, MOVES, planWithSteps, FaultError, type Fault, type MoveDefinition } from '@isometra/core';
import type * as z from 'zod';
import { asInFile, fieldsOf, type FormValue } from '../ui/form-model';

/** A move on its own: its kind, what stands in the form, and what only a file can hold. */
export interface MoveInput {
  readonly kind: string;
  readonly value: FormValue;
  readonly rest: Readonly<Record<string, unknown>>;
}

/** Kinds that have arithmetic of their own. */
export const WORKED: readonly MoveDefinition[] = [...MOVES.values()].filter(({ plan }) => plan !== undefined);

/** Whether all that a move needs can be typed: the others are opened from a file. */
export const canBeTyped = ({ input }: MoveDefinition): boolean =>
  Object.values(input.shape).every(
    (part) => fieldInfo(part as z.ZodType) !== undefined || (part as z.ZodType).safeParse(undefined).success,
  );

/** Whether leaves are counted out of a stock for it. */
export const takesLeaves = ({ input }: MoveDefinition): boolean => 'stock' in input.shape;

/** A file as the form holds it: fields that are asked, and the rest. */
function parted(definition: MoveDefinition, raw: Readonly<Record<string, unknown>>): MoveInput {
  const asked = new Set(fieldsOf(definition.input).map(({ key }) => key));
  const entries = Object.entries(raw).filter(([key]) => key !== 'format' && key !== 'move');
  return {
    kind: definition.kind,
    value: asInFile(definition.input, Object.fromEntries(entries.filter(([key]) => asked.has(key)))),
    rest: Object.fromEntries(entries.filter(([key]) => !asked.has(key))),
  };
}

/** A move file, taken apart; or why it is none. */
export function openMove(raw: unknown): { readonly opened: MoveInput } | { readonly faults: readonly Fault[] } {
  try {
    planWithSteps(raw);
  } catch (error) {
    if (error instanceof FaultError) return { faults: error.faults };
    throw error;
  }
  const file = raw as Readonly<Record<string, unknown>>;
  const definition = MOVES.get(String(file['move'])) as MoveDefinition;
  return { opened: parted(definition, file) };
}

/** The same as a file. */
export const moveFileOf = ({ kind, value, rest }: MoveInput): Readonly<Record<string, unknown>> => ({
  format: MOVE_FORMAT,
  move: kind,
  ...rest,
  ...value,
});

/** "4 entries", of something that no field of the form shows. */
export function heldWords(part: unknown): string {
  if (Array.isArray(part)) return part.length === 1 ? '1 entry' : `${part.length} entries`;
  if (typeof part !== 'object' || part === null) return String(part);
  return Object.entries(part)
    .map(([key, value]) => (typeof value === 'object' ? key : `${key} ${String(value)}`))
    .join(', ');
}
