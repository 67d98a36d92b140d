import { CHECKS } from '../checks/registry.js';
import { LADDERS, misplaced, misplacedText, type MachineFamily } from './ladders.js';

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
      'Bar between centres hangs on “Bed twist” and “Spindle axis”, which come after it: a move there would upset it.',
    );
    expect(misplacedText('bed-twist', wrong.get('bed-twist'))).toBe('');
  });

  it('rungs that upset each other may stand either way round', () => {
    expect(misplaced(['dovetail-over-pins', 'saddle-squareness']).size).toBe(0);
    expect(misplaced(['saddle-squareness', 'dovetail-over-pins']).size).toBe(0);
  });
});
