import { stepsOf } from '../testing/jobs.js';
import { MOVES } from './registry.js';

describe('a table turned on its trucks', () => {
  it('is tapped the way that it has to go, after both sides of the slot were read', () => {
    const texts = stepsOf('table-turn', { size: '0.030 mm in 300 mm', direction: 'toward the column at the right end' }).map(
      ({ text }) => text,
    );
    expect(texts[0]).toContain('Ride the other side of the slot too');
    expect(texts.some((text) => text.includes('toward the column at the right end, by 0.030 mm in 300 mm'))).toBeTrue();
    expect(texts.join(' ')).not.toMatch(/gib|scrape/i);
  });

  it('is for machines on linear guides alone', () => {
    expect(MOVES.get('table-turn')?.hardware?.({ card: {}, has: ['slideways'] })).toBeUndefined();
  });
});
