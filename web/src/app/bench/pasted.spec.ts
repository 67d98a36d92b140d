import { pastedColumn } from './pasted';

describe('a column that is pasted on the bench', () => {
  it('is told from a figure by itself', () => {
    for (const alone of ['12', ' 12 um\n', '5 1/2 div', '']) expect(pastedColumn(alone)).toBeUndefined();
    expect(pastedColumn('1\r\n2,5\n\n-3 um\n')).toEqual({ figures: ['1', '2,5', '-3 um'] });
    expect(pastedColumn('1\t2\t3')).toEqual({ figures: ['1', '2', '3'] });
    expect(pastedColumn('1\t\n2\t\n')).toEqual({ figures: ['1', '2'] });
  });

  it('says why it is none', () => {
    expect(pastedColumn('20\t1\n40\t2')).toEqual({ fault: jasmine.stringContaining('Several columns') as never });
    expect(pastedColumn('1\n'.repeat(301))).toEqual({ fault: jasmine.stringContaining('At most 300') as never });
  });
});
