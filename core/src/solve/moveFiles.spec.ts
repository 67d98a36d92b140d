import { readdirSync, readFileSync } from 'node:fs';
import { FaultError } from '../input/faults.js';
import { MOVES, planMove } from '../moves/registry.js';
import { moveFiles, solve } from './solve.js';

const sheets = ['cases', 'cases-own'].flatMap((folder) => {
  const root = new URL(`../../${folder}/checks/`, import.meta.url);
  return readdirSync(root)
    .filter((name) => name.endsWith('.json'))
    .map((name) => ({ name, sheet: (JSON.parse(readFileSync(new URL(name, root), 'utf8')) as { sheet?: unknown }).sheet }));
});

/** Something of every kind of move, so that what is out has a plan. */
const hardware = Object.fromEntries([...MOVES.values()].flatMap(({ kind, plan, example }) => (plan && example ? [[kind, example]] : [])));

describe('the moves of a round as files of their own', () => {
  it('are answered with the plan that the round has, after a journey through JSON', () => {
    const kinds = new Set<string>();
    for (const { name, sheet } of sheets.flatMap((one) => [one, { ...one, sheet: { ...(one.sheet as object), hardware } }])) {
      let files: ReturnType<typeof moveFiles> = [];
      try {
        files = moveFiles(sheet);
      } catch (error) {
        if (!(error instanceof FaultError)) throw error;
        continue;
      }
      const { moves } = solve(sheet);
      for (const { quantity, file } of files) {
        const { format: _format, move, ...plan } = planMove(JSON.parse(JSON.stringify(file)));
        const asked = moves.find((entry) => entry.quantity === quantity && entry.kind === move);
        expect(asked)
          .withContext(`${name} ${quantity}`)
          .toEqual(jasmine.objectContaining(withoutBase(plan)));
        kinds.add(String(move));
      }
    }
    expect(kinds.size)
      .withContext([...kinds].join())
      .toBeGreaterThan(5);
  });

  it('are none of what is done by hand and eye, and none where nothing is out', () => {
    expect(moveFiles({ format: 'isometra-sheet/1', check: 'bed-twist', setup: {}, readings: [] })).toEqual([]);
  });
});

/** A finding's move says itself what it is of: the amount, its unit and the way. */
function withoutBase(plan: Readonly<Record<string, unknown>>): Readonly<Record<string, unknown>> {
  const { kind: _kind, quantity: _quantity, amount: _amount, unit: _unit, direction: _direction, indicator: _indicator, ...own } = plan;
  return own;
}
