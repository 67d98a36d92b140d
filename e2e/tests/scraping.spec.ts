import type { Page } from '@playwright/test';
import { expect, openMachine, test } from './shop.js';

test.use({ demo: true });

interface Face {
  readonly id: string;
  readonly name: string;
  readonly zones: readonly { readonly id: string; readonly outline: readonly { readonly x: number }[] }[];
  readonly width: number;
  readonly aim: { readonly lever: number };
  readonly entries: readonly { readonly kind: string; readonly content: Record<string, unknown> }[];
}

/** A pass of this hand takes so much, µm; the desk has to find that out. */
const HAND: Readonly<Record<string, number>> = { roughing: 9.4, finishing: 4.3 };

async function facesOf(page: Page, address: string): Promise<{ readonly machineId: string; readonly faces: readonly Face[] }> {
  const machines = (await (await page.request.get(`${address}/api/machines`)).json()) as { id: string; card: { number: string } }[];
  const machineId = machines.find(({ card }) => card.number === 'L-14')?.id ?? '';
  return { machineId, faces: (await (await page.request.get(`${address}/api/machines/${machineId}/surfaces`)).json()) as Face[] };
}

const now = async (page: Page): Promise<string> => ((await page.locator('p.now').textContent()) ?? '').trim();

/** Between passes the face is looked at: B, and the plan goes on. */
async function bluedAgain(page: Page, told: string): Promise<void> {
  await page.keyboard.press('b');
  await expect(page.locator('p.now')).not.toHaveText(told);
}

/** Whatever the metal is in truth: heights of the zones over the lowest, and what a measurement of them would say. */
class Metal {
  constructor(
    readonly face: Face,
    readonly heights: Map<string, number>,
  ) {}

  /** Work as the desk says, by the pedal, until it says something else. Passes made. */
  async work(page: Page, most = 80): Promise<number> {
    for (let i = 0; i < most; i++) {
      const step = await now(page);
      if (/look again/.test(step)) await bluedAgain(page, step);
      const told = await now(page);
      const pass = /^Zone (\d+): one (\w+) pass/.exec(told);
      if (!pass) return i;
      await page.keyboard.press('Space');
      await expect(page.locator('p.now')).not.toHaveText(told);
      this.heights.set(pass[1], (this.heights.get(pass[1]) ?? 0) - HAND[pass[2]]);
    }
    return most;
  }

  /** The wedge that is left, µm over the length of the face: least squares over its zones. */
  get wedge(): number {
    const places = this.face.zones.map(({ outline }) => outline.reduce((sum, { x }) => sum + x, 0) / outline.length - this.face.width / 2);
    const values = this.face.zones.map(({ id }) => this.heights.get(id) ?? 0);
    const [top, bottom] = places.reduce(([a, b], x, i) => [a + x * values[i], b + x * x], [0, 0]);
    return (-top / bottom) * this.face.width;
  }
}

/** Measured on the bench, and typed: M, the figure, its doubt, Enter. */
async function measure(page: Page, value: number, doubt: number): Promise<void> {
  await page.keyboard.press('m');
  await expect(page.getByRole('textbox', { name: 'What it reads' })).toBeFocused();
  await page.keyboard.type(value.toFixed(0));
  await page.keyboard.press('Tab');
  await page.keyboard.type(String(doubt));
  await page.keyboard.press('Enter');
  await expect(page.locator('.p-dialog')).toHaveCount(0);
}

test('the saddle of L-14 by pedal and keypad: passes where the desk says, photograph, measured, planned again, to parallel', async ({
  page,
  shop,
}) => {
  test.slow();
  const { machineId, faces } = await facesOf(page, shop.address);
  const face = faces.find(({ name }) => name === 'Saddle, flat way') as Face;
  const first = Number(face.entries.filter(({ kind }) => kind === 'measure').at(-1)?.content['value']);
  const wedge = first / face.aim.lever;
  const metal = new Metal(face, new Map(face.zones.map(({ id, outline }) => [id, wedge * (1 - outline[0].x / face.width)])));
  await page.goto(`${shop.address}/machines/${machineId}/scraping/${face.id}`);
  await expect(page.locator('p.now')).toHaveText(/^Zone \d: one roughing pass at (45|135)°\.$/);

  // A zone by its digit is a pass, and Backspace takes it back.
  const before = await page.locator('iso-face-drawing').textContent();
  await page.keyboard.press('1');
  await expect(page.locator('iso-face-drawing')).not.toHaveText(before ?? '');
  await page.keyboard.press('Backspace');
  await expect(page.locator('iso-face-drawing')).toHaveText(before ?? '');

  // The server is away: nothing is lost, and nobody has to wait.
  await page.context().setOffline(true);
  const made = await metal.work(page, 3);
  await page.context().setOffline(false);
  await expect(page.locator('.waiting')).toHaveCount(0);
  const counted = async () =>
    (await facesOf(page, shop.address)).faces.find(({ id }) => id === face.id)?.entries.filter(({ kind }) => kind === 'pass').length ?? 0;
  expect(await counted()).toBe(face.entries.filter(({ kind }) => kind === 'pass').length + 1 + made);

  let cycles = 0;
  for (let value = first; value > 14 && cycles < 12; cycles++) {
    await metal.work(page);
    await expect(page.locator('p.now')).toHaveText('Measure before more metal comes off.');
    value = Math.max(0, metal.wedge * face.aim.lever);
    await measure(page, value, 4);
    if (value <= 14) break;
    await page.keyboard.press('l');
    await page.getByRole('textbox', { name: 'Height of the wedge' }).fill(`${metal.wedge.toFixed(0)} um`);
    await page.getByRole('radiogroup', { name: 'The high end' }).getByText('end A').click();
    await page.getByRole('button', { name: 'Use this plan' }).click();
    await page.keyboard.press('b');
  }
  expect(metal.wedge * face.aim.lever).toBeLessThanOrEqual(14);
  expect(cycles).toBeLessThan(12);
  await expect(page.locator('.call')).toContainText(/A roughing pass takes (9|10)\.\d µm, learned from/);

  // The print is photographed, read in the browser, and kept.
  const print = face.entries.find(({ kind }) => kind === 'print')?.content as { picture: string };
  const photo = await (await page.request.get(`${shop.address}/api/pictures/${print.picture}`)).body();
  await page.keyboard.press('b');
  await page.keyboard.press('p');
  await page.getByLabel('A photograph').setInputFiles({ name: 'print.jpg', mimeType: 'image/jpeg', buffer: photo });
  await page.getByRole('button', { name: 'The photograph is the whole face' }).click();
  await expect(page.locator('iso-print-panel .found')).toContainText(/\d+ spots, \d+\.\d per square inch; \d+ % bears/);
  await page.getByRole('button', { name: 'Save print' }).click();
  await expect(page.locator('figure')).toHaveCount(4);
  await expect(page.locator('.call')).toContainText('spots per square, wanted 10 to 15');

  await page.keyboard.press('d');
  await page.getByRole('button', { name: 'Accept it' }).click();
  await page.getByRole('textbox', { name: 'Why' }).fill('squareness within 20, contact enough for an oiled way');
  await page.keyboard.press('Enter');
  await expect(page.locator('p.now')).toHaveText('Accepted. No more work on this face.');
  await page.reload();
  await expect(page.locator('p.now')).toHaveText('Accepted. No more work on this face.');
});

test('the dovetail that is being scraped is found from its rung, and worked off by its digits to the last pass', async ({ page, shop }) => {
  await openMachine(page, shop.address, 'L-14');
  await page.getByRole('link', { name: 'scraped: Cross slide, front flank' }).click();
  await expect(page.locator('p.now')).toHaveText(/^Zone 3: one roughing pass/);
  // Its drawing is mirrored, as the face is seen from below: end A lies at the right.
  const [a, b] = await Promise.all(
    ['end A', 'end B'].map(async (end) => (await page.getByText(end, { exact: true }).boundingBox())?.x ?? 0),
  );
  expect(a).toBeGreaterThan(b);
  // The pins tell where it is wide, the straightedge which flank that is: this one, as the rear one bears evenly.
  await page.keyboard.press('l');
  const dialog = page.locator('.p-dialog');
  await dialog.getByText('widths over pins').click();
  await expect(dialog).toContainText('29.0 µm at 143 mm');
  await dialog.getByRole('radiogroup', { name: 'Places counted from' }).getByText('end A').click();
  await expect(dialog).toContainText(
    'the straightedge is high there on this flank; Cross slide, rear flank bears evenly. All of it comes off',
  );
  await expect(dialog).toContainText('Most comes off zone 3: 23.7 µm.');
  // Counted from the other end the straightedge is high somewhere else: no flank is named.
  await dialog.getByRole('radiogroup', { name: 'Places counted from' }).getByText('end B').click();
  await expect(dialog).toContainText('no flank is named on that');
  await dialog.getByRole('radiogroup', { name: 'Places counted from' }).getByText('end A').click();
  await dialog.getByRole('button', { name: 'Use this plan' }).click();
  await expect(dialog).toHaveCount(0);
  for (let i = 0; i < 20; i++) {
    const step = await now(page);
    if (/look again/.test(step)) await bluedAgain(page, step);
    const zone = /^Zone (\d)/.exec(await now(page))?.[1];
    if (!zone) break;
    const told = await page.locator('iso-face-drawing').textContent();
    await page.keyboard.press(zone);
    await expect(page.locator('iso-face-drawing')).not.toHaveText(told ?? '');
  }
  await expect(page.locator('p.now')).toHaveText('Measure before more metal comes off.');
  await measure(page, 4, 3);
  await expect(page.locator('.call')).toContainText('0.004 mm ± 0.003 mm, at most 0.010 mm either way');
  // The rung that it is scraped true by was read before: metal came off since.
  await expect(page.locator('.figure')).toContainText('0');
});

test('a wrong file, one of 200 megapixels and a photograph without blue each get a clear answer', async ({ page, shop }) => {
  const { machineId, faces } = await facesOf(page, shop.address);
  await page.goto(`${shop.address}/machines/${machineId}/scraping/${faces[0].id}`);
  await page.getByRole('button', { name: 'Read a print' }).click();
  const panel = page.locator('iso-print-panel');
  const give = (name: string, buffer: Buffer) => page.getByLabel('A photograph').setInputFiles({ name, mimeType: 'image/png', buffer });
  await give('notes.png', Buffer.from('these are words'));
  await expect(panel).toContainText('The photograph is no picture that can be read.');
  const huge = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==', 'base64');
  huge.writeUInt32BE(20_000, 16);
  huge.writeUInt32BE(10_000, 20);
  await give('huge.png', huge);
  await expect(panel).toContainText('The photograph has 200 megapixels, more than 24.');
  const grey = await page.evaluate(() => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [300, 60];
    const pencil = canvas.getContext('2d') as CanvasRenderingContext2D;
    pencil.fillStyle = '#8d8e8c';
    pencil.fillRect(0, 0, 300, 60);
    return canvas.toDataURL('image/png').split(',')[1];
  });
  await give('plain.png', Buffer.from(grey, 'base64'));
  await page.getByRole('button', { name: 'The photograph is the whole face' }).click();
  await expect(panel).toContainText('No blue is seen in the photograph.');
  await expect(panel.locator('.found')).toContainText('0 spots, 0.0 per square inch; 0 % bears');

  // The same desk on a phone: a wide face is moved under the finger, the rest of the page stays where it is.
  await page.keyboard.press('Escape');
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(page.locator('iso-edge-turns svg')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  const slide = await page.getByLabel('Pushed at end A it turns at').boundingBox();
  expect((slide?.x ?? 999) + (slide?.width ?? 0)).toBeLessThanOrEqual(390);
  // Its keys stay behind when it is left: Space on the list of machines is no pass.
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole('link', { name: 'Machines', exact: true }).click();
  await page.locator('.plate b').first().waitFor();
  await page.keyboard.press(' ');
  await page.keyboard.press('1');
  await page.keyboard.press('b');
  await page.goto(`${shop.address}/machines/${machineId}/scraping/${faces[0].id}`);
  await page.locator('iso-face-drawing svg').waitFor();
  const after = (await facesOf(page, shop.address)).faces.map(({ entries }) => entries.length);
  expect(after).toEqual(faces.map(({ entries }) => entries.length));
});
