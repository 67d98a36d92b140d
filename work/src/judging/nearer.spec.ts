import { leftOver, mayComeNearer } from './nearer.js';

const told = (value: number, more: object = {}) => ({ value, aim: 5, verdict: 'in' as const, expanded: 2, ...more });

describe('what is in may come nearer', () => {
  it('where it stands off its aim by more than can be read', () => {
    expect(leftOver(told(12))).toBe(-7);
    expect(mayComeNearer(told(12))).toBeTrue();
    expect(mayComeNearer(told(6.5))).toBeFalse();
    expect(mayComeNearer(told(12, { expanded: null }))).toBeTrue();
  });

  it('not what is out, what has no aim, or what is not trusted', () => {
    expect(mayComeNearer(told(30, { verdict: 'out' }))).toBeFalse();
    expect(mayComeNearer(told(12, { aim: null }))).toBeFalse();
    expect(mayComeNearer(told(12, { because: ['closure'] }))).toBeFalse();
  });
});
