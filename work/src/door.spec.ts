import { CHECKS } from '@isometra/core';
import { keyLabel, readingFaults, roundFaults } from './door.js';
import { BETWEEN_CENTRES, reading } from './testing/rounds.spec.js';

const paths = (faults: readonly { path: string }[]) => faults.map(({ path }) => path);

describe('the door of the notebook', () => {
  it('lets in a round that its check can read', () => {
    expect(roundFaults(BETWEEN_CENTRES)).toEqual([]);
    expect(roundFaults({ ...BETWEEN_CENTRES, instrument: null })).toEqual([]);
  });

  it('names the check that is not one', () => {
    expect(roundFaults({ ...BETWEEN_CENTRES, check: 'tailstock-travers' })[0]).toEqual(
      jasmine.objectContaining({ path: 'check', example: 'tailstock-traverse' }),
    );
  });

  it('names what is wrong with set-up, plan, instrument and conditions, all at once', () => {
    const faults = roundFaults({
      ...BETWEEN_CENTRES,
      setup: { centreDistance: 'banana' },
      plan: { nonsense: 1 },
      instrument: { kind: 'lever', graduation: 'fine', sense: 1 },
      conditions: { moon: 'full', quillLock: 'perhaps' },
    });
    expect(paths(faults)).toEqual(['instrument.graduation', 'setup.centreDistance', 'plan.nonsense', 'conditions.quillLock']);
    for (const { message, example } of faults) {
      expect(message).not.toBe('');
      expect(example).not.toBe('');
    }
  });

  it('takes a reading by itself: first of its round, or far from every other', () => {
    expect(readingFaults(BETWEEN_CENTRES, reading('a', '12'))).toEqual([]);
    expect(readingFaults(BETWEEN_CENTRES, reading('a', null, 'b'))).toEqual([]);
    expect(paths(readingFaults(BETWEEN_CENTRES, reading('a', null)))).toEqual(['value']);
  });

  it('names the key it does not know, the value it cannot read and the place it lacks', () => {
    const keyed = (keys: Record<string, string | number>, value = '1') =>
      paths(readingFaults(BETWEEN_CENTRES, reading('a', value, null, keys)));
    expect(keyed({ plane: 'h', at: 20, foo: 1 })).toEqual(['keys.foo']);
    expect(keyed({ plane: 'h', at: 20 }, 'about ten')).toEqual(['value']);
    expect(keyed({ plane: 'h' })).toEqual(['keys.at']);
    expect(keyed({ plane: 'sideways', at: 20 })).toEqual(['keys.plane']);
  });

  it('every check takes some reading with its own keys, and none with a strange one', () => {
    for (const [id] of CHECKS) {
      const faults = readingFaults(
        { check: id, setup: {}, instrument: null },
        { keys: { strange: 1 }, value: '1', set: 1, supersedes: null },
      );
      expect(paths(faults)).withContext(id).toContain('keys.strange');
    }
  });

  it('a key has its name', () => {
    const check = CHECKS.get('tailstock-traverse');
    expect(check && keyLabel(check, 'at')).not.toBe('at');
    expect(check && keyLabel(check, 'zzz')).toBe('zzz');
  });
});
