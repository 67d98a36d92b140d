// Solvers of the core that a person waits for while dragging: the support plan.
import { planMove } from '@isometra/core';
import { ms, report, spread } from './target.mjs';

const SUPPORTS = 50;
const supports = Array.from({ length: SUPPORTS }, (_, i) => ({
  id: `s${i}`,
  at: [(i % 10) * 60, 0, Math.floor(i / 10) * 80 - 160],
  normal: [0, 1, 0],
  allow: i % 3 ? 'scrape' : 'either',
  area: 100 + i,
}));

export function measureSolvers() {
  const times = Array.from({ length: 31 }, (_, i) => {
    const start = performance.now();
    planMove({
      format: 'isometra-move/1',
      move: 'supports',
      origin: [0, 100, 0],
      frame: 'lathe',
      supports,
      want: { slopeV: i, roll: -i / 2 },
    });
    return performance.now() - start;
  });
  const { median } = spread(times.slice(10));
  report(`${SUPPORTS} supports planned again`, ms(median), 'at most 20 ms', median <= 20);
}
