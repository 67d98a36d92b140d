import { drawnWords, sameThing, thingWords } from './things.js';

const read = (check: string, conditions: Record<string, string> = {}) => ({ check, conditions });

describe('what a round was read on', () => {
  it('a sub-spindle swept against the bush is another thing; against the main spindle goes without saying', () => {
    const [main, said, bush] = [read('sub-spindle'), read('sub-spindle', { against: 'main' }), read('sub-spindle', { against: 'bush' })];
    expect([main, said, bush].map(thingWords)).toEqual(['', '', 'the guide bush']);
    expect([sameThing(main, said), sameThing(main, bush)]).toEqual([true, false]);
  });

  it('quill and centre answer one question and are drawn apart', () => {
    const [quill, centre] = [read('tailstock-sweep', { swept: 'quill' }), read('tailstock-sweep', { swept: 'centre' })];
    expect(sameThing(quill, centre)).toBeTrue();
    expect([quill, centre].map(thingWords)).toEqual(['', '']);
    expect([quill, centre].map(drawnWords)).toEqual(['the quill', 'a centre']);
  });
});
