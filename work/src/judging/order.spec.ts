import { inWorkingOrder, neighbours } from './order.js';

describe('the order of the hands', () => {
  const side = { quantity: 'offsetHorizontal', kind: 'adjuster' };
  const height = { quantity: 'offsetVertical', kind: 'shim-leaves' };

  it('height before side: opening the joint loses the side', () => {
    expect(inWorkingOrder([side, height]).map(({ quantity }) => quantity)).toEqual(['offsetVertical', 'offsetHorizontal']);
    expect(neighbours([side, height], side)).toEqual({ before: 'offsetVertical', code: 'joint' });
    expect(neighbours([side, height], height)).toEqual({ after: 'offsetHorizontal', code: 'joint' });
  });
  it('scraping is an opening too', () => {
    expect(neighbours([side, { ...height, kind: 'scrape' }], side)).toEqual({ before: 'offsetVertical', code: 'joint' });
  });
  it('bolts before the control: what is tapped over takes along what a register has set', () => {
    const register = { quantity: 'alongSlide', kind: 'stored-offset' };
    const bolts = { quantity: 'acrossSlide', kind: 'nudge' };
    expect(inWorkingOrder([register, bolts]).map(({ quantity }) => quantity)).toEqual(['acrossSlide', 'alongSlide']);
    expect(neighbours([register, bolts], register)).toEqual({ before: 'acrossSlide', code: 'bolts' });
    expect(neighbours([register, bolts], bolts)).toEqual({ after: 'alongSlide', code: 'bolts' });
    expect(neighbours([register], register)).toEqual({});
  });
  it('one alone has none, and two that both slide, or both open, do not undo each other', () => {
    expect(neighbours([side], side)).toEqual({});
    const nod = { quantity: 'nod', kind: 'adjuster' };
    expect(neighbours([side, nod], nod)).toEqual({});
    expect(neighbours([height, { quantity: 'slopeV', kind: 'scrape' }], height)).toEqual({});
  });
});
