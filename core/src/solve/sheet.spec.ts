import { FaultError, nearest, type Fault } from '../input/faults.js';
import { readSheet } from './sheet.js';
import { solve } from './solve.js';

const good = () => ({
  format: 'isometra-sheet/1',
  check: 'tailstock-traverse',
  instrument: { kind: 'lever', graduation: '0.002 mm', sense: 1, accuracy: '1 um' } as Record<string, unknown>,
  setup: { centreDistance: 420, bar: { diameter: 25 } } as Record<string, unknown>,
  readings: [
    { plane: 'h', at: 20, value: '0 div' },
    { plane: 'h', at: 400, value: '-9.5 div' },
    { plane: 'v', at: 20, value: 0 },
    { plane: 'v', at: 400, value: 3 },
  ] as Record<string, unknown>[],
});

function faultsOf(change: (sheet: ReturnType<typeof good> & Record<string, unknown>) => unknown): readonly Fault[] {
  const sheet = good();
  const changed = change(sheet);
  try {
    solve(changed === undefined ? sheet : changed);
  } catch (error) {
    if (error instanceof FaultError) return error.faults;
    throw error;
  }
  return [];
}
const paths = (change: Parameters<typeof faultsOf>[0]) => faultsOf(change).map((fault) => fault.path);

describe('reading a sheet', () => {
  it('solves a good one', () => {
    const finding = solve(good());
    expect(finding.quantities['offsetHorizontal'].value).toBeCloseTo(-21, 6);
    expect(finding.quantities['offsetHorizontal'].direction).toBe('away from the operator');
  });

  it('names every fault at once, each with an example', () => {
    const faults = faultsOf((sheet) => {
      sheet.format = 'sheet';
      sheet.setup = { centreDistance: 'long', sid: 'operator', bar: { diameter: 0, stuff: 1 } };
      sheet.readings = [
        { plane: 'x', at: 20, value: 'much' },
        7 as unknown as Record<string, unknown>,
        { plane: 'h', at: 5, value: 1, set: 0 },
      ];
      sheet['limits'] = { offsetHorizontal: [5, -5], nothing: [0, 1], offsetVertical: 'wide' };
      sheet['aims'] = { offsetVertical: 'up' };
      sheet['hardware'] = { adjuster: { pich: 1.5 }, crowbar: {} };
      sheet['extra'] = true;
    });
    expect(faults.map((fault) => fault.path).sort()).toEqual(
      [
        'aims.offsetVertical',
        'extra',
        'format',
        'hardware.adjuster.pich',
        'hardware.crowbar',
        'limits.nothing',
        'limits.offsetHorizontal',
        'limits.offsetVertical',
        'readings[0].plane',
        'readings[0].value',
        'readings[1]',
        'readings[2].set',
        'setup.bar.diameter',
        'setup.bar.stuff',
        'setup.centreDistance',
        'setup.sid',
      ].sort(),
    );
    for (const fault of faults) expect(fault.example).withContext(fault.path).not.toBe('');
  });

  it('refuses what is no sheet', () => {
    for (const raw of [null, 3, 'text', [], {}]) expect(faultsOf(() => raw ?? 0).length).toBeGreaterThan(0);
  });

  it('tells a wrong kind of value from a missing one', () => {
    const message = (change: Parameters<typeof faultsOf>[0]) => faultsOf(change)[0].message;
    expect(message((sheet) => void (sheet.readings[0]['swapped'] = 'yes'))).toBe('must be true or false');
    expect(message((sheet) => void (sheet.readings[0]['set'] = 1.5))).toContain('must be the number of the set-up');
    expect(message((sheet) => void delete sheet.setup['centreDistance'])).toContain('is missing');
    expect(message((sheet) => void (sheet.setup['bar'] = 3))).toBe('must be an object');
  });

  it('suggests the key that was meant', () => {
    expect(faultsOf((sheet) => void (sheet.setup['centerDistance'] = 3))[0].message).toContain('did you mean "centreDistance"');
    expect(nearest('tailstock-travers', ['tailstock-traverse', 'tailstock-sweep'])).toBe('tailstock-traverse');
    expect(nearest('banana', ['tailstock-traverse'])).toBeUndefined();
  });

  it('needs the instrument for divisions, and places within the centres', () => {
    expect(
      paths((sheet) => {
        delete (sheet as Record<string, unknown>)['instrument'];
      }),
    ).toEqual(['readings[0].value', 'readings[1].value', 'readings[2].value', 'readings[3].value']);
    expect(paths((sheet) => void (sheet.readings[1]['at'] = 500))).toEqual(['readings[1].at']);
  });

  it('says which part of the hardware a plan still needs', () => {
    expect(paths((sheet) => void (sheet['hardware'] = { adjuster: {} }))).toEqual(['hardware.adjuster.pitch']);
  });

  it('a frozen reading is read once for an instrument and a check, any other every time', () => {
    const sheet = good();
    const instrument = Object.freeze({ ...sheet.instrument });
    const frozen = { ...sheet, instrument, readings: sheet.readings.map((reading) => Object.freeze({ ...reading })) };
    const [first, again] = [readSheet(frozen), readSheet(frozen)];
    expect(again.readings[1]).toBe(first.readings[1]);
    const other = readSheet({ ...frozen, instrument: { ...instrument, graduation: '0.01 mm' } });
    expect(other.readings[1].value).toBeCloseTo(-95, 9);
    sheet.readings[1]['value'] = 4;
    expect(readSheet(sheet).readings[1].value).toBeCloseTo(8, 9);
    sheet.readings[1]['value'] = 5;
    expect(readSheet(sheet).readings[1].value).toBeCloseTo(10, 9);
  });

  it('a bar that is all bore is refused', () =>
    expect(paths((sheet) => void (sheet.setup['bar'] = { diameter: 20, bore: 20 }))).toEqual(['setup.bar.bore']));
});
