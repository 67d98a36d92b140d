import * as z from 'zod';
import { CHECKS } from '../checks/registry.js';
import { bareSchema, choice, count, fieldInfo, fieldPath, measure, optionalMeasure, plainNumber } from './fields.js';

const schema = z.strictObject({
  span: measure('length', { label: 'Between the bearings', above: 0, max: 900, example: '340 mm' }),
  bar: z.strictObject({ diameter: optionalMeasure('length', { label: 'Bar diameter' }) }).optional(),
  stations: count({ label: 'Stations', min: 2, max: 9 }),
  gain: plainNumber({ label: 'Gain', above: 0 }),
  side: choice({ label: 'Read from', choices: [{ value: 'rear', label: 'the rear' }] }),
});
const fault = (value: unknown, key: keyof typeof schema.shape): string | undefined =>
  schema.shape[key].safeParse(value).error?.issues[0]?.message;

describe('a field', () => {
  it('takes a number with a unit and gives base units, within its range', () => {
    expect(schema.shape.span.parse('12 in')).toBeCloseTo(304.8, 9);
    expect(fault('0 mm', 'span')).toBe('must be more than 0 mm');
    expect(fault('2 parsecs', 'span')).toContain('is not');
    expect(fault('2 m', 'span')).toBe('must be 900 mm or less');
    expect(fault(901, 'span')).toBe('must be 900 mm or less');
  });

  it('takes a plain number with a comma or a true minus, and nothing else', () => {
    expect(schema.shape.gain.parse('0,5')).toBe(0.5);
    expect(fault('−1', 'gain')).toBe('must be more than 0');
    expect(fault('1 mm', 'gain')).toContain('is not a plain number');
    expect(fault('', 'gain')).toContain('is missing');
    expect(fault(2.5, 'stations')).toBe('must be a whole number');
  });
});

describe('what a person calls a field', () => {
  it('is its label, a part of a group after the group', () => {
    expect(fieldPath(schema, ['span'])).toBe('Between the bearings');
    expect(fieldPath(schema, ['bar', 'diameter'])).toBe('bar, bar diameter');
    expect(fieldPath(schema, ['nothing', 'here'])).toBe('nothing, here');
    const traverse = CHECKS.get('tailstock-traverse');
    expect(traverse && fieldPath(traverse.setup, ['bar', 'diameter'])).toBe('Bar, bar diameter');
  });

  it('a schema is the same one behind what makes it optional', () => {
    expect(bareSchema(schema.shape.bar)).toBeInstanceOf(z.ZodObject);
    expect(bareSchema(z.string().default('x').optional())).toBeInstanceOf(z.ZodString);
    const own = schema.shape.span;
    expect(bareSchema(own)).toBe(own);
    expect(fieldInfo(own)?.dimension).toBe('length');
  });
});
