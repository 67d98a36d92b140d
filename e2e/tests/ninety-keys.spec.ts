import { call, countKeys, expect, read, tabTo, test, typeInto } from './shop.js';

test('from an empty shop to the first correct move in at most 90 keys', async ({ page, shop }) => {
  const keys = countKeys(page);
  const { keyboard } = page;
  await page.goto(shop.address);
  await expect(page.getByText('No machine here yet')).toBeVisible();
  await keyboard.press('a');
  await expect(page.getByLabel('Shop number')).toBeFocused();
  await keyboard.type('L-7');
  await tabTo(page, 'Kind');
  await keyboard.press('ArrowDown');
  await expect(page.getByRole('option', { name: 'engine lathe' })).toBeVisible();
  await keyboard.press('Enter');
  await typeInto(page, 'Adjuster screw pitch', '1.5 mm');
  await keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Is the tailstock in line?' })).toBeVisible();

  await keyboard.press('1');
  await expect(page.getByLabel('Read, and done')).toBeFocused();
  await keyboard.press('Space');
  await typeInto(page, 'Distance between centres', '420 mm');
  await keyboard.press('Enter');
  // What is missing has the hand at once, one field after the other.
  await expect(page.getByLabel('One division')).toBeFocused();
  await keyboard.type('0.002 mm');
  // The stylus is pressed in once: the needle counts up.
  await tabTo(page, /^not tried/);
  await keyboard.press('ArrowDown');
  await expect(page.getByRole('radio', { name: 'it counts up' })).toBeChecked();
  await keyboard.press('Enter');
  await read(page, '0', '-9.5', '0', '3', '0');

  await expect(call(page)).toContainText('Bring it 0.021 mm toward you.');
  await expect(call(page)).not.toContainText('direction is assumed');
  await keyboard.press('m');
  await expect(page.locator('iso-job-card ol')).toContainText('10.5 div from zero, counting up');
  await keyboard.press('s');
  await expect(page.getByRole('region', { name: 'At the screw' })).toContainText('10.5');
  expect(keys()).toBeLessThanOrEqual(90);
});
