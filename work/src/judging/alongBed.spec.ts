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
