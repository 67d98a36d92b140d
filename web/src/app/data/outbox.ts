import { Injectable, type OnDestroy, computed, inject, signal } from '@angular/core';
import { Subject, firstValueFrom } from 'rxjs';
import { Api, type ApiFailure } from './api';

/** A write that has not been acknowledged yet. Its content carries its own UUID, so it may be sent again. */
export interface Waiting {
  readonly id: string;
  readonly method: 'POST' | 'PUT';
  readonly path: string;
  readonly body: unknown;
  /** Which round it belongs to. */
  readonly round: string;
}

export interface Answer {
  readonly waiting: Waiting;
  readonly failure?: ApiFailure;
}

const KEY = 'isometra-outbox';
const PAUSE = 1500;

/**
 * Writes go out in order and stay in the browser until the server has taken them: a reload,
 * a second tab or a server that is away loses none.
 */
@Injectable({ providedIn: 'root' })
export class Outbox implements OnDestroy {
  private readonly api = inject(Api);
  private readonly queue = signal<readonly Waiting[]>(readQueue());
  private working = false;
  private closed = false;
  private readonly listening = new AbortController();
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** Every acknowledged or refused write. */
  readonly answers = new Subject<Answer>();
  readonly waiting = computed(() => this.queue().length);
  readonly away = signal(false);

  constructor() {
    const { signal: until } = this.listening;
    addEventListener('storage', (event) => event.key === KEY && this.queue.set(readQueue()), { signal: until });
    addEventListener('online', () => void this.work(), { signal: until });
    void this.work();
  }

  ngOnDestroy(): void {
    this.closed = true;
    this.listening.abort();
    clearTimeout(this.timer);
  }

  /** Writes of a round that are still on their way. */
  of(round: string): readonly Waiting[] {
    return this.queue().filter((waiting) => waiting.round === round);
  }

  put(waiting: Waiting): void {
    this.change((queue) => [...queue, waiting]);
    // First the screen shows what was read, then it goes out.
    setTimeout(() => void this.work());
  }

  private change(how: (queue: readonly Waiting[]) => readonly Waiting[]): void {
    const next = how(readQueue());
    localStorage.setItem(KEY, JSON.stringify(next));
    this.queue.set(next);
  }

  /** Send what waits, oldest first; one tab at a time where the browser can tell. */
  private async work(): Promise<void> {
    if (this.closed || this.working || readQueue().length === 0) return;
    this.working = true;
    clearTimeout(this.timer);
    const drain = () => this.drain();
    const done = await ('locks' in navigator ? navigator.locks.request(KEY, drain) : drain());
    this.working = false;
    if (this.closed) return;
    if (!done) this.timer = setTimeout(() => void this.work(), PAUSE);
    else if (readQueue().length) void this.work();
  }

  private async drain(): Promise<boolean> {
    for (let first = readQueue()[0]; first && !this.closed; first = readQueue()[0]) {
      const waiting = first;
      const failure = await firstValueFrom(this.api.send(waiting.method, waiting.path, waiting.body)).then(
        () => undefined,
        (error: ApiFailure) => error,
      );
      this.away.set(failure?.passing === true);
      if (failure?.passing) return false;
      this.change((queue) => queue.filter((entry) => entry.id !== waiting.id));
      this.answers.next({ waiting, ...(failure && { failure }) });
    }
    return true;
  }
}

function readQueue(): Waiting[] {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '[]') as Waiting[];
  } catch {
    return [];
  }
}
