import { LRUCache } from 'lru-cache';

/** Characters of answers that are kept. */
const MOST = 40_000_000;

/**
 * Answers that took some working out, kept until anything is written. Only this server writes into its shop: what it has not been
 * asked to change has not changed.
 */
export class Answers {
  private readonly kept = new LRUCache<string, { readonly revision: number; readonly text: string }>({
    maxSize: MOST,
    sizeCalculation: ({ text }) => text.length + 1,
  });
  private revision = 0;
  private writing = 0;

  /** A write has begun: until it is over nothing is kept, and nothing that was kept is used. @returns call it when it is over. */
  begin(): () => void {
    this.writing += 1;
    let over = false;
    return () => {
      if (over) return;
      over = true;
      this.writing -= 1;
      this.revision += 1;
    };
  }

  /** The answer as text: the one that is kept, or else worked out and kept where nothing was written meanwhile. */
  async of(name: string, work: () => Promise<unknown>): Promise<string> {
    const before = this.revision;
    const kept = this.writing === 0 ? this.kept.get(name) : undefined;
    if (kept?.revision === before) return kept.text;
    const quiet = this.writing === 0;
    const text = JSON.stringify(await work());
    if (quiet && this.writing === 0 && this.revision === before) this.kept.set(name, { revision: before, text });
    return text;
  }
}
