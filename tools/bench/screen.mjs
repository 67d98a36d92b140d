// What the hand waits for, in the browser: the call after a key, the survey of a machine with a long history.
import { chromium } from '@playwright/test';
import { roundWriteOf } from '@isometra/contract';
import { plannedSlots } from '@isometra/work';
import { CHROMIUM_FLAGS } from '../served.mjs';
import { ensureProgram } from '../shell.mjs';
import { measureBoard } from './board.mjs';
import { ask, json, machineWith, template } from './shop.mjs';
import { ms, report, spread } from './target.mjs';

const READINGS = 500;
const KEYS = 71;
/** The page has just been opened: a hand that has come so far has taken hundreds, and the browser knows the way by then. */
const WARMING = 10;
const ROUNDS = 600;
/** What the dial reads, in divisions: straight within half of one. */
const figure = (i) => (i % 3) / 2;

export async function measureScreen(shop) {
  const browser = await chromium.launch({ executablePath: ensureProgram(['chromium'], 'chromium', 'Measuring'), args: CHROMIUM_FLAGS });
  const open = async () => (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  try {
    const bar = await template(shop);
    await measureCall(shop, bar, await open());
    await measureSurvey(shop, bar, open);
    await measureBoard(shop, browser);
  } finally {
    await browser.close();
  }
}

async function measureCall(shop, bar, page) {
  // As a hand does it: all places are planned, and the next one is read, with a figure like those before it.
  const places = Array.from({ length: Math.ceil((READINGS + KEYS) / 4) }, (_, i) => 20 + i * 2.5);
  const round = { ...roundWriteOf(bar), id: crypto.randomUUID(), at: new Date().toISOString(), version: 1, plan: { places, turned: true } };
  await ask(`${shop.address}/api/rounds`, json('POST', round));
  const many = plannedSlots(round)
    .slice(0, READINGS)
    .map(({ keys }, i) => ({ id: crypto.randomUUID(), keys, value: `${figure(i)} div`, set: 1, by: 'B', at: round.at }));
  await ask(`${shop.address}/api/rounds/${round.id}/readings`, json('POST', many));
  await page.goto(`${shop.address}/machines/${round.machineId}/bench/${round.check}/${round.id}`);
  await page.waitForSelector('iso-call-column .head');
  for (let i = 0; i < KEYS; i++) {
    await page.fill('#reading', String(figure(READINGS + i)));
    await page.keyboard.press('Enter');
    await page.waitForTimeout(120);
  }
  const times = await page.evaluate(() => performance.getEntriesByName('isometra:call').map((entry) => entry.duration));
  if (times.length < KEYS - 5) throw new Error(`only ${times.length} calls were measured`);
  const { median, p95 } = spread(times.slice(WARMING));
  report(`the call after a key, ${READINGS} readings, median`, ms(median), 'at most 25 ms, to the painted frame', median <= 25);
  report(`the call after a key, ${READINGS} readings, 95th percentile`, ms(p95), 'at most 35 ms, to the painted frame', p95 <= 35);
}

/** A first visit each: nothing is kept in the browser, and at the first of them no finding has been worked out either. */
async function measureSurvey(shop, bar, open) {
  const { machineId } = await machineWith(shop, bar, ROUNDS, 'B-600');
  const times = [];
  for (let visit = 0; visit < 4; visit++) {
    const page = await open();
    const before = performance.now();
    await page.goto(`${shop.address}/machines/${machineId}/survey`);
    await page.locator('iso-survey svg').first().waitFor();
    await page
      .getByText(/Tailstock: \d/)
      .first()
      .waitFor();
    times.push(performance.now() - before);
    await page.context().close();
  }
  const [first, ...later] = times;
  const { median } = spread(later);
  const words = `${(median / 1000).toFixed(2)} s (the very first time ${(first / 1000).toFixed(2)} s)`;
  report(`the survey of ${ROUNDS} rounds on the screen`, words, 'at most 2 s', median <= 2000);
}
