import fc from 'fast-check';
import { noteLines, ticked, tickedOnly, wordsAlone } from './todos.js';

const NOTE = 'Felt torn on the left.\n[ ] order felt\n- [x] clean the way\nplain [ ] is no thing to do';

describe('things to do in a note', () => {
  it('are the lines that begin with a box', () => {
    expect(noteLines(NOTE)).toEqual([
      { line: 0, text: 'Felt torn on the left.' },
      { line: 1, text: 'order felt', done: false },
      { line: 2, text: 'clean the way', done: true },
      { line: 3, text: 'plain [ ] is no thing to do' },
    ]);
    expect(wordsAlone('[ ] a\nb')).toBe('a\nb');
  });

  it('are ticked one by one: nothing else of the note changes', () => {
    const after = ticked(NOTE, 1, true);
    expect(after).toBe(NOTE.replace('[ ] order', '[x] order'));
    expect(tickedOnly(NOTE, after)).toEqual([{ line: 1, text: 'order felt', done: true }]);
    expect(tickedOnly(after, NOTE)).toEqual([{ line: 1, text: 'order felt', done: false }]);
    expect(tickedOnly(NOTE, NOTE)).toEqual([]);
    expect(tickedOnly(NOTE, `${NOTE} more`)).toBeUndefined();
    expect(tickedOnly('[ ] a', 'a')).toBeUndefined();
  });

  it('ticked and unticked again are as they were, whatever the note says', () => {
    const line = fc.oneof(
      fc.string(),
      fc.string().map((words) => `[ ] ${words}`),
      fc.string().map((words) => `[x] ${words}`),
    );
    fc.assert(
      fc.property(
        fc.array(line, { minLength: 1 }).map((lines) => lines.join('\n')),
        fc.nat(),
        (text, pick) => {
          const boxes = noteLines(text).filter(({ done }) => done !== undefined);
          if (boxes.length === 0) return;
          const { line: at, done = false } = boxes[pick % boxes.length];
          const changed = ticked(text, at, !done);
          expect(noteLines(changed)[at].done).toBe(!done);
          expect(wordsAlone(changed)).toBe(wordsAlone(text));
          expect(noteLines(ticked(changed, at, done))).toEqual(noteLines(text));
        },
      ),
    );
  });
});
