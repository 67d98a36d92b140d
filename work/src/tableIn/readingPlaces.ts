import { fieldInfo, type Beside, type CheckDefinition, type Instrument, type SizeWriter, type ValueKind } from '@isometra/core';
import type { ReadingWrite, RoundWrite, StoredReading } from '@isometra/contract';
import type * as z from 'zod';
import { placeKeysOf } from '../notebook/keyOf.js';
import type { BenchSlot } from '../sheets/slots.js';

export type Keys = StoredReading['keys'];
export type Key = Keys[string];

/** A round that a table of readings goes into. */
export interface ReadingsAbout {
  readonly check: CheckDefinition;
  readonly round: Pick<RoundWrite, 'check' | 'setup' | 'instrument'>;
  readonly instrument: Instrument | undefined;
  /** Its places in working order, with what was read there. */
  readonly slots: readonly BenchSlot[];
  readonly setUp: number;
  /** What a reading of a place is read on. */
  readonly kindOf: (keys: Keys) => ValueKind;
  /** How a place is written. */
  readonly size: SizeWriter;
  /** Places that the plan does not have are taken as they stand in the table. */
  readonly ownPlaces?: boolean;
  /** Index of the place of the first row, where no column tells places; `startOf` says it where it is left out. */
  readonly start?: number;
}

/** What a row is written as. */
export type ReadingIn = Pick<ReadingWrite, 'keys' | 'value' | 'set'>;

/** How a key of a reading is described. */
export const infoOf = ({ reading }: CheckDefinition, key: string) => {
  const schema = reading.shape[key] as z.ZodType | undefined;
  return schema && fieldInfo(schema);
};

/** Keys by which the places of a round differ. */
export const keysOf = ({ check, slots }: Pick<ReadingsAbout, 'check' | 'slots'>): string[] =>
  [...placeKeysOf(check)].filter((key) => new Set(slots.map(({ keys }) => keys[key])).size > 1);

/** What a place is asked beside its figure, or in place of one. */
export const besideAt = ({ beside = [] }: CheckDefinition, keys: Keys): readonly Beside[] =>
  beside.filter(({ when }) => when?.(keys) ?? true);
/** Whether what a place says is felt, not read off a scale: leaves, a drag. */
export const isFelt = (check: CheckDefinition, keys: Keys): boolean => besideAt(check, keys).some(({ instead }) => instead === true);

/** A key of a place as a person says it. */
export const wordsOf = (value: Key): string => (typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value));
