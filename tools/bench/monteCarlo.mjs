// Monte Carlo: the time of the draws in the core, beside NumPy doing the same draws where Python has it.
import { spawnSync } from 'node:child_process';
import { monteCarlo } from '@isometra/core';
import { ms, report } from './target.mjs';

const DRAWS = 200_000;
const RUNS = 40;
/** Runs before the clock counts: both sides are measured warm. */
const WARM = 10;
const sheet = {
  format: 'isometra-sheet/1',
  check: 'tailstock-traverse',
  instrument: { kind: 'lever', graduation: '2 um', sense: 1, accuracy: '1 um' },
  setup: { centreDistance: '420 mm' },
  readings: [
    ['h', 20, 0],
    ['h', 400, 4],
    ['v', 20, 0],
    ['v', 400, -3],
  ].map(([plane, at, value]) => ({ plane, at, value: `${value} div` })),
};

// Four places with resolution and repeatability each, one error of the instrument for all, two quantities, two sorted.
const NUMPY = `
import time, numpy
draws, runs, times = ${DRAWS}, ${WARM + RUNS}, []
random = numpy.random.default_rng(1)
weights = numpy.array([[-1.1, 1.1, 0, 0], [0, 0, -1.1, 1.1]])
for _ in range(runs):
    start = time.perf_counter()
    noise = 0.58 * numpy.sqrt(12) * (random.random((4, draws)) - 0.5) + 0.7 * random.standard_normal((4, draws))
    shared = numpy.sqrt(12) * (random.random(draws) - 0.5)
    values = weights @ noise + 0.58 * shared
    for row in values:
        row.mean(), row.std(ddof=1), numpy.quantile(row, [0.025, 0.975])
    times.append(1000 * (time.perf_counter() - start))
print(min(times[${WARM}:]))
`;

export function measureMonteCarlo() {
  const times = Array.from({ length: WARM + RUNS }, (_, i) => {
    const start = performance.now();
    const run = monteCarlo(sheet, DRAWS, i + 1);
    run.step(DRAWS);
    const { offsetHorizontal } = run.result();
    if (!(offsetHorizontal.u > 0)) throw new Error('nothing was drawn');
    return performance.now() - start;
  });
  // The least of many runs: what else the machine does only adds.
  const least = Math.min(...times.slice(WARM));
  const python = spawnSync('python3', ['-c', NUMPY], { encoding: 'utf8' });
  const theirs = Number(python.stdout);
  if (python.status !== 0 || !(theirs > 0)) {
    console.log(`        Monte Carlo, ${DRAWS} draws of four places: ${ms(least)} (NumPy is not here to compare with)`);
    return;
  }
  report(`Monte Carlo, ${DRAWS} draws of four places`, `${ms(least)}, NumPy ${ms(theirs)}`, 'at most as long as NumPy', least <= theirs);
}
