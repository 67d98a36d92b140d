import { CHECKS, startingSheet } from '@isometra/core';
import { defaultPlan, moved, orderOf, type CampaignPlan } from './campaign.js';
import type { RoundHead } from '@isometra/contract';
import { handRungsOf, handStaleWords, nextByHand } from './handRungs.js';
import { checksFor } from '../sheets/machines.js';
import { nextRung } from './nextRung.js';
import { leftWords, staleWords, waitWords } from './reasons.js';
import { belowTheHand, rungsOf } from './rungs.js';
import { Diary, finding, move, quantity } from '../testing/heads.js';

let diary = new Diary();
beforeEach(() => (diary = new Diary()));

const lathe = (part: Partial<CampaignPlan> = {}): CampaignPlan => ({ ...defaultPlan('engine-lathe'), ...part });
const rungOf = (rounds: readonly RoundHead[], id: string, part: Partial<CampaignPlan> = {}) =>
  rungsOf('engine-lathe', rounds, lathe(part)).find((rung) => rung.check.id === id);
const by = { id: 'n', by: 'HB', at: '2026-03-01T08:00:00.000Z' };

describe('the rungs of a machine', () => {
  it('are those of its kind, in working order', () => {
    const ids = checksFor('engine-lathe').map((check) => check.id);
    expect(ids.indexOf('bed-twist')).toBeLessThan(ids.indexOf('spindle-axis'));
    expect(ids.indexOf('spindle-axis')).toBeLessThan(ids.indexOf('tailstock-traverse'));
    expect(ids).not.toContain('head-tram');
    expect(checksFor('turret-mill').map((check) => check.id)).toContain('head-tram');
    expect(checksFor('turning-centre').map((check) => check.id)).toContain('sub-spindle');
  });

  it('stand as their latest round says; a round that says nothing changes nothing', () => {
    expect(rungOf([diary.round('bed-twist', 'out'), diary.round('bed-twist', 'in')], 'bed-twist')?.state).toBe('in');
    expect(rungOf([diary.round('bed-twist', 'unsure'), diary.round('bed-twist', null)], 'bed-twist')?.state).toBe('unsure');
    expect(rungOf([], 'bed-twist')?.state).toBe('none');
  });

  it('stand by the latest word on each quantity: a nod that is out stays out when the next round reads the tilt alone', () => {
    const read = (quantities: Parameters<typeof finding>[0]) => diary.round('head-tram', null, { finding: finding(quantities) });
    const [tilt, nod] = [quantity({ verdict: 'in' }), quantity({ value: 90, verdict: 'out', limit: [-65, 65] })];
    const both = read({ tilt: quantity({ verdict: 'out' }), nod });
    const alone = read({ tilt });
    const mill = (rounds: RoundHead[]) => rungsOf('turret-mill', rounds).find(({ check }) => check.id === 'head-tram');
    const rung = mill([both, alone]);
    expect([rung?.state, rung?.round?.id, rung?.said?.id]).toEqual(['out', alone.id, both.id]);
    expect(Object.keys(rung?.found ?? {}))
      .withContext('in the order of the check')
      .toEqual(['tilt', 'nod']);
    expect(rung?.found['tilt'].verdict).withContext('the latest').toBe('in');
    // What is out and next is put right from the round that said so.
    expect(nextRung(rungsOf('turret-mill', [both, alone]))).toEqual(jasmine.objectContaining({ code: 'out', roundId: both.id }));
    expect(mill([both, alone, read({ nod: quantity({ verdict: 'in' }) })])?.state).toBe('in');
    // Told again without a verdict it is not told the old way any more.
    expect(mill([both, read({ tilt, nod: quantity({ verdict: null }) })])?.state).toBe('in');
    // A move makes all of it stale, and what was not read again stays so.
    const moved = { ...both, moves: [move({ quantity: 'tilt', begunAt: both.at, doneAt: both.at.replace('T08', 'T10') })] };
    expect(mill([moved, { ...alone, at: both.at.replace('T08', 'T11') }])?.stale).toEqual({ code: 'moved' });
  });

  it('a move makes its own rung and what it upsets stale, until they are read again', () => {
    const rounds = [diary.round('tailstock-traverse', 'in'), diary.moved('bed-twist')];
    expect(rungOf(rounds, 'bed-twist')?.stale).toEqual({ code: 'moved' });
    expect(rungOf(rounds, 'tailstock-traverse')?.stale).toEqual({ code: 'upset', check: 'bed-twist' });
    const again = [...rounds, diary.round('bed-twist', 'in'), diary.round('tailstock-traverse', 'in')];
    expect(rungOf(again, 'bed-twist')?.state).toBe('in');
    expect(rungOf(again, 'tailstock-traverse')?.state).toBe('in');
  });

  it('a move counts from when it was done, not from when its card was begun', () => {
    const begun = diary.round('bed-twist', 'out', { moved: null });
    const between = diary.round('bed-twist', 'in');
    expect(rungOf([begun, between], 'bed-twist')?.state).toBe('in');
    const finished = { ...begun, moves: begun.moves.map((move) => ({ ...move, doneAt: Diary.at(5) })) };
    expect(rungOf([finished, between], 'bed-twist')?.stale).toEqual({ code: 'during-move' });
    const after = { ...diary.round('bed-twist', 'in'), at: Diary.at(6) };
    expect(rungOf([finished, between, after], 'bed-twist')?.state).toBe('in');
  });

  it('a move on the tailstock does not make the bed stale', () => {
    expect(rungOf([diary.round('bed-twist', 'in'), diary.moved('tailstock-traverse')], 'bed-twist')?.state).toBe('in');
  });

  it('wait for a rung whose casting rocks, and that one comes next', () => {
    const rocks = diary.round('seat', 'out', {
      finding: finding({ rock: quantity({ verdict: 'out' }) }, [{ code: 'seat-rocks', severity: 'serious', halts: true }]),
    });
    const rounds = [rocks, diary.round('spindle-axis', 'out')];
    const waiting = rungOf(rounds, 'spindle-axis');
    expect(waiting?.state).toBe('unsure');
    expect(waiting?.waits).toEqual([{ check: 'seat', code: 'seat-rocks' }]);
    expect(waiting && waitWords(waiting.waits[0])).toBe('it waits for “Seat of a casting”: the casting rocks on its seat');
    expect(nextRung(rungsOf('engine-lathe', rounds))).toEqual(jasmine.objectContaining({ checkId: 'seat', code: 'waits', roundId: null }));
    // Another casting that does not rock, read after it, does not make it good.
    const tail = diary.round('seat', 'in', { conditions: { casting: 'tailstock' } });
    const seat = rungsOf('engine-lathe', [...rounds, tail]).find(({ check }) => check.id === 'seat');
    expect([seat?.state, seat?.thing]).toEqual(['out', 'headstock']);
    expect(rungOf([...rounds, tail], 'spindle-axis')?.waits).toEqual([{ check: 'seat', code: 'seat-rocks' }]);
    // Said or taken for granted, it is the same one: the form shows it first.
    const good = diary.round('seat', 'in', { conditions: { casting: 'headstock' } });
    expect(rungOf([...rounds, good], 'spindle-axis')?.waits).toEqual([]);
  });

  it('wait for the casting that they rest on, not for another one', () => {
    const rocks = (casting: string) =>
      diary.round('seat', 'out', {
        conditions: { casting },
        finding: finding({ rock: quantity({ verdict: 'out' }) }, [{ code: 'seat-rocks', severity: 'serious', halts: true }]),
      });
    const read = [diary.round('spindle-axis', 'in'), diary.round('tailstock-traverse', 'in')];
    const waits = (casting: string) =>
      ['spindle-axis', 'tailstock-traverse'].map((id) => rungOf([rocks(casting), ...read], id)?.waits.map(({ check }) => check));
    expect(waits('headstock')).toEqual([['seat'], ['seat']]);
    expect(waits('tailstock')).toEqual([[], ['seat']]);
    expect(waits('column')).toEqual([[], []]);
  });

  it('want to be read again after their time, where they have one', () => {
    const timed = checksFor('engine-lathe').find(({ goodFor }) => goodFor !== undefined);
    const id = timed?.id ?? '';
    const rungs = (now: string) =>
      rungsOf('engine-lathe', [diary.round(id, 'in')], lathe(), { now }).find(({ check }) => check.id === id)?.overdue;
    expect(rungs(Diary.at(2))).toBeUndefined();
    expect(rungs(Diary.at(31 + (timed?.goodFor ?? 0)))).toBeGreaterThan(20);
  });

  it('are due again by the days of the shop, not by hours', () => {
    const timed = checksFor('engine-lathe').find(({ goodFor }) => goodFor !== undefined);
    const round = { ...diary.round(timed?.id ?? '', 'in'), at: '2026-01-01T22:00:00.000Z' };
    const again = [{ check: round.check, days: 30 }];
    const over = (now: string, zone: string) =>
      rungsOf('engine-lathe', [round], lathe(), { now, zone, again }).find(({ check }) => check.id === round.check)?.overdue;
    // Read on the evening of 1 January in one place, of 2 January in the other: over after 31 January, or after 1 February.
    expect(over('2026-02-01T07:00:00.000Z', 'Europe/London')).toBe(1);
    expect(over('2026-02-01T07:00:00.000Z', 'Europe/Helsinki')).toBeUndefined();
  });

  it('that are overdue come before a second place along the bed', () => {
    const timed = checksFor('engine-lathe').find(({ goodFor }) => goodFor !== undefined);
    const rounds = [diary.round(timed?.id ?? '', 'in'), diary.round('tailstock-traverse', 'in', { place: 600 })];
    const code = (days: number) => nextRung(rungsOf('engine-lathe', rounds, lathe(), { now: Diary.at(days) }))?.code;
    expect(code(3)).toBe('second-place');
    expect(code(60 + (timed?.goodFor ?? 0))).toBe('overdue');
  });

  it('name what is next, and why', () => {
    const next = (rounds: RoundHead[]) => nextRung(rungsOf('engine-lathe', rounds));
    const two = (place: number) => diary.round('tailstock-traverse', 'in', { place });
    expect(next([])).toEqual(jasmine.objectContaining({ checkId: 'stiffness', code: 'first' }));
    const out = (id: string, name: string, value = 20) =>
      next([diary.round(id, 'out', { finding: finding({ [name]: quantity({ value, verdict: 'out' }) }) })])?.why;
    expect(out('bed-twist', 'twistPerMetre')).toBe('It is out: do the move.');
    expect(out('spindle-runout', 'noseRadial')).toContain('no move of a screw or a shim cures it');
    expect(
      nextRung(
        rungsOf('turning-centre', [
          diary.round('sub-spindle', 'out', { finding: finding({ offsetRadial: quantity({ value: 20, verdict: 'out' }) }) }),
        ]),
      )?.why,
    ).toBe('It is out: do the move.');
    expect(next([diary.moved('bed-twist'), diary.round('spindle-axis', 'out')])?.code).toBe('moved');
    expect(next([diary.round('spindle-axis', 'unsure')])?.code).toBe('unsure');
    expect(next([two(600)])?.code).toBe('second-place');
    expect(next([two(600), two(1100)])?.code).toBe('open');
  });
});

describe('words beside the codes', () => {
  it('name the check that upset a rung, and the change that was made', () => {
    expect(staleWords({ code: 'moved' })).toBe('moved since: read it again');
    expect(staleWords({ code: 'during-move' })).toContain('while it was being moved');
    expect(staleWords({ code: 'upset', check: 'bed-twist' })).toBe('upset by a move on “Bed twist”');
    expect(staleWords({ code: 'from-the-top', check: 'bed-twist' })).toContain('“Bed twist” was moved');
    expect(staleWords({ code: 'change-made', change: 'own' })).toContain('has been done since');
    expect(leftWords({ code: 'left-out', why: 'stiff' })).toBe('left out: stiff');
    expect(leftWords({ code: 'too-small', why: 'short work' })).toBe('too small to matter: short work');
  });
});

describe('what is done by hand', () => {
  const at = (day: number) => ({ id: `n${day}`, note: null, by: 'HB', at: Diary.at(day, 12) });

  it('stands at the ends of the ladder: cleaning everywhere, a proof cut where there is a tailstock', () => {
    const steps = (kind: string) => handRungsOf(kind, [], []).map(({ step }) => step.id);
    expect(steps('engine-lathe')).toEqual(['clean', 'proof-cut']);
    expect(steps('turret-mill')).toEqual(['clean']);
    expect(steps('turning-centre')).toEqual(['clean']);
    for (const kind of ['turning-centre-tailstock', 'turning-centre-both']) {
      expect(steps(kind)).toEqual(['clean', 'proof-cut']);
      expect(rungsOf(kind, []).map(({ check }) => check.id)).toContain('tailstock-test-cut');
    }
    expect(rungsOf('turning-centre-sub', []).map(({ check }) => check.id)).not.toContain('tailstock-test-cut');
  });

  it('a move makes a proof cut stale, and cleaning never', () => {
    const written = [
      { step: 'clean', ...at(1) },
      { step: 'proof-cut', ...at(1) },
    ];
    const states = (rounds: RoundHead[]) => handRungsOf('engine-lathe', rounds, written).map(({ state }) => state);
    expect(states([diary.round('bed-twist', 'in')])).toEqual(['in', 'in']);
    const rounds = [...Array.from({ length: 4 }, () => diary.round('bed-twist', 'in')), diary.moved('bed-twist')];
    expect(states(rounds)).toEqual(['in', 'stale']);
    const why = (...facts: Parameters<typeof handRungsOf>) => {
      const stale = handRungsOf(...facts)[1].staleBy;
      return stale && handStaleWords(stale);
    };
    expect(why('engine-lathe', rounds, written)).toBe('“Bed twist” has been moved since: do it again');
    // Metal that came off any face, and a planned change that was made, likewise; what was done before it not.
    const [before, after] = [Diary.at(1, 8), Diary.at(2, 8)];
    expect(why('engine-lathe', [], written, { passes: [before, after] })).toBe('Metal has been scraped off since: do it again');
    expect(why('engine-lathe', [], written, { changes: [after] })).toBe('A planned change has been made since: do it again');
    expect(why('engine-lathe', [], written, { passes: [before], changes: [before] })).toBeUndefined();
  });

  it('comes next before anything is measured, and when every rung is in', () => {
    const next = (rounds: RoundHead[], written: Parameters<typeof handRungsOf>[2] = []) =>
      nextByHand(handRungsOf('engine-lathe', rounds, written), rungsOf('engine-lathe', rounds))?.id;
    expect(next([])).toBe('clean');
    expect(next([], [{ step: 'clean', ...at(1) }])).toBeUndefined();
    expect(next([diary.round('bed-twist', 'in')])).toBeUndefined();
    const all = checksFor('engine-lathe').flatMap(({ id }) => [diary.round(id, 'in', { place: 1 }), diary.round(id, 'in', { place: 2 })]);
    expect(next(all)).toBe('proof-cut');
    expect(next(all, [{ step: 'proof-cut', ...at(1) }])).toBeUndefined();
  });
});

describe('the plan of a survey', () => {
  it('from the top, a move makes every rung stale, with the reason on each', () => {
    const rounds = [diary.round('stiffness', 'in'), diary.round('bed-twist', 'in'), diary.moved('tailstock-traverse')];
    expect(rungOf(rounds, 'bed-twist', { school: 'cascade' })?.state).toBe('in');
    expect(rungOf(rounds, 'bed-twist', { school: 'top' })?.stale).toEqual({ code: 'from-the-top', check: 'tailstock-traverse' });
    expect(rungOf(rounds, 'tailstock-traverse', { school: 'top' })?.stale).toEqual({ code: 'moved' });
    const again = [...rounds, diary.round('tailstock-traverse', 'in')];
    expect(nextRung(rungsOf('engine-lathe', again, lathe({ school: 'top' })))?.checkId).toBe('stiffness');
  });

  it('a rung left out on purpose is left, whatever was read, and is never the next one', () => {
    const skipped = [{ check: 'stiffness', why: 'known to be stiff', by: 'HB', at: by.at }];
    expect(rungOf([diary.round('stiffness', 'out')], 'stiffness', { skipped })?.left).toEqual({
      code: 'left-out',
      why: 'known to be stiff',
    });
    expect(nextRung(rungsOf('engine-lathe', [], lathe({ skipped })))?.checkId).not.toBe('stiffness');
  });

  it('a value accepted as too small to matter leaves its rung alone, for that round only', () => {
    const first = diary.round('bed-twist', 'out');
    const accepted = [{ check: 'bed-twist', quantity: 'q', roundId: first.id, why: 'short work only', ...by }];
    expect(rungOf([first], 'bed-twist', { accepted })?.left).toEqual({ code: 'too-small', why: 'short work only' });
    expect(rungOf([first, diary.round('bed-twist', 'out')], 'bed-twist', { accepted })?.state).toBe('out');
    expect(nextRung(rungsOf('engine-lathe', [first], lathe({ accepted })))?.checkId).not.toBe('bed-twist');
  });

  it('a planned change that was made makes stale what follows the axis, and nothing else', () => {
    const planned = [{ change: { kind: 'weight', fields: { slope: '10 um/m' } }, doneAt: Diary.at(20), ...by }];
    const rounds = [diary.round('spindle-axis', 'in'), diary.round('bed-twist', 'in')];
    expect(rungOf(rounds, 'spindle-axis', { planned })?.stale).toEqual({ code: 'change-made', change: 'weight' });
    expect(rungOf(rounds, 'bed-twist', { planned })?.state).toBe('in');
  });

  it('rungs stand in the survey’s own order; what it does not name follows', () => {
    const order = orderOf('engine-lathe', ['spindle-axis', 'no-such-check', 'bed-twist']);
    expect(order.slice(0, 2)).toEqual(['spindle-axis', 'bed-twist']);
    expect([...order].sort()).toEqual(
      checksFor('engine-lathe')
        .map((check) => check.id)
        .sort(),
    );
    expect(rungsOf('engine-lathe', [], lathe({ order }))[0].check.id).toBe('spindle-axis');
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
    diary.round('stiffness', null, { finding: finding({ compliance: quantity({ value, verdict: null, limit: null }) }) });
  const below = (rounds: RoundHead[], part: Partial<CampaignPlan> = {}) =>
    belowTheHand(rungsOf('engine-lathe', rounds, lathe(part)), startingSheet('general'));

  it('is compared with the limits of the rungs: those below it are named', () => {
    const found = below([pushed(12)]);
    expect(found?.moved).toBe(12);
    const names = found?.below.map(({ check, quantity: name }) => `${check.id}/${name}`) ?? [];
    expect(names).toContain('centre-runout/radial');
    expect(names).not.toContain('tailstock-traverse/offsetHorizontal');
    expect(below([pushed(1)])?.below).toEqual([]);
  });

  it('leaves out rungs that are left out, and says nothing before anybody pushed', () => {
    expect(below([])).toBeUndefined();
    const skipped = [{ check: 'centre-runout', why: 'no centre in use', by: 'HB', at: by.at }];
    expect(below([pushed(12)], { skipped })?.below.some(({ check }) => check.id === 'centre-runout')).toBeFalse();
  });

  it('every check of a ladder is in the catalogue', () => {
    for (const kind of ['engine-lathe', 'turning-centre', 'turret-mill']) {
      for (const { check } of rungsOf(kind, [])) expect(CHECKS.get(check.id)).withContext(check.id).toBe(check);
    }
  });
});
