import fc from 'fast-check';
import { proofCut } from './proofCut.js';

const ZONE = [-15, 15] as const;

describe('a proof cut both ways round', () => {
  it('tells what is the machine from what goes with the bar', () => {
    // By pencil: 20 and 12 µm bigger at the tail: 16 of it is the machine, 4 goes with the bar.
    const found = proofCut({ head: 40, tail: 40.02 }, { head: 39.9, tail: 39.912 }, [...ZONE]);
    expect(found.machine).toBeCloseTo(16, 6);
    expect(found.bar).toBeCloseTo(4, 6);
    expect([found.verdict, found.barTells]).toEqual(['in', true]);
  });

  it('is out where half of what stays at one end of the machine is, and close where the doubt reaches', () => {
    const cut = (um: number) => proofCut({ head: 40, tail: 40 + um / 1000 }, { head: 39, tail: 39 + um / 1000 }, [...ZONE]).verdict;
    expect([cut(40), cut(-40), cut(31), cut(10)]).toEqual(['out', 'out', 'unsure', 'in']);
    // A limit to one side: bigger at the tail is a tail centre too far from the tool.
    expect(proofCut({ head: 40, tail: 40.02 }, { head: 39, tail: 39.02 }, [0, 15]).verdict).toBe('out');
  });

  it('gives back any machine and any bar', () => {
    const um = fc.double({ min: -60, max: 60, noNaN: true });
    fc.assert(
      fc.property(um, um, (machine, bar) => {
        const found = proofCut({ head: 50, tail: 50 + (machine + bar) / 1000 }, { head: 48, tail: 48 + (machine - bar) / 1000 }, [...ZONE]);
        expect(found.machine).toBeCloseTo(machine, 6);
        expect(found.bar).toBeCloseTo(bar, 6);
      }),
    );
  });
});
