import { FILE_SIZES, sentence, sizesIn, type Said } from './said.js';

describe('a sentence with sizes', () => {
  const said: Said = (size) => `It differs by ${size(17.8, 'deviation')} at ${size(600, 'length')}`;

  it('is written as files write it: mm and µm', () => {
    expect(sentence(said, FILE_SIZES)).toBe('It differs by 17.8 µm at 600 mm');
    expect(sentence((size) => size(12.704, 'length'), FILE_SIZES)).toBe('12.7 mm');
  });

  it('is written as a screen is set, each size in the unit that such sizes are read in', () => {
    expect(sentence(said, sizesIn({ system: 'mm', fineness: 'coarse' }))).toBe('It differs by 0.018 mm at 600 mm');
    expect(sentence(said, sizesIn({ system: 'inch', fineness: 'coarse' }))).toBe('It differs by 0.7 thou at 23.62 in');
    expect(sentence((size) => size(-80, 'slope'), sizesIn({ system: 'inch', fineness: 'coarse' }))).toBe('0.96 thou/ft');
  });

  it('keeps the sign of a place, and the digits of a size that was measured', () => {
    const inch = sizesIn({ system: 'inch', fineness: 'coarse' });
    expect([FILE_SIZES(-60, 'length'), inch(-60, 'length')]).toEqual(['-60 mm', '-2.36 in']);
    expect([FILE_SIZES(25.0123, 'size'), inch(25.0123, 'size')]).toEqual(['25.0123 mm', '0.98474 in']);
  });

  it('drops the digits that its doubt does not earn', () => {
    expect(sentence((size) => size(123.44, 'deviation', 30), FILE_SIZES)).toBe('123 µm');
  });

  it('stays as it is where no size is in it', () => {
    expect(sentence('Push 3 N, 20 mm² of it.', sizesIn({ system: 'inch', fineness: 'fine' }))).toBe('Push 3 N, 20 mm² of it.');
  });
});
