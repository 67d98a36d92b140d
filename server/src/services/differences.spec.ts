import { differencesOf } from './differences.js';

describe('what differs between two versions', () => {
  it('is told leaf by leaf, the order of keys and what is left out or null alike', () => {
    const before = { setup: { bar: { diameter: '25 mm', bore: null }, side: 'rear' }, note: undefined };
    expect(differencesOf(before, { setup: { side: 'rear', bar: { diameter: '25 mm' } } })).toEqual([]);
    expect(differencesOf(before, { setup: { side: 'rear', bar: { diameter: '28 mm' } } })).toEqual(['setup.bar.diameter 25 mm → 28 mm']);
  });

  it('names what came and what went', () => {
    expect(differencesOf({ a: 1 }, { b: false })).toEqual(['a 1 → not given', 'b not given → false']);
    expect(differencesOf({ list: [{ at: 1 }, { at: 2 }] }, { list: [{ at: 1 }] })).toEqual(['list.1.at 2 → not given']);
    expect(differencesOf(null, { a: 0 })).toEqual(['a not given → 0']);
  });

  it('calls a path what a person calls it', () => {
    const name = (path: string) => (path === 'setup.side' ? 'Read from' : path);
    expect(differencesOf({ setup: { side: 'rear' } }, { setup: { side: 'operator' } }, name)).toEqual(['Read from rear → operator']);
  });
});
