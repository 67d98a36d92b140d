import { addLathe, beginRound, call, expect, read, test } from './shop.js';

test('a reading put right after its card was begun: the card turns round, says what was done, and ends when all is in', async ({
  page,
  shop,
}) => {
  const { keyboard } = page;
  await addLathe(page, shop.address, 'L-41');
  await beginRound(page, /^Measure$/, { 'Distance between centres': '420 mm' }, '0.002 mm');
  await read(page, '0', '-9.5', '0', '3', '0');
  await expect(call(page)).toContainText('Bring it 0.021 mm toward you.');
  await keyboard.press('m');
  const job = page.locator('iso-job-card');
  await expect(job.locator('ol li').first()).toBeVisible();
  const card = page.url();
  // All steps to the needle at its target are done.
  const ticks = job.locator('ol iso-tick input');
  const count = await ticks.count();
  for (let i = 0; i < count - 1; i++) await ticks.nth(i).check();
  await expect(page.locator('.waiting')).toHaveCount(0);

  // The sign of one reading was typed wrong: it is put right on the bench.
  const putRight = async (old: string, text: string) => {
    await job
      .getByRole('link', { name: 'Back to the bench' })
      .or(page.getByRole('link', { name: 'Round 1' }))
      .first()
      .click();
    await expect(page.locator('#reading')).toBeVisible();
    await page.getByRole('button', { name: 'Show a table' }).click();
    const row = page.locator('iso-reading-table tbody tr:not(.gone)', { hasText: old });
    await row.getByRole('button', { name: 'Correct' }).click();
    await expect(page.locator('#reading')).toBeFocused();
    await keyboard.press('Control+A');
    await keyboard.type(text);
    await keyboard.press('Enter');
    await page.goto(card);
  };
  await putRight('-9.5', '9.5');
  await expect(job).toContainText('This card was started for 0.021 mm toward you.');
  await expect(job).toContainText('You moved it 0.021 mm toward you by the old reading: that was the wrong way.');
  await expect(job).toContainText('Leave the zero of the dial: drive the needle to its new target.');
  await expect(job.locator('.amount')).toContainText(/0.021 mm\s*away from you/);
  await expect(job).toContainText('10.5 div from zero, counting down');
  // What was ticked from the move on is not done any more; what came before is.
  await expect(ticks.first()).toBeChecked();
  await expect(ticks.last()).not.toBeChecked();

  // Put right once more it is in: there is nothing to move, and the card ends.
  await putRight('9.5', '0.5');
  await expect(job).toContainText('there is nothing left to move');
  await expect(job).toContainText('Drive the needle back to where it was zeroed, and read a new round.');
  await expect(job.locator('ol')).toHaveCount(0);
  await job.getByRole('button', { name: 'Close this card' }).click();
  await expect(job).toContainText('There is nothing to move here. Leave it alone.');
});

test('the last thing is taken back with one key: a reading, a tick, a move that was not done', async ({ page, shop }) => {
  const { keyboard } = page;
  await addLathe(page, shop.address, 'L-42');
  await beginRound(page, /^Measure$/, { 'Distance between centres': '420 mm' }, '0.002 mm');
  await read(page, '0', '-9.5', '0', '30');
  await expect(page.getByText(/^Reading 30( div)?: done\.$/)).toBeVisible();
  await keyboard.press('Control+Z');
  await expect(page.getByText(/^Undone: Reading 30( div)?\.$/)).toBeVisible();
  await read(page, '3', '0');
  await expect(call(page)).toContainText('Bring it 0.021 mm toward you.');
  await keyboard.press('m');
  const job = page.locator('iso-job-card');
  await job.getByRole('button', { name: /^Done: start/ }).click();
  await expect(job).toContainText('No step ticked. Are all of them done?');
  await job.getByRole('button', { name: /^All steps are done/ }).click();
  await expect(page.getByLabel('I have read and done this')).toBeVisible();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByText('Undone: Move.')).toBeVisible();
  await expect(page.locator('.waiting')).toHaveCount(0);
  await page.goBack();
  await expect(job.getByRole('button', { name: /start the next round/ })).toBeVisible();
  await expect(job).not.toContainText('Done on');
});
