import { judgedMoves, gainOf } from './history.js';
import { kitFaults } from './kit.js';
import { machineCardSchema, machineFamily } from './machine.js';
import { roundSchema, roundWriteOf, type MoveWrite, type ReadingWrite, type Round, type RoundWrite } from './round.js';
import { hardwareOf, sheetOf, standingReadings, trySolve } from './sheetOf.js';

const reading = (
  id: string,
  value: string | null,
  supersedes: string | null = null,
  keys: ReadingWrite['keys'] = { plane: 'h', at: 20 },
): ReadingWrite => ({
  id,
  keys,
  value,
  set: 1,
  supersedes,
  why: supersedes && 'misread',
  by: 'AB',
  at: '2026-01-01T08:00:00.000Z',
});

const round = (offset: number, moves: Partial<MoveWrite>[] = [], conditions: Round['conditions'] = {}): Round => {
  const base = {
    check: 'tailstock-traverse',
    setup: { centreDistance: '400 mm' },
    instrument: { kind: 'lever', graduation: '1 um', sense: 1 },
    conditions,
  };
  const readings = [reading('a', '0'), reading('b', String(offset * 0.95), null, { plane: 'h', at: 400 })].map((entry, sequence) => ({
    ...entry,
    roundId: 'r',
    sequence,
  }));
  const { finding } = trySolve(sheetOf(base, readings));
  return { ...base, readings, finding, moves: moves as MoveWrite[], number: 1 } as unknown as Round;
};

describe('a round sent again', () => {
  it('leaves off all that was kept beside what was sent', () => {
    const sent: RoundWrite = {
      ...{ id: crypto.randomUUID(), machineId: crypto.randomUUID(), check: 'bed-twist', setup: {}, plan: {}, instrument: null },
      ...{ instrumentName: null, conditions: {}, purpose: null, by: 'AB', at: '2026-01-01T08:00:00.000Z', version: 2 },
    };
    const shown = { ...sent, surveyId: 's', number: 4, readings: [], moves: [], finding: null, coreVersion: '1' };
    expect(roundWriteOf(shown)).toEqual(sent);
    expect(roundSchema.safeParse(roundWriteOf(shown)).success).toBeTrue();
    expect(roundSchema.safeParse(shown).success).toBeFalse();
  });
});

describe('readings that stand', () => {
  it('a superseded one gives its place to the last that superseded it', () => {
    const standing = standingReadings([reading('a', '1'), reading('b', '2'), reading('c', '3', 'a'), reading('d', '4', 'c')]);
    expect(standing.map((entry) => entry.value)).toEqual(['4', '2']);
  });
  it('a withdrawn one is left out', () => {
    expect(standingReadings([reading('a', '1'), reading('b', null, 'a')])).toEqual([]);
  });
});

describe('the sheet of a round', () => {
  it('is one a person could have written', () => {
    const sheet = sheetOf(
      { check: 'tailstock-traverse', setup: { centreDistance: '400 mm' }, instrument: null, conditions: { quillLock: true } },
      [reading('a', '1 um')],
      {
        card: { number: 'L-1', kind: 'engine-lathe', adjuster: { pitch: '1.5 mm' } },
        stock: [{ thickness: '0.05 mm', count: 2 }],
        gain: 0.8,
      },
    );
    expect(sheet['readings']).toEqual([{ plane: 'h', at: 20, value: '1 um', set: 1, conditions: { quillLock: true } }]);
    expect(sheet['hardware']).toEqual({
      adjuster: { pitch: 1.5, gain: 0.8 },
      'shim-leaves': { stock: [{ thickness: '0.05 mm', count: 2 }] },
    });
    expect(trySolve(sheet).faults).toEqual([]);
  });
  it('uses the eccentric when there is no adjuster', () => {
    expect(hardwareOf({ card: { number: 'L', kind: 'bench-lathe', eccentric: { throw: '0.4 mm', angle: 0 } } })).toEqual({
      eccentric: { throw: 400, angle: 0 },
    });
  });
});

describe('cards and kit', () => {
  it('name what is wrong', () => {
    const parsed = machineCardSchema.safeParse({ number: '', kind: 'tractor', swing: 'big', base: { length: '16 cm', width: 3 } });
    expect(parsed.error?.issues.map((issue) => issue.path.join('.')).sort()).toEqual(['base.length', 'kind', 'number', 'swing']);
    expect(kitFaults({ kind: 'instrument', data: { kind: 'lever' } })[0].path).toBe('data.graduation');
    expect(kitFaults({ kind: 'shim-stock', data: { stock: [{ thickness: 'thin', count: 1 }] } })[0].path).toBe('data.stock[0].thickness');
  });
  it('know the family of a machine', () =>
    expect(['engine-lathe', 'turning-centre', 'turret-mill'].map(machineFamily)).toEqual(['lathe', 'turning-centre', 'mill']));
});

describe('moves judged by the rounds around them', () => {
  const done = { kind: 'adjuster', quantity: 'offsetHorizontal', amount: -30, done: true };
  it('wrong way, and the gain learned from a later one', () => {
    const judged = judgedMoves([round(30, [done]), round(60, [{ ...done, amount: -60 }]), round(12)]);
    expect(judged.map((entry) => entry.result.outcome)).toEqual(['wrong-way', 'fell-short']);
    expect(gainOf(judged, 'adjuster')).toBeCloseTo(0.8, 6);
    expect(gainOf(judged, 'shim-leaves')).toBeNull();
  });
  it('unlike conditions are named and teach no gain', () => {
    const judged = judgedMoves([round(30, [done], { quillLock: true }), round(6, [], { quillLock: false })]);
    expect(judged[0].unlike).toEqual(['quill lock on, then off']);
    expect(gainOf(judged, 'adjuster')).toBeNull();
  });
  it('a move not done yet, or with no round after it, is not judged', () => {
    expect(judgedMoves([round(30, [done])])).toEqual([]);
    expect(judgedMoves([round(30, [{ ...done, done: false }]), round(2)])).toEqual([]);
  });
});
