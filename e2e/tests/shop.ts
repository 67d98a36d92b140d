import { test as base, expect, type Page } from '@playwright/test';
import { throwAwayDatabase, type Database } from '../../tools/database.mjs';
import { serve, type Served } from '../../tools/served.mjs';

/** A shop of its own for every test: server and database. `demo` decides what is in it. */
export const test = base.extend<{ demo: boolean; shop: Served }, { mariadb: Database }>({
  mariadb: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const mariadb = await throwAwayDatabase();
      await use(mariadb);
      await mariadb.stop();
    },
    { scope: 'worker' },
  ],
  demo: [false, { option: true }],
  // What breaks in the browser fails the story, also where the screen looks whole.
  page: async ({ page }, use) => {
    if (process.env['SLOW_API']) await slowDown(page);
    const broken: string[] = [];
    page.on('pageerror', (error) => broken.push(error.message));
    page.on('console', (message) => message.type() === 'error' && message.text().startsWith('ERROR') && broken.push(message.text()));
    await use(page);
    expect(broken).toEqual([]);
  },
  shop: async ({ demo, mariadb, page }, use) => {
    const shop = await serve({ demo, within: mariadb });
    await use(shop);
    // What the last screen still asks for when the story is over is not asked of a server that stops.
    await page.goto('about:blank', { timeout: 5000 }).catch(() => undefined);
    await shop.stop();
  },
});

/** Every answer of the API after a delay of its own, up to a second and a half: answers come out of order, as on a bad network. */
async function slowDown(page: Page): Promise<void> {
  await page.route('**/api/**', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, Math.random() * 1500));
    // The page may have gone meanwhile.
    await route.continue().catch(() => undefined);
  });
}

export { expect };

/** What the keyboard is on: its label, its text or its name. */
const focused = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const element = document.activeElement as HTMLElement | null;
    if (!element) return '';
    const by = element.getAttribute('aria-labelledby');
    const named = by ? document.getElementById(by)?.textContent : '';
    const labels = (element as HTMLInputElement).labels;
    const label = labels?.length ? labels[0].textContent : '';
    return (named || element.getAttribute('aria-label') || label || element.textContent || '').trim().replace(/\s+/g, ' ');
  });

/** Press Tab until the keyboard is on what is called `name`: once round and again, since on a busy machine the page may still come. */
export async function tabTo(page: Page, name: string | RegExp): Promise<void> {
  await expect(async () => {
    const seen: string[] = [];
    for (let i = 0; i < 90; i++) {
      const now = await focused(page);
      if (typeof name === 'string' ? now === name : name.test(now)) return;
      seen.push(now);
      await page.keyboard.press('Tab');
    }
    throw new Error(`the keyboard never came to ${String(name)}; it came past ${[...new Set(seen)].join(' | ')}`);
  }).toPass({ timeout: 30_000 });
}

/** Type into the field called `name`, by keyboard alone. */
export async function typeInto(page: Page, name: string | RegExp, text: string): Promise<void> {
  await tabTo(page, name);
  await page.keyboard.press('Control+A');
  await page.keyboard.type(text);
}

/** One out of a list that opens. */
export async function pick(page: Page, label: string, option: string): Promise<void> {
  await page.getByRole('combobox', { name: label }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
}

/** Readings on the bench, each with Enter. */
export async function read(page: Page, ...readings: string[]): Promise<void> {
  await expect(page.locator('#reading')).toBeFocused();
  for (const reading of readings) {
    await page.keyboard.type(reading);
    await page.keyboard.press('Enter');
    await expect(page.locator('#reading')).toHaveValue('');
  }
}

/** All steps of a job card are done, though nobody ticked them: it is asked once. */
export async function allDone(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Done: start/ }).click();
  await page.getByRole('button', { name: /^All steps are done/ }).click();
}

/** Add a lathe, by keyboard alone; ends on its page. */
export async function addLathe(page: Page, address: string, number: string): Promise<void> {
  await page.goto(`${address}/machines`);
  await tabTo(page, 'Add a machine');
  await page.keyboard.press('Enter');
  await typeInto(page, 'Shop number', number);
  await tabTo(page, 'engine lathe');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('combobox', { name: 'Kind' })).toContainText('engine lathe');
  await typeInto(page, 'Between centres', '1000');
  await typeInto(page, 'Adjuster screw pitch', '1.5 mm');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Is the tailstock in line?' })).toBeVisible();
}

/** A new lathe in an empty shop, in the units of its screen, with as few keys as it takes; ends on its card with the kind chosen. */
export async function newLathe(page: Page, address: string, number: string, system: 'mm' | 'inch'): Promise<void> {
  const { keyboard } = page;
  await page.goto(address);
  await expect(page.getByText('No machine here yet')).toBeVisible();
  if (system === 'inch') await keyboard.press('u');
  await keyboard.press('a');
  await expect(page.getByLabel('Shop number')).toBeFocused();
  await keyboard.type(number);
  await tabTo(page, 'engine lathe');
  await keyboard.press('Enter');
}

/** Choose a way to check and describe the set-up, by keyboard alone. */
export async function beginRound(page: Page, way: RegExp, setup: Readonly<Record<string, string>>, graduation?: string): Promise<void> {
  await tabTo(page, way);
  await page.keyboard.press('Enter');
  await tabTo(page, 'I have read and done this');
  await page.keyboard.press('Space');
  for (const [field, text] of Object.entries(setup)) await typeInto(page, field, text);
  if (graduation) await typeInto(page, 'One division', graduation);
  await page.keyboard.press('Enter');
  await expect(page.locator('#reading')).toBeFocused();
}

/** The call column, as text. */
export const call = (page: Page) => page.getByRole('region', { name: 'The result' });

/** The id of a machine by its number. */
export async function machineId(page: Page, address: string, number: string): Promise<string> {
  const machines = (await (await page.request.get(`${address}/api/machines`)).json()) as { id: string; card: { number: string } }[];
  const found = machines.find(({ card }) => card.number === number);
  if (!found) throw new Error(`the demo has no ${number}`);
  return found.id;
}

/** The page of a machine that is in the shop already. */
export async function openMachine(page: Page, address: string, number: string): Promise<void> {
  await page.goto(`${address}/machines`);
  await page
    .getByRole('link', { name: new RegExp(number) })
    .first()
    .click();
  await expect(page.locator('iso-ladder li').first()).toBeVisible();
}

/** Keys that have been pressed on a page since, in order: a letter is one, a chord is one. */
export function countKeys(page: Page): () => readonly string[] {
  const pressed: string[] = [];
  const { keyboard } = page;
  const [press, type] = [keyboard.press.bind(keyboard), keyboard.type.bind(keyboard)];
  keyboard.press = (key, ...rest) => (pressed.push(key), press(key, ...rest));
  keyboard.type = (text, ...rest) => (pressed.push(...text), type(text, ...rest));
  return () => pressed;
}
