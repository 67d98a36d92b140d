import { type Page } from '@playwright/test';
import { addLathe, allDone, call, expect, read, tabTo, test, typeInto } from './shop.js';

/** What a dial of 0.002 mm that goes round a quill shows where it stands so far off the axis, µm, + toward the operator and up. */
const swept = (h: number, v: number): string[] => [h, v, -h, -v, h].map((um) => String(um / 2));

async function sweep(page: Page, place: string, first: boolean): Promise<void> {
  const machine = /\/machines\/[^/]+/.exec(page.url())?.[0] ?? '';
  await page.goto(`${new URL(page.url()).origin}${machine}/bench/tailstock-sweep`);
  await page.getByLabel('I have read and done this').check();
  await page.getByLabel('Place along the bed').fill(place);
  if (first) {
    await page.getByLabel('One division').fill('0.002 mm');
    await page.getByText('it counts up').click();
  }
  await page.getByRole('button', { name: 'Start the round' }).click();
}

test('a worn bed: one movement for all places, with what it leaves at each, from the bench to the card and to the rounds after it', async ({
  page,
  shop,
}) => {
  await addLathe(page, shop.address, 'L-61');
  const job = page.locator('iso-job-card');
  // The truth: the quill stands 4 µm toward you at 200 mm, and 36 away from you at 900; in height it is well everywhere.
  await sweep(page, '200 mm', true);
  await read(page, ...swept(4, 9));
  await expect(call(page).locator('h2').first()).toHaveText(/In/);
  await sweep(page, '900 mm', false);
  await read(page, ...swept(-36, 9));
  // By pencil: 40 do not go into 30. 16 toward you leaves 20 on either side, 5 more than may be.
  await expect(call(page)).toContainText('Best for the places used: 0.016 mm toward you');
  await expect(call(page)).toContainText('which leaves 0.020 mm toward you at 200 mm, 0.020 mm away from you at 900 mm');
  await expect(call(page).locator('.do').first()).toContainText('0.016 mm toward you');
  await call(page).getByRole('link', { name: 'Job card for this move' }).first().click();
  await expect(job.getByRole('heading', { level: 1 })).toContainText('0.004 mm toward you at 200 mm, 0.036 mm away from you at 900 mm');
  await expect(job.locator('.amount')).toContainText(/0\.016 mm\s*toward you/);
  await allDone(page);
  for (const [place, h] of [
    ['200 mm', 20],
    ['900 mm', -20],
  ] as const) {
    await sweep(page, place, false);
    await read(page, ...swept(h, 9));
  }
  await expect(call(page)).toContainText('only the ways put that right');
  await expect(call(page)).not.toContainText('wrong way');
});

test('what is in comes nearer when the user says so, and the proof is cut both ways round', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-62');
  const job = page.locator('iso-job-card');
  // The truth: 10 µm away from you, and 9 high.
  await sweep(page, '600 mm', true);
  await read(page, ...swept(-10, 9));
  await expect(call(page).locator('h2').first()).toHaveText(/In/);
  await tabTo(page, 'Bring it nearer all the same');
  await page.keyboard.press('Enter');
  await expect(job).toContainText('is in: this move is not needed. Every move can upset something else');
  await expect(job.locator('.amount')).toContainText(/0\.005 mm\s*toward you/);
  await job.getByText('all of it').click();
  await expect(job.locator('.amount')).toContainText(/0\.010 mm\s*toward you/);
  await job.getByText('half of it').click();
  await allDone(page);
  await sweep(page, '600 mm', false);
  await read(page, ...swept(-5, 9));
  await expect(call(page).locator('h2').first()).toHaveText(/In/);
  await expect(call(page)).not.toContainText('wrong way');

  const machine = /\/machines\/[^/]+/.exec(page.url())?.[0] ?? '';
  await page.goto(`${shop.address}${machine}/by-hand/proof-cut`);
  for (let i = 0; i < 4; i++) await page.getByRole('checkbox').nth(i).check();
  // The truth: the machine cuts 10 µm bigger at the tail, and the bar gives 6 of its own.
  await typeInto(page, 'First cut, head end', '40');
  await typeInto(page, 'First cut, tail end', '40.016');
  await typeInto(page, 'Bar turned end for end, head end', '39.9');
  await typeInto(page, 'Bar turned end for end, tail end', '39.904');
  await expect(page.getByRole('status').filter({ hasText: 'In. The machine cuts' })).toContainText(
    'In. The machine cuts 0.010 mm bigger at its tail end, both ways round (± 0.003 mm on diameter). 0.006 mm more goes with the bar',
  );
  await page.keyboard.press('Enter');
  await expect(page.locator('iso-by-hand > p').last()).toContainText('In. The machine cuts 0.010 mm bigger at its tail end');
  await expect(page.locator('iso-ladder')).toContainText('0.010 mm bigger at the tail');
});
