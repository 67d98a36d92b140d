import { addLathe, beginRound, call, expect, read, test } from './shop.js';

test('a place is dragged on the drawing in a begun round: what was read there goes with it', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-9');
  await beginRound(page, /^Measure$/, { 'Distance between centres': '420 mm' }, '0.002 mm');
  await read(page, '0', '-9.5');
  await expect(call(page)).toContainText('Bring it 0.021 mm toward you.');
  const marks = page.locator('.sketch g.mark path');
  const [near, far] = [(await marks.nth(0).boundingBox())!, (await marks.nth(1).boundingBox())!];
  const middle = (box: typeof near) => ({ x: box.x + box.width / 2, y: box.y + box.height / 2 });
  // Half way back toward the headstock.
  await page.mouse.move(middle(far).x, middle(far).y);
  await page.mouse.down();
  await page.mouse.move((middle(near).x + middle(far).x) / 2, middle(far).y + 3, { steps: 6 });
  await page.mouse.up();
  // 378 mm between the two places; half of it is 189: the same 19 µm there is twice the error of the tailstock.
  await expect(call(page)).toContainText(/Bring it 0\.042 mm toward you\./);
  await page.reload();
  await expect(call(page)).toContainText(/Bring it 0\.042 mm toward you\./);
});
