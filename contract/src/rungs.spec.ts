import { startingSheet, type Finding } from '@isometra/core';
import type { MoveWrite, Round } from './round.js';
import { checksFor } from './machine.js';
import { handRungsOf, nextByHand } from './handRungs.js';
import { belowTheHand, nextRung, rungsOf } from './rungs.js';
import { defaultPlan, moved, orderOf, type SurveyPlan } from './survey.js';

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

describe('what is done by hand', () => {
  beforeEach(() => (day = 0));
  const at = (date: string) => ({ note: null, by: 'HB', at: `2026-02-${date}T12:00:00.000Z` });

  it('stands at the ends of the ladder: cleaning everywhere, a proof cut on a lathe', () => {
    const steps = (kind: string) => handRungsOf(kind, [], []).map(({ step }) => step.id);
    expect(steps('engine-lathe')).toEqual(['clean', 'proof-cut']);
    expect(steps('turret-mill')).toEqual(['clean']);
    expect(steps('turning-centre')).toEqual(['clean']);
  });

  it('a move makes a proof cut stale, and cleaning never', () => {
    const written = [
      { step: 'clean' as const, ...at('01') },
      { step: 'proof-cut' as const, ...at('01') },
    ];
    const states = (rounds: Round[]) => handRungsOf('engine-lathe', rounds, written).map(({ state: stands }) => stands);
    expect(states([round('bed-twist', 'in')])).toEqual(['in', 'in']);
    const moved = [...Array.from({ length: 4 }, () => round('bed-twist', 'in')), round('bed-twist', 'out', { moved: true })];
    expect(states(moved)).toEqual(['in', 'stale']);
    expect(handRungsOf('engine-lathe', moved, written)[1].staleBecause).toBe('“Bed twist” has been moved since: do it again');
  });

  it('comes next before anything is measured, and when every rung is in', () => {
    const next = (rounds: Round[], written: Parameters<typeof handRungsOf>[2] = []) =>
      nextByHand(handRungsOf('engine-lathe', rounds, written), rungsOf('engine-lathe', rounds))?.id;
    expect(next([])).toBe('clean');
    expect(next([], [{ step: 'clean', ...at('01') }])).toBeUndefined();
    expect(next([round('bed-twist', 'in')])).toBeUndefined();
    const all = checksFor('engine-lathe').flatMap(({ id }) => [round(id, 'in', { place: 1 }), round(id, 'in', { place: 2 })]);
    expect(next(all)).toBe('proof-cut');
    expect(next(all, [{ step: 'proof-cut', ...at('01') }])).toBeUndefined();
  });
});

describe('the plan of a survey', () => {
  beforeEach(() => (day = 0));
  const plan = (part: Partial<SurveyPlan>): SurveyPlan => ({ ...defaultPlan('engine-lathe'), ...part });
  const rung = (rounds: Round[], id: string, part: Partial<SurveyPlan>) =>
    rungsOf('engine-lathe', rounds, plan(part)).find((entry) => entry.check.id === id);
  const by = { by: 'HB', at: '2026-03-01T08:00:00.000Z' };

  it('from the top, a move makes every rung stale, with the reason on each', () => {
    const rounds = [round('stiffness', 'in'), round('bed-twist', 'in'), round('tailstock-traverse', 'out', { moved: true })];
    expect(rung(rounds, 'bed-twist', { school: 'cascade' })?.state).toBe('in');
    expect(rung(rounds, 'bed-twist', { school: 'top' })?.state).toBe('stale');
    expect(rung(rounds, 'bed-twist', { school: 'top' })?.staleBecause).toContain('“Bar between centres” was moved');
    expect(rung(rounds, 'tailstock-traverse', { school: 'top' })?.staleBecause).toContain('moved since');
    const again = [...rounds, round('tailstock-traverse', 'in')];
    expect(nextRung(rungsOf('engine-lathe', again, plan({ school: 'top' })))?.checkId).toBe('stiffness');
  });

  it('a rung left out on purpose is left, whatever was read, and is never the next one', () => {
    const skipped = [{ check: 'stiffness', why: 'known to be stiff', ...by }];
    expect(rung([round('stiffness', 'out')], 'stiffness', { skipped })?.leftBecause).toBe('left out: known to be stiff');
    expect(nextRung(rungsOf('engine-lathe', [], plan({ skipped })))?.checkId).not.toBe('stiffness');
  });

  it('a value accepted as too small to matter leaves its rung alone, for that round only', () => {
    const first = round('bed-twist', 'out');
    const accepted = [{ check: 'bed-twist', quantity: 'q', roundId: first.id, why: 'short work only', ...by }];
    expect(rung([first], 'bed-twist', { accepted })?.state).toBe('left');
    expect(rung([first], 'bed-twist', { accepted })?.leftBecause).toBe('too small to matter: short work only');
    expect(rung([first, round('bed-twist', 'out')], 'bed-twist', { accepted })?.state).toBe('out');
    expect(nextRung(rungsOf('engine-lathe', [first], plan({ accepted })))?.checkId).not.toBe('bed-twist');
  });

  it('rungs stand in the survey’s own order; what it does not name follows', () => {
    const order = orderOf('engine-lathe', ['spindle-axis', 'no-such-check', 'bed-twist']);
    expect(order.slice(0, 2)).toEqual(['spindle-axis', 'bed-twist']);
    expect([...order].sort()).toEqual(
      checksFor('engine-lathe')
        .map((check) => check.id)
        .sort(),
    );
    expect(rungsOf('engine-lathe', [], plan({ order }))[0].check.id).toBe('spindle-axis');
  });

  it('a rung moves up or down, and not beyond the ends', () => {
    expect(moved(['a', 'b', 'c'], 'c', -1)).toEqual(['a', 'c', 'b']);
    expect(moved(['a', 'b', 'c'], 'a', 2)).toEqual(['b', 'c', 'a']);
    expect(moved(['a', 'b', 'c'], 'a', -1)).toEqual(['a', 'b', 'c']);
    expect(moved(['a', 'b', 'c'], 'x', 1)).toEqual(['a', 'b', 'c']);
  });
});

describe('what a hand moves', () => {
  const pushed = (value: number) =>
    ({
      ...round('stiffness', null),
      finding: { quantities: { compliance: { value, verdict: null } }, notes: [], moves: [] },
    }) as unknown as Round;
  const below = (rounds: Round[], part: Partial<SurveyPlan> = {}) =>
    belowTheHand(rungsOf('engine-lathe', rounds, { ...defaultPlan('engine-lathe'), ...part }), startingSheet('general'));

  it('is compared with the limits of the rungs: those below it are named', () => {
    const found = below([pushed(12)]);
    expect(found?.moved).toBe(12);
    const names = found?.below.map(({ check, quantity }) => `${check.id}/${quantity}`) ?? [];
    expect(names).toContain('centre-runout/radial');
    expect(names).not.toContain('tailstock-traverse/offsetHorizontal');
    expect(below([pushed(1)])?.below).toEqual([]);
  });

  it('leaves out rungs that are left out, and says nothing before anybody pushed', () => {
    expect(below([])).toBeUndefined();
    const skipped = [{ check: 'centre-runout', why: 'no centre in use', by: 'HB', at: '2026-03-01T08:00:00.000Z' }];
    expect(below([pushed(12)], { skipped })?.below.some(({ check }) => check.id === 'centre-runout')).toBeFalse();
  });
});
