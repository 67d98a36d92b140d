// The notebook: what writing a reading costs, beside the least that can be done; heads of very many rounds.
import { spawn } from 'node:child_process';
import { get } from 'node:http';
import { fileURLToPath } from 'node:url';
import { measureLogbook } from './logbook.mjs';
import { ask, json, machineWith, template } from './shop.mjs';
import { ms, report, spread } from './target.mjs';

const WRITES = 400;
/** Readings a second, one after the other, and what each took. */
async function writes(url, bodies) {
  for (const body of bodies.slice(0, 30)) await ask(url, json('POST', body));
  const start = performance.now();
  const times = [];
  for (const body of bodies.slice(30)) {
    const before = performance.now();
    await ask(url, json('POST', body));
    times.push(performance.now() - before);
  }
  return { rate: ((bodies.length - 30) / (performance.now() - start)) * 1000, ...spread(times) };
}

const reading = (keys) => (_, i) => ({
  id: crypto.randomUUID(),
  keys,
  value: `${i % 7} div`,
  set: 1,
  by: 'B',
  at: '2026-01-01T08:00:00.000Z',
});

async function bare(url) {
  const { username, password, port } = new URL(url);
  const child = spawn(process.execPath, [fileURLToPath(new URL('bare.mjs', import.meta.url))], {
    env: {
      ...process.env,
      BARE_DATABASE: JSON.stringify({ host: '127.0.0.1', port: Number(port), user: username, password, database: 'isometra' }),
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const at = await new Promise((resolve) => child.stdout.once('data', (chunk) => resolve(Number(chunk))));
  return { url: `http://127.0.0.1:${at}/readings`, stop: () => child.kill('SIGTERM') };
}

/** Bytes of an answer as they go over the line, packed. */
const wire = (url) =>
  new Promise((told, failed) => {
    get(url, { headers: { 'accept-encoding': 'gzip' } }, (answer) => {
      let bytes = 0;
      answer.on('data', (part) => (bytes += part.length)).on('end', () => told(bytes));
    }).on('error', failed);
  });

export async function measureNotebook(shop) {
  const bar = await template(shop);
  const keys = bar.readings[0].keys;
  const [few, many] = [await machineWith(shop, bar, 10, 'B-10'), await machineWith(shop, bar, 10_000, 'B-10000')];

  const least = await bare(shop.database);
  const floor = [];
  const small = [];
  const large = [];
  for (let run = 0; run < 3; run++) {
    floor.push(await writes(least.url, Array.from({ length: WRITES }, reading(keys))));
    small.push(await writes(`${shop.address}/api/rounds/${few.roundId}/readings`, Array.from({ length: WRITES }, reading(keys))));
    large.push(await writes(`${shop.address}/api/rounds/${many.roundId}/readings`, Array.from({ length: WRITES }, reading(keys))));
  }
  least.stop();
  const best = (runs, key, pick) => pick(...runs.map((run) => run[key]));
  const [bareRate, rate] = [best(floor, 'rate', Math.max), best(small, 'rate', Math.max)];
  report(
    'readings written, of what bare Express writes',
    `${rate.toFixed(0)} of ${bareRate.toFixed(0)} a second: ${(rate / bareRate).toFixed(2)}`,
    'at least 0.50',
    rate / bareRate >= 0.5,
  );
  const first = spread(small.map(({ median }) => median)).median;
  const last = small.at(-1).median;
  report(
    'writing into the same round, later over first',
    `${(last / small[0].median).toFixed(2)}`,
    'at most 1.5',
    last / small[0].median <= 1.5,
  );
  const ratio = best(large, 'median', Math.min) / best(small, 'median', Math.min);
  report(
    'a reading at 10,000 rounds over one at 10',
    `${ms(best(large, 'median', Math.min))} / ${ms(best(small, 'median', Math.min))} = ${ratio.toFixed(2)}`,
    'at most 1.5',
    ratio <= 1.5,
  );
  if (!(first > 0)) throw new Error('nothing was measured');

  const url = `${shop.address}/api/machines/${many.machineId}/heads?condensed=1`;
  const timed = async () => {
    const before = performance.now();
    const heads = await ask(url);
    const took = performance.now() - before;
    if (heads.rows.length !== 10_000 || !heads.shared[heads.rows[5000][0]].finding) throw new Error('not every head came');
    return took;
  };
  const worked = await timed();
  const { median } = spread([await timed(), await timed(), await timed()]);
  report(
    '10,000 rounds in short',
    `${ms(median)} (worked out for the first time: ${(worked / 1000).toFixed(1)} s)`,
    'at most 300 ms',
    median <= 300,
  );
  // Something else was written: nothing of the answer is kept.
  await ask(`${shop.address}/api/rounds/${few.roundId}/readings`, json('POST', reading(keys)(0, 1)));
  const cold = await timed();
  report('10,000 rounds in short, after a reading elsewhere', ms(cold), 'at most 1.5 s', cold <= 1500);
  const bytes = await wire(url);
  report('10,000 rounds in short, on the wire', `${(bytes / 1000).toFixed(0)} kB`, 'under 1 MB', bytes < 1_000_000);

  await measureLogbook(shop, many.machineId);
}
