import { call, expect, read, test } from './shop.js';

test('a mill: the ladder of its kind, and a head trammed in one move', async ({ page, shop }) => {
  const card = { number: 'M-30', kind: 'turret-mill' };
  const id = crypto.randomUUID();
  await page.request.post(`${shop.address}/api/machines`, { data: { id, card, version: 1, by: 'HB' } });
  await page.goto(`${shop.address}/machines/${id}/survey`);
  const ladder = page.locator('iso-ladder');
  await expect(ladder).toContainText('Head tram');
  await expect(ladder).not.toContainText('Tailstock way');
  await expect(page.getByText('Head: not measured.').first()).toBeVisible();

  await ladder.locator('a[href$="bench/head-tram"]').click();
  await page.getByLabel('Read, and done').check();
  await page.getByLabel('Radius of the sweep').fill('100 mm');
  await page.getByLabel('One division').fill('0.01 mm');
  await page.getByText('it counts up').click();
  await page.getByRole('button', { name: 'Begin the round' }).click();
  await expect(page.locator('.asked')).toContainText('Right');
  await read(page, '3', '0', '-3', '0');
  // Right closer than left by six divisions over 200 mm: the top leans right by 300 µm/m.
  await expect(call(page)).toContainText('300');
  await expect(call(page)).toContainText('leaning right');
  await expect(call(page)).toContainText('Where the nod pivot lies is not known');
  await page.keyboard.press('m');
  await expect(page.locator('iso-job-card')).toContainText('from 3 to 0 div, counting down');

  // The survey draws it as it was found: the head turned with the clock, by the exaggeration it states.
  await page.getByRole('link', { name: 'Survey' }).click();
  await expect(page.getByText('Head: 300 µm/m leaning right.')).toBeVisible();
  const factor = Number(/×(\d+)/.exec((await page.getByText(/errors drawn ×/).textContent()) ?? '')?.[1]);
  const turn = await page.locator('iso-mill-picture .head').first().locator('..').getAttribute('transform');
  expect(Number(/rotate\(([\d.]+)/.exec(turn ?? '')?.[1])).toBeCloseTo(((300e-6 * 180) / Math.PI) * factor, 4);
});
