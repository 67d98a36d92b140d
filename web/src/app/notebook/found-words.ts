/** A piece of a text; marked where a word that is looked for was found. */
export interface Piece {
  readonly text: string;
  readonly found: boolean;
}

const LETTERS = /^[\p{L}\p{N}]+$/u;
const literal = (word: string): string => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** What a search looks for: a word by its beginning, anything else letter by letter. Undefined where nothing is looked for. */
function patternOf(words: string): RegExp | undefined {
  const all = words.split(/\s+/).filter(Boolean);
  if (all.length === 0) return undefined;
  // The longest first: of two that begin alike the whole one is marked.
  const parts = all
    .sort((one, other) => other.length - one.length)
    .map((word) => (LETTERS.test(word) ? `(?<![\\p{L}\\p{N}])${literal(word)}` : literal(word)));
  return new RegExp(`(${parts.join('|')})`, 'giu');
}

/** A text in pieces, with the words that were looked for marked. */
export function pieces(text: string, words: string): readonly Piece[] {
  const pattern = patternOf(words);
  if (!pattern) return [{ text, found: false }];
  return text
    .split(pattern)
    .map((piece, i) => ({ text: piece, found: i % 2 === 1 }))
    .filter((piece) => piece.text !== '');
}
