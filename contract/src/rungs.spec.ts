import type { Finding } from '@isometra/core';
import type { MoveWrite, Round } from './round.js';
import { checksFor, nextRung, rungsOf } from './rungs.js';

type Verdict = 'in' | 'out' | 'unsure';
let day = 0;

function round(check: string, verdict: Verdict | null, more: { moved?: boolean; place?: number } = {}): Round {
  day += 1;
  const at = `2026-02-${String(day).padStart(2, '0')}T08:00:00.000Z`;
  const finding = { quantities: verdict ? { q: { verdict, value: 1 } } : {}, notes: [], moves: [] } as unknown as Finding;
  const moves = more.moved ? [{ done: true, at: at.replace('08', '10') } as MoveWrite] : [];
  return {
    id: `${check}${day}`,
    check,
    at,
    finding,
    moves,
    conditions: more.place === undefined ? {} : { place: more.place },
  } as unknown as Round;
}
const state = (rounds: Round[], id: string) => rungsOf('engine-lathe', rounds).find((rung) => rung.check.id === id);

describe('the rungs of a machine', () => {
  beforeEach(() => (day = 0));

  it('are those of its kind, in working order', () => {
    const lathe = checksFor('engine-lathe').map((check) => check.id);
    expect(lathe.indexOf('bed-twist')).toBeLessThan(lathe.indexOf('spindle-axis'));
    expect(lathe.indexOf('spindle-axis')).toBeLessThan(lathe.indexOf('tailstock-traverse'));
    expect(lathe).not.toContain('head-tram');
    expect(checksFor('turret-mill').map((check) => check.id)).toContain('head-tram');
    expect(checksFor('turning-centre').map((check) => check.id)).toContain('sub-spindle');
  });

  it('stand as their latest round says; a round that says nothing changes nothing', () => {
    expect(state([round('bed-twist', 'out'), round('bed-twist', 'in')], 'bed-twist')?.state).toBe('in');
    expect(state([round('bed-twist', 'unsure'), round('bed-twist', null)], 'bed-twist')?.state).toBe('unsure');
    expect(state([], 'bed-twist')?.state).toBe('none');
  });

  it('a move makes its own rung and what it upsets stale, until they are read again', () => {
    const rounds = [round('tailstock-traverse', 'in'), round('bed-twist', 'out', { moved: true })];
    expect(state(rounds, 'bed-twist')?.staleBecause).toBe('moved since: read it again');
    expect(state(rounds, 'tailstock-traverse')?.staleBecause).toBe('upset by a move on “Bed twist”');
    const again = [...rounds, round('bed-twist', 'in'), round('tailstock-traverse', 'in')];
    expect(state(again, 'bed-twist')?.state).toBe('in');
    expect(state(again, 'tailstock-traverse')?.state).toBe('in');
  });

  it('a move on the tailstock does not make the bed stale', () => {
    expect(state([round('bed-twist', 'in'), round('tailstock-traverse', 'out', { moved: true })], 'bed-twist')?.state).toBe('in');
  });

  it('name what is next, and why', () => {
    const next = (rounds: Round[]) => nextRung(rungsOf('engine-lathe', rounds));
    expect(next([])?.checkId).toBe('stiffness');
    expect(next([round('bed-twist', 'out')])).toEqual({ checkId: 'bed-twist', why: 'It is out: do the move.' });
    expect(next([round('bed-twist', 'out', { moved: true }), round('spindle-axis', 'out')])?.why).toBe('It was moved: read it again.');
    expect(next([round('spindle-axis', 'unsure')])?.why).toContain('read it finer');
    expect(next([round('tailstock-traverse', 'in', { place: 600 })])?.why).toContain('Check a second');
    expect(next([round('tailstock-traverse', 'in', { place: 600 }), round('tailstock-traverse', 'in', { place: 1100 })])?.why).toContain(
      'Not measured yet',
    );
  });
});
