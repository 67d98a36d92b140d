import { addLathe, beginRound, call, expect, pick, read, test, typeInto } from './shop.js';

test('bad input in every field of a card is named, with what would do, and nothing is lost', async ({ page, shop }) => {
  await page.goto(`${shop.address}/machines/new`);
  await page.getByRole('button', { name: 'Add this machine' }).click();
  await expect(page.getByText('Shop number is missing')).toBeVisible();
  await expect(page.getByText('Kind is missing: choose what kind of machine it is. Example: engine lathe')).toBeVisible();
  await page.getByRole('button', { name: 'engine lathe' }).click();
  const fields = [
    'Swing over bed',
    'Between centres',
    'Base length',
    'Base width',
    'Centre beyond the base',
    'Clamp bolt',
    'Clamp bolts',
    'Adjuster screw pitch',
  ];
  for (const field of fields) await page.getByLabel(field, { exact: true }).fill('12 furlongs');
  await page.getByLabel('Nickname').fill('the odd one');
  await page.getByRole('button', { name: 'Add this machine' }).click();
  for (const field of fields)
    await expect(
      page
        .getByRole('alert')
        .filter({ hasText: new RegExp(`^${field} `) })
        .first(),
      field,
    ).toContainText('Example:');
  await page.reload();
  await expect(page.getByLabel('Nickname')).toHaveValue('the odd one');
  await expect(page.getByLabel('Swing over bed')).toHaveValue('12 furlongs');
});

test('bad input in every field of a set-up, and on the dial', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-1');
  await page.getByRole('link', { name: 'Measure', exact: true }).first().click();
  await expect(page.locator('summary').first()).toBeVisible();
  await page.getByText('Rarely needed').first().click();
  await page.getByText('Rarely needed').nth(1).click();
  const fields = [
    'Distance between centres',
    'Bar diameter',
    'Bore of the bar',
    'Spindle nose to the place',
    'Quill out',
    'Place along the bed',
    'How many places along the bar',
    'Their places',
    'One division',
    'Range',
    'Lever angle',
    'Read to',
    'Accuracy ±',
    'Holder sag',
    'Contact force',
    'Longest parallel length',
  ];
  for (const field of fields) await page.getByLabel(field, { exact: true }).fill('lots');
  await page.getByRole('button', { name: 'Start the round' }).click();
  await expect(page.getByText('Read the cautions')).toBeVisible();
  await page.getByLabel('I have read and done this').check();
  await page.getByRole('button', { name: 'Start the round' }).click();
  await expect(page.getByText(`${fields.length} fields need another look`)).toBeVisible();
  for (const field of fields) await expect(page.getByRole('alert').filter({ hasText: field }), field).toContainText('Example:');
  for (const field of fields) await page.getByLabel(field, { exact: true }).fill('');
  await typeInto(page, 'Distance between centres', '16 1/2 in');
  await page.getByLabel('One division').fill('0.01 mm');
  // Leave the field first: its fault goes, the form grows shorter and the button moves with it.
  await page.keyboard.press('Tab');
  await expect(page.getByRole('alert').filter({ hasText: 'One division' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Start the round' }).click();
  await expect(page.locator('#reading')).toBeFocused();
  for (const [bad, word] of [
    ['twelve', 'is not a small distance'],
    ['5 miles', 'miles'],
    ['1.2.3', 'is not'],
    ['', 'is missing'],
  ]) {
    await page.locator('#reading').fill(bad);
    await page.keyboard.press('Enter');
    await expect(page.locator('#reading-fault'), bad).toContainText(word);
    await expect(page.locator('#reading')).toHaveValue(bad);
  }
  await page.locator('#reading').fill('');
  await read(page, '1/2 thou');
});

test('bad kit and shims are named', async ({ page, shop }) => {
  await page.goto(`${shop.address}/kit`);
  await pick(page, 'Add to the kit', 'an instrument');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('One division is missing')).toBeVisible();
  await page.getByLabel('One division').fill('0.01 mm');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Name is missing')).toBeVisible();
  await page.getByLabel('Name').fill('Best dial');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('plunger, 0.01 mm').or(page.getByText('lever, 0.01 mm'))).toBeVisible();
  await pick(page, 'Add to the kit', 'a shim drawer');
  await page.getByLabel('Name').fill('Drawer');
  await page.getByRole('button', { name: 'Add a thickness' }).click();
  await page.getByLabel('Thickness of row 1').fill('thin');
  await page.getByLabel('Leaves of row 1').fill('some');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('"thin" is not a small distance')).toBeVisible();
  await page.getByLabel('Thickness of row 1').fill('0.05 mm');
  await page.getByLabel('Leaves of row 1').fill('3');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('3 × 0.05 mm')).toBeVisible();
});

test('a press is not lost when the button moves away under the finger', async ({ page, shop }) => {
  await page.goto(`${shop.address}/kit`);
  await pick(page, 'Add to the kit', 'a shim drawer');
  await page.getByLabel('Name').fill('Drawer');
  for (const row of [1, 2, 3]) {
    await page.getByRole('button', { name: 'Add a thickness' }).click();
    await page.getByLabel(`Thickness of row ${row}`).fill(row === 1 ? 'thin' : `0.${row} mm`);
  }
  const keep = page.getByRole('button', { name: 'Save', exact: true });
  await keep.click();
  const wrong = page.getByText('"thin" is not a small distance');
  await expect(wrong).toBeVisible();
  await page.getByLabel('Thickness of row 1').fill('0.05 mm');
  const before = (await keep.boundingBox())!;
  await page.mouse.move(before.x + before.width / 2, before.y + before.height - 2);
  await page.mouse.down();
  await expect(wrong).toBeHidden();
  await page.mouse.move(before.x + before.width / 2 + 1, before.y + before.height - 2);
  await page.mouse.up();
  await expect(page.getByText('1 × 0.05 mm')).toBeVisible();
});

test('two people at one card: the later one is told and loses nothing', async ({ page, context, shop }) => {
  await addLathe(page, shop.address, 'L-3');
  await page.getByRole('link', { name: 'Machine card' }).click();
  const other = await context.newPage();
  await other.goto(page.url());
  await page.getByLabel('Swing over bed').fill('300 mm');
  await other.getByLabel('Notes').fill('from the other tab');
  await other.getByRole('button', { name: 'Save the card' }).click();
  await expect(other.getByRole('heading', { name: 'Is the tailstock in line?' })).toBeVisible();
  await page.getByRole('button', { name: 'Save the card' }).click();
  await expect(page.getByText('Somebody else has changed this card')).toBeVisible();
  await expect(page.getByLabel('Swing over bed')).toHaveValue('300 mm');
});

test('a round needs its cautions read first', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-4');
  await beginRound(page, /^Measure$/, { 'Distance between centres': '400 mm' }, '0.002 mm');
  await read(page, '0');
  await expect(page.locator('.mark.read')).toHaveCount(1);
});

test('a distance mistyped in the set-up is put right on the bench: the readings stay, the call follows, the logbook tells', async ({
  page,
  shop,
}) => {
  await addLathe(page, shop.address, 'L-4');
  await beginRound(page, /^Measure$/, { 'Distance between centres': '400 mm' }, '0.002 mm');
  await read(page, '0', '-9.5');
  await expect(call(page)).toContainText('0.021');
  await page.keyboard.press('e');
  await typeInto(page, 'Distance between centres', 'far');
  await page.keyboard.press('Enter');
  await expect(page.getByText('One field needs another look.')).toBeVisible();
  await page.reload();
  await page.locator('#reading').press('e');
  await expect(page.getByLabel('Distance between centres')).toHaveValue('far');
  await typeInto(page, 'Distance between centres', '800 mm');
  await page.keyboard.press('Enter');
  await expect(page.locator('.mark.read')).toHaveCount(2);
  await expect(call(page)).toContainText('0.042');
  const [{ id }] = await (await page.request.get(`${shop.address}/api/machines`)).json();
  const { entries }: { entries: { text: string }[] } = await (await page.request.get(`${shop.address}/api/log?machine=${id}`)).json();
  expect(entries.map((entry) => entry.text)).toContain('Bar between centres, round 1: Distance between centres 400 mm → 800 mm');
});
