import { cleared, type Lying } from './clear-labels';

const label = (left: number, top: number, gives: Lying['gives'] = 1, width = 30): Lying => ({
  ...{ left, right: left + width, top, bottom: top + 16, gives },
});

const lines = (labels: readonly Lying[], bottom = 200) => cleared(labels, { top: 0, bottom });

describe('labels that give way', () => {
  it('stay where nothing is in their way', () => {
    expect(lines([label(0, 0), label(40, 0), label(0, 40)])).toEqual([0, 0, 0]);
    expect(lines([])).toEqual([]);
  });

  it('go line after line away from their marks, up or down', () => {
    expect(lines([label(0, 0), label(5, 0), label(8, 0)])).toEqual([0, 1, 2]);
    expect(lines([label(0, 100, -1), label(5, 100, -1)])).toEqual([0, -1]);
  });

  it('words of the drawing stay, also where they come later', () => {
    expect(lines([label(0, 0), label(10, 0, 0)])).toEqual([1, 0]);
  });

  it('go the other way rather than over the edge, and stay where no line is free', () => {
    expect(lines([label(0, 90), label(0, 90)], 106)).toEqual([0, -1]);
    expect(lines([label(0, 0), label(0, 0)], 16)).toEqual([0, 0]);
  });
});
