import { newId } from './id';
import { open, oneAtATime, sayHere } from './tabs';
import { tokenedSchema, type Tokened } from './outbox-store';

const TAB = 'isometra-tab';

/**
 * The moment between a key and the browser's database: a write is noted here at once, before anything is waited for, so
 * that a page that is left in the same breath loses nothing. What a tab that is gone has noted and not got into the
 * database is taken over by the next one.
 */
export class Journal {
  private readonly tab = newId();
  /** As long as this tab lives the others know that what it noted is in good hands. */
  private readonly leave = sayHere(`${TAB}-${this.tab}`);

  constructor(private readonly name: string) {}

  private keyOf(token: string): string {
    return `${this.name}-now:${this.tab}:${token}`;
  }

  /** Note a write. A photograph is no text and has to wait for the database; a full or forbidden store is no reason to stop. */
  note(entry: Tokened): void {
    if (entry.body instanceof Blob) return;
    try {
      localStorage.setItem(this.keyOf(entry.token), JSON.stringify(entry));
    } catch {
      // The database may still take it.
    }
  }

  /** It is in the database. */
  kept(token: string): void {
    localStorage.removeItem(this.keyOf(token));
  }

  /** Hand over what tabs that are gone have left, in the order it was written; each is struck out once `adopt` has kept it. */
  async takeOver(adopt: (entry: Tokened) => Promise<void>): Promise<void> {
    await oneAtATime(`${TAB}-${this.name}`, async () => {
      const held = await open();
      const left = Object.keys(localStorage).filter((key) => {
        const [line, tab] = key.split(':');
        return line === `${this.name}-now` && tab !== this.tab && !held.has(`${TAB}-${tab}`);
      });
      const entries = left.flatMap((key) => {
        const entry = tokenedSchema.safeParse(parsed(localStorage.getItem(key))).data;
        if (!entry) localStorage.removeItem(key);
        return entry ? [{ key, entry }] : [];
      });
      for (const { key, entry } of entries.sort((one, other) => one.entry.noted - other.entry.noted)) {
        await adopt(entry);
        localStorage.removeItem(key);
      }
    });
  }

  close(): void {
    this.leave();
  }
}

function parsed(text: string | null): unknown {
  try {
    return JSON.parse(text ?? '');
  } catch {
    return undefined;
  }
}
