import { CHECKS, startingSheet } from '@isometra/core';
import { placesLeft } from './slots.js';
import { findingHead, hardwareOf, readingTold, sheetOf, solveWhatStands, standingReadings, trySolve } from './sheet.js';
import { BETWEEN_CENTRES, reading, stored, tailstockRound } from '../testing/rounds.js';

describe('readings that stand', () => {
  it('a superseded one gives its place to the last that superseded it', () => {
    const standing = standingReadings([reading('a', '1'), reading('b', '2'), reading('c', '3', 'a'), reading('d', '4', 'c')]);
    expect(standing.map((entry) => entry.value)).toEqual(['4', '2']);
  });
  it('a withdrawn one is left out', () => {
    expect(standingReadings([reading('a', '1'), reading('b', null, 'a')])).toEqual([]);
    // Leaves have no figure: put right they stand, taken back they do not.
    const leaves = (id: string, go: string, supersedes: string | null = null, why: string | null = null) => ({
      ...{ id, keys: { axis: 'x', at: 50, go, noGo: '0.12 mm' }, value: null, supersedes, why },
    });
    const first = leaves('a', '0.01 mm');
    expect(standingReadings([first, leaves('b', '0.11 mm', 'a', 'misread')]).map(({ keys }) => keys.go)).toEqual(['0.11 mm']);
    expect(standingReadings([first, leaves('b', '0.01 mm', 'a', 'withdrawn')])).toEqual([]);
    expect(readingTold('column-lean', first)).toBe('0.01 mm to 0.12 mm');
  });
});

describe('the sheet of a round', () => {
  const card = { number: 'L-1', kind: 'engine-lathe', adjuster: { pitch: '1.5 mm' } };

  it('is one a person could have written', () => {
    const sheet = sheetOf(
      { ...BETWEEN_CENTRES, instrument: null, conditions: { quillLock: true } },
      [reading('a', '1 um'), reading('b', '3 um', null, { plane: 'h', at: 400 })],
      { card, stock: [{ thickness: '0.05 mm', count: 2 }], gain: 0.8 },
    );
    expect(sheet['readings']).toEqual([
      { plane: 'h', at: 20, value: '1 um', set: 1, conditions: { quillLock: true } },
      { plane: 'h', at: 400, value: '3 um', set: 1, conditions: { quillLock: true } },
    ]);
    expect(sheet['hardware']).toEqual({
      adjuster: { pitch: 1.5, gain: 0.8 },
      'shim-leaves': { stock: [{ thickness: '0.05 mm', count: 2 }] },
    });
    expect(trySolve(sheet).faults).toEqual([]);
  });

  it('takes from a card what each kind of move asks of it', () => {
    const hardware = hardwareOf('tailstock-traverse', {
      card: { number: 'L', kind: 'bench-lathe', eccentric: { throw: '0.4 mm', angle: 0 } },
    });
    expect(hardware['eccentric']).toEqual({ throw: 400, angle: 0 });
    expect(hardware['adjuster']).toBeUndefined();
  });

  it('has the limits and aims of its survey written out', () => {
    const sheet = sheetOf(BETWEEN_CENTRES, stored([reading('a', '0')]), { limits: startingSheet('toolroom') });
    expect(sheet['limits']).toEqual({ offsetHorizontal: [-7.5, 7.5], offsetVertical: [0, 10] });
    expect(sheet['aims']).toEqual({ offsetVertical: 2.5 });
  });

  it('is the same, reading for reading, when it is asked again', () => {
    const [first, again] = [tailstockRound(10)].flatMap((round) => [sheetOf(round, round.readings), sheetOf(round, round.readings)]);
    const rows = (sheet: Record<string, unknown>) => sheet['readings'] as readonly unknown[];
    expect(rows(first).length).toBe(2);
    rows(first).forEach((row, i) => expect(rows(again)[i]).toBe(row));
  });
});

describe('solving what stands', () => {
  const good = [reading('a', '0'), reading('b', '30', null, { plane: 'h', at: 400 })];
  const solved = (more: ReturnType<typeof reading>[]) => solveWhatStands(sheetOf(BETWEEN_CENTRES, [...more, ...good]));
  const offset = (more: ReturnType<typeof reading>[]) => solved(more).finding?.quantities['offsetHorizontal'].value;

  it('a faulty reading silences itself only, and is told with its own number', () => {
    const foul = [reading('x', 'about ten'), reading('y', '3', null, { plane: 'h', at: 200, foo: 1 })];
    expect(offset(foul)).toBe(offset([]));
    expect(solved(foul).faults.map(({ path }) => path)).toEqual(['readings[0].value', 'readings[1].foo']);
    expect(solved([]).faults).toEqual([]);
  });

  it('a fault of the set-up leaves nothing to say, and is told', () => {
    const { finding, faults } = solveWhatStands(sheetOf({ ...BETWEEN_CENTRES, setup: { centreDistance: 'banana' } }, good));
    expect(finding).toBeNull();
    expect(faults.map(({ path }) => path)).toEqual(['setup.centreDistance']);
  });

  it('garble of any kind is a fault, never a crash', () => {
    for (const garble of [null, 7, [], { centreDistance: null }, { centreDistance: { a: [1] } }]) {
      const sheet = { ...sheetOf(BETWEEN_CENTRES, good), setup: garble };
      expect(solveWhatStands(sheet).faults.length).withContext(JSON.stringify(garble)).toBeGreaterThan(0);
    }
  });
});

describe('the head of a finding', () => {
  it('has what a list needs, and of the notes only those that warn or ask', () => {
    const round = tailstockRound(30);
    const head = round.finding && findingHead(round.finding, sheetOf(round, round.readings));
    expect(head?.quantities['offsetHorizontal']).toEqual(jasmine.objectContaining({ verdict: 'out', unit: 'um', aim: 0 }));
    expect(head?.quantities['offsetHorizontal'].value).toBeCloseTo(30, 6);
    expect(JSON.stringify(head)).not.toContain('contributions');
    expect(head?.notes.every(({ severity }) => severity !== 'info')).toBeTrue();
  });
});

describe('a round that was left half way', () => {
  const plan = { planes: 'h' };
  const at = (id: string, place: number) => reading(id, '1 div', null, { plane: 'h', at: place });
  const round = { ...BETWEEN_CENTRES, check: 'tailstock-traverse', plan };

  it('tells how many of its planned places are still to be read; the closing one is none of them', () => {
    const slots = (id: string) => CHECKS.get(id)?.slots(CHECKS.get(id)?.setup.parse(BETWEEN_CENTRES.setup) ?? {}, { planes: 'h' }) ?? [];
    const [first, second] = [...new Set(slots('tailstock-traverse').map(({ keys }) => Number(keys['at'])))];
    expect(placesLeft(round, [])).withContext('not begun').toBe(0);
    expect(placesLeft(round, [at('a', first)])).toBe(1);
    expect(placesLeft(round, [at('a', first), at('b', second)])).toBe(0);
    expect(placesLeft(round, [at('a', first), at('b', second), reading('c', null, 'b')]))
      .withContext('one withdrawn')
      .toBe(1);
    expect(placesLeft(round, [at('a', first), at('b', 77)]))
      .withContext('a place of their own')
      .toBe(0);
    expect(placesLeft({ ...round, check: 'no-such-check' }, [at('a', first)])).toBe(0);
  });
});
