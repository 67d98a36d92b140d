import { TestBed } from '@angular/core/testing';
import { CHECKS, type CheckDefinition } from '@isometra/core';
import type { ReadingWrite, StoredReading } from '@isometra/contract';
import { barRound, openShop, refusal, until, type FakeServer, type TestRound } from '../testing/fake-shop';
import { withReadings } from '@isometra/work';
import { BenchStore } from './bench-store';

const check = CHECKS.get('tailstock-traverse') as CheckDefinition;
const planned = check.slots({ centreDistance: 400 }, { planes: 'h' });
const reading = (at: number, value: string, more: Partial<StoredReading> = {}): StoredReading => ({
  ...{ id: crypto.randomUUID(), roundId: 'r', sequence: 1, keys: { plane: 'h', at }, value, set: 1 },
  ...{ supersedes: null, why: null, by: 'AB', at: '2026-01-01T00:00:00.000Z' },
  ...more,
});

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
  let server: FakeServer;
  let round: TestRound;
  const sent = (): ReadingWrite[] => server.sent.map(({ body }) => body);

  beforeEach(async () => {
    const plan = { plan: { planes: 'h' }, purpose: { kind: 'turning' as const, length: '200 mm' } };
    round = { ...barRound(0, 0, plan), readings: [] };
    server = (await openShop([round], { providers: [BenchStore] })).server;
    store = TestBed.inject(BenchStore);
    store.open(round.id).subscribe();
    await until(() => store.round() !== null);
  });

  const take = (text: string) => {
    store.type(text);
    return store.take();
  };

  it('what can wait a frame is as it was while the call is painted, and follows it; a refused figure holds nothing back', async () => {
    const drawn = TestBed.runInInjectionContext(() => store.afterCall(() => store.standing().length));
    expect(drawn()).toBe(0);
    store.type('nonsense');
    expect(store.takeAndCall(fail, fail)).toBeFalse();
    let seen: unknown;
    store.type('0');
    await new Promise<void>((painted) => store.takeAndCall(() => (seen = [store.standing().length, drawn()]), painted));
    expect(seen).toEqual([1, 0]);
    await until(() => drawn() === 1);
  });

  it('asks for place after place and calls after every reading', async () => {
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
    await until(() => sent().length === 3);
    expect(sent().map((entry) => entry.value)).toEqual(['0 div', '-9.5 div', '0 div']);
  });

  it('says what is wrong with a reading and keeps what was typed', () => {
    expect(take('about four')).toBeFalse();
    expect(store.fault()).toContain('Example: 3.5 div');
    expect(store.typed()).toBe('about four');
    expect(sent()).toEqual([]);
  });

  it('what was typed comes back after a reload', () => {
    store.type('3.');
    const again = TestBed.runInInjectionContext(() => new BenchStore());
    again.open(round.id).subscribe();
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

  it('two readings of one place that lie apart are asked about at once: both stay, or the first was misread', async () => {
    take('0');
    store.repeatLast();
    // Two divisions are what a hand and a needle do.
    expect(take('2')).toBeTrue();
    store.repeatLast();
    expect(take('13')).toBeFalse();
    expect(store.apart()?.value).toBe('2 div');
    expect(store.typed()).toBe('13');
    // Another figure, another question.
    store.type('1.3');
    expect(store.apart()).toBeNull();
    expect(take('13')).toBeFalse();
    store.keepBoth();
    expect(store.slots()[0].readings.map(({ value }) => value)).toEqual(['0 div', '2 div', '13 div']);
    expect([store.typed(), store.apart()]).toEqual(['', null]);
    store.repeatLast();
    expect(take('1')).toBeFalse();
    store.replaceFirst();
    await until(() => sent().length === 4);
    expect(sent()[3]).toEqual(jasmine.objectContaining({ supersedes: sent()[2].id, why: 'misread', value: '1 div' }));
    expect(store.slots()[0].readings.map(({ value }) => value)).toEqual(['0 div', '2 div', '1 div']);
    // Coming back to the first place at the end is what tells whether something moved: that is not asked.
    take('-9.5');
    expect(store.current()?.closing).toBeTrue();
    expect(take('20')).toBeTrue();
  });

  it('corrects a reading with a reason, in its place', async () => {
    take('5');
    take('0');
    store.correct(store.standing()[0]);
    expect(store.typed()).toBe('5 div');
    take('4');
    await until(() => sent().length === 3);
    expect(sent()[2]).toEqual(jasmine.objectContaining({ supersedes: sent()[0].id, why: 'misread', value: '4 div' }));
    expect(store.standing().map((entry) => entry.value)).toEqual(['4 div', '0 div']);
    store.withdraw(store.standing()[1]);
    expect(store.standing().length).toBe(1);
  });

  it('another set-up starts from the first place', async () => {
    take('0');
    take('1');
    take('0');
    store.anotherSetUp();
    expect(store.current()?.index).toBe(0);
    take('0');
    await until(() => sent().length === 4);
    expect(sent()[3].set).toBe(2);
  });

  it('says what is left in the work', () => {
    take('0');
    take('-9.5');
    expect(store.work()[0]).toEqual(jasmine.objectContaining({ quantity: 'offsetHorizontal', leave: false }));
    expect(store.work()[0].effect).toBeCloseTo(21.1, 1);
  });

  it('refuses at once what its check cannot read, and sends nothing', () => {
    expect(take('1e400')).toBeFalse();
    expect(store.fault()).not.toBe('');
    expect(sent()).toEqual([]);
  });

  it('what the server refuses becomes a draft to put right, in its place', async () => {
    server.refuse = refusal(400, 'must be a reading that this dial can show', undefined, 'value');
    take('3');
    await until(() => store.refused().length === 1);
    expect(store.standing()).toEqual([]);
    store.choose(1);
    store.putRight(store.refused()[0]);
    expect(store.current()?.index).toBe(0);
    expect(store.typed()).toBe('3 div');
    expect(store.fault()).toContain('must be a reading');
    await until(() => store.refused().length === 0);
    expect(take('3.5 div')).toBeTrue();
    await until(() => server.rounds[0].readings.length === 1);
    expect(server.rounds[0].readings[0].value).toBe('3.5 div');
  });

  it('another round under the address leaves nothing of the one before, also when nobody knows it', async () => {
    take('0');
    expect(store.standing().length).toBe(1);
    const failed = jasmine.createSpy();
    store.open(crypto.randomUUID()).subscribe({ error: failed });
    expect(store.round()).toBeNull();
    expect(store.standing()).toEqual([]);
    expect(store.slots()).toEqual([]);
    await until(() => failed.calls.count() === 1);
    expect(store.round()).toBeNull();
  });
});

describe('what is asked beside a figure', () => {
  const cut = (): TestRound => ({
    ...barRound(0, 0),
    ...{ check: 'tailstock-test-cut', instrument: { kind: 'micrometer', graduation: '1 um' }, plan: {}, readings: [] },
    setup: { centreDistance: '420 mm', bar: { diameter: '25 mm' }, dial: 'radius' },
  });
  const open = async () => {
    const round = cut();
    await openShop([round], { providers: [BenchStore] });
    const store = TestBed.inject(BenchStore);
    store.open(round.id).subscribe();
    await until(() => store.round() !== null);
    return store;
  };
  const take = (store: BenchStore, text: string) => {
    store.type(text);
    expect(store.take()).withContext(store.fault()).toBeTrue();
  };

  it('two tool settings on a radius dial count twice, and the place is told without them', async () => {
    const store = await open();
    expect(Object.keys(store.besides.schema()?.shape ?? {})).toEqual(['temperature', 'toolSetting']);
    take(store, '25.000 mm');
    store.typeBeside({ toolSetting: '0.02' });
    take(store, '24.960 mm');
    expect(store.standing().map(({ keys }) => keys['toolSetting'] ?? 'none')).toEqual(['none', '0.02 mm']);
    expect(store.slots().map(({ done }) => done)).toEqual([true, true]);
    // 40 µm less on the diameter is what the tool was set in by, on radius, twice: the pads are alike.
    expect(store.solved().finding?.quantities['offsetHorizontal'].value).toBeCloseTo(0, 6);
  });

  it('a temperature stays in its field for the next pad; a warm pad is taken back to the other', async () => {
    const store = await open();
    store.typeBeside({ temperature: '20' });
    take(store, '25.000 mm');
    expect(store.besides.typed()).toEqual({ temperature: '20' });
    store.typeBeside({ temperature: '30 C' });
    take(store, '25.003 mm');
    // 25 mm, 10 degrees, 11.5 per million: 2.9 µm of the 3 are warmth.
    expect(store.solved().finding?.quantities['offsetHorizontal'].value).toBeCloseTo((-0.12 / 2) * (420 / (400 - 20)), 1);
    store.correct(store.standing()[1]);
    expect(store.besides.typed()).toEqual({ temperature: '30 C' });
  });
});

describe('three places along a line', () => {
  it('a reading ten times its neighbours is asked about at once, and stands when it was meant', async () => {
    const plan = { plan: { planes: 'h', places: ['20 mm', '200 mm', '380 mm'] } };
    const round = { ...barRound(0, 0, plan), readings: [] };
    const { server } = await openShop([round], { providers: [BenchStore] });
    const store = TestBed.inject(BenchStore);
    store.open(round.id).subscribe();
    await until(() => store.round() !== null);
    const take = (text: string) => {
      store.type(text);
      return store.take();
    };
    expect([take('0'), take('1.5')]).toEqual([true, true]);
    expect(take('15')).toBeFalse();
    expect(store.asked()).toEqual(['15 div', '1.5 div']);
    expect(store.fitsDial()).toBeTrue();
    expect(take('15 div')).toBeTrue();
    await until(() => server.sent.length === 3);
    expect((server.sent[2].body as ReadingWrite).value).toBe('15 div');
  });
});
