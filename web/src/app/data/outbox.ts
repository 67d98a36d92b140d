import { dequal } from 'dequal';
import { InjectionToken, Injectable, type OnDestroy, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { BehaviorSubject, type Observable, Subject, distinctUntilChanged, firstValueFrom, map, mergeMap } from 'rxjs';
import * as z from 'zod';
import { newId } from './id';
import { oneAtATime } from './tabs';
import { Api, type ApiFailure } from './api';
import { Journal } from './journal';
import { OutboxStore, entrySchema, type Entry, type NewEntry, type Refused } from './outbox-store';

/** A write that the server has taken, and what it answered. */
export interface Answer {
  readonly entry: Entry;
  readonly answer: unknown;
}

/** The name of the browser's database for what has not been taken yet. */
export const OUTBOX_NAME = new InjectionToken<string>('outbox', { providedIn: 'root', factory: () => 'isometra-outbox' });

/** One row where it is one, none otherwise. */
function read<S extends z.ZodType>(schema: S, raw: unknown): z.output<S>[] {
  const parsed = schema.safeParse(raw);
  return parsed.success ? [parsed.data] : [];
}

/** The place of a write that the browser's database has not been given yet. */
const NOWHERE = Infinity;
const CHANNEL = 'isometra-outbox';
/** Pauses before a silent server is tried again, ms; the last one repeats. */
const PAUSES = [1000, 2000, 5000, 10_000];

/** What tabs tell one another. */
const newsSchema = z.union([
  z.object({ news: z.literal('line') }),
  z.object({ news: z.literal('answered'), entry: entrySchema, answer: z.unknown() }),
]);

const versioned = z.object({ version: z.number() });

/**
 * Writes go out in order and stay in the browser until the server has taken them: a reload, a second tab or a server
 * that is away loses none. What the server refuses is kept as a draft to put right.
 */
@Injectable({ providedIn: 'root' })
export class Outbox implements OnDestroy {
  private readonly api = inject(Api);
  private readonly name = inject(OUTBOX_NAME);
  private readonly store = OutboxStore.open(this.name);
  private readonly channel = new BroadcastChannel(`${CHANNEL}-${this.name}`);
  private readonly journal = new Journal(this.name);
  private readonly until = new AbortController();
  private putting: Promise<unknown> = this.store;
  private working = false;
  private silences = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** What waits, oldest first; a write stands here as soon as it was asked for. */
  readonly queue$ = new BehaviorSubject<readonly Entry[]>([]);
  readonly refused$ = new BehaviorSubject<readonly Refused[]>([]);
  /** Every write that was taken, also from another tab. */
  readonly answers$ = new Subject<Answer>();
  private readonly queue = toSignal(this.queue$, { requireSync: true });
  readonly waiting = computed(() => this.queue().length);
  readonly away = signal(false);
  /** The server does not let this device in any more: what waits goes out once it is paired again. */
  readonly shutOut = signal(false);
  /** This browser will not keep anything: what is entered lives only as long as the page. */
  readonly forgetful = signal(false);

  constructor() {
    this.channel.onmessage = ({ data }: MessageEvent<unknown>) => this.hear(data);
    addEventListener('online', () => void this.work(), { signal: this.until.signal });
    this.putting = this.putting.then(() => this.journal.takeOver(async (entry) => (await this.store).adopt(entry))).catch(() => undefined);
    for (const entry of leftBehind()) void this.put(entry);
    void this.putting
      .then(() => this.look())
      .then(
        () => this.work(),
        () => this.forgetful.set(true),
      );
  }

  ngOnDestroy(): void {
    this.until.abort();
    this.channel.close();
    this.journal.close();
    clearTimeout(this.timer);
    void Promise.all([this.store, this.putting]).then(([store]) => store.close());
  }

  /** What waits of some kinds, oldest first; told again only when one of these comes or goes, whatever else waits. */
  waitingOf(...kinds: readonly Entry['what'][]): Observable<readonly Entry[]> {
    return this.queue$.pipe(
      map((queue) => queue.filter(({ what }) => kinds.includes(what))),
      distinctUntilChanged(
        (one, other) =>
          one.length === other.length && one.every(({ token, body }, i) => token === other[i].token && dequal(body, other[i].body)),
      ),
    );
  }

  /** What waits of a kind, read by its schema: rows that the server does not have yet. */
  waitingAs<S extends z.ZodType>(what: Entry['what'], schema: S): Observable<readonly z.output<S>[]> {
    return this.waitingOf(what).pipe(map((queue) => queue.flatMap(({ body }) => read(schema, body))));
  }

  /** Rows of a kind as the server has taken them, also from another tab. */
  takenAs<S extends z.ZodType>(what: Entry['what'], schema: S): Observable<{ readonly entry: Entry; readonly row: z.output<S> }> {
    return this.answers$.pipe(
      mergeMap(({ entry, answer }) => (entry.what === what ? read(schema, answer).map((row) => ({ entry, row })) : [])),
    );
  }

  /** How often the server failed on a write, by its place in the line. */
  private readonly failed = new Map<number, number>();

  private get closed(): boolean {
    return this.until.signal.aborted;
  }

  /**
   * Put a write in the line. It is seen at once; it is kept before it is sent.
   *
   * @returns when this browser has kept it, or has said that it keeps nothing. Never fails.
   */
  put(entry: NewEntry): Promise<void> {
    const tokened = { ...entry, token: newId(), noted: performance.timeOrigin + performance.now() };
    this.journal.note(tokened);
    // Until the database has given it its place, it stands at the end of the line.
    this.queue$.next([...this.queue$.value, { ...tokened, key: NOWHERE }]);
    this.putting = this.putting
      .then(() => this.store)
      .then((store) => store.add(tokened))
      .then(() => this.journal.kept(tokened.token))
      .then(() => this.look())
      .then(() => this.tell({ news: 'line' }))
      // What comes next is kept without waiting for the server to take this.
      .then(
        () => void this.work(),
        () => this.forgetful.set(true),
      );
    return this.putting.then(() => undefined);
  }

  /** Send a refused write again, put right. */
  async retake(refused: Refused, body: unknown): Promise<void> {
    const { key: _key, token: _token, faults: _faults, current: _current, ...entry } = refused;
    await this.put({ ...entry, body });
    await this.drop(refused);
  }

  /** Give a refused write up. */
  async drop({ key }: Refused): Promise<void> {
    await (await this.store).dropRefused(key);
    await this.look();
    this.tell({ news: 'line' });
  }

  /** What the browser's database holds, which other tabs write into too. */
  private async look(): Promise<void> {
    const store = await this.store;
    const [queue, refused] = await Promise.all([store.queue(), store.refused()]);
    if (this.closed) return;
    const known = new Set([...queue, ...refused].map(({ token }) => token));
    const placeless = this.queue$.value.filter(({ key, token }) => key === NOWHERE && !known.has(token));
    this.queue$.next([...queue, ...placeless]);
    this.refused$.next(refused);
  }

  private tell(news: z.infer<typeof newsSchema>): void {
    if (!this.closed) this.channel.postMessage(news);
  }

  private hear(data: unknown): void {
    const parsed = newsSchema.safeParse(data);
    if (!parsed.success) return;
    if (parsed.data.news === 'answered') this.answers$.next({ entry: parsed.data.entry, answer: parsed.data.answer });
    void this.look();
  }

  /** Send what waits, oldest first; one tab at a time. */
  private async work(): Promise<void> {
    if (this.closed || this.working) return;
    this.working = true;
    clearTimeout(this.timer);
    const done = await oneAtATime(`${CHANNEL}-${this.name}`, () => this.drain()).catch(() => false);
    this.working = false;
    if (this.closed) return;
    if (!done) this.timer = setTimeout(() => void this.work(), PAUSES[Math.min(this.silences++, PAUSES.length - 1)]);
    else this.silences = 0;
  }

  private async drain(): Promise<boolean> {
    const store = await this.store;
    for (let [entry] = await store.queue(); entry && !this.closed; [entry] = await store.queue()) {
      const sent = await this.send(store, entry);
      this.away.set(sent === 'silence');
      this.shutOut.set(sent === 'shut out');
      if (sent === 'silence' || sent === 'shut out') return false;
      await this.look();
    }
    return true;
  }

  private async send(store: OutboxStore, entry: Entry): Promise<'taken' | 'refused' | 'silence' | 'shut out'> {
    try {
      const answer = await firstValueFrom(this.api.send(entry.method, entry.path, await this.bodyOf(store, entry), z.unknown()));
      // First everybody knows the answer, then it leaves the line: nothing is missing in between.
      this.answers$.next({ entry, answer });
      this.tell({ news: 'answered', entry: { ...entry, body: null }, answer });
      await store.done(entry, versioned.safeParse(answer).data?.version);
      return 'taken';
    } catch (error) {
      const failure = error as ApiFailure;
      if (failure.passing && !this.hopeless(entry, failure)) return failure.status === 401 ? 'shut out' : 'silence';
      await store.refuse({ ...entry, faults: [...failure.faults], ...(failure.current !== undefined && { current: failure.current }) });
      return 'refused';
    }
  }

  /** A write that the server answers with a fault of its own time after time: it must not hold up what stands behind it. */
  private hopeless({ key }: Entry, { status }: ApiFailure): boolean {
    if (status !== 500) return false;
    const failed = (this.failed.get(key) ?? 0) + 1;
    this.failed.set(key, failed);
    return failed >= PATIENCE;
  }

  /** A change builds on what the write before it in the line has made of the row. */
  private async bodyOf(store: OutboxStore, { method, id, body }: Entry): Promise<unknown> {
    const version = method === 'PUT' ? await store.version(id) : undefined;
    const own = versioned.loose().safeParse(body).data;
    return own && version !== undefined ? { ...own, version: Math.max(own.version, version) } : body;
  }
}

/** So often the server may fail on one write before it is set aside with its reason. */
const PATIENCE = 4;

const OLD_KEY = 'isometra-outbox';
const oldSchema = z.array(z.object({ id: z.string(), path: z.string().endsWith('/readings'), body: z.unknown(), round: z.string() }));

/** Readings that an older version of this page kept in another place and never got through. */
function leftBehind(): NewEntry[] {
  const text = localStorage.getItem(OLD_KEY);
  if (text === null) return [];
  localStorage.removeItem(OLD_KEY);
  try {
    return oldSchema
      .parse(JSON.parse(text))
      .map(({ id, path, body, round }) => ({ id, what: 'reading', method: 'POST', path, body, about: round, machineId: null }));
  } catch {
    return [];
  }
}
