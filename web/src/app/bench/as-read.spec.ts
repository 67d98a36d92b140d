import type { Instrument } from '@isometra/core';
import { asRead, flipSign, nudged, readingUnit } from './as-read';

const dial = { kind: 'lever', graduation: 2 } as Instrument;

describe('a reading as typed', () => {
  it('gets the unit that is shown', () => {
    expect(asRead('-9.5', 'indicator', dial, 'mm')).toBe('-9.5 div');
    expect(asRead('5 1/2', 'indicator', dial, 'inch')).toBe('5 1/2 div');
    expect(asRead('1.5055', 'size', undefined, 'inch')).toBe('1.5055 in');
    expect(asRead('12 um', 'indicator', dial, 'inch')).toBe('12 um');
    expect(asRead('rubbish', 'indicator', dial, 'mm')).toBe('rubbish');
    expect(readingUnit('indicator', undefined, 'inch')).toBe('thou');
  });
  it('turns its sign', () => {
    expect(flipSign('3.5 div')).toBe('-3.5 div');
    expect(flipSign('-3.5 div')).toBe('3.5 div');
    expect(flipSign('−3')).toBe('3');
    expect(flipSign('+3')).toBe('-3');
  });
  it('moves by what can be read', () => {
    expect(nudged('', 1, 0.5)).toBe('0.5');
    expect(nudged('3', -1, 0.5)).toBe('2.5');
    expect(nudged('-9.5 div', 1, 0.5)).toBe('-9 div');
    expect(nudged('12 um', 1, 0.5)).toBe('12 um');
  });
});
