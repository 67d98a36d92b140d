import type { Page } from '@playwright/test';
import { call, expect, read, test } from './shop.js';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

/** What is pressed and is lower than a finger needs, and letters smaller than 12 px, among what is drawn. */
const tooSmall = () => {
  const shown = (box: DOMRect) => box.width > 1 && box.height > 1;
  const named = (element: Element) => `${element.tagName} ${(element.textContent ?? '').trim().slice(0, 30)}`;
  const pressed = Array.from(document.querySelectorAll('button, nav a, a.act, a.mark, a.machine, input[type=text], iso-choices label'))
    .map((element) => ({ element, box: element.getBoundingClientRect() }))
    .filter(({ box }) => shown(box) && box.height < 43.5)
    .map(({ element, box }) => `${named(element)}: ${Math.round(box.height)} px high`);
  const lettered = Array.from(document.querySelectorAll<HTMLElement | SVGElement>('body *'))
    .filter((element) => Array.from(element.childNodes).some((node) => node.nodeType === Node.TEXT_NODE && node.textContent?.trim()))
    .filter((element) => shown(element.getBoundingClientRect()))
    .map((element) => {
      const scale = element instanceof SVGGraphicsElement ? Math.abs(element.getScreenCTM()?.d ?? 1) : 1;
      return { element, size: scale * parseFloat(getComputedStyle(element).fontSize) };
    })
    .filter(({ size }) => size < 11.9)
    .map(({ element, size }) => `${named(element)}: letters of ${size.toFixed(1)} px`);
  return [...pressed, ...lettered];
};

/** A screen at a width is no wider than that. */
async function fits(page: Page, address: string, width: number): Promise<void> {
  await page.setViewportSize({ width, height: 800 });
  await page.goto(address);
  await expect(page.getByRole('heading').first()).toBeVisible();
  const wide = () => page.evaluate(() => Math.max(document.documentElement.scrollWidth, document.querySelector('main')?.scrollWidth ?? 0));
  await expect(async () => expect(await wide(), `${address} at ${width}`).toBeLessThanOrEqual(width)).toPass({ timeout: 5000 });
}

test('no screen of the planner is wider than what it is looked at on', async ({ page, shop }) => {
  const id = crypto.randomUUID();
  const card = { number: 'L-91', nickname: 'the very long lathe by the window', kind: 'engine-lathe', centreDistance: '600 mm' };
  await page.request.post(`${shop.address}/api/machines`, { data: { id, card, version: 1, by: 'HB' } });
  for (const width of [360, 900, 1280])
    for (const path of [
      '/planner',
      '/due',
      '/moves',
      '/files',
      '/files/table/kit',
      `/machines/${id}/plan`,
      `/machines/${id}/tonight`,
      `/machines/${id}/worth-it`,
    ])
      await fits(page, shop.address + path, width);
});

test('no screen is wider than what it is looked at on, and the field for a reading has room', async ({ page, shop }) => {
  const id = crypto.randomUUID();
  const card = { number: 'L-90', nickname: 'the very long lathe by the door', kind: 'engine-lathe', centreDistance: '600 mm' };
  await page.request.post(`${shop.address}/api/machines`, { data: { id, card, version: 1, by: 'HB' } });
  const round = {
    ...{ id: crypto.randomUUID(), machineId: id, check: 'tailstock-traverse', setup: { centreDistance: '600 mm' } },
    ...{ plan: { stations: 2 }, instrument: { kind: 'lever', graduation: '0.01 mm', sense: 1, leverAngle: '12 deg' } },
    ...{ instrumentName: 'Lever dial', conditions: {}, purpose: null, by: 'HB', at: new Date().toISOString(), version: 1 },
  };
  const begun = await page.request.post(`${shop.address}/api/rounds`, { data: round });
  expect(begun.ok(), await begun.text()).toBeTruthy();
  const bench = `/machines/${id}/bench/tailstock-traverse/${round.id}`;
  const signed = { version: 1, by: 'HB', at: new Date().toISOString() };
  const stripDownId = crypto.randomUUID();
  await page.request.post(`${shop.address}/api/strip-downs`, { data: { id: stripDownId, machineId: id, name: 'Headstock', ...signed } });
  const details = {
    ...{ name: 'Front bearing cap with its oil tray', kind: 'cap', condition: 'order', box: 'the third box from the left' },
    shims: [{ joint: 'bearing-cap', thickness: '0.3 mm', layers: 4 }],
    fastenings: [{ what: '1/2 in BSW stud nut', count: 4, thread: 'left', hidden: 'under the name plate', torque: '45 N m' }],
  };
  const part = { id: crypto.randomUUID(), stripDownId, number: 1, place: 1, details, need: null, fitted: null, pictures: [], ...signed };
  expect((await page.request.post(`${shop.address}/api/parts`, { data: part })).ok()).toBeTruthy();
  const strip = `/machines/${id}/parts/${stripDownId}`;
  for (const width of [360, 768, 900, 1280])
    for (const path of [
      ...['/machines', `/machines/${id}/logbook`, bench, '/kit', '/limits', '/parts', '/shop'],
      ...[`/machines/${id}/parts`, `${strip}?part=${part.id}`, `${strip}?way=assembly`, `/machines/${id}/campaign`],
    ]) {
      await fits(page, shop.address + path, width);
      if (path === bench) expect((await page.locator('#reading').boundingBox())?.width, `at ${width}`).toBeGreaterThan(100);
    }
});

test('on a phone the ladder is drawn in from the plate, and the call stays in sight while reading', async ({ page, shop }) => {
  // The truth of this story: the tail centre stands 50 µm toward the operator over the 600 mm between centres.
  const id = crypto.randomUUID();
  const card = { number: 'L-90', kind: 'engine-lathe', centreDistance: '600 mm' };
  await page.request.post(`${shop.address}/api/machines`, { data: { id, card, version: 1, by: 'HB' } });
  await page.goto(`${shop.address}/machines/${id}/survey`);
  await page.getByRole('button', { name: 'Checks' }).tap();
  const drawer = page.getByRole('complementary').or(page.getByRole('dialog')).filter({ hasText: 'Checks in order' });
  for (const name of ['Machine card', 'Order and limits', 'Castings', 'Planned changes'])
    await expect(drawer.getByRole('link', { name })).toBeVisible();
  expect(await page.evaluate(tooSmall)).toEqual([]);
  await drawer.getByRole('link', { name: /Bar between centres/ }).tap();
  await expect(drawer).toHaveCount(0);
  await expect(page).toHaveURL(/bench\/tailstock-traverse$/);

  await page.getByLabel('I have read and done this').check();
  await page.getByLabel('Distance between centres').fill('600 mm');
  await page.getByLabel('Bar diameter').fill('40 mm');
  await page.getByLabel('One division').fill('0.01 mm');
  await page.getByText('it counts up').tap();
  await page.getByRole('button', { name: 'Start the round' }).tap();
  // Places 30 and 570 mm, side then top: 2.5 µm and 47.5 µm.
  await read(page, '0.5', '5', '0', '0');
  const line = page.getByRole('button', { name: 'To the result' });
  await expect(line).toContainText('toward you');
  await expect(line).toBeInViewport();
  await page.locator('#reading').scrollIntoViewIfNeeded();
  await expect(line).toBeInViewport();
  expect(await page.evaluate(tooSmall)).toEqual([]);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await line.tap();
  await expect(call(page).locator('.large').first()).toBeInViewport();
});
