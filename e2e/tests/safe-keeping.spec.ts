import { addLathe, beginRound, call, expect, read, test } from './shop.js';

test('reload, a second tab and a server that goes away in the middle of a round lose nothing', async ({ page, context, shop }) => {
  await addLathe(page, shop.address, 'L-11');
  await beginRound(page, /^Measure$/, { 'Distance between centres': '420 mm' }, '0.002 mm');
  await read(page, '0');
  await page.keyboard.type('-9.');
  await page.reload();
  await expect(page.locator('#reading')).toHaveValue('-9.');
  await expect(page.locator('.mark.read')).toHaveCount(1);

  await shop.stopServer();
  await page.locator('#reading').fill('-9.5');
  await page.keyboard.press('Enter');
  await expect(call(page)).toContainText('Bring it 0.021 mm toward you.');
  await expect(page.getByText('saved in this browser: the server cannot be reached')).toBeVisible();

  const second = await context.newPage();
  await shop.startServer();
  await expect(page.locator('.waiting')).toHaveCount(0);
  await second.goto(page.url());
  await expect(call(second)).toContainText('Bring it 0.021 mm toward you.');
  await read(second, '0');
  await page.bringToFront();
  await expect(page.locator('.mark.read')).toHaveCount(3);
});

test.describe('with the demo', () => {
  test.use({ demo: true });

  test('the first visit is small', async ({ page, shop }) => {
    const session = await page.context().newCDPSession(page);
    await session.send('Network.enable');
    let bytes = 0;
    session.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength));
    await page.goto(shop.address);
    await expect(page.getByText('the long lathe')).toBeVisible();
    await page.waitForLoadState('networkidle');
    expect(bytes).toBeGreaterThan(50_000);
    expect(bytes).toBeLessThan(400_000);
  });

  test('the demo hangs together: in, with a wrong way behind it', async ({ page, shop }) => {
    await page.goto(`${shop.address}/machines`);
    await page.getByRole('link', { name: /L-14/ }).first().click();
    await expect(page.locator('iso-ladder')).toContainText('It was read some time ago, and settles');
    await page.getByRole('link', { name: 'Rounds so far' }).first().click();
    // Of a move of long ago: what it did, and no order.
    await expect(page.getByText('It went the wrong way: ')).toBeVisible();
    await expect(page.getByText('Learned from these moves: Tailstock sideways')).toBeVisible();
  });

  test('a shim template can be taken away as SVG and DXF', { tag: '@short' }, async ({ page, shop }) => {
    await page.goto(`${shop.address}/machines`);
    await page.getByRole('link', { name: /L-02/ }).first().click();
    await page.getByRole('link', { name: 'Rounds so far' }).first().click();
    await page.getByRole('link', { name: 'Round 1' }).click();
    await page.locator('#reading').focus();
    await page.keyboard.press('m');
    await expect(page.locator('iso-job-card ol')).toContainText('Cut the shims to the template: 0.050 mm.');
    for (const kind of ['SVG', 'DXF']) {
      const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: kind }).click()]);
      expect(download.suggestedFilename()).toBe(`L-02-shim.${kind.toLowerCase()}`);
    }
  });

  test('the bench works on a phone', { tag: '@short' }, async ({ page, shop }) => {
    await page.setViewportSize({ width: 390, height: 844 });
    const [lathe] = await (await page.request.get(`${shop.address}/api/machines`)).json();
    await page.goto(`${shop.address}/machines/${lathe.id}/bench/tailstock-traverse`);
    await page.getByLabel('I have read and done this').check();
    await page.getByRole('button', { name: 'Start the round' }).click();
    await read(page, '0', '5');
    await page.getByRole('button', { name: 'To the result' }).click();
    await expect(call(page).locator('.large').first()).toBeInViewport();
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(wide).toBeLessThanOrEqual(390);
  });

  test('an empty shop offers the demo, and only an empty one', { tag: '@short' }, async ({ page, shop }) => {
    const answer = await page.request.post(`${shop.address}/api/demo`);
    expect(answer.status()).toBe(409);
  });
});

test('the demo can be put into an empty shop', { tag: '@short' }, async ({ page, shop }) => {
  await page.goto(shop.address);
  await page.getByRole('button', { name: 'Fill in the demo shop' }).click();
  // Months of rounds are worked out: on a busy machine that takes its time.
  await expect(page.getByText('the long lathe')).toBeVisible({ timeout: 90_000 });
});
