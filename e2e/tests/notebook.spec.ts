import { expect, test, typeInto } from './shop.js';

test('a card changed five times is looked at as it stood after the second, and that is put back as the newest', async ({ page, shop }) => {
  const id = crypto.randomUUID();
  const card = { number: 'L-90', kind: 'engine-lathe', swing: '360 mm' };
  await page.request.post(`${shop.address}/api/machines`, { data: { id, card, version: 1, by: 'HB' } });
  for (const [i, swing] of ['350 mm', '355 mm', '14 in', '358 mm', '362 mm'].entries()) {
    await page.goto(`${shop.address}/machines/${id}/card`);
    await expect(page.getByLabel('Swing over bed')).toHaveValue(['360 mm', '350 mm', '355 mm', '14 in', '358 mm'][i]);
    await typeInto(page, 'Swing over bed', swing);
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(new RegExp(`/machines/${id}$`));
  }
  await page.goto(`${shop.address}/machines/${id}/card`);
  await page.getByText('Earlier states').click();
  const rows = page.locator('iso-earlier li');
  await expect(rows).toHaveCount(6);
  await expect(rows.nth(0)).toContainText('Swing over bed: 358 mm to 362 mm');
  await expect(rows.nth(0)).toContainText('as it stands now');
  await expect(rows.nth(2)).toContainText('Swing over bed: 355 mm to 14 in');
  // After the second change it stood at 355 mm.
  await rows.nth(3).getByRole('button').click();
  await expect(page.getByText(/This is how it stood after the change of/)).toBeVisible();
  await expect(page.getByLabel('Swing over bed')).toHaveValue('355 mm');
  await page.getByRole('button', { name: 'Back to how it stands now' }).click();
  await expect(page.getByLabel('Swing over bed')).toHaveValue('362 mm');
  await rows.nth(3).getByRole('button').click();
  await page.getByRole('button', { name: 'Put this back' }).click();
  await expect(page).toHaveURL(new RegExp(`/machines/${id}$`));
  await page.goto(`${shop.address}/machines/${id}/card`);
  await expect(page.getByLabel('Swing over bed')).toHaveValue('355 mm');
  await page.getByText('Earlier states').click();
  await expect(rows).toHaveCount(7);
  await expect(rows.nth(0)).toContainText('Swing over bed: 362 mm to 355 mm');
});
