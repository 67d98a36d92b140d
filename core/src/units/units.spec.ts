import fc from 'fast-check';
import { DIMENSIONS, type Dimension } from './dimensions.js';
import { formatQuantity, showSize, shownIn, type Fineness, type UnitSystem } from './format.js';
import { readNumber } from './number.js';
import { parseQuantity } from './parse.js';

const value = (raw: unknown, dimension: Dimension): number => {
  const parsed = parseQuantity(raw, dimension);
  if (!parsed.ok) throw new Error(parsed.message);
  return parsed.value;
};

describe('reading a number', () => {
  for (const [text, expected] of [
    ['5 1/2 div', { value: 5.5, unit: 'div' }],
    ['-5 1/2 div', { value: -5.5, unit: 'div' }],
    ['1/2 thou', { value: 0.5, unit: 'thou' }],
    ['−0,5 thou', { value: -0.5, unit: 'thou' }],
    ['+12µm', { value: 12, unit: 'um' }],
    ['.5', { value: 0.5, unit: '' }],
    ['1e-3 mm', { value: 0.001, unit: 'mm' }],
    ['3 um / 300 mm', { value: 3, unit: 'um / 300 mm' }],
    ['-0', { value: 0, unit: '' }],
  ] as const) {
    it(`takes "${text}"`, () => expect(readNumber(text)).toEqual(expected));
  }
  for (const text of ['', 'div', '1.234,5', '1/0', '1//2', '--3', '1 2', 'half', '1.2.3', '1,234,567']) {
    it(`refuses "${text}"`, () => {
      const read = readNumber(text);
      expect(read === undefined || !Object.hasOwn(DIMENSIONS.deviation.factors, read.unit)).toBeTrue();
    });
  }
});

describe('quantities', () => {
  for (const [text, dimension, expected] of [
    ['1 500 mm', 'length', 1500],
    ['0,500', 'length', 0.5],
    ['4 ft 11 in', 'length', 1498.6],
    ['13-1/2 in', 'length', 342.9],
    ['5 ⅜ in', 'length', 136.525],
    ['1⁄2 in', 'length', 12.7],
    ['3″', 'length', 76.2],
    ['2 cm', 'length', 20],
    ['1 m', 'length', 1000],
    ['5 mic', 'deviation', 5],
    ['5 µ', 'deviation', 5],
    ['2 mils', 'deviation', 50.8],
    ['two tenths', 'deviation', 5.08],
    ['a thou', 'deviation', 25.4],
    ['–5 um', 'deviation', -5],
    ['0.02 mm in 300 mm', 'slope', 66.666667],
    ['5 thou in 9 in', 'slope', 555.555556],
    ['2 thou per ft', 'slope', 166.666667],
    ['0.001"/ft', 'slope', 83.333333],
    ['0.001 in/ft', 'slope', 83.333333],
    ['0.02/1000', 'slope', 20],
    ['0.02 mm/1000', 'slope', 20],
    ['2/1000', 'slope', 2000],
    ['1/2 thou/ft', 'slope', 41.666667],
    ['0.02 mm/m/m', 'twist', 20],
    ["55°30'", 'angle', 55.5],
    ['68 F', 'temperature', 20],
    ['18 F', 'warming', 10],
    ['15 g', 'force', 0.1471],
    ['3 oz', 'force', 0.834042],
    ['20 lbf', 'force', 88.964432],
    ['20 tpi', 'pitch', 1.27],
    ['12 um', 'deviation', 12],
    ['0.012 mm', 'deviation', 12],
    ['0.5 thou', 'deviation', 12.7],
    ['2 tenths', 'deviation', 5.08],
    ['0.0003 in', 'deviation', 7.62],
    ['30 uin', 'deviation', 0.762],
    ['1 in', 'length', 25.4],
    ['1 thou/ft', 'slope', 83.333333],
    ['1 mm/m', 'slope', 1000],
    ['1 um/300mm', 'slope', 3.333333],
    ['1 arcsec', 'slope', 4.848137],
    ['20 um/m per m', 'twist', 20],
    ['12', 'deviation', 12],
    [0.5, 'length', 0.5],
  ] as const) {
    it(`${text} is ${expected} ${DIMENSIONS[dimension].base}`, () => expect(value(text, dimension)).toBeCloseTo(expected, 5));
  }

  for (const text of ['1,500', '12,250 in', '-1,500 um'])
    it(`asks back which of two numbers "${text}" is`, () => {
      const parsed = parseQuantity(text, 'length');
      expect(parsed.ok).toBeFalse();
      expect(parsed.ok ? '' : parsed.message).toContain(text.includes('12') ? '12250 or 12.250' : '1500 or ');
    });

  it('never looks long at a long text', () => {
    const start = process.hrtime.bigint();
    for (const text of ['1'.repeat(100_000), `${' '.repeat(100_000)}x`, `1${' '.repeat(50_000)}1`, '-'.repeat(100_000)])
      for (const dimension of ['length', 'slope', 'twist', 'angle'] as const) {
        const parsed = parseQuantity(text, dimension);
        expect(parsed.ok).toBeFalse();
        expect(parsed.ok ? 0 : parsed.message.length).toBeLessThan(200);
      }
    expect(Number(process.hrtime.bigint() - start) / 1e6).toBeLessThan(1000);
  });

  it('says what is wrong and shows what would be taken', () => {
    expect(parseQuantity('12 furlongs', 'length')).toEqual({
      ok: false,
      message: '"12 furlongs" is not a length: the unit "furlongs" is not one of mm, um, in, thou, tenths, uin',
      example: '120.5 mm',
    });
    for (const raw of ['', undefined, null, {}, [], true, NaN, Infinity, 'mm', '1e999 mm', '12 constructor']) {
      const parsed = parseQuantity(raw, 'deviation');
      expect(parsed.ok).withContext(String(raw)).toBeFalse();
      if (!parsed.ok) expect(parseQuantity(parsed.example, 'deviation').ok).toBeTrue();
    }
  });

  it('every example is taken by its own dimension', () => {
    for (const [dimension, { example }] of Object.entries(DIMENSIONS))
      expect(parseQuantity(example, dimension as Dimension).ok)
        .withContext(dimension)
        .toBeTrue();
  });

  it('format then parse gives the value back at the shown precision', () => {
    const dimensions = Object.keys(DIMENSIONS) as Dimension[];
    fc.assert(
      fc.property(
        fc.constantFrom(...dimensions),
        fc.double({ min: -1e5, max: 1e5, noNaN: true }),
        fc.nat(5),
        fc.nat(20),
        (dimension, number, decimals, pick) => {
          const units = Object.keys(DIMENSIONS[dimension].factors);
          const unit = units[pick % units.length];
          const back = value(formatQuantity(number, dimension, unit, decimals), dimension);
          const half = 0.5 * 10 ** -decimals * DIMENSIONS[dimension].factors[unit];
          // Twelve figures are kept before it is rounded: half of the last of them.
          expect(Math.abs(back - number)).toBeLessThanOrEqual(half * 1.000001 + Math.abs(number) * 5.1e-12);
        },
      ),
    );
  });

  it('rounds a half up, whatever the last bit of a sum says', () => {
    // Half of ten divisions of half a thou, as a fit gives it: 63.5 µm less a hair.
    expect(showSize(63.499999999999986, 'deviation', 'mm', 'coarse')).toBe('0.064 mm');
    expect(showSize(63.49, 'deviation', 'mm', 'coarse')).toBe('0.063 mm');
  });

  it('shows no more digits than the doubt earns', () => {
    expect(showSize(21.04, 'deviation', 'mm', 'coarse', 1.9)).toBe('0.021 mm');
    expect(showSize(-21.04, 'deviation', 'inch', 'coarse', 1.9)).toBe('0.8 thou');
    expect(showSize(21.04, 'deviation', 'mm', 'fine', 9)).toBe('21 µm');
    for (const system of ['mm', 'inch'] as UnitSystem[]) {
      for (const fineness of ['coarse', 'fine'] as Fineness[]) {
        const free = shownIn('deviation', system, fineness);
        expect(shownIn('deviation', system, fineness, 400).decimals).toBeLessThanOrEqual(free.decimals);
      }
    }
  });
});
