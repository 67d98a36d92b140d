import { readLimitSheet, type Fault, type LimitSheet, type Zone } from '@isometra/core';
import type { RoundHead, StoredRound } from '@isometra/contract';
import { sheetOf, solveWhatStands } from './sheet.js';

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
  readonly round: RoundHead;
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
 * @param heads what was said of them. @param rounds the same rounds with their readings.
 * @returns the calls that would come out differently, oldest round first.
 */
export function rejudge(heads: readonly RoundHead[], rounds: readonly StoredRound[], sheet: LimitSheet): Rejudged[] {
  const read = new Map(rounds.map((round) => [round.id, round]));
  return heads.flatMap((head) => {
    const round = read.get(head.id);
    const finding = round && solveWhatStands(sheetOf(round, round.readings, { limits: sheet })).finding;
    return Object.entries(head.finding?.quantities ?? {}).flatMap(([quantity, { verdict, value }]) => {
      const would = finding?.quantities[quantity];
      if (!verdict || !would?.verdict || verdict === would.verdict) return [];
      return [{ round: head, quantity, before: verdict, after: would.verdict, value, zone: would.limit }];
    });
  });
}
