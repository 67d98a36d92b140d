import type { QuantityHead } from '@isometra/contract';

/** How a result stands: told by shape first. */
export type GlyphOf = 'in' | 'out' | 'unsure' | 'left' | 'none';

const WORDS: Readonly<Record<GlyphOf, string>> = {
  in: 'in',
  out: 'out',
  unsure: 'too close to call',
  left: 'left alone on purpose',
  none: 'no limit',
};

/** How a result stands; one that is not in and was left alone on purpose says so. */
export const glyphOf = ({ verdict }: Pick<QuantityHead, 'verdict'>, leftAlone = false): GlyphOf =>
  leftAlone && verdict !== 'in' ? 'left' : (verdict ?? 'none');

export const verdictWords = (glyph: GlyphOf): string => WORDS[glyph];
