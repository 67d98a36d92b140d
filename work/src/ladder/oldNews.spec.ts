import { oldNews } from './oldNews.js';
import { Diary, finding, quantity } from '../testing/heads.js';

describe('a round that is history', () => {
  const diary = new Diary();
  const said = (value: number, more: object = {}) =>
    diary.round('tailstock-traverse', 'out', { finding: finding({ offsetHorizontal: quantity({ value, expanded: 3 }) }), ...more });
  const first = said(40);
  const moved = { ...first, moves: diary.moved('tailstock-traverse').moves };
  const later = said(2);
  const open = { title: 'As found', endedAt: null };
  const around = { rounds: [first], survey: open, stale: undefined };

  it('was read again since: that round is the one that counts', () => {
    expect(oldNews(first, { ...around, rounds: [first, later] })).toEqual({ code: 'later-round', round: later });
    // A round that was begun and says nothing yet is no later word; nor is one of another thing.
    expect(oldNews(first, { ...around, rounds: [first, { ...later, finding: null }] })).toBeUndefined();
    expect(oldNews(first, { ...around, rounds: [first, { ...later, check: 'bed-twist' }] })).toBeUndefined();
  });

  it('has its move behind it; not where that was taken out again', () => {
    expect(oldNews(moved, { ...around, rounds: [moved] })).toEqual({ code: 'moved', move: moved.moves[0] });
    const made = { dial: null, preset: 0, tightened: null, rule: null, takenOut: { at: later.at, by: 'AB' } };
    expect(oldNews({ ...moved, moves: moved.moves.map((move) => ({ ...move, made })) }, around)).toBeUndefined();
  });

  it('was upset by something else, or belongs to a survey that has ended', () => {
    expect(oldNews(first, { ...around, stale: { code: 'moved' } })?.code).toBe('stale');
    expect(oldNews(first, { ...around, survey: { title: 'As found', endedAt: later.at } })?.code).toBe('ended');
    expect(oldNews(first, around)).toBeUndefined();
  });
});
