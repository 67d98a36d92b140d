import { MOST_DRAWN, thinned } from './thinned.js';

const places = (count: number) =>
  Array.from({ length: count }, (_, index) => ({ index, keys: { plane: index % 2 ? 'v' : 'h', at: index >> 1 } }));

describe('very many places', () => {
  it('few are all drawn, as they are', () => {
    const few = places(MOST_DRAWN);
    expect(thinned(few, 3)).toBe(few);
  });

  it('of many the ends of each row, an even choice between, and all about the one that is read', () => {
    const drawn = thinned(places(500), 250);
    expect(drawn.length).toBeLessThanOrEqual(MOST_DRAWN + 3);
    const at = drawn.map(({ index }) => index);
    expect(at).toEqual([...at].sort((one, other) => one - other));
    for (const index of [0, 1, 498, 499]) expect(at).withContext(`the end ${index}`).toContain(index);
    for (let i = 240; i <= 260; i++) expect(at).withContext(`near ${i}`).toContain(i);
    for (const plane of ['h', 'v']) {
      const row = drawn.filter(({ keys }) => keys['plane'] === plane).map(({ keys }) => Number(keys['at']));
      const gaps = row.slice(1).map((place, i) => place - row[i]);
      expect(Math.max(...gaps))
        .withContext(plane)
        .toBeLessThanOrEqual(13);
    }
  });
});
