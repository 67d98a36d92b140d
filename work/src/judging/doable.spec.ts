import { CHECKS } from '@isometra/core';
import { doable, onMachine } from './doable.js';

describe('what can be done on a machine', () => {
  it('a slide on linear guides is shimmed at a truck, one on its own ways is scraped', () => {
    expect(['scrape', 'trucks'].map((kind) => doable(kind, 'machining-centre', 'axis-squareness'))).toEqual([false, true]);
    expect(['scrape', 'trucks'].map((kind) => doable(kind, 'knee-mill', 'axis-squareness'))).toEqual([true, false]);
  });

  it('nothing on linear guides is scraped or has a gib: each finding there has one remedy, at the trucks or at the rails', () => {
    const remedies = (check: string, quantity: string, kind: string) =>
      (CHECKS.get(check)?.corrections[quantity].minus ?? []).filter((move) => doable(move, kind, check));
    const wanted: Readonly<Record<string, readonly string[]>> = {
      'table-parallelism-x/slope': ['truck-lift'],
      'table-parallelism-y/slope': ['truck-lift'],
      'slot-parallelism/slope': ['table-turn'],
      'motion-straightness-x/range': ['rail-align'],
      'motion-straightness-y/range': ['rail-align'],
    };
    for (const [name, moves] of Object.entries(wanted)) {
      const [check, quantity] = name.split('/');
      expect(remedies(check, quantity, 'machining-centre'))
        .withContext(name)
        .toEqual(moves);
      expect(remedies(check, quantity, 'turret-mill').some((kind) => moves.includes(kind)))
        .withContext(name)
        .toBeFalse();
    }
  });

  it('a finding is the same object where nothing is taken out of it', () => {
    const finding = { check: 'axis-squareness', moves: [{ kind: 'scrape' }] } as never;
    expect(onMachine(finding, 'knee-mill')).toBe(finding);
    expect(onMachine(finding, 'machining-centre').moves).toEqual([]);
  });
});
