import * as z from 'zod';
import { readLimitSheet, type Fault, type LimitSheet, type Zone } from '@isometra/core';
import { idSchema, versionSchema, whoSchema } from './common.js';
import { sheetOf, trySolve } from './sheetOf.js';
import type { Round } from './round.js';

/** A limit sheet of the shop's own, as sent; the content is checked by the core. */
export const limitSheetWriteSchema = z.strictObject({
  id: idSchema,
  content: z.unknown(),
  /** The version that was changed; 1 for a new one. */
  version: versionSchema,
  by: whoSchema,
});

/** A limit sheet with its history: every version is kept, because surveys were judged by it. */
export interface StoredLimitSheet {
  readonly id: string;
  readonly content: LimitSheet;
  readonly version: number;
  readonly by: string;
  readonly at: string;
}

/** The content of a sheet, or what is wrong with it, with paths that begin at `content`. */
export function contentOf(raw: unknown): { readonly content?: LimitSheet; readonly faults: readonly Fault[] } {
  const { sheet, faults } = readLimitSheet(raw);
  return {
    ...(sheet && { content: sheet }),
    faults: faults.map((fault) => ({ ...fault, path: `content${fault.path ? `.${fault.path}` : ''}` })),
  };
}

/** One call that another sheet would make differently. */
export interface Rejudged {
  readonly round: Round;
  readonly quantity: string;
  readonly before: string;
  readonly after: string;
  readonly value: number;
  /** The zone it would be judged by. */
  readonly zone: Zone | null;
}

/**
 * What another limit sheet would say of rounds as they were read. Nothing is changed: it only tells.
 *
 * @returns the calls that would come out differently, oldest round first.
 */
export function rejudge(rounds: readonly Round[], sheet: LimitSheet): Rejudged[] {
  return rounds.flatMap((round) => {
    const { finding } = trySolve(sheetOf(round, round.readings, { limits: sheet }));
    return Object.entries(round.finding?.quantities ?? {}).flatMap(([quantity, { verdict, value }]) => {
      const would = finding?.quantities[quantity];
      if (!verdict || !would?.verdict || verdict === would.verdict) return [];
      return [{ round, quantity, before: verdict, after: would.verdict, value, zone: would.limit }];
    });
  });
}
