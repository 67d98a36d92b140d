import { addLathe, allDone, beginRound, call, expect, pick, read, test } from './shop.js';

test('a bed job: from as found by an overshoot and a wrong way to in, and what it upsets', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-21');
  await page.getByRole('link', { name: 'Bar between centres' }).first().click();
  await beginRound(page, /^I have read and done this$/, { 'Distance between centres': '400 mm' }, '0.002 mm').catch(() => undefined);
  await read(page, '0', '1', '0', '3', '0');

  const bed = page.locator('iso-ladder a[href$="bench/bed-twist"]');
  const round = async (...values: string[]) => {
    await bed.click();
    await page.getByLabel('I have read and done this').check();
    // The form is whole once the last set-up has been fetched.
    await expect(page.getByRole('button', { name: 'Start the round' })).toBeEnabled();
    if (await page.getByLabel('One division').isVisible()) await page.getByLabel('One division').fill('5 um/m');
    await page.getByRole('button', { name: 'Start the round' }).click();
    await read(page, ...values);
  };
  const moved = async () => {
    await page.keyboard.press('m');
    await expect(page.locator('iso-job-card ol')).toContainText('Half up on one side, half down on the other');
    await allDone(page);
  };

  // Roll grows by 10 divisions of 5 µm/m over a metre.
  await round('0', '0', '5', '-5', '10', '-10');
  await expect(call(page)).toContainText('50');
  await expect(call(page)).toContainText('your side rising toward the tailstock');
  await moved();
  await round('0', '0', '-4', '4', '-8', '8');
  await expect(call(page)).toContainText('falling toward the tailstock');
  await moved();
  await round('0', '0', '-9', '9', '-18', '18');
  // It is told where the hand is: on the bench of the round that shows it, and on the ladder.
  await expect(call(page)).toContainText('The last move went the wrong way');
  await expect(page.locator('iso-ladder li', { hasText: 'Bed twist' }).first()).toContainText('last move: wrong way');
  await page.keyboard.press('n');
  await expect(page.getByText(/more than the .* that were planned/)).toBeVisible();
  await expect(page.getByText(/The last move went the wrong way: 50/)).toBeVisible();
  await page.getByRole('link', { name: 'Round 3' }).click();
  await page.keyboard.press('m');
  // The card begins with the nudge tests of needle and screw.
  await expect(page.locator('iso-job-card ol li').first()).toContainText('see which way the needle goes');
  await expect(page.locator('iso-job-card ol')).toContainText('Half up on one side, half down on the other');
  await allDone(page);
  await round('0', '0', '0', '0', '0.5', '-0.5');
  await expect(call(page).locator('h2').first()).toContainText('In');

  // What was moved under the tailstock makes its rung stale, with the reason beside it.
  await expect(page.locator('iso-ladder li', { hasText: 'Bar between centres' })).toContainText('upset by a move on “Bed twist”');

  await page.getByRole('button', { name: 'What makes the ±' }).first().click();
  await page.getByRole('button', { name: 'Try it with 100 000 draws' }).click();
  await expect(page.getByText(/95 of 100 draws of 100,000 lie between/)).toBeVisible({ timeout: 20_000 });
});

test.describe('with the demo', () => {
  test.use({ demo: true });

  test('the survey replays the machine from as found to now', { tag: '@short' }, async ({ page, shop }) => {
    await page.goto(`${shop.address}/machines`);
    await page.getByRole('link', { name: /L-14/ }).first().click();
    await page.getByRole('link', { name: 'Survey' }).click();
    await expect(page.getByText('Tailstock: 0.00')).not.toHaveCount(0);
    const slider = page.getByLabel('Time, from as found to now');
    await slider.focus();
    await page.keyboard.press('Home');
    await expect(page.getByText('Tailstock: not measured.').first()).toBeVisible();
    for (let i = 0; i < 10; i++) await page.keyboard.press('ArrowRight');
    await expect(page.getByText(/Tailstock: 0\.06\d mm toward you/)).toBeVisible();
    await pick(page, 'Exaggeration', '×200');
    await expect(page.getByText('errors drawn ×200')).toBeVisible();
  });
});
