import type { Finder } from '@isometra/contract';
import { folded } from '../notebook/folded.js';
import { findablesOf, found } from './finder.js';

const shop = (machines: number): Finder => ({
  machines: Array.from({ length: machines }, (_, i) => ({
    ...{
      id: `m${i}`,
      number: `L-${String(i).padStart(3, '0')}`,
      nickname: i === 14 ? 'the long Müller' : `lathe ${i}`,
      kind: 'engine-lathe',
    },
    ...(i === 3 && { archived: true as const }),
  })),
  faces: [{ id: 'f1', name: 'Saddle, flat way', machineId: 'm14' }],
  kit: [{ id: 'k1', name: 'Lever dial, 2 µm' }],
  sheets: [{ id: 's1', name: 'The builder’s sheet' }],
  parts: [
    { id: 'p5', name: 'Front bearing cap', machineId: 'm14', stripDownId: 's1', number: 5 },
    { id: 's1', name: 'Headstock', machineId: 'm14', stripDownId: 's1', number: null },
  ],
  people: ['HB', 'RM'],
  rounds: [{ machineId: 'm14', check: 'tailstock-traverse', count: 4, last: 'r4' }],
});
const none = { lately: [] };

describe('everything that can be gone to', () => {
  const index = findablesOf(shop(500));
  const labels = (typed: string, lately: string[] = [], machineId?: string) =>
    found(index, typed, { lately, machineId }).map(({ label }) => label);

  it('is found by any part of its name or number, the machine itself first', () => {
    expect(labels('l-014')[0]).toBe('L-014 the long Müller');
    expect(labels('14 long')[0]).toBe('L-014 the long Müller');
    expect(labels('muller')[0]).toBe('L-014 the long Müller');
    expect(labels('flat')).toEqual(['Saddle, flat way']);
    expect(labels('lever')[0]).toBe('Lever dial, 2 µm');
    expect(labels('builder')).toEqual(['The builder’s sheet']);
    expect(labels('rm')[0]).toBe('RM');
    expect(labels('unicorn')).toEqual([]);
  });

  it('a check of a machine, its rounds so far and its last round by words of both', () => {
    const paths = found(index, 'bar between 014', none).map(({ path }) => path);
    expect(paths.slice(0, 3).sort()).toEqual([
      '/machines/m14/bench/tailstock-traverse',
      '/machines/m14/bench/tailstock-traverse/r4',
      '/machines/m14/rounds/tailstock-traverse',
    ]);
    expect(found(index, 'bar between round 4 014', none)[0].path).toBe('/machines/m14/bench/tailstock-traverse/r4');
  });

  it('of equals the open machine’s stand first; what was gone to lately before everything', () => {
    expect(found(index, 'survey', { lately: [], machineId: 'm77' })[0].path).toBe('/machines/m77/survey');
    expect(found(index, 'survey', { lately: ['/machines/m5/survey'], machineId: 'm77' })[0].path).toBe('/machines/m5/survey');
    expect(labels('', ['/machines/m14', '/gone', '/kit'])).toEqual(['L-014 the long Müller', 'Kit']);
    expect(labels('')).toEqual([]);
  });

  it('a part by its name or its number, in the strip-down it belongs to', () => {
    const [{ label, beside, path }] = found(index, 'bearing cap', none);
    expect([label, beside, path]).toEqual([
      'Front bearing cap, part 5',
      'L-014 the long Müller strip-down',
      '/machines/m14/parts/s1?part=p5',
    ]);
    expect(found(index, 'headstock strip-down', none)[0].path).toBe('/machines/m14/parts/s1');
  });

  it('what is in the archive is found, and says so', () => {
    expect(found(index, 'l-003', none)[0].beside).toBe('engine lathe, in the archive');
  });

  it('every one of 500 machines is found by its number, within a frame', () => {
    for (let i = 0; i < 500; i += 7) expect(found(index, `l-${String(i).padStart(3, '0')}`, none)[0].path).toBe(`/machines/m${i}`);
    const times = Array.from({ length: 15 }, (_, i) => {
      const before = performance.now();
      found(index, ['l', 'bar 0', 'round 4 so', 'e'][i % 4], none);
      return performance.now() - before;
    }).sort((a, b) => a - b);
    // A frame is 16 ms; the median, because a busy machine may stop for longer at any time.
    expect(times[7]).toBeLessThan(16);
  });

  it('folds what stands over letters', () => {
    expect(folded('Größe ÄÖÜ é')).toBe('große aou e');
  });
});
