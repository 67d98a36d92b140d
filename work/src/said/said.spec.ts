import { CHECKS, type CheckDefinition, type Quantity } from '@isometra/core';
import { callSentence, inWords, isZero, zoneInWords, type Shown } from './said.js';

const info = (CHECKS.get('tailstock-traverse') as CheckDefinition).quantities;
const quantity = (value: number, direction: string | null, expanded = 1.9): Quantity => ({
  value,
  unit: 'um',
  expanded,
  direction,
  limit: [-15, 15],
  aim: 0,
  verdict: 'out',
  terms: {},
  budget: [],
});
const mm: Shown = { system: 'mm', fineness: 'coarse' };
const inch: Shown = { system: 'inch', fineness: 'coarse' };

describe('what a screen says', () => {
  it('is a size with its direction, never a bare sign', () => {
    expect(callSentence(quantity(-21, 'away from the operator'), info['offsetHorizontal'], mm)).toBe(
      'Tailstock is 0.021 mm away from you.',
    );
    expect(callSentence(quantity(-21, 'away from the operator'), info['offsetHorizontal'], inch)).toBe(
      'Tailstock is 0.8 thou away from you.',
    );
    expect(inWords(quantity(0.1, 'high'), info['offsetVertical'], mm)).toBe('0.000 mm');
    expect(callSentence(quantity(0.1, 'high'), info['offsetVertical'], mm)).toContain('zero, as near as this can be read');
  });
  it('knows a zero when it sees one', () => {
    expect(isZero('0.000 mm')).toBeTrue();
    expect(isZero('0.001 mm')).toBeFalse();
  });
  it('tells zones in words', () => {
    expect(zoneInWords([-15, 15], info['offsetHorizontal'], mm)).toBe('at most 0.015 mm either way');
    expect(zoneInWords([0, 20], info['offsetVertical'], mm)).toBe('never low, at most 0.020 mm high');
    const bore = (CHECKS.get('turret-bore') as CheckDefinition).quantities['offsetRadial'];
    expect(zoneInWords([null, 10], bore, mm)).toBe('at most 0.010 mm, 0.020 mm in all on the dial');
    expect(zoneInWords([-5, 20], info['offsetVertical'], mm)).toBe('from 0.005 mm low to 0.020 mm high');
    expect(zoneInWords([null, 5], info['barBow'], mm)).toBe('at most 0.005 mm');
    expect(zoneInWords([null, null], info['barBow'], mm)).toBe('no limit');
    expect(zoneInWords([3, null], info['offsetVertical'], mm)).toBe('from 0.003 mm high');
  });
});
