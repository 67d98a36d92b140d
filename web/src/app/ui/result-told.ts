import type { QuantityInfo } from '@isometra/core';
import type { QuantityHead } from '@isometra/contract';
import { wayOut } from '@isometra/work';
import type { GlyphState } from './glyph';
import { inWords, sizeOf, zoneInWords, type Shown } from './say';

/** How sure a value is: "± 0.004 mm"; empty where nobody knows. */
export const doubtTold = (expanded: number | null | undefined, info: QuantityInfo, shown: Shown): string =>
  expanded === null || expanded === undefined ? '' : `± ${sizeOf(expanded, info, shown, 1).large}`;

/** A result as lists tell it: its mark and the way out of it, its words, and for a closer look its doubt and its limit. */
export function resultTold(quantity: QuantityHead, info: QuantityInfo, shown: Shown) {
  const zone = zoneInWords(quantity.limit, info, shown);
  return {
    state: (quantity.verdict ?? 'none') as GlyphState,
    way: wayOut(quantity, info),
    text: inWords(quantity, info, shown),
    more: [doubtTold(quantity.expanded, info, shown), zone && `limit ${zone}`].filter(Boolean).join(', '),
  };
}
export type ResultTold = ReturnType<typeof resultTold>;
