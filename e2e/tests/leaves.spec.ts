import { call, expect, test } from './shop.js';

/**
 * The truth of this story: the column leans to the right by 200 µm/m and stands upright from front to back. Beside the blade, on its
 * right-hand side, the gap is 2 thou (50.8 µm) at 50 mm; at 250 mm it is 40 µm more, between 3 and 4 thou.
 */
test('a column read with leaves, in thou: corrected, withdrawn, asked back, and no needle spoken of', async ({ page, shop }) => {
  const id = crypto.randomUUID();
  const card = { number: 'M-61', kind: 'column-mill' };
  await page.request.post(`${shop.address}/api/machines`, { data: { id, card, version: 1, by: 'HB' } });
  await page.goto(`${shop.address}/machines/${id}/bench/column-lean`);
  await page.getByLabel('I have read and done this').check();
  await page.getByRole('textbox', { name: 'The heights' }).fill('50, 250 mm');
  await page.getByLabel(/Read the gap beside/).check();
  await page.getByRole('radiogroup', { name: 'Side of the blade, read sideways' }).getByText('right-hand side').click();
  await page.getByRole('radiogroup', { name: 'Side of the blade, read front to back' }).getByText('your side').click();
  await page.getByRole('button', { name: 'Start the round' }).click();

  const enters = page.getByLabel('Thickest leaf that enters');
  const stops = page.getByLabel('Thinnest leaf that does not');
  const gap = async (thick: string, thin: string) => {
    await enters.fill(thick);
    await stops.fill(thin);
    await page.keyboard.press('Enter');
  };
  // 6 enters and 5 does not: that cannot be, and what was typed stays.
  await gap('3 thou', '2');
  await expect(page.locator('iso-reading-panel')).toContainText('is thinner than the leaf that enters');
  await expect(enters).toHaveValue('3 thou');
  // A bare figure beside one in thou is thou.
  await gap('1.5 thou', '2.5');
  await expect(page.locator('.asked').first()).toContainText('Sideways, 250 mm');
  await gap('4 thou', '5');
  await gap('2 thou', '3');
  await gap('2 thou', '3');
  await expect(page.locator('.asked').first()).toContainText('All places are read');
  await expect(page.locator('iso-reading-panel')).not.toContainText(/needle|dial/i);

  await page.getByRole('button', { name: 'Show a table' }).click();
  const rows = page.locator('iso-reading-table tbody tr');
  await expect(rows).toHaveCount(4);
  await expect(rows.nth(1)).toContainText('4 thou to 5 thou');
  // The second one was misread: it is put right where it stands.
  await rows.nth(1).getByRole('button', { name: 'Correct' }).click();
  await expect(enters).toHaveValue('4 thou');
  await gap('3 thou', '4');
  await expect(rows.filter({ hasText: '3 thou to 4 thou' })).toHaveCount(1);
  await expect(call(page)).toContainText('leaning right');
  // 1.5 thou over 200 mm: 190 µm/m; the truth of 200 lies within what leaves can tell.
  await expect(call(page)).toContainText('191 µm/m');
  // Withdrawn, it is gone, and its place waits to be read again.
  await rows.nth(0).getByRole('button', { name: 'Withdraw' }).click();
  await expect(page.locator('.asked').first()).toContainText('Sideways, 50 mm');
  await expect(call(page)).not.toContainText('leaning right');
});
