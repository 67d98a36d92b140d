import type { Instrument } from '@isometra/core';
import { askedReading, askedSize, asRead, flipSign, nudged, readingUnit } from './as-read';

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
  it('that the dial cannot have shown is asked back with what it may be', () => {
    const halfThou = { kind: 'lever', graduation: 12.7, readTo: 0.5, range: 60 } as Instrument;
    expect(askedReading('.0015', 'indicator', halfThou)).toEqual(['.0015 in', '.0015 div']);
    expect(askedReading('0.04', 'indicator', halfThou)).toEqual(['0.04 mm', '0.04 div']);
    expect(askedReading('75', 'indicator', halfThou)).toEqual(['75 µm', '75 div']);
    for (const text of ['3', '0.5', '-12 1/2', '0', '60', '.0015 in', 'x', ''])
      expect(askedReading(text, 'indicator', halfThou))
        .withContext(text)
        .toBeUndefined();
    expect(askedReading('.0015', 'size', halfThou)).toBeUndefined();
    expect(askedReading('900', 'indicator', { ...halfThou, range: undefined })).toBeUndefined();
  });
  it('of a pad unlike the others, or than the bar it was turned from, is asked back in the units it may be in', () => {
    expect(askedSize('38.21', { like: 38.24 }, 'mm')).toBeUndefined();
    expect(askedSize('1.505', { like: 38.24 }, 'mm')).toEqual(['1.505 in', '1.505 mm']);
    expect(askedSize('38.21', { like: 38.24 }, 'inch')).toEqual(['38.21 mm', '38.21 in']);
    expect(askedSize('3.824', { like: 38.24 }, 'mm')).toEqual(['3.824 mm']);
    expect(askedSize('30', { from: 38 }, 'mm')).toBeUndefined();
    expect(askedSize('50', { from: 38 }, 'mm')).toEqual(['50 mm']);
    expect(askedSize('1.2', { from: 38 }, 'mm')).toEqual(['1.2 in', '1.2 mm']);
    for (const text of ['3.824 mm', 'x', '']) expect(askedSize(text, { like: 38.24 }, 'mm')).toBeUndefined();
    expect(askedSize('5', {}, 'mm')).toBeUndefined();
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
