import { readingText } from './reading-text';

describe('a reading on the screen', () => {
  it('has its unit in print, and no digits that nobody can read', () => {
    expect(readingText('12 um')).toBe('12 µm');
    expect(readingText('-18.900000000000002 um')).toBe('-18.9 µm');
    expect(readingText('53.97499 mm')).toBe('53.97499 mm');
    expect(readingText('10,5 div')).toBe('10,5 div');
  });
});
