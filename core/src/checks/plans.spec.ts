import { CHECKS } from './registry.js';
import { plannedKind, type CheckDefinition, type PlannedSlot } from './define.js';
import { SAMPLE_SETUPS } from '../testing/sampleSetups.js';
import { FILE_SIZES, sentence } from '../units/said.js';

function slots(
  id: string,
  plan: Record<string, unknown>,
  setup: Record<string, unknown> = SAMPLE_SETUPS[id] ?? {},
): readonly PlannedSlot[] {
  const check = CHECKS.get(id) as CheckDefinition;
  return check.slots(check.setup.parse(setup), check.plan.parse(plan));
}
const keys = (planned: readonly PlannedSlot[]) => planned.map((slot) => Object.values(slot.keys).join(' '));

describe('where to put the indicator', () => {
  it('a bar: side first, then top, clear of the centres, and back to the first place', () => {
    expect(keys(slots('tailstock-traverse', {}))).toEqual(['h 20', 'h 380', 'v 20', 'v 380', 'h 20']);
    expect(slots('tailstock-traverse', {}).at(-1)?.closing).toBeTrue();
    expect(keys(slots('tailstock-traverse', { planes: 'h', stations: 3, close: false }))).toEqual(['h 20', 'h 200', 'h 380']);
  });

  it('a bar turned half round is read again with the indicator left where it is', () => {
    const planned = slots('tailstock-traverse', { planes: 'h', turned: true, close: false });
    expect(keys(planned)).toEqual(['h 20 0', 'h 380 0', 'h 20 180', 'h 380 180']);
    expect(planned[2].ask).toContain('Turn the spindle half round by hand, and the bar with it');
  });

  it('the rear is called the rear, and the crown of the bar is asked for', () => {
    const planned = slots('tailstock-traverse', {}, { centreDistance: '400 mm', side: 'rear' });
    expect(planned[0].label).toBe('Rear, near the headstock');
    expect(planned[2].ask).toContain('crown');
  });

  it('a column read with leaves is read on leaves at every height, with a dial on a dial', () => {
    const check = CHECKS.get('column-lean') as CheckDefinition;
    expect(plannedKind(check, {}, { leaves: true })).toBe('gap');
    expect(plannedKind(check, {}, {})).toBe('indicator');
    const asked = (plan: Record<string, unknown>) =>
      slots('column-lean', plan).map((slot) =>
        (check.beside ?? [])
          .filter(({ when }) => when?.(slot.keys))
          .map(({ key }) => key)
          .join(),
      );
    expect(new Set(asked({ leaves: true }))).toEqual(new Set(['go,noGo,shim']));
    expect(new Set(asked({}))).toEqual(new Set(['']));
  });

  it('a sweep goes once round and closes', () => {
    expect(keys(slots('tailstock-sweep', {}))).toEqual(['0', '90', '180', '270', '0']);
    expect(slots('tailstock-sweep', { angles: '8' }).length).toBe(9);
    expect(sentence(slots('tailstock-sweep', { angles: '12' })[1].label, FILE_SIZES)).toContain('30°');
  });

  it('a cut may go to the middle of the bar only', () => {
    expect(keys(slots('tailstock-test-cut', { stations: 2 }))).toEqual(['20', '380']);
    expect(keys(slots('tailstock-test-cut', { stations: 2, reach: 'middle' }))).toEqual(['200', '380']);
  });

  it('a level is turned end for end on every spot', () => {
    expect(keys(slots('bed-twist', { stations: 2 }, { bedLength: '800 mm' }))).toEqual([
      '0 forward',
      '0 reversed',
      '800 forward',
      '800 reversed',
    ]);
    expect(slots('bed-twist', {})[1].ask).toContain('end for end');
  });

  it('a straightedge is rolled over before it is read again', () => {
    const planned = slots('way-straightness', { stations: 3 }, { method: 'straightedge', base: '200 mm' });
    expect(keys(planned)).toEqual(['0 toward-operator', '200 toward-operator', '400 toward-operator', '0 away', '200 away', '400 away']);
    expect(planned[3].ask).toContain('Roll the straightedge');
  });

  it('a spindle is turned by hand for the highest and the lowest', () => {
    const planned = slots('spindle-axis', {});
    expect(planned.length).toBe(8);
    expect(planned[0].ask).toContain('by hand');
    expect(planned.map((slot) => slot.keys['extreme'])).toEqual(['high', 'low', 'high', 'low', 'high', 'low', 'high', 'low']);
  });

  it('a reference turned half round doubles a general traverse', () => {
    expect(slots('tailstock-way-parallelism', { stations: 4, length: 900 }).map((slot) => slot.keys['at'])).toEqual([0, 300, 600, 900, 0]);
    expect(slots('tailstock-way-parallelism', { stations: 4, turned: true }).length).toBe(10);
  });

  it('a square is flipped and read again', () => {
    const planned = slots('axis-squareness', {});
    expect(planned.filter((slot) => slot.keys['flip'] === true).length).toBe(planned.length / 2);
    expect(planned.find((slot) => slot.ask && !slot.closing)?.ask).toContain('Flip the square');
  });

  it('a plan read on a dial that is carried comes back to its first place, in every mounting of the dial', () => {
    const carried = ['traverse', 'sweep', 'square', 'tram'];
    for (const { id, family } of CHECKS.values()) {
      if (!carried.includes(family)) continue;
      const planned = slots(id, {});
      expect(planned.at(-1)?.closing).withContext(id).toBeTrue();
      for (const slot of planned.filter(({ closing }) => closing))
        expect(planned.some(({ closing, keys: own }) => !closing && JSON.stringify(own) === JSON.stringify(slot.keys)))
          .withContext(id)
          .toBeTrue();
    }
    expect(keys(slots('quill-parallelism', {}))).toEqual(['h 0', 'h 100', 'h 0', 'v 0', 'v 100', 'v 0']);
    expect(keys(slots('head-tram', {}))).toEqual(['0', '90', '180', '270', '0']);
  });

  it('no two places of a plan are the same but the closing one', () => {
    for (const id of CHECKS.keys()) {
      const planned = slots(id, {}).filter((slot) => !slot.closing);
      expect(new Set(planned.map((slot) => JSON.stringify(slot.keys))).size)
        .withContext(id)
        .toBe(planned.length);
    }
  });
});
