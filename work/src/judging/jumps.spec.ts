import type { RoundHead } from '@isometra/contract';
import type { OtherWork } from '../notebook/doneMoves.js';
import { jumps } from './jumps.js';
import { Diary, finding, quantity } from '../testing/heads.js';

describe('a value that differs with nothing done between', () => {
  it('is said of whatever is limited, its sign turned or not', () => {
    const diary = new Diary();
    const rounds = [30, 44].map((value) =>
      diary.round('tailstock-traverse', 'out', { finding: finding({ offsetHorizontal: quantity({ value, expanded: 3 }) }) }),
    );
    expect(jumps(rounds[1], rounds).map(({ before, after, turned }) => [before, after, turned])).toEqual([[30, 44, false]]);
    const near = [30, 35].map((value) =>
      diary.round('tailstock-traverse', 'out', { finding: finding({ offsetHorizontal: quantity({ value, expanded: 3 }) }) }),
    );
    expect(jumps(near[1], near)).toEqual([]);
  });
});

describe('a sign that turned', () => {
  /** Rounds on days that follow one another, the last one looked at. */
  const told = (values: readonly number[], more: Partial<RoundHead>[] = [], other: OtherWork = {}, expanded = 2) => {
    const diary = new Diary();
    const rounds = values.map((value, i) =>
      diary.round('turret-bore', 'out', {
        finding: finding({
          alongSlide: quantity({ value, expanded, direction: value > 0 ? 'toward' : 'away', verdict: null, limit: null }),
        }),
        ...more[i],
      }),
    );
    return jumps(rounds[rounds.length - 1], rounds, other).map(({ quantity: name, before, after, from }) => [
      name,
      before,
      after,
      from.number,
    ]);
  };

  it('from one round to the next, although nobody moved anything, is said; a part without a limit of its own too', () => {
    expect(told([30, -29])).toEqual([['alongSlide', 30, -29, 1]]);
    expect(told([30, 29, -31]))
      .withContext('the last before it')
      .toEqual([['alongSlide', 29, -31, 2]]);
  });

  it('is not said within the doubt, at another size, of the first round, or of what has no direction', () => {
    for (const values of [[1, -1], [10, -200], [30, 29], [-29]]) expect(told(values)).withContext(String(values)).toEqual([]);
    const plain = finding({ closure: quantity({ value: 30, direction: null, limit: null }) });
    const turned = finding({ closure: quantity({ value: -30, direction: null, limit: null }) });
    expect(told([30, -30], [{ finding: plain }, { finding: turned }])).toEqual([]);
  });

  it('is not said of another station, or under other conditions; the round before those is looked at', () => {
    expect(told([30, -29], [{ conditions: { station: '3' } }, { conditions: { station: '5' } }])).toEqual([]);
    expect(told([30, -29], [{ conditions: { homed: 'no' } }, { conditions: { homed: 'yes' } }])).toEqual([]);
    const three = { conditions: { station: '3' } };
    expect(told([30, 20, -29], [three, { conditions: { station: '5' } }, three])).toEqual([['alongSlide', 30, -29, 1]]);
  });

  it('is explained by what was taken out again since the round before it', () => {
    const [moved] = new Diary().moved('turret-bore').moves;
    const made = (at: string) => ({ preset: 0, tightened: null, dial: null, rule: null, takenOut: { at, by: 'AB' } });
    const put = { ...moved, doneAt: Diary.at(0, 12) };
    expect(told([30, -29], [{ moves: [put] }]).length).toBe(1);
    expect(told([30, -29], [{ moves: [{ ...put, made: made(Diary.at(1, 12)) }] }])).toEqual([]);
  });

  it('is explained by a move, by one that upsets it, by a pass of scraping and by a planned change; not by one before both', () => {
    const diary = new Diary();
    const moved = diary.moved('turret-bore').moves;
    expect(told([30, -29], [{ moves: moved.map((entry) => ({ ...entry, doneAt: Diary.at(1, 12) })) }])).toEqual([]);
    expect(
      told([30, 12, -29], [{}, { check: 'turret-face', moves: moved.map((entry) => ({ ...entry, doneAt: Diary.at(2, 12) })) }]),
    ).toEqual([]);
    expect(told([30, -29], [], { scraped: [{ check: 'turret-bore', at: Diary.at(1, 12) }] })).toEqual([]);
    expect(told([30, -29], [], { changes: [Diary.at(1, 12)] })).toEqual([]);
    expect(told([30, -29], [], { changes: [Diary.at(1, 7)] }).length).toBe(1);
    // A bed that was scraped upsets every check of the machine; a table does not upset a turret.
    expect(told([30, -29], [], { scraped: [{ check: 'bed-twist', at: Diary.at(1, 12) }] })).toEqual([]);
    expect(told([30, -29], [], { scraped: [{ check: 'table-level', at: Diary.at(1, 12) }] }).length).toBe(1);
    expect(told([30, -29], [], { events: [{ what: 'crashed', at: Diary.at(1, 12) }] })).toEqual([]);
  });
});
