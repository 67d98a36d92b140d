import { driftOf } from './drift.js';
import { finding, move, quantity } from '../testing/heads.js';
import type { RoundHead } from '@isometra/contract';

const at = (month: number) => new Date(Date.UTC(2024, month, 15, 9)).toISOString();
let count = 0;
const round = (month: number, value: number, more: Partial<RoundHead> = {}): RoundHead => ({
  ...{
    id: `r${++count}`,
    machineId: 'm',
    surveyId: 's',
    number: count,
    check: 'bed-twist',
    instrumentName: null,
    mounting: null,
    sense: null,
  },
  ...{ conditions: {}, by: 'HB', at: at(month), version: 1, last: 2, moves: [] },
  finding: finding({ twistPerMetre: quantity({ value, expanded: 2, limit: [-20, 20] }) }),
  ...more,
});
const of = (rounds: readonly RoundHead[], other = {}) =>
  driftOf(rounds, { check: 'bed-twist', quantity: 'twistPerMetre', thing: '' }, other);

describe('how a quantity drifts', () => {
  it('is told by all rounds that were read alike, where nothing was moved', () => {
    const told = of([round(0, 0), round(6, 3), round(12, 6), round(18, 9)]);
    expect([told?.rounds, told?.after, told?.since]).toEqual([4, null, at(0)]);
    const trend = told?.trend;
    expect(trend?.kind === 'line' && trend.drifts).toBeTrue();
    expect(trend?.kind === 'line' && trend.slope).toBeCloseTo(6, 0);
    // 9 µm/m in July 2025 and 6 a year: 20 nearly two years on.
    expect(new Date(trend?.kind === 'line' ? (trend.leaves?.at ?? 0) : 0).getUTCFullYear()).toBe(2027);
  });

  it('starts anew with a move, and with what happened to the machine', () => {
    const moved = round(6, 9, { moves: [move({ quantity: 'twistPerMetre', doneAt: at(7), begunAt: at(6) })] });
    const rounds = [round(0, 0), moved, round(12, 1), round(18, 2)];
    expect([of(rounds)?.rounds, of(rounds)?.after, of(rounds)?.trend.kind]).toEqual([2, at(7), 'two']);
    expect(of(rounds)?.moves).toEqual([at(7)]);
    expect(of(rounds)?.points.map((point) => [new Date(point.at).toISOString(), point.value, point.u])).toEqual([
      [at(12), 1, 1],
      [at(18), 2, 1],
    ]);
    const crashed = of([round(0, 0), round(6, 3), round(12, 6)], { events: [{ what: 'crashed', at: at(9) }] });
    expect([crashed?.rounds, crashed?.trend.kind]).toEqual([1, 'nothing']);
  });

  it('a move that came after the last round changes nothing of what those rounds say', () => {
    const last = round(12, 6, { moves: [move({ quantity: 'twistPerMetre', doneAt: at(13), begunAt: at(12) })] });
    expect(of([round(0, 0), round(6, 3), last])?.rounds).toBe(3);
  });

  it('what was read at another place, or says nothing of its doubt, is left out', () => {
    const elsewhere = round(6, 40, { conditions: { place: 900 } });
    const unsure = round(9, 40, { finding: finding({ twistPerMetre: quantity({ value: 40, expanded: null }) }) });
    const told = of([round(0, 0), elsewhere, unsure, round(12, 6)]);
    expect([told?.rounds, told?.trend.kind]).toEqual([2, 'two']);
    expect(of([round(0, 0, { check: 'table-level' })])).toBeUndefined();
  });
});
