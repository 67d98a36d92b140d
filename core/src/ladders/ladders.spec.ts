import { CHECKS } from '../checks/registry.js';
import { LADDERS, bearingsFirst, misplaced, misplacedText, withBearings } from './ladders.js';
import type { MachineFamily } from '../checks/define.js';

describe('ladders', () => {
  for (const family of Object.keys(LADDERS) as MachineFamily[]) {
    it(`every check of a ${family} has one rung`, () => {
      const asked = [...CHECKS.values()].filter((check) => check.machines.includes(family)).map((check) => check.id);
      expect([...LADDERS[family]].sort()).toEqual(asked.sort());
    });

    it(`a ${family}’s rungs stand in working order`, () => {
      const wrong = misplaced(LADDERS[family]);
      expect([...wrong]).toEqual([]);
    });
  }

  it('a rung put before one that it hangs on says so', () => {
    const order = ['tailstock-traverse', 'bed-twist', 'spindle-axis'];
    const wrong = misplaced(order);
    expect(wrong.get('tailstock-traverse')).toEqual(['bed-twist', 'spindle-axis']);
    expect(wrong.has('bed-twist')).toBeFalse();
    expect(misplacedText('tailstock-traverse', wrong.get('tailstock-traverse'))).toBe(
      'Bar between centres depends on “Bed twist” and “Spindle axis”, which come after it: a move there would upset it.',
    );
    expect(misplacedText('bed-twist', wrong.get('bed-twist'))).toBe('');
  });

  it('rungs that upset each other may stand either way round', () => {
    expect(misplaced(['dovetail-over-pins', 'saddle-squareness']).size).toBe(0);
    expect(misplaced(['saddle-squareness', 'dovetail-over-pins']).size).toBe(0);
  });
});

describe('bearings or headstock first', () => {
  it('the bearings come first as a rule; put last they follow the cut in the chuck, and come back to where they were', () => {
    expect(bearingsFirst(LADDERS.lathe)).toBeTrue();
    const last = withBearings(LADDERS.lathe, false);
    expect(last.indexOf('spindle-play')).toBe(last.indexOf('chuck-test-cut') + 1);
    expect(bearingsFirst(last)).toBeFalse();
    expect(withBearings(last, true)).toEqual([...LADDERS.lathe]);
    expect(withBearings(last, false)).toEqual(last);
  });

  it('says nothing of a machine without them', () => {
    expect(bearingsFirst(LADDERS.mill)).toBeUndefined();
    expect(withBearings(LADDERS.mill, false)).toEqual([...LADDERS.mill]);
  });
});
