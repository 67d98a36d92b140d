import { TestBed } from '@angular/core/testing';
import { firstValueFrom } from 'rxjs';
import type { ReadingWrite, StoredRound } from '@isometra/contract';
import { barRound, openShop, passTime, passTimeUntil, until, type TestRound } from '../testing/fake-shop';
import { Heads } from './heads';
import { Outbox } from './outbox';
import { newestMoves } from './round-shown';
import { Rounds } from './rounds';

const taken = (id = crypto.randomUUID() as string, value = '1 div'): ReadingWrite => ({
  ...{ id, keys: { plane: 'h', at: 50 }, value, set: 1, supersedes: null, why: null, by: 'HB', at: '2026-01-01T00:00:00.000Z' },
});

describe('the rounds', () => {
  const open = async (round: TestRound = barRound(10, 9)) => {
    const shop = await openShop([round]);
    const rounds = TestBed.inject(Rounds);
    const seen: StoredRound[] = [];
    rounds.one(round.id).subscribe((now) => seen.push(now));
    await firstValueFrom(rounds.load(round.id), { defaultValue: undefined });
    const now = (): StoredRound => seen.at(-1) as StoredRound;
    return { ...shop, round, rounds, seen, now, outbox: TestBed.inject(Outbox) };
  };

  it('show a reading at once, and send it by itself', async () => {
    const { server, round, rounds, now } = await open();
    rounds.takeReading(now(), taken());
    expect(now().readings.length).toBe(round.readings.length + 1);
    expect(now().readings.at(-1)?.sequence).toBe(6);
    await until(() => server.sent.length > 0);
    expect(server.sent[0]).toEqual(jasmine.objectContaining({ method: 'POST', path: `/rounds/${round.id}/readings` }));
  });

  it('a slow answer that began before a reading was acknowledged takes nothing away', async () => {
    const { server, rounds, now, outbox } = await open();
    server.holds = (method) => method === 'GET';
    let answered = false;
    rounds.load(now().id).subscribe({ complete: () => (answered = true) });
    rounds.takeReading(now(), taken('b8a4b3ce-1111-4000-8000-000000000001'));
    await until(() => outbox.waiting() === 0);
    expect(answered).toBeFalse();
    server.letGo();
    expect(answered).toBeTrue();
    expect(now().readings.map(({ id }) => id)).toContain('b8a4b3ce-1111-4000-8000-000000000001');
    expect(now().readings.length).toBe(6);
  });

  it('of two questions the last one wins, not the last answer', async () => {
    const { server, rounds, now, round } = await open();
    server.holds = () => true;
    rounds.load(round.id).subscribe();
    server.holds = () => false;
    server.rounds = server.rounds.map((entry) => ({ ...entry, version: 2, setup: { centreDistance: '500 mm' } }));
    await firstValueFrom(rounds.load(round.id), { defaultValue: undefined });
    expect(now().setup).toEqual({ centreDistance: '500 mm' });
    server.letGo();
    expect(now().setup).toEqual({ centreDistance: '500 mm' });
  });

  it('a round that is still on its way can be read into, and its head is in the list', async () => {
    const { server, rounds, desk } = await open();
    server.down = true;
    const { finding: _finding, readings: _readings, moves: _moves, number: _number, surveyId: _survey, ...fresh } = barRound(1, 1);
    const later = { ...fresh, at: '2027-01-01T08:00:00.000Z' };
    rounds.begin(later);
    const seen: StoredRound[] = [];
    rounds.one(later.id).subscribe((now) => seen.push(now));
    expect(seen.at(-1)?.setup).toEqual(later.setup);
    rounds.takeReading(seen.at(-1) as StoredRound, taken());
    expect(seen.at(-1)?.readings.length).toBe(1);
    const head = desk.of(later.check).at(-1);
    expect([head?.id, head?.number]).toEqual([later.id, 2]);
    await until(() => TestBed.inject(Outbox).away());
    server.down = false;
    await until(() => server.rounds.length === 2 && server.rounds[1].readings.length === 1, 4000);
    await until(() => seen.at(-1)?.surveyId !== '');
    expect(seen.at(-1)?.readings.length).toBe(1);
  });

  it('a round that nobody knows fails, and shows nothing', async () => {
    const { rounds } = await open();
    const id = crypto.randomUUID();
    const shown = jasmine.createSpy();
    rounds.one(id).subscribe(shown);
    await expectAsync(firstValueFrom(rounds.load(id))).toBeRejectedWithError(/No such thing/);
    expect(shown).not.toHaveBeenCalled();
    expect(rounds.knows(id)).toBeFalse();
  });

  it('an answer of the wrong shape is told, never shown', async () => {
    const { server, rounds, round, now } = await open();
    const before = now();
    server.rounds = [{ ...round, readings: 'none' } as unknown as StoredRound];
    await expectAsync(firstValueFrom(rounds.load(round.id))).toBeRejectedWithError(/cannot be read/);
    expect(now()).toBe(before);
  });

  it('three quick changes of a move make one move, each on top of the one before', async () => {
    const { server, rounds, round, now } = await open();
    server.latency = (method) => (method === 'GET' ? 1 : 150);
    const [move] = barRound(1, 1, { moves: [{ doneAt: null }] }).moves;
    for (const [i, ticks] of [[0], [0, 1], [0, 1, 2]].entries())
      rounds.putMove(round.machineId, { ...move, roundId: round.id, ticks }, i > 0);
    expect(now().moves.map(({ ticks }) => ticks)).toEqual([[0, 1, 2]]);
    await until(() => server.sent.length === 3 && TestBed.inject(Outbox).waiting() === 0);
    expect(server.rounds[0].moves.length).toBe(1);
    expect(now().moves.map(({ ticks }) => ticks)).toEqual([[0, 1, 2]]);
  });

  it('the newest of each move counts', () => {
    const [move] = barRound(1, 1, { moves: [{}] }).moves;
    const version = (of: number) => ({ ...move, version: of });
    expect(newestMoves([version(3)], [version(2)]).map((entry) => entry.version)).toEqual([3]);
    expect(newestMoves([version(2)], [version(3)]).map((entry) => entry.version)).toEqual([3]);
  });
});

describe('the heads', () => {
  it('what the bench has worked out stands until the server shows as much', async () => {
    const { server, desk } = await openShop([{ ...barRound(40, 9), readings: barRound(40, 9).readings.slice(0, 1) }]);
    const offset = () => desk.of('tailstock-traverse')[0].finding?.quantities['offsetHorizontal']?.value;
    expect(offset()).toBeUndefined();
    const full = barRound(40, 9);
    const [head] = desk.of('tailstock-traverse');
    TestBed.inject(Heads).tell({ ...head, last: 2, finding: { quantities: { offsetHorizontal: { ...q, value: 12 } }, notes: [] } });
    expect(offset()).toBe(12);
    desk.refresh();
    await until(() => server.asked.filter((entry) => entry.includes('/heads?')).length === 2);
    expect(offset()).toBe(12);
    server.rounds = [{ ...server.rounds[0], readings: full.readings }];
    desk.refresh();
    await until(() => offset() !== 12);
    expect(offset()).toBeCloseTo(40, 0);
  });

  it('readings that land when no bench of this page told of them are asked after, once for all of them', async () => {
    const full = barRound(40, 9);
    const { server, desk } = await openShop([{ ...full, readings: full.readings.slice(0, 1) }]);
    const asked = () => server.asked.filter((entry) => entry.includes('/heads?')).length;
    const offset = () => desk.of('tailstock-traverse')[0].finding?.quantities['offsetHorizontal']?.value;
    const before = asked();
    // As from another tab, or from a page that was left before the server had them.
    for (const { keys, value, at } of full.readings.slice(1)) {
      const body: ReadingWrite = { ...taken(), keys, value, at };
      const path = `/rounds/${full.id}/readings`;
      TestBed.inject(Outbox).put({ id: body.id, what: 'reading', method: 'POST', path, body, about: full.id, machineId: full.machineId });
    }
    await until(() => offset() !== undefined);
    expect(offset()).toBeCloseTo(40, 0);
    expect(asked() - before).toBe(1);
  });

  it('a reading that the bench told of is not asked after', async () => {
    const { server, desk, round } = await openShop([barRound(40, 9)]).then((shop) => ({ ...shop, round: shop.server.rounds[0] }));
    const [head] = desk.of('tailstock-traverse');
    TestBed.inject(Heads).tell({ ...head, last: head.last + 1 });
    const outbox = TestBed.inject(Outbox);
    const body = taken();
    jasmine.clock().install();
    const before = server.asked.length;
    outbox.put({
      ...{ id: body.id, what: 'reading', method: 'POST', path: `/rounds/${round.id}/readings`, body },
      ...{ about: round.id, machineId: round.machineId },
    });
    await passTimeUntil(() => outbox.waiting() === 0);
    await passTime(1000);
    jasmine.clock().uninstall();
    expect(server.asked.slice(before)).toEqual([`POST /rounds/${round.id}/readings`]);
  });
});

const q = { value: 0, unit: 'um', expanded: 1, direction: null, limit: null, aim: null, verdict: null };
