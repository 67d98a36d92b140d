import ICAL from 'ical.js';
import type { Page } from '@playwright/test';
import { expect, test } from './shop.js';

test.use({ demo: true });

const machine = async (page: Page, url: string, number: string): Promise<string> => {
  const machines = (await (await page.request.get(`${url}/api/machines`)).json()) as { id: string; card: { number: string } }[];
  return machines.find(({ card }) => card.number === number)?.id ?? '';
};
/** The day that a plan names, as days since 1970, once its draws are done. */
async function named(page: Page): Promise<number> {
  await expect(page.getByRole('button', { name: 'Stop' })).toHaveCount(0, { timeout: 120_000 });
  const date = page.getByRole('region', { name: 'When it is done' }).locator('.large');
  await expect(date).toHaveText(/\d+ \w+ 20\d\d/, { timeout: 60_000 });
  return Date.parse(`${await date.textContent()} UTC`) / 86_400_000;
}
const inDays = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

/** Hours of somebody, told on the page of the shop. */
async function works(page: Page, who: string, hours: Readonly<Record<string, string>>, away = ''): Promise<void> {
  await page.goto(new URL('/shop', page.url()).href);
  await page.getByRole('button', { name: `Hours of ${who}` }).click();
  for (const [day, many] of Object.entries(hours)) await page.getByRole('textbox', { name: `Hours of ${who} on ${day}` }).fill(many);
  await page.getByRole('textbox', { name: `Days on which ${who} is away` }).fill(away);
  await page.getByRole('button', { name: 'Keep the hours' }).click();
  await expect(page.getByRole('button', { name: 'Keep the hours' })).toHaveCount(0);
}

test('from today to its date: a part that comes late, evenings that are lost, a second person', async ({ page, shop }) => {
  await page.goto(shop.address);
  await page.getByRole('textbox', { name: 'Your initials' }).fill('HB');
  const plan = `/machines/${await machine(page, shop.address, 'L-14')}/plan`;
  await page.goto(`${shop.address}${plan}`);
  const first = await named(page);
  expect(first).toBeGreaterThan(Date.now() / 86_400_000);
  await expect(page.getByRole('list', { name: 'What decides the date' })).toContainText('Read');

  await page.getByRole('button', { name: 'Settle Wait for part 1, Saddle wiper, front otherwise' }).click();
  await page.locator('iso-plan-edit iso-day input').click();
  await page.keyboard.press('Control+A');
  await page.keyboard.type(inDays(30));
  await page.keyboard.press('Tab');
  await page.getByRole('textbox', { name: 'Reason' }).fill('the supplier wrote');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('list', { name: 'What is left to do' })).toContainText('HB: the supplier wrote');
  await expect.poll(() => named(page), { timeout: 60_000 }).toBeGreaterThan(first + 7);
  const late = await named(page);
  await expect(page.getByRole('list', { name: 'What decides the date' })).toContainText('Wait for part 1, Saddle wiper, front');

  // The evenings after it are lost as well.
  await works(page, 'HB', { Tuesday: '3', Thursday: '3', Saturday: '4' }, Array.from({ length: 12 }, (_, i) => inDays(29 + i)).join(', '));
  await page.goto(`${shop.address}${plan}`);
  await expect.poll(() => named(page), { timeout: 60_000 }).toBeGreaterThan(late);
  const lost = await named(page);

  await works(page, 'EK', { Monday: '4', Wednesday: '4', Friday: '4' });
  await page.goto(`${shop.address}${plan}`);
  await expect.poll(() => named(page), { timeout: 60_000 }).toBeLessThan(lost);
  await expect(page.getByText('Planned with EK (Mon 4 h, Wed 4 h, Fri 4 h); HB')).toBeVisible();
});

test('with the mouse: an item is dragged, oil comes round again and waits for its next turn', async ({ page, shop }) => {
  await page.goto(`${shop.address}/machines/${await machine(page, shop.address, 'L-14')}/plan`);
  const rows = page.getByRole('list', { name: 'What is left to do' }).getByRole('listitem');
  await expect(rows.first()).toContainText('Clean part 6, Apron casting');
  const [from, to] = [rows.nth(1).locator('.kind'), rows.nth(0)];
  await from.hover();
  await page.mouse.down();
  const box = await to.boundingBox();
  for (const part of [0.8, 0.5, 0.2]) await page.mouse.move((box?.x ?? 0) + 30, (box?.y ?? 0) + part * (box?.height ?? 0), { steps: 6 });
  await page.mouse.up();
  await expect(rows.first()).toContainText('Clean part 4, Half nut gib');

  await page.getByRole('button', { name: 'Add an item' }).click();
  await page.getByRole('textbox', { name: 'What is to be done' }).fill('Oil the ways');
  await page.getByRole('textbox', { name: 'Minutes of work' }).fill('20');
  await page.getByRole('textbox', { name: 'Comes round again every' }).fill('2 weeks');
  await page.getByRole('button', { name: 'Add it' }).click();
  const oil = rows.filter({ hasText: 'Oil the ways' });
  await oil.getByRole('button', { name: 'Done' }).click();
  await expect(oil).toHaveCount(0);
  await expect(page.getByRole('list', { name: 'Comes round again' })).toContainText(/every 2 weeks; next on \d+ \w+ 20\d\d; last done/);
  await page.getByRole('link', { name: 'Planner' }).first().click();
  await page.goto(`${shop.address}/due`);
  await expect(page.getByRole('link', { name: 'Oil the ways, every 2 weeks' })).toBeVisible();
});

test('keys only: another order, a place that is barred, an item that nobody could know of', async ({ page, shop }) => {
  await page.goto(`${shop.address}/machines/${await machine(page, shop.address, 'L-14')}/plan`);
  const rows = page.getByRole('list', { name: 'What is left to do' }).getByRole('listitem');
  await expect(rows.first()).toContainText('Clean part 6, Apron casting');
  await named(page);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Alt+ArrowUp');
  await expect(rows.first()).toContainText('Clean part 4, Half nut gib');
  const fit = rows.filter({ hasText: 'Put back part 6, Apron casting' });
  await fit.locator('.title').focus();
  for (let i = 0; i < 8; i++) await page.keyboard.press('Alt+ArrowUp');
  await expect(page.getByText('“Put back part 6, Apron casting” cannot be done before it.')).toBeVisible();
  await page.keyboard.press('a');
  await page.keyboard.type('Borrow the engine hoist');
  await expect(page.getByLabel('What is to be done')).toHaveValue('Borrow the engine hoist');
  await page.keyboard.press('Tab');
  await page.keyboard.type('1 h 30');
  await page.keyboard.press('Enter');
  await expect(rows.filter({ hasText: 'Borrow the engine hoist' })).toContainText('1 h 30');
});

test('tonight on a phone: what fits, then what was done and what was left open', async ({ page, shop }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const id = await machine(page, shop.address, 'L-14');
  await page.goto(`${shop.address}/machines/${id}/tonight`);
  const list = page.getByRole('list', { name: 'What fits tonight' });
  await expect(list.getByRole('listitem').first()).toContainText('Clean part 6');
  await page.getByRole('textbox', { name: 'How long the evening is' }).fill('1 h 10');
  await page.keyboard.press('Tab');
  await expect(list.getByRole('listitem')).toHaveCount(2);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await list.getByRole('checkbox').first().check();
  await page.reload();
  await expect(list.getByRole('checkbox').first()).toBeChecked();
  await page.getByRole('button', { name: 'Done for tonight' }).click();
  await expect(page.getByText('is in the logbook')).toBeVisible();
  await page.goto(`${shop.address}/machines/${id}/logbook`);
  await expect(page.getByText('Done: Clean part 6, Apron casting.')).toBeVisible();
  await expect(page.getByText('Left open: Clean part 4, Half nut gib.')).toBeVisible();
});

test('the board and what is due lead on; the calendar is read by another program until its address is revoked', async ({ page, shop }) => {
  await page.goto(`${shop.address}/planner`);
  await expect(page.locator('.piece').first()).toBeVisible({ timeout: 30_000 });
  await page.keyboard.press('w');
  await expect(page.getByRole('rowheader', { name: /L-14/ })).toContainText('done about');
  await page.getByRole('link', { name: 'What is due' }).click();
  await expect(page.getByRole('heading', { name: 'Overdue' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Whose calendar' }).fill('Kitchen tablet');
  await page.getByRole('button', { name: 'Make an address' }).click();
  const address = await page.getByRole('textbox', { name: /The new address/ }).inputValue();
  const answer = await page.request.get(address);
  const events = new ICAL.Component(ICAL.parse(await answer.text())).getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
  expect(events.some(({ summary }) => summary.startsWith('L-14: '))).toBe(true);
  expect(events.some(({ summary }) => summary.includes('certified'))).toBe(true);
  // Sessions begin at the hours of the shop, by its own clock.
  await page.getByRole('button', { name: 'Revoke the address of Kitchen tablet' }).click();
  await expect(page.getByRole('button', { name: 'Revoke the address of Kitchen tablet' })).toHaveCount(0);
  expect((await page.request.get(address)).status()).toBe(404);
});

test('is it worth it: three answers side by side, each with its hours, its cost and what stays out', async ({ page, shop }) => {
  await page.goto(`${shop.address}/machines/${await machine(page, shop.address, 'V-20')}/worth-it`);
  const leave = page.getByRole('region', { name: 'Leave it, and use it so' });
  await expect(leave).toContainText('What the work would suffer');
  await expect(page.getByRole('region', { name: 'Adjust only' })).toContainText(/about [\d,]+ EUR/, { timeout: 30_000 });
  await expect(page.getByRole('region', { name: 'Rebuild' })).toContainText(/done about \d+ \w+ 20\d\d/, { timeout: 30_000 });
});

test('after a crash one key opens again what it puts in doubt, with the reason', async ({ page, shop }) => {
  await page.goto(`${shop.address}/machines/${await machine(page, shop.address, 'M-03')}/plan`);
  await named(page);
  await page.keyboard.press('x');
  await page.getByText('It crashed', { exact: true }).click();
  await expect(page.getByText(/checks will be read again, because the machine crashed\./)).toBeVisible();
  await page.getByRole('textbox', { name: 'In your words' }).fill('vice left the table');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByRole('list', { name: 'What is left to do' })).toContainText('the machine crashed: read it again', {
    timeout: 20_000,
  });
  await page.goto(`${shop.address}/logbook`);
  await expect(page.getByText('The machine crashed: vice left the table')).toBeVisible();
});
