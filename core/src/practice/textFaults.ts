/** What must never stand in a text that a person reads, and what it is called. */
const FAULTS: readonly (readonly [name: string, pattern: RegExp])[] = [
  ['two spaces', /[^\s.] {2,}\S/],
  ['a space before a stop', /\S +[.,;:](?=\s|$)/],
  ['a word twice', /\b(to|the|a|of|in|is|by|at|and|for) \1\b/i],
  ['two articles', /\b(the|an?|your) (the|an?|your)\b/i],
  ['a unit twice', /\b(mm|µm|um|thou|tenths|in|div)\s+\1\b(?! \d)/],
  ['a figure that was not rounded', /\d\.\d{6,}/],
  ['a key of the program', /\b(undefined|NaN|Infinity|null|\[object \w+\])\b|\b[a-z]+\.[a-z]+[A-Z]\w+|\b[a-z]+[A-Z][a-z]+[A-Z]\w*/],
  ['an American date', /\b(0?[1-9]|1[0-2])\/([012]?\d|3[01])\/(19|20)\d\d\b/],
  ['a date as a machine writes it', /\b(19|20)\d\d-[01]\d-[0-3]\d(T\d\d:|\b)/],
  ['code', /=>|\$\{|\bfunction\b *\(/],
  ['two stops', /[^.]\.\.(?!\.)|\.,|,\./],
  ['an ASCII unit', /\d um\b/],
];

/** What is wrong with a text as a person reads it; empty where nothing is. */
export const textFaults = (text: string): string[] =>
  FAULTS.flatMap(([name, pattern]) => {
    const found = pattern.exec(text);
    return found ? [`${name}: "…${text.slice(Math.max(0, found.index - 40), found.index + found[0].length + 30)}…"`] : [];
  });
