import type { Page } from '@playwright/test';
import { expect, tabTo, test } from './shop.js';

const now = async (page: Page): Promise<string> => ((await page.locator('p.now').textContent()) ?? '').trim();

/** A key, and what comes now is another thing. */
async function press(page: Page, key: string): Promise<void> {
  const told = await now(page);
  await page.keyboard.press(key);
  await expect(page.locator('p.now')).not.toHaveText(told);
}

/** The marks under the straightedge, by the arrow keys: where it turned, pushed at both ends. */
async function push(page: Page, a: number, b: number): Promise<void> {
  for (const [end, at] of [
    ['A', a],
    ['B', b],
  ] as const) {
    await tabTo(page, `Pushed at end ${end} it turns at`);
    await page.keyboard.press('Home');
    const label = page.getByText(new RegExp(`^pushed at ${end}: \\d+ mm$`));
    const reads = async () => Number(/(\d+) mm/.exec((await label.textContent()) ?? '')?.[1] ?? NaN);
    await expect.poll(reads).toBe(0);
    // On a busy machine the words come after the key: the next one is pressed once they have.
    for (let i = 0, before = 0; i < 400 && before < at; i++) {
      await page.keyboard.press('ArrowRight');
      await expect.poll(reads).toBeGreaterThan(before);
      before = await reads();
    }
    expect(Math.abs((await reads()) - at)).toBeLessThanOrEqual(5);
  }
  await page.keyboard.press('h');
}

/**
 * The truth: a plate 500 mm long that stands 40 µm proud in zone 2, and nowhere else. Its heights were read from the wrong end, so that
 * the plan takes zone 4 for the proud one. A pass takes 12 µm.
 */
test('a plan made from the wrong end is stopped by the straightedge, before more than two passes are gone', async ({ page, shop }) => {
  const [machineId, id] = [crypto.randomUUID(), crypto.randomUUID()];
  const by = 'HB';
  await page.request.post(`${shop.address}/api/machines`, {
    data: { id: machineId, card: { number: 'L-80', kind: 'engine-lathe' }, version: 1, by },
  });
  const zones = [1, 2, 3, 4, 5].map((number) => ({
    ...{ id: String(number), use: 'bear' },
    outline: [
      { x: 100 * (number - 1), y: 0 },
      { x: 100 * number, y: 0 },
      { x: 100 * number, y: 60 },
      { x: 100 * (number - 1), y: 60 },
    ],
  }));
  const face = {
    ...{ id, machineId, name: 'Surface plate', part: 'something else', use: 'general', target: null, material: 'iron', liner: null },
    ...{ width: 500, height: 60, turned: 0, mirrored: false, zones, version: 1, aim: null },
    reference: { kitId: null, name: 'straightedge', length: 500 },
    passes: { rough: 12, fine: 5, keepFine: 2 },
    evening: { session: 150, setUp: 20, cycle: 25 },
  };
  expect((await page.request.post(`${shop.address}/api/surfaces`, { data: { ...face, by } })).ok()).toBe(true);
  await page.goto(`${shop.address}/machines/${machineId}/scraping/${id}`);
  await page.locator('p.now').waitFor();

  // Heights of the five zones, as they were read from the other end.
  await page.keyboard.press('l');
  const dialog = page.locator('.p-dialog');
  await dialog.getByText('heights', { exact: false }).first().click();
  for (const [i, height] of ['0', '0', '0', '40 um', '0'].entries()) {
    await dialog.getByRole('textbox', { name: `Height of zone ${i + 1}` }).fill(height);
  }
  await dialog.getByRole('button', { name: 'Use this plan' }).click();
  await expect(page.locator('p.now')).toHaveText(/^Zone 4: one roughing pass/);

  const heights = [0, 40, 0, 0, 0];
  const work = async () => {
    const zone = Number(/^Zone (\d)/.exec(await now(page))?.[1]);
    heights[zone - 1] -= 12;
    await press(page, 'Space');
  };
  await work();
  await work();
  await expect(page.locator('p.now')).toHaveText('2 passes: look again, or measure.');
  // The pedal does nothing until somebody has looked.
  await page.keyboard.press('Space');
  await expect(page.getByText('No zone is yellow.')).toBeVisible();

  // It rests on zone 2 alone and turns about it.
  await push(page, 160, 140);
  await expect(page.locator('p.now')).toHaveText('Plan and straightedge disagree: which is right?');
  await expect(page.locator('.call')).toContainText('it turns as if it bore about 150 mm');
  await tabTo(page, 'Go by the straightedge');
  await page.keyboard.press('Enter');
  await expect(page.locator('p.now')).toHaveText(/^Zone 2: one roughing pass/);
  await work();
  expect(heights[1]).toBe(28);

  // Blued, and told by eye: zone 2 is heavy still, zone 4 bare by the two passes that went wrong.
  await press(page, 'b');
  await page.keyboard.press('p');
  await dialog.getByRole('button', { name: 'Count by eye' }).click();
  for (const [zone, blue] of [
    ['1', 'light'],
    ['2', 'heavy'],
    ['3', 'light'],
    ['4', 'bare'],
    ['5', 'light'],
  ] as const)
    await dialog
      .getByRole('radiogroup', { name: `Zone ${zone} is` })
      .getByText(blue)
      .click();
  await dialog.getByRole('button', { name: 'Save count' }).click();
  await expect(page.locator('p.now')).toHaveText(/^Zone 2: one finishing pass/);

  // A pass was made before the blue and not written down: it is put in there, and counted.
  await page.getByRole('button', { name: 'Edit entries' }).click();
  await dialog.getByRole('button', { name: /^A pass was forgotten before: Blued/ }).click();
  await dialog.getByRole('radiogroup', { name: 'Zone of the forgotten pass' }).getByText('2', { exact: true }).click();
  await dialog.getByRole('button', { name: 'Put it in before' }).click();
  await expect(dialog.locator('li').filter({ hasText: 'Zone 2: one roughing pass' })).toHaveCount(2);
  const rows = await dialog.locator('li').allTextContents();
  const blued = rows.findIndex((row) => /Blued/.test(row));
  expect(rows[blued + 1]).toMatch(/Zone 2: one roughing pass/);
});
