import { readdirSync, readFileSync } from 'node:fs';
import { planMove } from './moves/registry.js';
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
const COMPARE: Record<string, (plan: any, wanted: any, move: any) => unknown> = {
  eccentric: (plan, wanted) => {
    for (const key of ['reach', 'angle', 'heightChange']) if (key in wanted) expect(plan[key]).withContext(key).toBeCloseTo(wanted[key], 4);
  },
  'bearing-shims': (plan, wanted) => {
    expect(plan.remove).toBeCloseTo(wanted.remove, 4);
    expect(plan.shim).toBeCloseTo(wanted.left, 7);
    expect(plan.jointMustComeDown).toBe(wanted.joint);
  },
  gib: (plan, wanted) => {
    expect(plan.turns).toBeCloseTo(wanted.turns, 6);
    expect(plan.perTurn).toBeCloseTo(wanted.perTurn, 6);
    expect(Number.isInteger(plan.eighths)).toBeTrue();
  },
  'stored-offset': (plan, wanted) => {
    for (const key of ['plus', 'minus', 'ifWrong', 'chosen'])
      if (key in wanted) expect(plan[key]).withContext(key).toBeCloseTo(wanted[key], 6);
  },
  'step-scrape': (plan, wanted) => {
    expect(plan.zones.length).toBe(wanted.n);
    expect(plan.zonePasses).toBe(wanted.zonePasses);
    expect(plan.zones.at(-1).to).toBeCloseTo(wanted.length, 9);
    expect(plan.passes[0].from).toBeCloseTo((wanted.length * (wanted.n - 1)) / wanted.n, 6);
  },
  supports: (plan, wanted, move) => {
    expect(plan.feasible).toBe(wanted.feasible);
    if (!wanted.feasible) return expect(plan.obstacle).toBeTruthy();
    for (const [name, value] of Object.entries(move.want))
      expect(plan.pose[name])
        .withContext(name)
        .toBeCloseTo(value as number, 4);
    let cost = 0;
    for (const { id, allow, max = Infinity, area = 1 } of move.supports) {
      const amount = plan.supports[id];
      if (allow === 'scrape') expect(amount).toBeLessThanOrEqual(0);
      if (allow === 'shim') expect(amount).toBeGreaterThanOrEqual(0);
      expect(Math.abs(amount)).toBeLessThanOrEqual(max + 1e-6);
      cost += area * Math.abs(amount);
    }
    return expect(cost).toBeLessThanOrEqual(wanted.cost * (1 + 1e-6));
  },
  'shim-leaves': (plan: Leaves, wanted) => {
    if (wanted.leaves === null) return expect(plan.leaves).toBeNull();
    expect(plan.leaves?.length).toBeLessThanOrEqual(wanted.leaves);
    return expect(Math.abs(plan.error)).toBeLessThanOrEqual(wanted.error + 1e-6);
  },
};

describe('cases of moves', () => {
  for (const { name, move, expect: wanted } of load('moves')) {
    it(name, () => {
      expect(COMPARE[wanted.kind]).withContext(`a comparison for ${wanted.kind}`).toBeDefined();
      COMPARE[wanted.kind](planMove(move), wanted, move);
    });
  }
});
