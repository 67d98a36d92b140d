import fc from 'fast-check';
import { CHECKS } from '../checks/registry.js';
import { instrumentSchema, instrumentSchemaFor } from '../instruments/instrument.js';
import { parseQuantity } from '../units/parse.js';
import { bareSchema, fieldInfo, type FieldInfo } from './fields.js';
import { askedBack, bareUnit, exampleFor, readTyped, type Figures } from './typed.js';
import * as z from 'zod';
import { readPlaces } from './placeTexts.js';

const division = fieldInfo(instrumentSchema.shape.graduation) as Figures & { dimension: 'deviation' };
const centres: Figures & { dimension: 'length' } = { dimension: 'length', example: '420 mm' };

/** Every field of every check, with its path. */
function fieldsWithin(schema: z.ZodType, path: string): [string, FieldInfo][] {
  const within = bareSchema(schema);
  if (!(within instanceof z.ZodObject)) return [];
  return Object.entries(within.shape as Record<string, z.ZodType>).flatMap(([key, part]): [string, FieldInfo][] => {
    const info = fieldInfo(part);
    return [...(info ? [[`${path}.${key}`, info] as [string, FieldInfo]] : []), ...fieldsWithin(part, `${path}.${key}`)];
  });
}
const FIELDS = [
  ...[...CHECKS.values()].flatMap(({ id, setup, conditions, plan }) => [setup, conditions, plan].flatMap((part) => fieldsWithin(part, id))),
  ...['lever', 'level'].flatMap((kind) => fieldsWithin(instrumentSchemaFor(kind), kind)),
];

describe('a bare figure in a field', () => {
  it('is in the unit that stands beside it: that of the thing, on either screen', () => {
    const read = (text: string, field: Figures, system: 'mm' | 'inch') => {
      const parsed = readTyped(text, field as typeof division, system);
      return parsed.ok ? Number(parsed.value.toFixed(6)) : undefined;
    };
    expect([bareUnit(division, 'mm'), bareUnit(division, 'inch')]).toEqual(['mm', 'in']);
    expect(read('0.01', division, 'mm')).toBe(10);
    expect(read('.0005', division, 'inch')).toBe(12.7);
    expect(read('16.5', centres, 'inch')).toBe(419.1);
    expect(read('12', { dimension: 'deviation' }, 'mm')).toBe(12);
    expect(read('0.5', { dimension: 'deviation' }, 'inch')).toBe(12.7);
    expect(read('0.5 thou', division, 'mm')).toBe(12.7);
    const level = fieldInfo(instrumentSchemaFor('level').shape.graduation) as Figures;
    expect([read('0.02', level, 'mm'), read('0.0005', level, 'inch')]).toEqual([20, 41.666667]);
    // A push by hand is told in pounds, the press of a stylus in ounces.
    expect(read('20', { dimension: 'force' }, 'inch')).toBe(88.964432);
    expect(read('20', { dimension: 'force' }, 'mm')).toBe(20);
    const press = fieldInfo(instrumentSchema.shape.contactForce) as Figures;
    expect([bareUnit(press, 'mm'), bareUnit(press, 'inch'), exampleFor(press, 'inch')]).toEqual(['N', 'oz', '0.5 oz']);
    expect(bareUnit({}, 'mm')).toBe('');
  });

  it('that is a thousand or 25.4 times off what such a thing is, is asked back with every unit that makes sense of it', () => {
    expect(askedBack('0.01', division, 'mm')).toBeUndefined();
    expect(askedBack('10', division, 'mm')).toEqual(['10 µm', '10 mm']);
    expect(askedBack('2', division, 'mm')).toEqual(['2 µm', '2 thou', '2 mm']);
    expect(askedBack('0.0005', division, 'mm')).toEqual(['0.0005 in', '0.0005 mm']);
    expect(askedBack('.5', division, 'inch')).toEqual(['.5 thou', '.5 in']);
    expect(askedBack('16.5', centres, 'mm')).toEqual(['16.5 in', '16.5 mm']);
    expect(askedBack('420', centres, 'inch')).toEqual(['420 mm', '420 in']);
    expect(askedBack('0.42', centres, 'mm')).toEqual(['0.42 m', '0.42 mm']);
  });

  it('is not asked about where it makes sense, has its unit, or is nothing or no figure', () => {
    for (const text of ['420', '60', '4000', '16.5 in', '0', '', 'wide', '0.01 mm'])
      expect(askedBack(text, centres, 'mm'))
        .withContext(text)
        .toBeUndefined();
    expect(askedBack('5', { dimension: 'length', example: '40 mm', usual: 'anything' }, 'mm')).toBeUndefined();
    expect(askedBack('5000', { dimension: 'angle', example: '55' }, 'mm')).toBeUndefined();
  });
});

describe('the example of a field', () => {
  it('is in the unit that stands beside it', () => {
    expect(exampleFor(division, 'mm')).toBe('0.002 mm');
    expect(exampleFor(division, 'inch')).toBe('0.0001 in');
    expect(exampleFor({ dimension: 'deviation', example: '0.004 mm' }, 'mm')).toBe('4 µm');
    expect(exampleFor({ dimension: 'deviation', example: '21 um' }, 'inch')).toBe('0.8 thou');
    expect(exampleFor({ dimension: 'slope', example: '-12 um/m' }, 'inch')).toBe('-0.15 thou/ft');
    expect(exampleFor(centres, 'inch')).toBe('16.5 in');
    for (const example of ['C-1042', '0', '55', '']) expect(exampleFor({ dimension: 'length', example }, 'inch')).toBe(example);
    expect(exampleFor({ example: '0.5' }, 'inch')).toBe('0.5');
  });

  it('of every field is taken by it, and not asked back when its unit is left off', () => {
    expect(FIELDS.length).toBeGreaterThan(100);
    for (const [path, info] of FIELDS) {
      const { dimension } = info;
      if (!dimension || !info.example) continue;
      for (const system of ['mm', 'inch'] as const) {
        const example = exampleFor(info, system);
        if (info.places) {
          expect(readPlaces(example)?.withUnit).withContext(`${path}: ${example}`).toBeTrue();
          expect(askedBack(example, info, system))
            .withContext(path)
            .toBeUndefined();
          continue;
        }
        expect(parseQuantity(example, dimension).ok).withContext(`${path}: ${example}`).toBeTrue();
        const figure = example.replace(/[^\d.+-].*$/, '');
        expect(askedBack(figure, info, system))
          .withContext(`${path}: ${figure}`)
          .toBeUndefined();
      }
    }
  });

  it('means the same on both screens, to a third', () => {
    for (const [path, info] of FIELDS) {
      const { dimension } = info;
      const [one, other] = [
        dimension && parseQuantity(exampleFor(info, 'mm'), dimension),
        dimension && parseQuantity(exampleFor(info, 'inch'), dimension),
      ];
      if (!one || !other || !one.ok || !other.ok || one.value === 0) continue;
      expect(Math.abs(other.value / one.value - 1))
        .withContext(path)
        .toBeLessThan(0.34);
    }
  });
});

describe('what is asked back', () => {
  it('names the bare figure each time, and what is chosen is asked about no more', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-5, max: 1e5, noNaN: true }), fc.constantFrom('mm', 'inch' as const), (size, system) => {
        const text = String(Number(size.toPrecision(4)));
        for (const field of [division, centres]) {
          const asked = askedBack(text, field, system as 'mm' | 'inch') ?? [];
          for (const choice of asked) {
            expect(choice.startsWith(text)).toBeTrue();
            expect(askedBack(choice, field, system as 'mm' | 'inch')).toBeUndefined();
          }
        }
      }),
    );
  });
});
