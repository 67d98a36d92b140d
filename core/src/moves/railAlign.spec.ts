import { stepsOf } from '../testing/jobs.js';
import { MOVES } from './registry.js';

describe('re-aligning rails', () => {
  it('the second rail is let go before the master rail is blamed, and each bolt has its torque', () => {
    const texts = stepsOf('rail-align', { size: '0.018 mm', card: { trucks: { torque: '30 N·m' } } }).map(({ text }) => text);
    const at = (part: string) => texts.findIndex((text) => text.includes(part));
    expect(at('Loosen the trucks of the second rail')).toBeGreaterThan(-1);
    expect(at('by 0.018 mm at the most')).toBeGreaterThan(at('Loosen the trucks of the second rail'));
    expect(at('to 30 N·m')).toBeGreaterThan(-1);
  });

  it('is for machines on linear guides alone', () => {
    const hardware = MOVES.get('rail-align')?.hardware;
    expect(hardware?.({ card: {}, has: ['trucks'] })).toEqual({});
    expect(hardware?.({ card: {}, has: ['slideways'] })).toBeUndefined();
  });
});
