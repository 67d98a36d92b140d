import { cleared, type Lying } from './clearLabels.js';

const label = (left: number, top: number, gives: Lying['gives'] = 1, width = 30): Lying => ({
  ...{ left, right: left + width, top, bottom: top + 16, gives },
});

const clear = (labels: readonly Lying[], bottom = 200, marks: readonly Lying[] = []) =>
  cleared(labels, { left: 0, right: 400, top: 0, bottom }, marks);
/** px of a line. */
const LINE = 14;
const down = (lines: number, right = 0) => ({ down: lines * LINE, right });

describe('labels that give way', () => {
  it('stay where nothing is in their way', () => {
    expect(clear([label(0, 0), label(40, 0), label(0, 40)])).toEqual([down(0), down(0), down(0)]);
    expect(clear([])).toEqual([]);
  });

  it('go line after line away from their marks, up or down', () => {
    expect(clear([label(0, 0), label(5, 0), label(8, 0)])).toEqual([down(0), down(1), down(2)]);
    expect(clear([label(0, 100, -1), label(5, 100, -1)])).toEqual([down(0), down(-1)]);
  });

  it('readings are laid before the words of the drawing, which then give way', () => {
    expect(clear([label(20, 50, 0), label(10, 50)])).toEqual([down(-1), down(0)]);
  });

  it('lie on no mark', () => {
    expect(clear([label(0, 50)], 200, [label(0, 50)])).toEqual([down(1)]);
  });

  it('go the other way rather than over the edge, or beside', () => {
    expect(clear([label(0, 90), label(0, 90)], 106)).toEqual([down(0), down(-1)]);
    expect(clear([label(100, 0), label(100, 0)], 16)).toEqual([down(0), down(0, -30)]);
    expect(clear([label(-20, 50)])).toEqual([down(0, 30)]);
  });

  it('are left out where no place is free, and nowhere else', () => {
    const everywhere = Array.from({ length: 8 }, () => label(100, 0));
    const laid = clear(everywhere, 16);
    expect(laid.filter(Boolean).length).toBe(3);
    expect(laid.slice(0, 3).every(Boolean)).toBeTrue();
  });
});
