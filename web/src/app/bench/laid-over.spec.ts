import { laidOver } from './laid-over';

describe('what two hands have made of one form', () => {
  const before = { read: false, setup: { bar: { finish: 'drawn' } } };

  it('is theirs where nothing was touched', () => {
    const theirs = { read: false, setup: { bar: { finish: 'ground', diameter: '30 mm' } } };
    expect(laidOver(before, { ...before }, theirs)).toEqual(theirs);
  });

  it('keeps one field of a group and fills in the others', () => {
    const mine = { read: true, setup: { bar: { finish: 'ground' } } };
    const theirs = { read: false, setup: { bar: { finish: 'drawn', diameter: '30 mm' }, side: 'rear' } };
    expect<unknown>(laidOver<unknown>(before, mine, theirs)).toEqual({
      read: true,
      setup: { bar: { finish: 'ground', diameter: '30 mm' }, side: 'rear' },
    });
  });

  it('leaves a field empty that was emptied', () => {
    const was = { own: { graduation: '0.01 mm' as string | undefined } };
    expect(laidOver(was, { own: { graduation: undefined } }, { own: { graduation: '2 um' } })).toEqual({ own: { graduation: undefined } });
  });

  it('does not mix two lists', () => {
    expect(laidOver({ places: ['1'] }, { places: ['1', '2'] }, { places: ['7', '8', '9'] })).toEqual({ places: ['1', '2'] });
  });
});
