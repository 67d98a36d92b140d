import { TestBed } from '@angular/core/testing';
import type { ReadingWrite, Round } from '@isometra/contract';
import { ApiFailure } from './api';
import { barRound, openShop, until } from '../testing/fake-shop.spec';
import { Drafts } from './drafts';
import { Outbox } from './outbox';
import { Rounds, latestOf } from './rounds';

const taken = (id: string): ReadingWrite => ({
  id,
  keys: { plane: 'h', at: 50 },
  value: '1 div',
  set: 1,
  supersedes: null,
  why: null,
  by: 'HB',
  at: '2026-01-01T00:00:00.000Z',
});

describe('the rounds', () => {
  const open = () => {
    const round = barRound(10, 9);
    const shop = openShop([round]);
    const rounds = TestBed.inject(Rounds);
    const seen: Round[] = [];
    rounds.one(round.id).subscribe((now) => seen.push(now));
    return { ...shop, round, rounds, seen };
  };

  it('show a reading at once, and send it by itself', async () => {
    const { api, round, rounds, seen } = open();
    rounds.takeReading(round.id, taken('new'));
    expect(seen.at(-1)?.readings.length).toBe(round.readings.length + 1);
    expect(seen.at(-1)?.readings.at(-1)?.sequence).toBe(6);
    await until(() => api.sent.length > 0);
    expect(api.sent[0]).toEqual(jasmine.objectContaining({ method: 'POST', path: `/rounds/${round.id}/readings` }));
  });

  it('read again what the server refused, and say so', async () => {
    const { api, round, rounds, seen } = open();
    const told: string[] = [];
    rounds.refused.subscribe(({ message }) => told.push(message));
    api.refuse = new ApiFailure(400, [{ path: 'value', message: 'is wrong', example: '1 div' }]);
    rounds.takeReading(round.id, taken('bad'));
    await until(() => told.length > 0);
    expect(told).toEqual(['value: is wrong']);
    await until(() => seen.at(-1)?.readings.length === round.readings.length);
    expect(seen.at(-1)?.readings.length).toBe(round.readings.length);
  });

  it('what waits from before is laid on what the server has', () => {
    const round = barRound(10, 9);
    openShop([round]);
    const outbox = TestBed.inject(Outbox);
    spyOn(outbox as unknown as { work: () => Promise<void> }, 'work').and.resolveTo();
    outbox.put({ id: 'kept', method: 'POST', path: `/rounds/${round.id}/readings`, body: taken('kept'), round: round.id });
    let now: Round | undefined;
    TestBed.inject(Rounds)
      .one(round.id)
      .subscribe((shown) => (now = shown));
    expect(now?.readings.map((reading) => reading.id)).toContain('kept');
  });

  it('another tab’s news makes an open round be read again', async () => {
    const { api, round } = open();
    const get = spyOn(api, 'get').and.callThrough();
    const channel = new BroadcastChannel('isometra-rounds');
    channel.postMessage(round.id);
    await until(() => get.calls.count() > 0);
    channel.close();
    expect(get).toHaveBeenCalledWith(`/rounds/${round.id}`);
  });

  it('the latest of each check is the last', () => {
    const [first, second] = [barRound(1, 1), barRound(2, 2)];
    expect(latestOf([first, second]).get('tailstock-traverse')).toBe(second);
  });
});

describe('drafts', () => {
  it('come back as they were, and are gone when they are dropped', () => {
    localStorage.clear();
    const drafts = new Drafts();
    drafts.keep('a', { typed: '16 1/2' });
    expect(new Drafts().read<object>('a')).toEqual({ typed: '16 1/2' });
    drafts.drop('a');
    expect(drafts.read('a')).toBeUndefined();
    localStorage.setItem('isometra-draft:b', '{broken');
    expect(drafts.read('b')).toBeUndefined();
  });
});
