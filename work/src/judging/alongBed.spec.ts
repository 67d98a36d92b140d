import { rungsOf } from '../ladder/rungs.js';
import { curvesAlong } from './alongBed.js';
import { Diary, finding, quantity } from '../testing/heads.js';

const CHECK = 'tailstock-traverse';

describe('a curve along the bed', () => {
  const at = (diary: Diary, place: number, value: number, more: object = {}) =>
    diary.round(CHECK, 'in', { place, finding: finding({ offsetVertical: quantity({ value, expanded: 2, limit: [0, 20] }) }), ...more });

  it('takes the last round at each place', () => {
    const diary = new Diary();
    const rounds = [at(diary, 200, 9), at(diary, 900, 14), at(diary, 200, -18)];
    const [{ quantity: name, curve }] = curvesAlong(rounds, CHECK);
    expect(name).toBe('offsetVertical');
    expect(curve.places.map(({ at: place, value }) => [place, value])).toEqual([
      [200, -18],
      [900, 14],
    ]);
    expect(curve.worn).toBeTrue();
  });

  it('in at the last place and out at another, one movement would do: the rung is out', () => {
    const diary = new Diary();
    const told = (place: number, value: number, verdict: 'in' | 'out') =>
      diary.round(CHECK, verdict, {
        place,
        finding: finding({ offsetVertical: quantity({ value, expanded: 2, limit: [0, 20], verdict }) }),
      });
    const state = (rounds: Parameters<typeof rungsOf>[1]) => rungsOf('engine-lathe', rounds).find(({ check }) => check.id === CHECK)?.state;
    expect(state([told(200, -18, 'out'), told(900, 14, 'in')])).toBe('out');
    expect(state([told(200, 3, 'in'), told(900, 14, 'in')])).toBe('in');
  });

  it('what was read before a move is not like what was read after it', () => {
    const diary = new Diary();
    const rounds = [at(diary, 200, 9, { moved: 2 }), at(diary, 900, 14)];
    const { moves } = diary.round(CHECK, 'out', { moved: 1 });
    expect(curvesAlong([{ ...rounds[0], moves }, rounds[1]], CHECK)).toEqual([]);
  });

  it('a quill swept is not like a centre swept, and one place is no curve', () => {
    const diary = new Diary();
    const swept = (what: string, place: number) => at(diary, place, 3, { conditions: { place, swept: what } });
    expect(curvesAlong([swept('quill', 200), swept('centre', 900)], CHECK)).toEqual([]);
    expect(curvesAlong([swept('quill', 200), swept('quill', 900)], CHECK).length).toBe(1);
    expect(curvesAlong([at(diary, 200, 3)], CHECK)).toEqual([]);
    expect(curvesAlong([], 'no-such-check')).toEqual([]);
  });
});
