import { headOf, sheetOf, knownFrom } from '@isometra/work';
import { practiceRound, toldHead } from '../testing/fake-shop';
import { latheWords } from './known-words';

const round = toldHead;

describe('what is known', () => {
  it('is the latest word on each, as of a time', () => {
    const rounds = [
      round('tailstock-traverse', { offsetHorizontal: 60 }),
      round('bed-twist', { twistPerMetre: 3 }),
      round('tailstock-traverse', { offsetHorizontal: 5, offsetVertical: 9 }),
    ];
    expect(knownFrom(rounds.slice(0, 1))).toEqual({ tailH: 60 });
    expect(knownFrom(rounds)).toEqual({ twistPerMetre: 3, tailH: 5, tailV: 9 });
  });

  it('of several ways each is told by its name', () => {
    const heights = (peak: number) => [0, 500, 1000].map((at) => ({ at, height: at === 500 ? peak : 0 }));
    const ways = [
      { name: 'way rear flat', heights: heights(20) },
      { name: 'way front vee', heights: heights(-8) },
    ];
    const shown = { system: 'mm', fineness: 'coarse' } as const;
    const words = latheWords({ ways }, shown);
    expect(words.slice(-2)).toEqual([
      'Way rear flat: within 0.020 mm of its line, top to bottom.',
      'Way front vee: within 0.008 mm of its line, top to bottom.',
    ]);
    expect(latheWords({}, shown).at(-1)).toBe('Ways: not measured.');
  });

  it('the way is taken from steps of the level, off its line, never from a straightedge beside it', () => {
    const stepped = (method: string) => {
      const readings = [0, 200, 400, 600].map((at, i) => ({ at, end: 'forward', value: `${i} div` }));
      const instrument = { kind: 'level', graduation: '20 um/m' };
      const round = practiceRound({ check: 'way-straightness', setup: { method, base: '200 mm', levelZero: 0 }, instrument, readings });
      return headOf(round, round, sheetOf(round, round.readings));
    };
    const way = knownFrom([stepped('level-steps')]).ways?.[0].heights;
    // Slopes of 0, 20, 40, 60 µm/m over 200 mm: heights 0, 0, 4, 12, 24 µm, off their line by 4, −2, −4, −2, 4.
    expect(way?.map(({ height }) => Number(height.toFixed(3)))).toEqual([4, -2, -4, -2, 4]);
    expect(way?.map(({ at }) => at)).toEqual([0, 200, 400, 600, 800]);
    expect(knownFrom([stepped('straightedge')]).ways).toBeUndefined();
  });
});
