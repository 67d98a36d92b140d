// npm run bench: how long the call takes to be on the screen with 500 readings, in the browser, on the real bench.
import { buildAll } from './build.mjs';
import { ensureProgram } from './shell.mjs';

buildAll();
const { CHROMIUM_FLAGS, serve } = await import('./served.mjs');
const { chromium } = await import('@playwright/test');
const { roundWriteOf } = await import('@isometra/contract');

const LIMIT = 16;
const READINGS = 500;
const shop = await serve({ demo: true });
const browser = await chromium.launch({ executablePath: ensureProgram(['chromium'], 'chromium', 'Measuring'), args: CHROMIUM_FLAGS });
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const machines = await (await page.request.get(`${shop.address}/api/machines`)).json();
  const rounds = await (await page.request.get(`${shop.address}/api/machines/${machines[0].id}/rounds`)).json();
  const round = { ...roundWriteOf(rounds[0]), id: crypto.randomUUID(), at: new Date().toISOString(), version: 1 };
  await page.request.post(`${shop.address}/api/rounds`, { data: round });
  const many = Array.from({ length: READINGS }, (_, i) => ({
    id: crypto.randomUUID(),
    keys: { plane: i % 2 ? 'v' : 'h', at: 20 + (i >> 1) * 1.4 },
    value: `${(i % 7) / 2} div`,
    set: 1,
    by: 'B',
    at: round.at,
  }));
  await page.request.post(`${shop.address}/api/rounds/${round.id}/readings`, { data: many });
  await page.goto(`${shop.address}/machines/${round.machineId}/bench/${round.check}/${round.id}`);
  await page.waitForSelector('iso-call-column .head');
  for (let i = 0; i < 21; i++) {
    await page.keyboard.press('ArrowUp');
    await page.fill('#reading', String(i / 2));
    await page.keyboard.press('Enter');
    await page.waitForTimeout(120);
  }
  const times = await page.evaluate(() => performance.getEntriesByName('isometra:call').map((entry) => entry.duration));
  const sorted = times.slice(1).sort((a, b) => a - b);
  const median = sorted[sorted.length >> 1];
  console.log(
    `call on the screen after a reading, ${READINGS} readings: median ${median.toFixed(1)} ms, worst ${sorted.at(-1).toFixed(1)} ms of ${sorted.length} (limit ${LIMIT} ms)`,
  );
  if (!(median <= LIMIT)) process.exitCode = 1;
} finally {
  await browser.close();
  await shop.stop();
}
