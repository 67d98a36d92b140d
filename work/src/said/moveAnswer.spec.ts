import { readdirSync, readFileSync } from 'node:fs';
import { MOVES, planMove } from '@isometra/core';
import { answerLines } from './moveAnswer.js';

const MM = { system: 'mm', fineness: 'coarse' } as const;
const INCH = { system: 'inch', fineness: 'coarse' } as const;
const told = (file: object, shown: typeof MM | typeof INCH = MM) =>
  answerLines(planMove({ format: 'isometra-move/1', ...file }), shown).map(
    ({ label, text, depth }) => `${'. '.repeat(depth)}${label}: ${text}`,
  );

describe('what a move works out, in words', () => {
  it('is its figures with their units and signs', () => {
    expect(told({ move: 'adjuster', amount: '-21 um', pitch: '1.5 mm' })).toEqual([
      'Turns of the screw: −0.014',
      'The same in degrees: −5 deg',
    ]);
  });

  it('is in the units of the reader, leaves in one line', () => {
    const shims = { move: 'shim-leaves', thickness: '0.12 mm', stock: [{ thickness: '0.05 mm', count: 4 }] };
    expect(told(shims).join('\n')).toContain('0.050 mm, 0.050 mm');
    expect(told(shims, INCH).join('\n')).toContain('thou');
  });

  it('is a line for each strip of a list', () => {
    const lines = told({ move: 'step-scrape', wedge: '20 um', length: '100 mm', passDepth: '10 um' });
    expect(lines).toContain('. 1: From 0 mm · To 25 mm · Passes over it 0');
  });

  it('has a line for every figure of the answer of every move, and no raw name where there is a label', () => {
    const root = new URL('../../../core/cases/moves/', import.meta.url);
    const kinds = new Set<string>();
    for (const name of readdirSync(root).filter((file) => file.endsWith('.json'))) {
      const { move } = JSON.parse(readFileSync(new URL(name, root), 'utf8')) as { move: object };
      const plan = planMove(move);
      const lines = answerLines(plan, MM);
      const kind = String(plan['move']);
      kinds.add(kind);
      expect(lines.filter(({ depth }) => depth === 0).length)
        .withContext(name)
        .toBe(Object.keys(MOVES.get(kind)?.answer.shape ?? {}).filter((key) => plan[key] !== undefined && plan[key] !== null).length);
      expect(lines.filter(({ text, label }) => /NaN|undefined|\[object/.test(text + label)))
        .withContext(name)
        .toEqual([]);
    }
    expect(kinds.size).toBeGreaterThan(8);
  });
});
