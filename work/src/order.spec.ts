import { inWorkingOrder, neighbours } from './order.js';

describe('the order of the hands', () => {
  const side = { quantity: 'offsetHorizontal', kind: 'adjuster' };
  const height = { quantity: 'offsetVertical', kind: 'shim-leaves' };

  it('height before side: opening the joint loses the side', () => {
    expect(inWorkingOrder([side, height]).map(({ quantity }) => quantity)).toEqual(['offsetVertical', 'offsetHorizontal']);
    expect(neighbours([side, height], side)).toEqual({ before: 'offsetVertical' });
    expect(neighbours([side, height], height)).toEqual({ after: 'offsetHorizontal' });
  });
  it('scraping is an opening too', () => {
    expect(neighbours([side, { ...height, kind: 'scrape' }], side)).toEqual({ before: 'offsetVertical' });
  });
  it('one alone has none, and two that both slide, or both open, do not undo each other', () => {
    expect(neighbours([side], side)).toEqual({});
    const nod = { quantity: 'nod', kind: 'adjuster' };
    expect(neighbours([side, nod], nod)).toEqual({});
    expect(neighbours([height, { quantity: 'slopeV', kind: 'scrape' }], height)).toEqual({});
  });
});
