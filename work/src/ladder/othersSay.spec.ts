import type { MoveWrite } from '@isometra/contract';
import { othersSay } from './othersSay.js';
import { Diary, finding, move, quantity } from '../testing/heads.js';

describe('what other stations say of one that is off', () => {
  const turret = () => {
    const diary = new Diary();
    const swept = (station: string | undefined, across: number, moves: readonly MoveWrite[] = [], expanded = 1) =>
      diary.round('turret-bore', null, {
        conditions: station === undefined ? {} : { station },
        moves: [...moves],
        finding: finding({
          offsetRadial: quantity({ value: Math.abs(across), limit: [null, 10], verdict: Math.abs(across) > 10 ? 'out' : 'in' }),
          acrossSlide: quantity({ value: across, expanded, limit: null, verdict: null }),
        }),
      });
    return { diary, swept };
  };
  const names = (others: readonly { readonly name: string }[] | undefined) => others?.map(({ name }) => name);

  it('alike within what a pocket may be off, or within their doubts; the others stand apart', () => {
    const { swept } = turret();
    const rounds = [swept('5', 44), swept('7', 2), swept('9', -50), swept('3', 50)];
    const say = othersSay(rounds[3], 'acrossSlide', rounds);
    expect(names(say?.alike)).toEqual(['station 5']);
    expect(names(say?.apart)?.sort()).toEqual(['station 7', 'station 9']);
    const coarse = turret();
    const doubted = [coarse.swept('5', 20, [], 40), coarse.swept('3', 50)];
    expect(names(othersSay(doubted[1], 'acrossSlide', doubted)?.alike)).toEqual(['station 5']);
  });

  it('by the last word on each; what was moved since says nothing', () => {
    const { swept } = turret();
    const again = [swept('5', 50), swept('5', 1), swept('3', 50)];
    expect(names(othersSay(again[2], 'acrossSlide', again)?.apart)).toEqual(['station 5']);
    const tapped = turret();
    const bolts = move({ kind: 'nudge', begunAt: Diary.at(2), doneAt: Diary.at(2, 12) });
    const rounds = [tapped.swept('5', 50, [bolts]), tapped.swept('3', 50)];
    rounds.push(tapped.swept('3', 48));
    expect(othersSay(rounds[2], 'acrossSlide', rounds)).toEqual({ alike: [], apart: [] });
  });

  it('a register of the card that shifts all of them, changed since, leaves the others without a word', () => {
    const { swept } = turret();
    const register = {
      ...({ name: 'work shift', axis: 'X', kind: 'added', unit: 'mm', programming: 'radius', digits: 3, total: 20, jog: null } as const),
      ...{ old: { value: 0, where: '', at: Diary.at(1, 9), by: 'RM' }, homings: 0, power: 0 },
      entered: { value: 0.01, how: 'plus' as const, at: Diary.at(2, 12), by: 'RM' },
    };
    const made = { dial: null, preset: 0, tightened: null, rule: null, register };
    const changed = move({ kind: 'stored-offset', quantity: 'alongSlide', begunAt: Diary.at(2, 11), doneAt: Diary.at(2, 12), made });
    const rounds = [swept('5', 2), swept('7', 2, [changed]), swept('3', 50)];
    const card = { registers: [{ name: 'work shift', axis: 'X', scope: 'turret' as const }] };
    expect(names(othersSay(rounds[2], 'acrossSlide', rounds, undefined, card)?.apart)).toEqual([]);
    expect(names(othersSay(rounds[2], 'acrossSlide', rounds)?.apart))
      .withContext('a card that tells nothing')
      .toContain('station 5');
  });

  it('of what has no others nothing, and of the only one that none was read', () => {
    const { diary, swept } = turret();
    const bush = diary.round('guide-bush', 'out');
    expect(othersSay(bush, 'offsetHorizontal', [bush])).toBeUndefined();
    const rounds = [swept('3', 40), swept('3', 50)];
    expect(othersSay(rounds[1], 'acrossSlide', rounds)).toEqual({ alike: [], apart: [] });
  });
});
