import { readdirSync, readFileSync } from 'node:fs';
import { CHECKS } from './checks/registry.js';
import { FaultError } from './faults.js';
import { MOVES, planMove } from './moves/registry.js';
import { solve } from './solve.js';

const folder = new URL('../cases/', import.meta.url);
const load = (part: string) =>
  readdirSync(new URL(`${part}/`, folder)).map((name) => ({
    name,
    ...JSON.parse(readFileSync(new URL(`${part}/${name}`, folder), 'utf8')),
  }));

interface Expected {
  readonly value: number;
  readonly unit: string;
  readonly tol: number;
}

describe('cases of checks', () => {
  for (const { name, sheet, expect: wanted } of load('checks')) {
    if (!CHECKS.has(sheet.check)) {
      it(`${name}: not built yet, and says which checks exist`, () => {
        expect(() => solve(sheet)).toThrowMatching(
          (error) =>
            error instanceof FaultError &&
            error.faults.some((fault) => fault.path === 'check' && fault.message.includes('tailstock-traverse')),
        );
      });
      continue;
    }
    it(name, () => {
      const finding = solve(sheet);
      for (const [quantity, { value, unit, tol }] of Object.entries(wanted.quantities as Record<string, Expected>)) {
        const found = finding.quantities[quantity];
        expect(found?.unit).withContext(quantity).toBe(unit);
        expect(Math.abs(found?.value - value))
          .withContext(`${quantity}: ${found?.value} for ${value}`)
          .toBeLessThanOrEqual(tol);
      }
      for (const code of wanted.notes) expect(finding.notes.map((note) => note.code)).toContain(code);
      const nod = wanted.moves?.nod;
      if (nod) {
        const target = finding.moves.find((move) => move.quantity === 'nod')?.indicator?.target ?? NaN;
        expect(Math.abs(target - nod.targetDiv))
          .withContext(`nod target ${target}`)
          .toBeLessThanOrEqual(nod.tolDiv);
      }
    });
  }
});

interface Leaves {
  readonly leaves: number[] | null;
  readonly error: number;
}

/** How the answer of each kind of move is held against its case. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
const COMPARE: Record<string, (plan: any, wanted: any, move: any) => void> = {
  eccentric: (plan, wanted) => {
    for (const key of ['reach', 'angle', 'heightChange']) if (key in wanted) expect(plan[key]).withContext(key).toBeCloseTo(wanted[key], 4);
  },
  'shim-leaves': (plan: Leaves, wanted) => {
    if (wanted.leaves === null) return expect(plan.leaves).toBeNull();
    expect(plan.leaves?.length).toBeLessThanOrEqual(wanted.leaves);
    return expect(Math.abs(plan.error)).toBeLessThanOrEqual(wanted.error + 1e-6);
  },
};

describe('cases of moves', () => {
  for (const { name, move, expect: wanted } of load('moves')) {
    if (!MOVES.has(move.move)) {
      it(`${name}: not built yet, and says which moves exist`, () => {
        expect(() => planMove(move)).toThrowMatching(
          (error) => error instanceof FaultError && error.faults[0].message.includes('shim-leaves'),
        );
      });
      continue;
    }
    it(name, () => {
      expect(COMPARE[wanted.kind]).withContext(`a comparison for ${wanted.kind}`).toBeDefined();
      COMPARE[wanted.kind](planMove(move), wanted, move);
    });
  }
});
