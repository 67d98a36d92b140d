import { pieces } from './found-words';

const marked = (text: string, words: string): string =>
  pieces(text, words)
    .map((piece) => (piece.found ? `[${piece.text}]` : piece.text))
    .join('');

describe('words that are looked for', () => {
  it('are marked where a word begins with them, however they are capitalised', () => {
    expect(marked('Felt of the RAM torn, ramp not', 'ram')).toBe('Felt of the [RAM] torn, [ram]p not');
    expect(marked('Seventeen diagrams', 'ram')).toBe('Seventeen diagrams');
    expect(marked('Shims under the front foot', 'foot SHIM')).toBe('[Shim]s under the front [foot]');
    expect(marked('Größe über Öl', 'öl')).toBe('Größe über [Öl]');
  });

  it('that are no words are marked letter by letter, signs and all', () => {
    expect(marked('0.05 mm under L-14 (left)', '0.05 (left L-14')).toBe('[0.05] mm under [L-14] [(left])');
    expect(marked('a $ and a *', '* $')).toBe('a [$] and a [*]');
  });

  it('leave the text whole where there are none, and never lose a letter of it', () => {
    expect(pieces('As it is', '  ')).toEqual([{ text: 'As it is', found: false }]);
    expect(pieces('shim shim', 'shim')).toEqual([
      { text: 'shim', found: true },
      { text: ' ', found: false },
      { text: 'shim', found: true },
    ]);
  });
});
