import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test, machineId } from './shop.js';

test.use({ demo: true });

/** What stands in the way of somebody who sees or moves badly: nothing serious on any screen. */
async function nothingSerious(page: Page, screen: string): Promise<void> {
  // There are no frames of others here to be looked into: without them a screen takes half as long.
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode()
    .options({ resultTypes: ['violations'] })
    .analyze();
  const bad = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical');
  expect(
    bad.map(({ id, nodes }) => `${screen}: ${id} at ${nodes.map(({ target }) => target.join(' ')).join(' | ')}`),
    screen,
  ).toEqual([]);
}

test('axe finds nothing serious on the screens of the shop', async ({ page, shop }) => {
  test.slow();
  const id = await machineId(page, shop.address, 'L-14');
  const screens: [string, string][] = [
    ['machines', '.plate b'],
    ['machines/new', 'iso-schema-form input'],
    [`machines/${id}/card`, 'fieldset'],
    ['kit', '.short'],
    ['limits/general', 'iso-limit-table'],
    [`machines/${id}`, '.ways section'],
    [`machines/${id}/survey`, 'iso-survey svg .axis'],
    [`machines/${id}/campaign`, 'ol .grip'],
    [`machines/${id}/to-come`, 'iso-bearing-card'],
    [`machines/${id}/castings/headstock`, 'iso-footprint .face'],
    [`machines/${id}/scraping`, '.face'],
    [`machines/${id}/scraping/new`, 'form'],
    [`machines/${id}/parts`, 'iso-needs-list .row'],
    [`machines/${id}/rounds/tailstock-traverse?by=date`, 'iso-trend-chart svg text'],
    ['parts', 'iso-needs-list .row'],
    [`machines/${id}/plan`, 'ol .title'],
    [`machines/${id}/tonight`, 'ol .title'],
    [`machines/${id}/worth-it`, '.answers h2'],
    ['planner', '.piece'],
    ['due', 'section li'],
    ['files', 'iso-report-out a'],
    ['files/table/kit', 'iso-table-in textarea'],
    ['moves', 'iso-schema-form input'],
    ['shop', 'iso-people-list .row'],
  ];
  for (const [path, ready] of screens) {
    await page.goto(`${shop.address}/${path}`);
    await page.locator(ready).first().waitFor();
    await nothingSerious(page, path);
  }

  await page.goto(`${shop.address}/machines/${id}/parts`);
  await page.getByRole('link', { name: 'Headstock', exact: true }).click();
  await page.getByText('Front bearing cap').click();
  await page.locator('iso-part-form fieldset').first().waitFor();
  await nothingSerious(page, 'a part');
  await page.getByText('Assembly', { exact: true }).click();
  await page.locator('iso-assembly header').or(page.locator('iso-assembly h2')).first().waitFor();
  await nothingSerious(page, 'assembly');

  await page.goto(`${shop.address}/machines/${id}/scraping`);
  await page.getByText('Saddle, flat way').click();
  await page.locator('iso-face-drawing').waitFor();
  await nothingSerious(page, 'the scraping desk');
  for (const key of ['p', 'l', 'm']) {
    await page.keyboard.press(key);
    await page.locator('.p-dialog').waitFor();
    await nothingSerious(page, `the scraping desk, ${key}`);
    await page.keyboard.press('Escape');
    await page.locator('.p-dialog').waitFor({ state: 'hidden' });
  }

  await page.goto(`${shop.address}/limits/general`);
  await page.getByRole('link', { name: /builder/ }).click();
  await page.locator('iso-limit-table input').first().waitFor();
  await nothingSerious(page, 'a sheet of one’s own');
});

test('axe finds nothing serious where the hand is: set-up, bench, table, card, rounds', async ({ page, shop }) => {
  test.slow();
  const id = await machineId(page, shop.address, 'L-14');
  const heads = (await (await page.request.get(`${shop.address}/api/machines/${id}/rounds?check=tailstock-traverse`)).json()) as {
    id: string;
  }[];
  const at = `${shop.address}/machines/${id}`;

  await page.goto(`${at}/bench/tailstock-traverse`);
  await page.locator('fieldset').first().waitFor();
  await nothingSerious(page, 'set-up');
  await page.getByRole('button', { name: 'Start the round' }).click();
  await page.getByText('Read the cautions and tick them first.').waitFor();
  await nothingSerious(page, 'set-up, refused');

  await page.goto(`${at}/bench/tailstock-traverse/${heads[0].id}`);
  await page.locator('.sketch svg').waitFor();
  await nothingSerious(page, 'bench');
  await page.keyboard.press('?');
  await page.getByRole('dialog').waitFor();
  await nothingSerious(page, 'the keys');
  await page.keyboard.press('Escape');

  await page.goto(`${at}/move/${heads[2].id}/offsetHorizontal`);
  await page.locator('ol li').first().waitFor();
  await nothingSerious(page, 'job card');
  await page.keyboard.press('s');
  await expect(page.getByRole('region', { name: 'At the screw' })).toBeVisible();
  await nothingSerious(page, 'at the screw');
  await page.keyboard.press('t');
  await expect(page.getByLabel('Tightened, the needle reads')).toBeFocused();
  await nothingSerious(page, 'moved on tightening');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'another dial' }).click();
  await nothingSerious(page, 'a dial for the move');
  await page.goto(`${at}/rounds/tailstock-traverse`);
  await page.locator('iso-round-chart svg').first().waitFor();
  await nothingSerious(page, 'rounds');

  const mill = await machineId(page, shop.address, 'M-03');
  await page.goto(`${shop.address}/machines/${mill}/survey`);
  await page.locator('iso-survey svg').first().waitFor();
  await nothingSerious(page, 'survey of a mill');
});
