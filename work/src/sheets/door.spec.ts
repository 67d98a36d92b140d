import type * as z from 'zod';
import { CHECKS, fieldInfo } from '@isometra/core';
import { faultWords, keyLabel, readingFaults, roundFaults } from './door.js';
import { BETWEEN_CENTRES, reading } from '../testing/rounds.js';

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

  it('a fault names its field by its label, and the choice that would do in the words it is shown in', () => {
    const said = (path: string, message = 'is missing', example = '') =>
      faultWords('tailstock-traverse', { path, message, example }, BETWEEN_CENTRES.instrument);
    expect(said('setup.centreDistance', 'is missing', '420 mm')).toBe('Distance between centres is missing. Example: 420 mm');
    expect(said('conditions.quillLock', 'must be one of its choices', 'on')).toMatch(/^Quill.* Example: /);
    expect(said('instrument.graduation', 'must be more than 0 um')).toBe('One division must be more than 0 um.');
    expect(said('readings[2].value')).toBe('Reading 3 is missing.');
    expect(said('readings[0].at')).toMatch(/^Reading 1, .* is missing\.$/);
    expect(said('value', 'is not read', '3 div')).toBe('The reading is not read. Example: 3 div');
    expect(said('readings', 'two of them stand at one place')).toBe('The readings: two of them stand at one place.');
    expect(said('check', '"x" is not a check')).toBe('This round: "x" is not a check.');
    expect(faultWords('no-such-check', { path: 'setup.a', message: 'is missing', example: '' })).toBe('This round is missing.');
  });

  it('no fault of any check of this shop is told by a key of the program', () => {
    for (const [id, check] of CHECKS)
      for (const part of ['setup', 'plan', 'conditions'] as const)
        for (const key of Object.keys(check[part].shape)) {
          const info = fieldInfo(check[part].shape[key] as z.ZodType);
          if (!info) continue;
          expect(faultWords(id, { path: `${part}.${key}`, message: 'is missing', example: '' }))
            .withContext(`${id} ${part}.${key}`)
            .toBe(`${info.label} is missing.`);
        }
  });
});
