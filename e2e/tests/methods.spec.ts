import { addLathe, beginRound, call, expect, read, tabTo, test, typeInto } from './shop.js';

test('a sweep, in inches', { tag: '@short' }, async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-5');
  await page.keyboard.press('u');
  await page.locator('section', { hasText: 'Sweep from the spindle' }).getByRole('link', { name: 'Measure' }).focus();
  await beginRound(page, /^Measure$/, {}, '0.0005');
  await expect(page.locator('.asked')).toContainText('Operator’s side');
  await read(page, '10', '2 1/2', '0', '7 1/2 div', '10');
  // (10 − 0)/2 divisions of half a thou: 2.5 thou toward the operator.
  await expect(call(page)).toContainText('2.5 thou');
  await expect(call(page)).toContainText('toward you');
  await expect(call(page)).toContainText('0.064 mm');
  await expect(call(page)).toContainText('A sweep measures against the spindle');
  await page.keyboard.press('u');
  await expect(call(page).locator('.large').first()).toContainText('mm');
  await page.keyboard.press('t');
  await expect(page.getByRole('table')).toContainText('7 1/2 div');
});

test('a test cut, diameters in mm', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-6');
  await page.locator('section', { hasText: 'Test cut' }).getByRole('link', { name: 'Measure' }).focus();
  await beginRound(page, /^Measure$/, { 'Distance between centres': '400 mm', 'Bar diameter': '60 mm' }, '0.001 mm');
  await read(page, '60.000', '60.036 mm');
  // Bigger at the tail: the tail centre is too far from the tool.
  await expect(call(page)).toContainText('Bring it 0.020 mm toward you.');
  await expect(call(page)).toContainText('bigger at the tailstock');
  await expect(call(page)).toContainText('blind to the height');
});

test('two methods that disagree stand side by side with the likely cause', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-8');
  await beginRound(page, /^Measure$/, { 'Distance between centres': '400 mm' }, '0.002 mm');
  await read(page, '0', '1', '0', '3', '0');
  await page.getByRole('link', { name: 'Tailstock: ways to check' }).click();
  await page.locator('section', { hasText: 'Sweep from the spindle' }).getByRole('link', { name: 'Measure' }).focus();
  await beginRound(page, /^Measure$/, {}, '0.002 mm');
  await read(page, '20', '13', '0', '7', '20');
  await page.getByRole('link', { name: 'Tailstock: ways to check' }).click();
  await expect(page.getByLabel('Side by side')).toContainText('Check the spindle axis before moving anything');
});

test('repeats, another set-up, a correction and a purpose', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-9');
  await tabTo(page, /^Measure$/);
  await page.keyboard.press('Enter');
  await page.getByText('turning parallel').click();
  await typeInto(page, 'Longest parallel length', '200 mm');
  await page.getByText('it counts down').click();
  await page.locator('h1').click();
  await beginRound(page, /^I have read and done this$/, { 'Distance between centres': '400 mm' }, '0.002 mm').catch(async () => {
    throw new Error(await page.locator('form').innerText());
  });
  await read(page, '0', '9');
  await page.keyboard.press('r');
  await read(page, '9.5');
  await expect(call(page)).toContainText('away from you');
  await expect(call(page)).not.toContainText('direction is assumed');
  await expect(call(page)).toContainText('taper on diameter over the length');
  await page.keyboard.press('t');
  await page
    .getByRole('row', { name: /9\.5 div/ })
    .getByRole('button', { name: 'Correct' })
    .click();
  await page.getByLabel('needle was knocked').check();
  await page.locator('#reading').fill('9');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('table')).toContainText('needle was knocked');
  await page.keyboard.press('s');
  await expect(page.locator('header')).toContainText('set-up 2');
});
