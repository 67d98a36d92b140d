import { expect, machineId, pick, tabTo, test, typeInto } from './shop.js';

const PARTS = [
  'Gear cover',
  'Drive belt',
  'Tumbler gears',
  'Change gear bracket',
  'Oil tray',
  'Front bearing cap',
  'Rear bearing cap',
  'Thrust nut',
  'Thrust washers',
  'Bull gear key',
  'Spindle',
  'Headstock casting',
];

test.describe('with the demo', () => {
  test.use({ demo: true });

  test('a headstock taken apart in 12 parts and put together backwards, with the corner of one shim asked for', async ({ page, shop }) => {
    test.setTimeout(240_000);
    const id = await machineId(page, shop.address, 'L-02');
    await page.goto(`${shop.address}/machines/${id}/parts`);
    await expect(page.getByText('Nothing of this machine is taken apart.')).toBeVisible();
    await typeInto(page, 'What is taken apart', 'Headstock');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'The next part that comes off' })).toBeVisible();
    // Keys only: name, Enter, name, Enter. The number goes on by itself.
    const rows = page.getByRole('list', { name: 'Parts' }).getByRole('listitem');
    for (const [i, name] of PARTS.slice(0, 11).entries()) {
      await tabTo(page, 'Name');
      await page.keyboard.type(name);
      await page.keyboard.press('Enter');
      await expect(rows).toHaveCount(i + 1);
      await expect(page.getByRole('button', { name: `Add part ${i + 2}` })).toBeVisible();
    }
    await page.getByRole('textbox', { name: 'Name' }).fill('Headstock casting');
    await page.getByText('rated gear', { exact: true }).click();
    await expect(page.getByText('Lift it with rated gear, never by hand over an edge.')).toBeVisible();
    await page.getByRole('group', { name: 'Shims found under it' }).getByRole('button', { name: 'Add a row' }).click();
    await pick(page, 'In the joint', 'headstock on the bed');
    await page.getByRole('textbox', { name: 'Thickness, all layers' }).fill('0.15 mm');
    await page.getByRole('button', { name: 'Add part 12' }).click();
    await expect(rows).toHaveCount(12);
    await expect(rows.last()).toContainText('1 shim, corner not known');
    // The belt is a belt, and the caps are caps.
    for (const [name, kind] of [
      ['Drive belt', 'a belt or chain'],
      ['Front bearing cap', 'a bearing cap'],
    ]) {
      await rows.filter({ hasText: name }).click();
      await expect(page.getByRole('textbox', { name: 'Name' })).toHaveValue(name);
      await pick(page, 'It is', kind);
      await page.getByRole('button', { name: 'Save part' }).click();
      await expect(page.getByRole('heading', { name: 'The next part that comes off' })).toBeVisible();
    }

    // A month later, on another page: backwards.
    await page.reload();
    await expect(rows).toHaveCount(12);
    await page.locator('main').focus();
    await page.keyboard.press('b');
    await expect(rows.first()).toContainText('Headstock casting');
    const fit = (number: number) => page.getByRole('button', { name: `Part ${number} is fitted` });
    await fit(12).click();
    await expect(page.getByText('Say first at which corner the shim was found.')).toBeVisible();
    await pick(page, 'Corner of the shim, 0.150 mm, headstock on the bed', 'left rear');
    await expect(page.getByText('Lay the shim in: 0.150 mm, headstock on the bed, left rear.')).toBeVisible();
    await page.locator('main').focus();
    for (let number = 12; number >= 1; number--) {
      // It is on already.
      if (number === 2) continue;
      await expect(fit(number)).toBeVisible();
      if (number === 6) {
        // The belt came off after the cap was written down: it has to be on first.
        await expect(page.getByText('Fit this first: part 2, Drive belt. A belt cannot go on after this.')).toBeVisible();
        await rows.filter({ hasText: 'Drive belt' }).click();
        await fit(2).click();
        await expect(page.getByText('Fit this first')).toBeHidden();
        await page.locator('main').focus();
      }
      while ((await page.locator('iso-assembly input[type=checkbox]:not(:checked)').count()) > 0) await page.keyboard.press('Space');
      await page.keyboard.press('Enter');
      await expect(fit(number)).toBeHidden();
    }
    await expect(page.getByRole('heading', { name: 'Every part is fitted.' })).toBeVisible();

    // What was told of the corner is known to the list of parts, to the logbook and to whoever looks for it.
    await page.goto(`${shop.address}/machines/${id}/logbook?what=strip-down`);
    await expect(page.getByText('Headstock: 12 Headstock casting: fitted')).toBeVisible();
    await page.keyboard.press('/');
    await page.keyboard.type('bull gear key');
    await expect(page.getByText('Bull gear key, part 10')).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'Change this part' })).toBeVisible();
    await expect(page.getByRole('textbox', { name: 'Name' })).toHaveValue('Bull gear key');
  });

  test('parts that come off while the server is away are not lost, and what they need is one list', async ({ page, shop }) => {
    const id = await machineId(page, shop.address, 'M-03');
    await page.goto(`${shop.address}/machines/${id}/parts`);
    await typeInto(page, 'What is taken apart', 'Knee');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'The next part that comes off' })).toBeVisible();
    await page.route('**/api/parts', (route) => route.abort());
    await page.getByRole('textbox', { name: 'Name' }).fill('Knee wiper');
    await pick(page, 'Condition', 'order a new one');
    await page.getByRole('button', { name: 'Add part 1' }).click();
    await expect(page.getByText('1 saved in this browser: the server cannot be reached')).toBeVisible();
    await page.reload();
    await expect(page.getByRole('list', { name: 'Parts' }).getByRole('listitem')).toHaveText([/Knee wiper/]);
    await page.unroute('**/api/parts');
    await expect(page.getByText('saved in this browser')).toBeHidden({ timeout: 30_000 });

    await page.goto(`${shop.address}/parts`);
    const row = page.locator('iso-needs-list .row').filter({ hasText: 'Knee wiper' });
    await expect(row).toContainText('M-03, Knee');
    await row.getByText('ordered', { exact: true }).click();
    await row.locator('iso-day input').click();
    await page.keyboard.type('2020-01-31');
    await page.keyboard.press('Tab');
    await expect(row).toContainText('overdue by');
    await page.reload();
    await expect(row).toContainText('overdue by');
    await row.getByText('done', { exact: true }).click();
    await expect(row).not.toContainText('overdue by');
  });
});
