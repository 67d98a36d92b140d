import { allDone, call, expect, read, test } from './shop.js';

/**
 * The truth of this story: on a machining centre the table falls to the right by 130 µm/m, and its slot runs toward the column at the
 * right end by 90 µm/m. What a dial of 0.002 mm shows at each place is worked out from that.
 */
const FALLS = -130;
const ASKEW = 90;
const PLACES = [0, 140, 280, 420];
const shown = (slope: number): string[] => PLACES.map((at) => String(Math.round((slope * at) / 1000 / 2) || 0));

test('linear guides: the table is brought up by shims at its trucks, its slot by turning it on them, and no scraper is named', async ({
  page,
  shop,
}) => {
  const id = crypto.randomUUID();
  const card = { number: 'V-42', kind: 'machining-centre', trucks: { spacing: '320 mm', tableSpacing: '420 mm', shoulder: 'left' } };
  await page.request.post(`${shop.address}/api/machines`, { data: { id, card, version: 1, by: 'HB' } });
  const job = page.locator('iso-job-card');
  const begin = async (check: string, first: boolean) => {
    await page.goto(`${shop.address}/machines/${id}/bench/${check}`);
    await page.getByLabel('I have read and done this').check();
    if (first) {
      await page.getByLabel('Their places').fill('0, 140, 280, 420 mm');
      await page.getByLabel('One division').fill('0.002 mm');
      await page.getByText('it counts up').click();
    }
    await page.getByRole('button', { name: 'Start the round' }).click();
    await page.waitForSelector('#reading');
  };

  await begin('table-parallelism-x', true);
  await read(page, ...shown(FALLS), '0');
  await expect(call(page)).toContainText('falling toward the right');
  await expect(call(page)).toContainText('129 µm/m');
  await expect(page.locator('main')).not.toContainText(/\bgibs?\b|scrape/i);
  await call(page).getByRole('link', { name: 'Job card for this move' }).click();
  // 129 µm/m as read over 420 mm of trucks.
  await expect(job).toContainText(/Lay 0\.054 mm between the table and each of the trucks at its right end/);
  await expect(job).not.toContainText(/\bgibs?\b|scrape|grind/i);
  await allDone(page);
  // What a shim of 0.054 mm under the right trucks leaves is next to nothing.
  await begin('table-parallelism-x', false);
  await read(page, ...shown(FALLS + 129), '0');
  await expect(call(page).locator('h2').first()).toHaveText(/In/);

  await begin('slot-parallelism', true);
  await read(page, ...shown(ASKEW), '0');
  await call(page).getByRole('link', { name: 'Job card for this move' }).click();
  await expect(job).toContainText('Loosen the bolts of the table to snug on every truck');
  await expect(job).not.toContainText(/\bgibs?\b|scrape|grind/i);
});
