import { expect, pick, test } from './shop.js';

test.describe('the page of the shop', () => {
  test.use({ demo: true });

  test('its name is on paper, new initials are asked about once, and mistyped ones are put right everywhere', async ({ page, shop }) => {
    await page.goto(`${shop.address}/shop`);
    const name = page.getByRole('textbox', { name: 'Name of the shop' });
    await expect(name).toHaveValue('Tarnside Works');
    await name.fill('Tarnside Works and Daughters');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByText('Saved.')).toBeVisible();

    // Somebody types the initials of RM with a slip of the finger, and writes a note with them before the question is answered.
    const initials = page.getByRole('textbox', { name: 'Your initials' });
    await initials.fill('RMM');
    await initials.press('Tab');
    await expect(page.getByText('Nobody in this shop has used the initials RMM before.')).toBeVisible();
    await page.getByRole('button', { name: 'Leave it' }).click();
    await page.locator('main').focus();
    await page.keyboard.press('j');
    await page.getByRole('textbox', { name: 'Note' }).fill('Gib screws ordered');
    await page.keyboard.press('Control+Enter');
    await page.goto(`${shop.address}/logbook`);
    const entry = page.getByRole('listitem').filter({ hasText: 'Gib screws ordered' });
    await expect(entry).toContainText('RMM');

    await page.goto(`${shop.address}/shop`);
    await pick(page, 'What RMM stands for', 'a mistake for RM');
    await expect(page.getByText('A typing mistake for RM')).toBeVisible();
    await page.goto(`${shop.address}/logbook?by=RM&words=gib`);
    await expect(page.getByText('Gib screws ordered')).toBeVisible();
    await expect(page.getByText('RMM')).toHaveCount(0);

    // The device that had them goes on with the right ones; typed again they are put right at once.
    await expect(initials).toHaveValue('RM');
    await initials.fill('RMM');
    await initials.press('Tab');
    await expect(page.getByText('RMM counts as RM in this shop.')).toBeVisible();
    await expect(initials).toHaveValue('RM');

    await page.goto(`${shop.address}/machines`);
    await page.getByRole('link', { name: /L-14/ }).first().click();
    await page.emulateMedia({ media: 'print' });
    await expect(page.locator('iso-print-head')).toContainText('Tarnside Works and Daughters');
  });
});
