import { EventEmitter } from 'node:events';
import type { RoundNews } from '@isometra/contract';

/** What happens to rounds, told to who looks at them: nothing is kept, and who was away asks for the round again. */
export class News {
  private readonly told = new EventEmitter().setMaxListeners(0);
  private readonly open = new Set<() => void>();

  tell(roundId: string, news: RoundNews): void {
    this.told.emit(roundId, news);
  }

  /** Hear of a round until the returned function is called. @param ended what to do when the server stops. */
  hear(roundId: string, listener: (news: RoundNews) => void, ended: () => void): () => void {
    this.told.on(roundId, listener);
    this.open.add(ended);
    return () => {
      this.told.off(roundId, listener);
      this.open.delete(ended);
    };
  }

  /** How many are listening. */
  get listeners(): number {
    return this.open.size;
  }

  /** The server stops, or it has changed who is let in: nobody is kept waiting, and who may asks again. */
  close(): void {
    for (const ended of [...this.open]) ended();
  }
}
