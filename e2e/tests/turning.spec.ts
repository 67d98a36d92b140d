import type { Page } from '@playwright/test';
import { allDone, call, expect, read, test } from './shop.js';

test.use({ demo: true });

/** T-06 of the demo: its slide rises toward the rear by 45°; its control is homed twice and switched off and on once. */
async function theSlant(page: Page, address: string): Promise<string> {
  const machines = (await (await page.request.get(`${address}/api/machines`)).json()) as { id: string; card: { number: string } }[];
  return machines.find(({ card }) => card.number === 'T-06')?.id ?? '';
}

/** Begin a sweep with the dial and the places of the last one. */
async function sweep(page: Page, homed: 'yes, before this reading' | 'not yet', station?: string) {
  await page.getByLabel('I have read and done this').check();
  if (station) await page.getByLabel('Station that is swept').fill(station);
  await page.getByText(homed, { exact: true }).click();
  await page.getByRole('button', { name: 'Start the round' }).click();
  await page.waitForSelector('#reading');
}

/** How much its holder droops at the bottom, µm. */
const DROOP = -9;
/** What the dial reads in a bore that stands off by so much toward the operator and up, µm: its droop goes round with the angle. */
const bore = (h: number, v: number): string[] => [-h, -v + DROOP / 2, h, v - DROOP / 2, -h].map((um) => `${um} um`);
const verdicts = async (page: Page): Promise<string[]> => (await call(page).locator('h2').allTextContents()).map((text) => text.trim());

test('a turret that was bumped: what lies square to its slide is put right by bolts, the axis not touched', async ({ page, shop }) => {
  const id = await theSlant(page, shop.address);
  await page.goto(`${shop.address}/machines/${id}/bench/turret-bore`);
  // The ladder has no tailstock, no clamp and no quill; the slant is the card's.
  await expect(page.locator('iso-ladder')).not.toContainText(/Tailstock|Quill|Bar between centres/);
  await expect(page.getByLabel('Slant of the slide')).toHaveValue(/^45/);
  await sweep(page, 'yes, before this reading');
  // 21 µm toward the operator and 21 up: all of it square to a slide at 45°.
  await read(page, ...bore(21, 21));
  expect(await verdicts(page)).toContain('Out');
  await expect(call(page)).toContainText('across the slide: Move it 0.030 mm down. Bolts must.');
  await expect(call(page)).not.toContainText('The control can cure this');
  await expect(page.locator('.sketch')).toContainText('slide, rear higher');
  await call(page).getByRole('link', { name: 'Job card: bolts' }).click();
  const job = page.locator('iso-job-card');
  await expect(job).toContainText('Leave the control alone');
  await expect(job).toContainText('one at a time: loosen each and snug it again before the next');
  await expect(job).toContainText('Housing, belt and drive shaft go back against their stop.');
  // The whole turret would take station 5 with it, which was in: it is the plate of this one.
  await expect(job).toContainText('was not off: the plate of this station. The whole turret moved over would put the others out');
  await page.getByText('the plate of this station alone', { exact: true }).click();
  await expect(job).toContainText('Tap the plate of this station alone with a soft mallet');
  await allDone(page);
  await expect(page.locator('iso-ladder')).not.toContainText('upset by a move on “Turret pocket”');

  // Another station is read in between: it stands for itself, and the one that was moved is not forgotten.
  await sweep(page, 'yes, before this reading', '5');
  await read(page, ...bore(0, 1));
  const rung = page.locator('iso-ladder li', { has: page.getByText('Turret pocket', { exact: true }) });
  await expect(rung).toContainText('station 3: moved since: read it again');
  await page.goto(`${shop.address}/machines/${id}/bench/turret-bore`);
  await sweep(page, 'yes, before this reading', '3');
  await read(page, ...bore(0, 1));
  expect(await verdicts(page)).toEqual(['In']);
  await expect(rung).not.toContainText('moved since');
});

test('a sub-spindle by its register: not before homing, a first guess that is wrong, and back from the first old value', async ({
  page,
  shop,
}) => {
  // Seven sweeps and four change sheets.
  test.slow();
  const id = await theSlant(page, shop.address);
  await page.goto(`${shop.address}/machines/${id}/bench/sub-spindle`);
  await sweep(page, 'not yet');
  // 14 toward the operator and 14 down: 19.8 µm along the slide.
  const bumped = bore(14, -14);
  await read(page, ...bumped);
  await expect(call(page)).toContainText('The control can cure this.');
  await call(page).getByRole('link', { name: 'Job card: register' }).click();
  const sheet = page.locator('iso-offset-change');
  await expect(sheet).toContainText(
    'This round was not read with the axes homed, so no register can be set from it. Home it 2 times, and sweep again.',
  );
  await expect(sheet.getByRole('button', { name: 'Lock it' })).toHaveCount(0);

  await page.goto(`${shop.address}/machines/${id}/bench/sub-spindle`);
  await sweep(page, 'yes, before this reading');
  await read(page, ...bumped);
  await call(page).getByRole('link', { name: 'Job card: register' }).click();
  // The one that the card knows is not it: the sub-spindle was shifted by its reference.
  await sheet.getByText('another one').click();
  await sheet.getByLabel('Name of the register').fill('home A');
  await sheet.getByLabel('Axis of the register').fill('A');
  await sheet.getByText('a reference: home, grid shift').click();
  await sheet.getByText('mm', { exact: true }).click();
  await sheet.getByText('radius', { exact: true }).click();
  await sheet.getByLabel('Digits after the point').fill('4');
  await sheet.getByRole('button', { name: 'Lock it' }).click();
  await expect(sheet).toContainText('Old value: is missing. Example: 305.525');
  await sheet.getByRole('textbox', { name: 'Old value' }).fill('200');
  // The screen of the control is photographed too: it is kept with the value, and still there after a reload.
  const screen = await page.screenshot({ clip: { x: 0, y: 0, width: 200, height: 100 } });
  await sheet.getByLabel('Photograph of it').setInputFiles({ name: 'screen.png', mimeType: 'image/png', buffer: screen });
  await expect(sheet.locator('img')).toBeVisible();
  await sheet.getByRole('button', { name: 'Lock it' }).click();
  await expect(sheet).toContainText('first old value 200.0000 mm locked');
  await page.reload();
  await expect(sheet.locator('img')).toHaveAttribute('src', /^(\/api\/pictures\/[0-9a-f]{64}|blob:.*)$/);
  // From the server, or from here as long as it is on its way: it is shown.
  await expect
    .poll(() =>
      sheet.locator('img').evaluate((image: HTMLImageElement) =>
        image.decode().then(
          () => image.naturalWidth,
          () => 0,
        ),
      ),
    )
    .toBe(200);
  // A jog tells no sign of a reference, but it is kept: 0.005 down the slide takes the needle at its lower end up by 5.
  await sheet.getByLabel('Jogged by').fill('0.005');
  await sheet.getByLabel('Needle before the jog').fill('0');
  await sheet.getByLabel('Needle after the jog').fill('2.5');
  await sheet.getByText('on your end of the slide').click();
  await sheet.getByRole('button', { name: 'Keep the jog' }).click();
  await expect(sheet).toContainText('The display counts a radius, in mm.');
  await expect(sheet).toContainText('200.0198 mm');
  await expect(sheet).toContainText('199.9802 mm');
  await expect(sheet).toContainText('Not known yet which one is right');
  await expect(sheet).toContainText('the next check reads 79.2 µm between the two');
  await sheet.getByRole('button', { name: 'Entered: 200.0198 mm' }).click();
  await expect(sheet).toContainText('Not taken up yet: home it 2 times more, and switch it off and on once more.');
  await sheet.getByRole('button', { name: /Homed/ }).click();
  await sheet.getByRole('button', { name: /Homed/ }).click();
  await sheet.getByRole('button', { name: /Off and on/ }).click();
  await expect(sheet).not.toContainText('Not taken up yet');
  await allDone(page);

  // It was the wrong one: the error has doubled, and the bench says so and what to enter.
  await sweep(page, 'yes, before this reading');
  await read(page, ...bore(28, -28));
  await expect(call(page)).toContainText('home A: It had the wrong sign: the error has doubled. Enter 199.9802 mm.');
  await call(page).getByRole('link', { name: 'Job card: register' }).click();
  // The register is known from before, and so is its first old value.
  await expect(sheet).toContainText('Its first old value stays: 200.0000 mm');
  await sheet.getByRole('textbox', { name: 'What it shows now' }).fill('200.198');
  await sheet.getByRole('button', { name: 'Continue' }).click();
  await expect(sheet).toContainText('it was left at 200.0198 mm, and is said to show 200.1980 mm');
  await sheet.getByRole('textbox', { name: 'What it shows now' }).fill('200.0198');
  await sheet.getByRole('button', { name: 'Continue' }).click();
  // The value is typed wrong once more: twice over, and the same wrong way. The change sheet asks, and is told that it is sure.
  await sheet.getByRole('textbox', { name: 'Jogged until they agree, by' }).fill('0.0396');
  await sheet.getByRole('textbox', { name: 'What it shows now' }).fill('200.0396');
  await sheet.getByRole('button', { name: 'Keep that' }).click();
  await expect(sheet).toContainText('200.0396 mm is not what stood there and the jog: that would be 199.9802 mm.');
  await sheet.getByLabel('I have made sure of register, unit, factor and sign.').check();
  await sheet.getByRole('button', { name: 'Keep that' }).click();
  await allDone(page);
  await sweep(page, 'yes, before this reading');
  await read(page, ...bore(42, -42));
  await expect(call(page)).toContainText('Enter 199.9802 mm.');
  await call(page).getByRole('link', { name: 'Job card: register' }).click();
  await sheet.getByRole('textbox', { name: 'What it shows now' }).fill('200.0396');
  await sheet.getByRole('button', { name: 'Continue' }).click();
  await sheet.getByRole('button', { name: 'Entered: 199.9802 mm' }).click();
  await allDone(page);
  await sweep(page, 'yes, before this reading');
  // A slow server: the page is left while readings wait in the browser, and the next page tells of them as they land.
  await page.route('**/readings', (route) => new Promise((go) => setTimeout(go, 400)).then(() => route.continue()));
  await read(page, ...bore(0, 0));
  await expect(call(page)).toContainText('home A: The value was right. Leave it.');
  expect(await verdicts(page)).toEqual(['In']);

  // The log keeps both, newest first, with what reading again said.
  await page.goto(`${shop.address}/machines/${id}/to-come`);
  const log = page.locator('iso-register-log .entry');
  // Two more stand below: the demo's own.
  await expect(log).toHaveCount(5);
  await expect(log.nth(0)).toContainText('200.0000 mm → 199.9802 mm');
  await expect(log.nth(0)).toContainText('The value was right. Leave it.');
  await expect(log.nth(1)).toContainText('200.0000 mm → 200.0396 mm');
  await expect(log.nth(2)).toContainText('It had the wrong sign');
  await expect(page.locator('iso-register-log')).not.toContainText('is not right yet');
  await expect(page.locator('iso-register-log')).toContainText('References of axis A: the value goes against the jog');

  // Bumped again the other way: the sign of this axis has been learned, and one change sheet is the one.
  await page.goto(`${shop.address}/machines/${id}/bench/sub-spindle`);
  await sweep(page, 'yes, before this reading');
  await read(page, ...bore(-14, 14));
  await call(page).getByRole('link', { name: 'Job card: register' }).click();
  await sheet.getByRole('textbox', { name: 'Old value' }).fill('199.9802');
  await sheet.getByRole('button', { name: 'Lock it' }).click();
  await expect(sheet).toContainText('κ of this axis is known: the value goes against the jog.');
  await sheet.getByLabel('Jogged by').fill('0.005');
  await sheet.getByLabel('Needle before the jog').fill('0');
  await sheet.getByLabel('Needle after the jog').fill('2.5');
  await sheet.getByText('on your end of the slide').click();
  await sheet.getByRole('button', { name: 'Keep the jog' }).click();
  await expect(sheet.locator('.chosen')).toHaveCount(1);

  // From the log back to what stood there before: first what to type, then that it was entered. The change sheet keeps both.
  await page.goto(`${shop.address}/machines/${id}/to-come`);
  await log.nth(0).getByRole('button', { name: 'back to 200.0000 mm' }).click();
  await expect(page.locator('iso-register-log')).toContainText(
    'Type 200.0000 mm into home A, and home it 2 times, and switch it off and on once.',
  );
  await page.getByRole('button', { name: 'Entered' }).click();
  await expect(log).toHaveCount(6);
  await expect(log.nth(0)).toContainText('Back at 200.0000 mm.');
  await page.reload();
  await expect(log).toHaveCount(6);
  await expect(page.locator('iso-ladder li', { hasText: 'Sub-spindle' })).toContainText('moved since: read it again');
});

test(
  'a guide bush: turned half round it is parted from its housing, and its own runout is found',
  { tag: '@short' },
  async ({ page, shop }) => {
    const id = await theSlant(page, shop.address);
    await page.goto(`${shop.address}/machines/${id}/bench/guide-bush`);
    await page.getByLabel(/Turn the bush half round/).check();
    await sweep(page, 'yes, before this reading');
    // The housing 20 µm toward the operator, the bush another 7, which goes round with it.
    await read(page, ...bore(27, 0), ...bore(13, 0));
    await expect(call(page)).toContainText('The bush itself is');
    await expect(call(page)).toContainText('The housing sideways: 0.020 mm toward you');
    await expect(call(page)).toContainText('The bush in its housing, sideways: 0.007 mm toward you');
    await expect(call(page)).toContainText('Bolts must.');
    await expect(call(page)).not.toContainText('The control can cure this');
  },
);
