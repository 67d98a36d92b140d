import { expect, machineId, test, typeInto } from './shop.js';

test('a card changed five times is looked at as it stood after the second, and that is put back as the newest', async ({ page, shop }) => {
  const id = crypto.randomUUID();
  const card = { number: 'L-90', kind: 'engine-lathe', swing: '360 mm' };
  await page.request.post(`${shop.address}/api/machines`, { data: { id, card, version: 1, by: 'HB' } });
  for (const [i, swing] of ['350 mm', '355 mm', '14 in', '358 mm', '362 mm'].entries()) {
    await page.goto(`${shop.address}/machines/${id}/card`);
    await expect(page.getByLabel('Swing over bed')).toHaveValue(['360 mm', '350 mm', '355 mm', '14 in', '358 mm'][i]);
    await typeInto(page, 'Swing over bed', swing);
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(new RegExp(`/machines/${id}$`));
  }
  await page.goto(`${shop.address}/machines/${id}/card`);
  await page.getByText('Earlier states').click();
  const rows = page.locator('iso-earlier li');
  await expect(rows).toHaveCount(6);
  await expect(rows.nth(0)).toContainText('Swing over bed: 358 mm to 362 mm');
  await expect(rows.nth(0)).toContainText('as it stands now');
  await expect(rows.nth(2)).toContainText('Swing over bed: 355 mm to 14 in');
  // After the second change it stood at 355 mm.
  await rows.nth(3).getByRole('button').click();
  await expect(page.getByText(/This is how it stood after the change of/)).toBeVisible();
  await expect(page.getByLabel('Swing over bed')).toHaveValue('355 mm');
  await page.getByRole('button', { name: 'Back to how it stands now' }).click();
  await expect(page.getByLabel('Swing over bed')).toHaveValue('362 mm');
  await rows.nth(3).getByRole('button').click();
  await page.getByRole('button', { name: 'Put this back' }).click();
  await expect(page).toHaveURL(new RegExp(`/machines/${id}$`));
  await page.goto(`${shop.address}/machines/${id}/card`);
  await expect(page.getByLabel('Swing over bed')).toHaveValue('355 mm');
  await page.getByText('Earlier states').click();
  await expect(rows).toHaveCount(7);
  await expect(rows.nth(0)).toContainText('Swing over bed: 362 mm to 355 mm');
  // The logbook leads to the card as it stood after each change.
  await page.goto(`${shop.address}/machines/${id}/logbook`);
  await page.locator('iso-logbook li .told a', { hasText: '355 mm → 14 in' }).click();
  await expect(page.getByText(/This is how it stood after the change of/)).toBeVisible();
  await expect(page.getByLabel('Swing over bed')).toHaveValue('14 in');
});

test.describe('the logbook of the demo shop', () => {
  test.use({ demo: true });

  test('what was written months ago is found by a word in the logbook, and leads to where it happened; the address of it can be sent', async ({
    page,
    shop,
    context,
  }) => {
    const lathe = await machineId(page, shop.address, 'L-14');
    await page.goto(`${shop.address}/machines/${lathe}`);
    await expect(page.locator('iso-plate')).toContainText('L-14');
    await page.getByRole('link', { name: 'Logbook' }).click();
    await expect(page).toHaveURL(`${shop.address}/machines/${lathe}/logbook`);
    await expect(page.locator('iso-logbook li').first()).toBeVisible();
    // Rounds with what they say, in the unit of the day.
    await expect(page.locator('iso-logbook')).toContainText(/Tailstock sideways: 0\.\d+ mm/);
    await page.keyboard.press('u');
    await expect(page.locator('iso-logbook')).toContainText(/Tailstock sideways: [\d.]+ thou/);
    await page.keyboard.press('u');
    await page.keyboard.press('f');
    // A pause after a word: what was found meanwhile does not take the field from the hand.
    await page.keyboard.type('levelling ');
    await expect(page).toHaveURL(/words=levelling$/);
    await page.keyboard.type('feet');
    await expect(page).toHaveURL(/words=levelling%20feet$/);
    await expect(page.locator('iso-logbook li')).toHaveCount(1);
    await expect(page.locator('iso-logbook mark')).toHaveText(['levelling', 'feet']);
    // Somebody else opens the same address and sees the same.
    const other = await context.newPage();
    await other.goto(page.url());
    await expect(other.locator('iso-logbook li')).toHaveCount(1);
    await expect(other.getByLabel('Words to look for')).toHaveValue('levelling feet');
    await other.close();
    await page.locator('iso-logbook li .told a').click();
    await expect(page).toHaveURL(/\/move\/[^/]+\/twistPerMetre$/);
    await page.goBack();
    await expect(page.locator('iso-logbook li')).toHaveCount(1);
    await page.getByLabel('Words to look for').focus();
    await page.keyboard.press('Escape');
    await expect(page).not.toHaveURL(/words=/);
    await expect(page.locator('iso-logbook li').nth(5)).toBeVisible();
  });

  test('the logbook of the shop is read to its end by scrolling, and asked for one machine’s moves of one person', async ({
    page,
    shop,
  }) => {
    await page.goto(`${shop.address}/logbook`);
    const rows = page.locator('iso-logbook li');
    await expect(rows.first()).toBeVisible();
    const before = await rows.count();
    await page.mouse.move(640, 500);
    await expect(async () => {
      await page.mouse.wheel(0, 4000);
      expect(await rows.count()).toBeGreaterThan(before);
      await expect(page.getByRole('button', { name: /Read on|Reading on/ })).toHaveCount(0, { timeout: 500 });
    }).toPass();
    await expect(page.locator('iso-logbook')).toContainText('L-14 added');
    await page.goto(`${shop.address}/logbook?what=move&by=RM`);
    await expect(rows.first()).toBeVisible();
    for (const text of await rows.allInnerTexts()) expect(text).toMatch(/RM[\s\S]*(Move|Moved|At the screw)/);
  });

  test('a photograph with an arrow, taken at a step of a job, is found by a word of its note and leads back to the step', async ({
    page,
    shop,
  }) => {
    const lathe = await machineId(page, shop.address, 'L-14');
    await page.goto(`${shop.address}/machines/${lathe}/logbook?what=move`);
    await page.locator('iso-logbook li .told a').first().click();
    await expect(page).toHaveURL(/\/move\//);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    const step = new URL(page.url()).pathname;

    const asked = page.waitForEvent('filechooser');
    await page.keyboard.press('o');
    await (await asked).setFiles('../docs/screenshots/move.png');
    await page.getByRole('button', { name: 'draw on it' }).click();
    const sheet = page.locator('iso-mark-editor .sheet');
    await sheet.scrollIntoViewIfNeeded();
    const box = (await sheet.boundingBox()) as { x: number; y: number; width: number };
    await page.mouse.move(box.x + 0.2 * box.width, box.y + 20);
    await page.mouse.down();
    await page.mouse.move(box.x + 0.4 * box.width, box.y + 60, { steps: 5 });
    await page.mouse.up();
    await expect(page.getByRole('button', { name: 'Take the arrow off' })).toBeVisible();
    await page.locator('iso-note-dialog textarea').fill('Burr under the gib, stoned off\n[ ] order a new wiper');
    await page.keyboard.press('Control+Enter');
    await expect(page.locator('iso-note-dialog textarea')).toHaveCount(0);

    await page.goto(`${shop.address}/logbook?words=stoned`);
    const row = page.locator('iso-logbook li');
    await expect(row).toHaveCount(1);
    await expect(row.locator('mark')).toHaveText('stoned');
    await expect(row.locator('iso-marked-picture path.arrow')).toHaveCount(2);
    // The thing to do is done from here, and is asked for no more.
    await page.goto(`${shop.address}/logbook?what=to-do&words=stoned`);
    await expect(row).toHaveCount(1);
    await row.locator('iso-tick input').check();
    await expect(page.getByText('Nothing was written down that fits.')).toBeVisible();
    await page.goto(`${shop.address}/logbook?words=stoned`);
    await row.first().locator('.told a').click();
    await expect(page).toHaveURL(shop.address + step);
    await page.keyboard.press('j');
    await expect(page.getByRole('region', { name: 'Written here before' })).toContainText('Burr under the gib, stoned off');
    await page.keyboard.press('Escape');
    await expect(page.locator('iso-note-dialog textarea')).toHaveCount(0);
  });

  test('as found against as left on the long lathe: what came in, by how much, by which move', async ({ page, shop }) => {
    const lathe = await machineId(page, shop.address, 'L-14');
    await page.goto(`${shop.address}/machines/${lathe}/survey`);
    await page.getByRole('link', { name: 'Before and after' }).click();
    await expect(page).toHaveURL(/\/compare$/);
    const row = page.getByRole('row', { name: /^Bed twist/ });
    await expect(row).toContainText('58 µm/m per m your side falling toward the tailstock');
    await expect(row).toContainText(/moved 58 µm\/m per m raising your side at the tailstock end, 15 Jun 2026, HB/);
    await expect(row.getByRole('img', { name: 'out' })).toBeVisible();
    await expect(row.getByRole('img', { name: 'in', exact: true })).toBeVisible();
    await expect(page.getByText(/results on both sides, 5 came in/)).toBeVisible();
    await expect(page.locator('figure iso-bent svg')).toHaveCount(2);
    await row.getByRole('link', { name: /^round 1/ }).click();
    await expect(page).toHaveURL(/\/bench\/bed-twist\//);
    // The story is over when the screen is there, not when its address is.
    await expect(page.locator('iso-call-column')).toBeVisible();
  });
});

test('any of 500 machines is gone to by a few letters, and where one was lately by none', async ({ page, shop }) => {
  const ids = await Promise.all(
    Array.from({ length: 20 }, async (_, lot) => {
      const made: string[] = [];
      for (let i = lot; i < 500; i += 20) {
        const id = crypto.randomUUID();
        const card = { number: `L-${String(i).padStart(3, '0')}`, nickname: `lathe of bay ${i % 7}`, kind: 'engine-lathe' };
        const answer = await page.request.post(`${shop.address}/api/machines`, { data: { id, card, version: 1, by: 'HB' } });
        expect(answer.ok()).toBeTruthy();
        made[i] = id;
      }
      return made;
    }),
  );
  const idOf = (i: number) => ids[i % 20][i];
  await page.goto(`${shop.address}/kit`);
  await expect(page.getByRole('heading', { name: 'Kit', exact: true })).toBeVisible();
  await page.keyboard.press('/');
  const field = page.getByRole('combobox', { name: 'Go to' });
  await expect(field).toBeFocused();
  await page.keyboard.type('l-377');
  await expect(page.getByRole('option').first()).toContainText('L-377 lathe of bay 6');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(`${shop.address}/machines/${idOf(377)}`);
  await expect(page.locator('iso-plate')).toContainText('L-377');

  await page.keyboard.press('/');
  await expect(field).toBeFocused();
  await page.keyboard.type('bar between 042');
  await expect(page.getByRole('option').first()).toContainText('Bar between centres');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(`${shop.address}/machines/${idOf(42)}/bench/tailstock-traverse`);
  await expect(page.getByLabel('I have read and done this')).toBeVisible();

  // Without a letter: where one was, the last one first.
  await page.keyboard.press('Escape');
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.keyboard.press('/');
  await expect(page.getByRole('option').first()).toContainText('L-377');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('option', { selected: true })).toContainText('Kit');
  await page.keyboard.press('Escape');
  await expect(field).toHaveCount(0);
});
