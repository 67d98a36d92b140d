import { call, expect, openMachine, pick, tabTo, test } from './shop.js';
import type { Page } from '@playwright/test';

test.use({ demo: true });

const rungs = (page: Page) => page.locator('iso-ladder .name').allTextContents();

test('the rungs are put in another order with the keys alone, and stay so', async ({ page, shop }) => {
  await openMachine(page, shop.address, 'L-14');
  expect((await rungs(page)).slice(0, 4)).toEqual(['Clean and inspect', 'Stiffness', 'Test bar', 'Bed twist']);
  await tabTo(page, 'Order and limits');
  await page.keyboard.press('Enter');
  await tabTo(page, /^Move Spindle axis, rung 9$/);
  for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowUp');
  await expect(page.getByText('Spindle axis is check 1 now.')).toBeVisible();
  await expect(page.getByText(/Spindle axis depends on “Bed twist” and .*: a move there would upset it\./)).toBeVisible();
  await page.reload();
  await expect(page.locator('iso-ladder li').nth(1)).toContainText('Spindle axis');

  // A rung is left out with a reason, by keys alone too.
  await tabTo(page, 'Leave out: Stiffness');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Why Stiffness is left out')).toBeFocused();
  await page.keyboard.type('known to be stiff');
  await page.keyboard.press('Enter');
  await expect(page.locator('iso-ladder li', { hasText: 'Stiffness' })).toContainText('left out: known to be stiff');
  await expect(page.locator('iso-ladder li', { hasText: 'Stiffness' }).getByRole('img', { name: 'left alone on purpose' })).toBeVisible();
});

test('a machine nobody has measured is cleaned first; what was found is written down, and the first rung is next', async ({
  page,
  shop,
}) => {
  await openMachine(page, shop.address, 'L-02');
  await page.getByRole('link', { name: 'Order and limits' }).click();
  await page.getByLabel('Title of the new survey').fill('After the winter');
  await page.getByRole('button', { name: 'Start it' }).click();
  const next = page.locator('iso-ladder li.next');
  await expect(next).toContainText('Clean and inspect');
  await next.getByRole('link').click();
  await page.getByRole('button', { name: 'It is done' }).click();
  await expect(page.getByText('6 points are not ticked.')).toBeVisible();
  for (const point of await page.locator('.point input').all()) await point.check();
  await page.getByLabel('What was found').fill('ridge of wear near the chuck');
  await page.getByRole('button', { name: 'It is done' }).click();
  await expect(page.locator('iso-ladder li').first()).toContainText('ridge of wear near the chuck');
  await expect(page.getByLabel('What was found')).toHaveValue('');
  await page.reload();
  await expect(page.locator('iso-by-hand p', { hasText: 'ridge of wear near the chuck' })).toBeVisible();
  await expect(next).toContainText('Stiffness');
});

test('from the top: after a move every rung says why it is read again', { tag: '@short' }, async ({ page, shop }) => {
  await openMachine(page, shop.address, 'L-14');
  await page.getByRole('link', { name: 'Order and limits' }).click();
  const bed = page.locator('iso-ladder li', { hasText: 'Bed twist' });
  await expect(bed.getByRole('img', { name: 'in', exact: true })).toBeVisible();
  await page.getByText('from the top', { exact: true }).click();
  await expect(page.getByText('After a move every check is read again, from the first one on.')).toBeVisible();
  await expect(bed.getByRole('img', { name: 'stale' })).toBeVisible();
  await expect(bed).toContainText('“Spindle axis” was moved, and this survey begins again from the top');
  await page.getByText('only what it upsets', { exact: true }).click();
  await expect(bed.getByRole('img', { name: 'in', exact: true })).toBeVisible();
});

test('a limit sheet with three mistakes is not taken in and names each; mended it judges, and old rounds can be judged by it', async ({
  page,
  shop,
}) => {
  await page.goto(`${shop.address}/limits`);
  const head = 'check,quantity,when,low,high,unit,over,least,aim,reason\n';
  const file = (name: string, rows: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(head + rows) });
  const input = page.locator('input[type=file]');
  await input.setInputFiles(
    file(
      'Strict.csv',
      'tailstok-traverse,offsetHorizontal,,-2,2,um,,,,\ntailstock-traverse,offsetVertical,,0,5 furlongs,um,,,,\nspindle-axis,slopeH,,30,0,um/m,,,,\n',
    ),
  );
  const told = page.getByRole('alert').filter({ hasText: '“Strict.csv” was not imported' });
  await expect(told).toContainText('3 mistakes are in it');
  await expect(told).toContainText('row 2, check "tailstok-traverse" is not a check that has a limit. Example: tailstock-traverse');
  await expect(told).toContainText('row 3, high "5 furlongs" is not a small distance');
  await expect(told).toContainText('row 4, low and high must have its low value (30) below its high value (0)');
  await expect(page.getByRole('link', { name: /Strict/ })).toHaveCount(0);

  await input.setInputFiles(file('Strict.csv', 'tailstock-traverse,offsetHorizontal,,-2,2,um,,,,\n'));
  await expect(page.getByRole('link', { name: /Strict/ })).toBeVisible();
  await expect(told).toHaveCount(0);
  await page.getByText('judge old rounds by it').click();
  await page.getByText('L-14', { exact: true }).click();
  await expect(page.getByText(/of 18 rounds would be different/)).toBeVisible();
  await expect(page.getByText('Bar between centres, round 4')).toBeVisible();

  // The survey is judged by it from now on, and goes on so when the sheet gets another version.
  await openMachine(page, shop.address, 'L-14');
  await page.getByRole('link', { name: 'Order and limits' }).click();
  await pick(page, 'Limit sheet', 'Strict');
  await expect(page.locator('iso-ladder')).toContainText('judged by “Strict”');
  await page.locator('iso-ladder a[href$="bench/tailstock-traverse"]').click();
  await page.waitForURL(/bench\/tailstock-traverse$/);
  await page.goto(page.url().replace('/bench/', '/rounds/'));
  await page.getByRole('link', { name: 'Round 4' }).click();
  await expect(call(page)).toContainText('at most 0.002 mm either way');
  await expect(call(page).locator('h2').first()).not.toContainText('In');

  await page.goto(`${shop.address}/limits`);
  await page.getByRole('link', { name: /Strict/ }).click();
  await page.getByLabel('Highest, Tailstock sideways').fill('0.5');
  await page.getByLabel('Highest, Tailstock sideways').blur();
  await page.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(page.getByText('Saved as version 2.')).toBeVisible();
  await page.goBack();
  await openMachine(page, shop.address, 'L-14');
  await page.getByRole('link', { name: 'Order and limits' }).click();
  await expect(page.getByLabel('Limit sheet')).toContainText('Strict, version 1');
  await page.getByRole('button', { name: 'Judge by version 2 from now on' }).click();
  await expect(page.getByLabel('Limit sheet')).toContainText('Strict, version 2');
});

test('a holder’s droop is measured by a short check and put right in the next sweep', async ({ page, shop }) => {
  await page.goto(`${shop.address}/kit`);
  await pick(page, 'Add to the kit', 'a holder');
  await page.getByLabel('Name').fill('Bent arm');
  await page.getByLabel('Reads at the bottom').fill('-0.03 mm');
  await page.getByLabel('Back at the top').fill('0');
  await page.getByRole('button', { name: 'Keep -30 µm for this holder' }).click();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('droops 30 µm top to bottom')).toBeVisible();

  // A photograph of it, so that the right one is found again.
  await page.getByRole('button', { name: 'Change Bent arm' }).click();
  const png = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
  await page.getByLabel('Add a photograph').setInputFiles({ name: 'arm.png', mimeType: 'image/png', buffer: Buffer.from(png, 'base64') });
  const photo = page.getByRole('img', { name: 'Photograph of Bent arm' });
  await expect(photo).toBeVisible();
  await expect.poll(() => photo.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBe(1);

  await openMachine(page, shop.address, 'L-14');
  await page.locator('iso-ladder a[href$="bench/tailstock-sweep"]').click();
  await page.getByLabel('I have read and done this').check();
  await pick(page, 'Held in', 'Bent arm, droop -30 µm');
  await page.getByRole('button', { name: 'Start the round' }).click();
  for (const reading of ['0', '7.5', '0', '-7.5', '0']) {
    await page.locator('#reading').fill(reading);
    await page.keyboard.press('Enter');
  }
  await expect(call(page)).toContainText('droop of the holder: 0.015 mm taken off');
});
