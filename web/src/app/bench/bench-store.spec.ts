import { TestBed } from '@angular/core/testing';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting, type TestRequest } from '@angular/common/http/testing';
import { CHECKS, type CheckDefinition } from '@isometra/core';
import type { ReadingWrite, Round, StoredReading } from '@isometra/contract';
import { Outbox } from '../data/outbox';
import { Rounds } from '../data/rounds';
import { Desk } from '../tailstock/desk';
import { until } from '../testing/fake-shop.spec';
import { BenchStore, withReadings } from './bench-store';

const check = CHECKS.get('tailstock-traverse') as CheckDefinition;
const planned = check.slots({ centreDistance: 400 }, { planes: 'h' });
const reading = (at: number, value: string, more: Partial<StoredReading> = {}): StoredReading => ({
  id: crypto.randomUUID(),
  roundId: 'r',
  sequence: 1,
  keys: { plane: 'h', at },
  value,
  set: 1,
  supersedes: null,
  why: null,
  by: 'AB',
  at: '2026-01-01T00:00:00.000Z',
  ...more,
});
const round = (readings: StoredReading[] = []): Round =>
  ({
    id: crypto.randomUUID(),
    machineId: 'm',
    surveyId: 'survey',
    check: 'tailstock-traverse',
    setup: { centreDistance: '400 mm' },
    plan: { planes: 'h' },
    instrument: { kind: 'lever', graduation: '2 um', sense: 1 },
    instrumentName: null,
    conditions: {},
    purpose: { kind: 'turning', length: '200 mm' },
    by: 'AB',
    at: '2026-01-01T00:00:00.000Z',
    version: 1,
    number: 1,
    readings,
    moves: [],
    finding: null,
    coreVersion: '0',
  }) as Round;

describe('readings on the planned places', () => {
  it('the closing place counts only when come back to', () => {
    const [first, second] = planned.map((slot) => slot.keys['at'] as number);
    const done = (readings: StoredReading[]) => withReadings(planned, readings).map((slot) => slot.done);
    expect(done([reading(first, '0'), reading(first, '1')])).toEqual([true, false, false]);
    expect(done([reading(first, '0'), reading(second, '1')])).toEqual([true, true, false]);
    expect(done([reading(first, '0'), reading(second, '1'), reading(first, '0')])).toEqual([true, true, true]);
  });
});

describe('places nobody planned', () => {
  it('follow the plan, or are the plan when nothing was read where it was planned', () => {
    const [first] = planned.map((slot) => slot.keys['at'] as number);
    expect(withReadings(planned, [reading(first, '0'), reading(77, '1')]).map((slot) => slot.keys['at'])).toEqual([20, 380, 20, 77]);
    const own = withReadings(planned, [reading(50, '0'), reading(77, '1'), reading(77, '2')]);
    expect(own.map((slot) => [slot.keys['at'], slot.readings.length, slot.done])).toEqual([
      [50, 1, true],
      [77, 2, true],
    ]);
    expect(withReadings(planned, []).length).toBe(planned.length);
  });
});

describe('the bench', () => {
  let store: BenchStore;
  let sent: ReadingWrite[];
  let open: Round;

  beforeEach(() => {
    localStorage.clear();
    sent = [];
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting(), BenchStore, Desk] });
    store = TestBed.inject(BenchStore);
    spyOn(TestBed.inject(Rounds), 'takeReading').and.callFake((_id: string, taken: ReadingWrite) => {
      sent.push(taken);
      const old = store.round() as Round;
      store.open({ ...old, readings: [...old.readings, { ...taken, roundId: old.id, sequence: old.readings.length + 1 }] });
    });
    open = round();
    store.open(open);
  });

  const take = (text: string) => {
    store.type(text);
    return store.take();
  };

  it('asks for place after place and calls after every reading', () => {
    expect(store.current()?.index).toBe(0);
    take('0');
    expect(store.current()?.index).toBe(1);
    expect(Object.keys(store.solved().finding?.quantities ?? {})).toEqual([]);
    take('-9.5');
    expect(store.solved().finding?.quantities['offsetHorizontal'].value).toBeCloseTo(-21.1, 1);
    expect(store.current()?.closing).toBeTrue();
    take('0');
    expect(store.complete()).toBeTrue();
    expect(store.current()).toBeUndefined();
    expect(sent.map((entry) => entry.value)).toEqual(['0 div', '-9.5 div', '0 div']);
  });

  it('says what is wrong with a reading and keeps what was typed', () => {
    expect(take('about four')).toBeFalse();
    expect(store.fault()).toContain('Try: 3.5 div');
    expect(store.typed()).toBe('about four');
    expect(sent).toEqual([]);
  });

  it('what was typed comes back after a reload', () => {
    store.type('3.');
    const again = TestBed.runInInjectionContext(() => new BenchStore());
    again.open(open);
    expect(again.typed()).toBe('3.');
  });

  it('reads the last place again as a repeat', () => {
    take('0');
    store.repeatLast();
    expect(store.current()?.index).toBe(0);
    take('0.5');
    expect(store.slots()[0].readings.length).toBe(2);
    expect(store.current()?.index).toBe(1);
  });

  it('corrects a reading with a reason, in its place', () => {
    take('5');
    take('0');
    store.correct(store.standing()[0]);
    expect(store.typed()).toBe('5 div');
    take('4');
    expect(sent[2]).toEqual(jasmine.objectContaining({ supersedes: sent[0].id, why: 'misread', value: '4 div' }));
    expect(store.standing().map((entry) => entry.value)).toEqual(['4 div', '0 div']);
    store.withdraw(store.standing()[1]);
    expect(store.standing().length).toBe(1);
  });

  it('another set-up starts from the first place', () => {
    take('0');
    take('1');
    take('0');
    store.anotherSetUp();
    expect(store.current()?.index).toBe(0);
    take('0');
    expect(sent[3].set).toBe(2);
  });

  it('says what is left in the work', () => {
    take('0');
    take('-9.5');
    expect(store.work()[0]).toEqual(jasmine.objectContaining({ quantity: 'offsetHorizontal', leave: false }));
    expect(store.work()[0].effect).toBeCloseTo(21.1, 1);
  });
});

describe('the outbox', () => {
  let http: HttpTestingController;
  let outbox: Outbox;
  /** The request for a path, once it has gone out: the lock between tabs is handed over in its own time. */
  const arrived = async (path: string): Promise<TestRequest> => {
    let found: TestRequest | undefined;
    await until(() => (found = http.match(path)[0]) !== undefined);
    if (!found) throw new Error(`nothing was sent to ${path}`);
    return found;
  };

  beforeEach(() => {
    localStorage.clear();
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
    http = TestBed.inject(HttpTestingController);
    outbox = TestBed.inject(Outbox);
  });

  it('keeps a write until the server has taken it, and sends it again with the same content', async () => {
    outbox.put({ id: 'a', method: 'POST', path: '/rounds/1/readings', body: { id: 'a' }, round: '1' });
    (await arrived('/api/rounds/1/readings')).flush('', { status: 503, statusText: 'away' });
    await until(() => outbox.away());
    expect(outbox.away()).toBeTrue();
    expect(outbox.waiting()).toBe(1);
    expect(JSON.parse(localStorage.getItem('isometra-outbox') ?? '[]').length).toBe(1);
    await new Promise((resolve) => setTimeout(resolve, 1600));
    const again = await arrived('/api/rounds/1/readings');
    expect(again.request.body).toEqual({ id: 'a' });
    again.flush([]);
    await until(() => outbox.waiting() === 0);
    expect(outbox.waiting()).toBe(0);
    expect(outbox.away()).toBeFalse();
  });

  it('a refusal is told and does not block what comes after', async () => {
    const told: (string | undefined)[] = [];
    outbox.answers.subscribe(({ failure }) => told.push(failure?.message));
    outbox.put({ id: 'a', method: 'POST', path: '/one', body: {}, round: '1' });
    outbox.put({ id: 'b', method: 'POST', path: '/two', body: {}, round: '1' });
    (await arrived('/api/one')).flush(
      { errors: [{ path: 'value', message: 'is wrong', example: '1 div' }] },
      { status: 400, statusText: 'bad' },
    );
    (await arrived('/api/two')).flush([]);
    await until(() => told.length === 2 && outbox.waiting() === 0);
    expect(told).toEqual(['value: is wrong', undefined]);
    expect(outbox.waiting()).toBe(0);
  });
});
