import { FaultError } from '../input/faults.js';
import { solve } from '../solve/solve.js';

const cut = (diameter: string | undefined, values: readonly (string | number)[]) => ({
  format: 'isometra-sheet/1',
  check: 'tailstock-test-cut',
  setup: { centreDistance: '300 mm', tool: 'operator', ...(diameter && { bar: { diameter } }) },
  instrument: { kind: 'micrometer', graduation: '0.001 mm', accuracy: '1 um' },
  readings: values.map((value, i) => ({ at: `${20 + 250 * i} mm`, value })),
});
const faultsOf = (sheet: unknown): readonly string[] => {
  try {
    solve(sheet);
    return [];
  } catch (error) {
    if (error instanceof FaultError) return error.faults.map(({ path, message }) => `${path} ${message}`);
    throw error;
  }
};

describe('pads of a trial cut', () => {
  it('may have any size from that of the bar on down, also in the tenth round', () => {
    for (const size of [38.2, 37.4, 30, 12])
      expect(faultsOf(cut('38.2 mm', [size, size + 0.02])))
        .withContext(String(size))
        .toEqual([]);
    expect(solve(cut('38.2 mm', [12, 12.02])).quantities['offsetHorizontal'].value).toBeCloseTo(-12, 6);
  });

  it('larger than the bar, or in another unit, are refused by name', () => {
    expect(faultsOf(cut('38.2 mm', [48.2, 48.21]))[0]).toContain('readings[0].value is taken for 48.2 mm, and the bar had 38.2 mm');
    expect(faultsOf(cut('38.2 mm', [1.47, 1.471]))[0]).toContain('nobody turns a bar of 38.2 mm down to that');
  });

  it('that cannot have been turned in one cut are refused, with or without a bar described: the odd one of three, the later of two', () => {
    expect(faultsOf(cut(undefined, [38.24, 3.824]))[0]).toMatch(
      /^readings\[1\]\.value is taken for 3\.824 mm beside pads from 3\.824 to 38\.24 mm/,
    );
    expect(faultsOf(cut(undefined, [3.824, 38.24, 38.25]))[0]).toMatch(/^readings\[0\]\.value/);
    expect(faultsOf(cut(undefined, [38.24, 38.9]))).toEqual([]);
  });
});
