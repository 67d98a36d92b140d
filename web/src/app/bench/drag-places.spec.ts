import { placeFor, type Placed } from './drag-places';

describe('a mark that is dragged', () => {
  const mark = (index: number, at: number, x: number, y = 100): Placed => ({ index, at, x, y });

  it('stands where the drawing says: evenly between the places, and beyond them', () => {
    const row = [mark(0, 20, 140), mark(1, 380, 580)];
    expect(placeFor(row, { x: 360, y: 100 })).toBeCloseTo(200, 9);
    expect(placeFor(row, { x: 140, y: 140 }))
      .withContext('across the part is no way along it')
      .toBeCloseTo(20, 9);
    expect(placeFor(row, { x: 91.111111, y: 100 })).toBeCloseTo(-20, 4);
  });
  it('a part that is drawn upright, or from right to left, is no different', () => {
    expect(placeFor([mark(0, 0, 300, 400), mark(1, 200, 300, 200)], { x: 300, y: 300 })).toBeCloseTo(100, 9);
    expect(placeFor([mark(0, 290, 100), mark(1, 20, 500)], { x: 300, y: 100 })).toBeCloseTo(155, 9);
  });
  it('one place, or two on one spot, say nothing', () => {
    expect(placeFor([], { x: 1, y: 1 })).toBeUndefined();
    expect(placeFor([mark(0, 20, 140)], { x: 1, y: 1 })).toBeUndefined();
    expect(placeFor([mark(0, 20, 140), mark(1, 380, 140)], { x: 1, y: 1 })).toBeUndefined();
  });
});
