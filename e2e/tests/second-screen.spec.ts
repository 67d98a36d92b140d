import { call, expect, read, test } from './shop.js';

test('two at one round: what one reads the other sees within two seconds, with who it was', async ({ page, shop, browser }) => {
  const id = crypto.randomUUID();
  const card = { number: 'L-95', kind: 'engine-lathe', centreDistance: '600 mm' };
  await page.request.post(`${shop.address}/api/machines`, { data: { id, card, version: 1, by: 'HB' } });
  await page.goto(`${shop.address}/machines/${id}/bench/tailstock-traverse`);
  await page.getByLabel('I have read and done this').check();
  await page.getByLabel('Distance between centres').fill('600 mm');
  await page.getByLabel('Bar diameter').fill('40 mm');
  await page.getByLabel('One division').fill('0.01 mm');
  await page.getByText('it counts up').click();
  await page.getByRole('button', { name: 'Start the round' }).click();
  await page.waitForSelector('#reading');
  await read(page, '0');

  // The apprentice opens the same round on another device.
  const context = await browser.newContext({ locale: 'en-GB' });
  const other = await context.newPage();
  await other.goto(page.url());
  await other.getByLabel('Your initials').fill('AM');
  await expect(other.locator('.asked').first()).toContainText('near the tailstock');
  await expect(page.locator('.elsewhere')).toHaveCount(0);

  await other.locator('#reading').fill('4');
  await other.locator('#reading').press('Enter');
  await expect(other.locator('#reading')).toHaveValue('');
  // Nobody touches the first screen: it goes on to the next place by itself, and says who read the last one.
  await expect(page.locator('.elsewhere')).toContainText('AM is at this round too', { timeout: 2000 });
  await expect(page.locator('.asked').first()).toContainText('Top, near the headstock');
  await expect(call(page)).toContainText('toward you');
  await page.getByRole('button', { name: 'Show a table' }).click();
  await expect(page.locator('iso-reading-table tbody tr').nth(1)).toContainText('AM');
  // And the other way round; what was typed here and not taken yet stays in its field.
  await other.locator('#reading').fill('0.5');
  await page.locator('#reading').fill('1');
  await page.locator('#reading').press('Enter');
  await expect(other.locator('.elsewhere')).toContainText(/is at this round too/, { timeout: 2000 });
  await expect(other.locator('#reading')).toHaveValue('0.5');
  await context.close();
});
