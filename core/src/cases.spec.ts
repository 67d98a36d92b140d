import { readdirSync, readFileSync } from 'node:fs';
import { CHECKS } from './checks/registry.js';
import { MOVES, planMove } from './moves/registry.js';
import { solve } from './solve/solve.js';

const folder = new URL('../cases/', import.meta.url);
const own = new URL('../cases-own/', import.meta.url);
const load = (part: string) =>
  [folder, own].flatMap((root) =>
    readdirSync(new URL(`${part}/`, root))
      .filter((name) => name.endsWith('.json'))
      .map((name) => ({ name, ...JSON.parse(readFileSync(new URL(`${part}/${name}`, root), 'utf8')) })),
  );

interface Expected {
  readonly value: number;
  readonly unit: string;
  readonly tol: number;
}

const checks = load('checks');
const moves = load('moves');

describe('cases of checks', () => {
  for (const { name, sheet, expect: wanted } of checks) {
    it(name, () => {
      const finding = solve(sheet);
      for (const [quantity, { value, unit, tol }] of Object.entries(wanted.quantities as Record<string, Expected>)) {
        const found = finding.quantities[quantity];
        expect(found?.unit).withContext(quantity).toBe(unit);
        expect(Math.abs(found?.value - value))
          .withContext(`${quantity}: ${found?.value} for ${value}`)
          .toBeLessThanOrEqual(tol);
      }
      const codes = finding.notes.map((note) => note.code);
      for (const code of wanted.notes ?? []) expect(codes).toContain(code);
      for (const code of wanted.without ?? []) expect(codes).not.toContain(code);
      for (const [quantity, turns] of Object.entries((wanted.turns ?? {}) as Record<string, number>)) {
        const move = finding.moves.find((entry) => entry.quantity === quantity);
        expect(Math.abs(Number(move?.['turns'])))
          .withContext(`${quantity} turns`)
          .toBeCloseTo(turns, 6);
      }
      const nod = wanted.moves?.nod;
      if (nod) {
        const target = finding.moves.find((move) => move.quantity === 'nod')?.indicator?.target ?? NaN;
        expect(Math.abs(target - nod.targetDiv))
          .withContext(`nod target ${target}`)
          .toBeLessThanOrEqual(nod.tolDiv);
      }
    });
  }

  it('every check has one', () => {
    const known = new Set(checks.map(({ sheet }) => sheet.check));
    expect([...CHECKS.keys()].filter((id) => !known.has(id))).toEqual([]);
  });
});

interface Leaves {
  readonly leaves: number[] | null;
  readonly error: number;
}
interface Point {
  readonly x: number;
  readonly y: number;
  readonly height: string;
  readonly doubt?: string;
  readonly bear?: boolean;
}

const closeTo = (found: number, wanted: number, name: string): void =>
  void expect(Math.abs(found - wanted))
    .withContext(`${name}: ${found} for ${wanted}`)
    .toBeLessThanOrEqual(1e-6 * Math.max(1, Math.abs(wanted)));

/** How the answer of each kind of move is held against its case. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
const COMPARE: Record<string, (plan: any, wanted: any, move: any) => unknown> = {
  eccentric: (plan, wanted) => {
    for (const key of ['reach', 'angle', 'heightChange']) if (key in wanted) expect(plan[key]).withContext(key).toBeCloseTo(wanted[key], 4);
  },
  'bearing-shims': (plan, wanted) => {
    expect(plan.remove).toBeCloseTo(wanted.remove, 4);
    expect(plan.layers).toBe(wanted.layers);
    expect(plan.shim).toBeCloseTo(wanted.left, 7);
    expect(plan.lift).toBeCloseTo(wanted.lift, 4);
    expect(plan.jointMustComeDown).toBe(wanted.joint);
  },
  gib: (plan, wanted) => {
    expect(plan.turns).toBeCloseTo(wanted.turns, 6);
    expect(plan.perTurn).toBeCloseTo(wanted.perTurn, 6);
    expect(plan.eighths).toBe(Math.round(wanted.turns * 8));
    expect([1, 2]).toContain(plan.now);
  },
  'stored-offset': (plan, wanted) => {
    for (const key of ['plus', 'minus', 'ifWrong', 'chosen'])
      if (key in wanted) expect(plan[key]).withContext(key).toBeCloseTo(wanted[key], 6);
  },
  recheck: (plan, wanted) => {
    closeTo(plan.ratio, wanted.ratio, 'ratio');
    expect(plan.meaning).toBe(wanted.meaning);
  },
  'step-scrape': (plan, wanted) => {
    expect(plan.zones.length).toBe(wanted.n + 1);
    expect(plan.zones[0].passes).toBe(0);
    expect(plan.zonePasses).toBe(wanted.zonePasses);
    closeTo(plan.zones.at(-1).to, wanted.length, 'length');
    closeTo(plan.zones[1].from, wanted.strip / 2, 'first strip');
    closeTo(plan.passes[0].from, (wanted.n - 0.5) * wanted.strip, 'highest strip');
    closeTo(plan.tilt, wanted.tilt, 'tilt');
  },
  'pass-plan': (plan, wanted) => {
    expect(plan.zones.length).toBe(wanted.zones.length);
    wanted.zones.forEach((zone: Record<string, number>, i: number) => {
      for (const key of ['rough', 'fine', 'left']) closeTo(plan.zones[i][key], zone[key], `${key} of zone ${i}`);
    });
  },
  'best-plane': (plan, wanted, move) => {
    const at = ({ x, y }: Point) => plan.plane.offset + (plan.plane.x * x + plan.plane.y * y) / 1000;
    const um = (text = '0') => Number(text.replace(/ ?um$/, ''));
    const bearing = (move.points as Point[]).filter(({ bear = true }) => bear);
    for (const point of bearing) expect(at(point)).toBeLessThanOrEqual(um(point.height) + um(point.doubt) + 1e-6);
    expect(plan.total).toBeLessThanOrEqual(wanted.total + 1e-4);
    closeTo(
      bearing.reduce((sum, point) => sum + at(point), 0),
      wanted.objective,
      'objective',
    );
  },
  forecast: (plan, wanted) => {
    for (const part of ['cycles', 'evenings'])
      ['expected', 'low', 'high'].forEach((key, i) => closeTo(plan[part][key], wanted[part][i], `${part} ${key}`));
  },
  'tram-pivot': (plan, wanted) => {
    // The readings are of a head that really turns: the formula is exact to first order.
    expect(Math.abs(plan.pivot - wanted.pivot)).toBeLessThanOrEqual(1e-3 * wanted.pivot);
    expect(plan.classicRounds).toBe(wanted.classic);
    expect(plan.halvingRounds).toBe(wanted.halving);
  },
  'sine-stack': (plan, wanted) => closeTo(plan.stack, wanted.stack, 'stack'),
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

/** Of a kind that asks for nothing else, every figure of the case is that of the plan. */
const figureByFigure: (typeof COMPARE)[string] = (plan, { kind, ...figures }) => {
  expect(plan.move).toBe(kind);
  for (const [key, value] of Object.entries(figures)) closeTo(plan[key], value as number, key);
};

describe('cases of moves', () => {
  for (const { name, move, expect: wanted } of moves) {
    it(name, () => {
      (COMPARE[wanted.kind] ?? figureByFigure)(planMove(move), wanted, move);
    });
  }

  it('every move that can be worked out has one, or an example that is', () => {
    const known = new Set(moves.map(({ move }) => move.move));
    const left = [...MOVES.values()].filter((move) => move.plan && !known.has(move.kind));
    for (const { kind, example } of left)
      expect(planMove({ format: 'isometra-move/1', move: kind, ...example })['move'])
        .withContext(kind)
        .toBe(kind);
  });
});
