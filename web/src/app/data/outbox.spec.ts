import { firstValueFrom } from 'rxjs';
import { EnvironmentInjector, createEnvironmentInjector } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { HttpBackend, provideHttpClient } from '@angular/common/http';
import { FakeServer, barRound, refusal, until } from '../testing/fake-shop';
import { Api } from './api';
import { OUTBOX_NAME, Outbox, type Answer } from './outbox';
import { OutboxStore, type NewEntry } from './outbox-store';

describe('the outbox', () => {
  const round = { ...barRound(1, 1), readings: [] };
  let name: string;
  let server: FakeServer;

  /** A tab: an outbox of its own over the same browser. */
  const tab = (): Outbox => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), { provide: HttpBackend, useValue: server }, { provide: OUTBOX_NAME, useValue: name }],
    });
    return TestBed.inject(Outbox);
  };
  const reading = (value: string, about = round.id): NewEntry => {
    const id = crypto.randomUUID();
    const body = { id, keys: { plane: 'h', at: 20 }, value, set: 1, supersedes: null, why: null, by: 'HB', at: round.at };
    return { id, what: 'reading', method: 'POST', path: `/rounds/${about}/readings`, body, about, machineId: round.machineId };
  };
  const values = (): unknown[] => server.rounds[0].readings.map(({ value }) => value);

  beforeEach(() => {
    name = `test-${crypto.randomUUID()}`;
    localStorage.clear();
    server = new FakeServer();
    server.rounds = [structuredClone(round)];
  });

  it('shows a write at once, keeps it before it is sent, and lets it go when the server has it', async () => {
    const outbox = tab();
    void outbox.put(reading('1 div'));
    expect(outbox.queue$.value.length).toBe(1);
    await until(() => outbox.waiting() === 0);
    expect(values()).toEqual(['1 div']);
  });

  it('keeps what comes next without waiting for the server to take what stands before it', async () => {
    const outbox = tab();
    server.holds = () => true;
    void outbox.put(reading('1 div'));
    const picture = { ...reading('-'), what: 'picture', path: '/pictures?by=HB', body: new Blob(['a picture']) } as const;
    await outbox.put(picture);
    expect(outbox.waiting()).withContext('neither has been answered yet').toBe(2);
    const kept = await (await OutboxStore.open(name)).queue();
    expect(kept.map(({ what }) => what)).toEqual(['reading', 'picture']);
    expect(kept[1].body).toBeInstanceOf(Blob);
  });

  it('tells of some kinds only when one of them comes or goes', async () => {
    const outbox = tab();
    server.down = true;
    const told: string[][] = [];
    outbox.waitingOf('round', 'move').subscribe((entries) => told.push(entries.map(({ what }) => what)));
    await outbox.put(reading('1 div'));
    await outbox.put({ ...reading('2 div'), what: 'move' });
    await outbox.put(reading('3 div'));
    expect(told).toEqual([[], ['move']]);
    expect(outbox.waiting()).toBe(3);
  });

  it('keeps the order, and a silent server is tried again with the same content', async () => {
    const outbox = tab();
    server.down = true;
    for (const value of ['1 div', '2 div', '3 div']) void outbox.put(reading(value));
    await until(() => outbox.away());
    expect(outbox.waiting()).toBe(3);
    expect(server.rounds[0].readings).toEqual([]);
    server.down = false;
    await until(() => outbox.waiting() === 0, 4000);
    expect(values()).toEqual(['1 div', '2 div', '3 div']);
    expect(outbox.away()).toBeFalse();
  });

  it('what waited when the page was closed goes out from the next one, once', async () => {
    const first = tab();
    server.down = true;
    void first.put(reading('1 div'));
    await until(() => first.away());
    server.down = false;
    const second = tab();
    await until(() => server.rounds[0].readings.length === 1 && second.waiting() === 0, 4000);
    expect(values()).toEqual(['1 div']);
  });

  it('what was typed in the breath in which the page was left goes out from the next one, in its order', async () => {
    const gone = crypto.randomUUID();
    const note = (value: string, noted: number) => {
      const entry = { ...reading(value), token: crypto.randomUUID(), noted };
      localStorage.setItem(`${name}-now:${gone}:${entry.token}`, JSON.stringify(entry));
    };
    note('2 div', 200);
    note('1 div', 100);
    localStorage.setItem(`${name}-now:${gone}:torn`, '{"what":');
    const next = tab();
    next.put(reading('3 div'));
    await until(() => server.rounds[0].readings.length === 3 && next.waiting() === 0, 4000);
    expect(values()).toEqual(['1 div', '2 div', '3 div']);
    await until(() => !Object.keys(localStorage).some((key) => key.startsWith(`${name}-now:`)));
  });

  it('what another tab is just writing down is left to it', async () => {
    const alive = crypto.randomUUID();
    let close: () => void = () => undefined;
    const held = navigator.locks.request(`isometra-tab-${alive}`, () => new Promise<void>((done) => (close = done)));
    const entry = { ...reading('1 div'), token: crypto.randomUUID(), noted: 100 };
    localStorage.setItem(`${name}-now:${alive}:${entry.token}`, JSON.stringify(entry));
    const outbox = tab();
    void outbox.put(reading('2 div'));
    await until(() => server.rounds[0].readings.length === 1 && outbox.waiting() === 0, 4000);
    expect(values()).toEqual(['2 div']);
    expect(localStorage.getItem(`${name}-now:${alive}:${entry.token}`)).not.toBeNull();
    close();
    await held;
  });

  it('two tabs lose nothing and send nothing twice', async () => {
    const [one, other] = [new TabFrame(name, server), new TabFrame(name, server)];
    const wanted = Array.from({ length: 10 }, (_, i) => `${i} div`);
    wanted.forEach((value, i) => (i % 2 ? one : other).outbox.put(reading(value)));
    await until(() => server.rounds[0].readings.length === 10 && one.outbox.waiting() === 0 && other.outbox.waiting() === 0, 4000);
    expect([...values()].sort()).toEqual(wanted);
    expect(server.sent.length).toBe(10);
    [one, other].forEach((frame) => frame.close());
  });

  it('what one tab was answered the other hears', async () => {
    const [one, other] = [new TabFrame(name, server), new TabFrame(name, server)];
    const heard: Answer[] = [];
    other.outbox.answers$.subscribe((answer) => heard.push(answer));
    const sent = reading('5 div');
    one.outbox.put(sent);
    await until(() => heard.length > 0);
    expect(heard[0].entry.id).toBe(sent.id);
    expect(heard[0].answer).toEqual([jasmine.objectContaining({ value: '5 div', sequence: 1 })]);
    [one, other].forEach((frame) => frame.close());
  });

  it('a refusal is kept as a draft, does not block what comes after, and outlives the page', async () => {
    const outbox = tab();
    server.refuse = refusal(400, 'is wrong', undefined, 'value');
    void outbox.put(reading('bad'));
    void outbox.put(reading('2 div'));
    await until(() => outbox.waiting() === 0 && outbox.refused$.value.length === 1);
    expect(values()).toEqual(['2 div']);
    const later = tab();
    await until(() => later.refused$.value.length === 1);
    const [refused] = later.refused$.value;
    expect(refused.faults[0].message).toBe('is wrong');
    await later.retake(refused, { ...(refused.body as object), value: '3 div' });
    await until(() => server.rounds[0].readings.length === 2);
    expect(values()).toEqual(['2 div', '3 div']);
    expect(later.refused$.value).toEqual([]);
  });

  it('a write that the server fails on time after time is set aside with its reason, and what stands behind it goes out', async () => {
    const outbox = tab();
    server.chokesOn = (body) => (body as { value?: unknown }).value === '1 div';
    void outbox.put(reading('1 div'));
    void outbox.put(reading('2 div'));
    await until(() => server.rounds[0].readings.length === 1, 25_000);
    expect(values()).toEqual(['2 div']);
    const [refused] = await firstValueFrom(outbox.refused$);
    expect((refused.body as { value: string }).value).toBe('1 div');
    // Put right, it goes out.
    await outbox.retake(refused, { ...(refused.body as object), value: '3 div' });
    await until(() => server.rounds[0].readings.length === 2);
  }, 30_000);

  it('a change builds on the version that the write before it has made', async () => {
    const outbox = tab();
    const move = { ...barRound(1, 1, { moves: [{}] }).moves[0], roundId: round.id };
    const put = (method: 'POST' | 'PUT', ticks: number[]) =>
      void outbox.put({
        ...{ id: move.id, what: 'move', method, path: method === 'POST' ? '/moves' : `/moves/${move.id}` },
        ...{ body: { ...move, ticks }, about: round.id, machineId: null },
      });
    put('POST', [0]);
    put('PUT', [0, 1]);
    put('PUT', [0, 1, 2]);
    await until(() => outbox.waiting() === 0);
    expect(server.sent.map(({ body }) => body.version)).toEqual([1, 1, 2]);
    expect(server.rounds[0].moves.map(({ ticks }) => ticks)).toEqual([[0, 1, 2]]);
  });

  it('photographs are kept as they are', async () => {
    const outbox = tab();
    server.down = true;
    const [{ id: about }] = server.kit;
    const id = crypto.randomUUID();
    void outbox.put({
      id,
      what: 'photo',
      method: 'POST',
      path: `/kit/${about}/photos?id=${id}&by=HB`,
      body: new Blob(['x']),
      about,
      machineId: null,
    });
    await until(() => outbox.away());
    server.down = false;
    const next = tab();
    await until(() => server.kit[0].photos.length === 1, 4000);
    expect(server.kit[0].photos).toEqual([id]);
    await until(() => next.waiting() === 0);
  });

  it('readings that an older page left behind are sent too', async () => {
    const { id, path, body } = reading('7 div');
    localStorage.setItem('isometra-outbox', JSON.stringify([{ id, method: 'POST', path, body, round: round.id }, { nonsense: 1 }]));
    tab();
    localStorage.setItem('isometra-outbox', JSON.stringify([{ id, method: 'POST', path, body, round: round.id }]));
    tab();
    await until(() => server.rounds[0].readings.length === 1);
    expect(values()).toEqual(['7 div']);
    expect(localStorage.getItem('isometra-outbox')).toBeNull();
  });
});

/** Another tab of the same browser: an injector of its own. */
class TabFrame {
  readonly outbox: Outbox;
  private readonly injector: EnvironmentInjector;

  constructor(name: string, server: FakeServer) {
    this.injector = createEnvironmentInjector(
      [provideHttpClient(), { provide: HttpBackend, useValue: server }, { provide: OUTBOX_NAME, useValue: name }, Api, Outbox],
      TestBed.inject(EnvironmentInjector),
    );
    this.outbox = this.injector.get(Outbox);
  }

  close(): void {
    this.injector.destroy();
  }
}
