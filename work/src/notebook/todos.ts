/** One line of a note: a thing to do, or words. */
export interface NoteLine {
  /** Its place among the lines. */
  readonly line: number;
  readonly text: string;
  /** Whether it is done; undefined where it is nothing to do. */
  readonly done?: boolean;
}

const TO_DO = /^\s*[-*]?\s*\[( |x|X)\]\s*(.*)$/;

/** The lines of a note; those that begin with `[ ]` or `[x]` are things to do. */
export function noteLines(text: string): readonly NoteLine[] {
  return text.split('\n').map((whole, line) => {
    const found = TO_DO.exec(whole);
    return found ? { line, text: found[2], done: found[1] !== ' ' } : { line, text: whole };
  });
}

/** The same note with one thing done, or not done after all. */
export function ticked(text: string, line: number, done: boolean): string {
  return text
    .split('\n')
    .map((whole, i) => (i === line ? whole.replace(/\[[ xX]\]/, done ? '[x]' : '[ ]') : whole))
    .join('\n');
}

/** The words of a note, whatever of it is done. */
export const wordsAlone = (text: string): string =>
  noteLines(text)
    .map((line) => line.text)
    .join('\n');

/** What was ticked or unticked from one state of a note to the next; undefined where anything else was changed. */
export function tickedOnly(before: string, after: string): readonly NoteLine[] | undefined {
  const [old, now] = [noteLines(before), noteLines(after)];
  const same =
    old.length === now.length &&
    old.every((line, i) => line.text === now[i].text && (line.done === undefined) === (now[i].done === undefined));
  return same ? now.filter((line, i) => line.done !== old[i].done) : undefined;
}
