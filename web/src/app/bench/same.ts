import { dequal } from 'dequal';
import type { Note } from '@isometra/core';

type BenchSheet = Readonly<Record<string, unknown>> | null;

const howMany = (sheet: BenchSheet): number => (Array.isArray(sheet?.['readings']) ? sheet['readings'].length : 0);
/** Two sheets that say the same; one with another number of readings is told at a glance. */
export const sameSheet = (one: BenchSheet, other: BenchSheet): boolean =>
  one === other || (howMany(one) === howMany(other) && dequal(one, other));

export const sameNotes = (one: readonly Note[], other: readonly Note[]): boolean =>
  one.length === other.length && one.every(({ code, text }, i) => code === other[i].code && text === other[i].text);
