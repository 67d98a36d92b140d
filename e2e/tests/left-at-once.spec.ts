import { expect, test } from './shop.js';

test('a reading that is taken in the breath in which the page is left is not lost', { tag: '@short' }, async ({ page, shop }) => {
  const id = crypto.randomUUID();
  await page.request.post(`${shop.address}/api/machines`, {
    data: { id, card: { number: 'M-70', kind: 'turret-mill' }, version: 1, by: 'HB' },
  });
  await page.goto(`${shop.address}/machines/${id}/bench/head-tram`);
  await page.getByLabel('I have read and done this').check();
  await page.getByLabel('Radius of the sweep').fill('100 mm');
  await page.getByLabel('One division').fill('0.002 mm');
  await page.getByText('it counts up').click();
  await page.getByRole('button', { name: 'Start the round' }).click();
  await page.waitForSelector('#reading');
  // Four readings are taken and the page is left within one task: nothing that waits for anything has had its turn.
  await page.evaluate(() => {
    const field = document.querySelector<HTMLInputElement>('#reading');
    for (const value of ['3', '1', '-3', '-1']) {
      if (!field) return;
      field.value = value;
      field.dispatchEvent(new Event('input'));
      field.form?.requestSubmit();
    }
    location.reload();
  });
  await page.waitForLoadState();
  await page.waitForSelector('#reading');
  const values = () =>
    page.evaluate(async (machine) => {
      const told = async (path: string): Promise<unknown> => (await fetch(`/api/${path}`)).json();
      const [{ id: round }] = (await told(`machines/${machine}/heads`)) as { id: string }[];
      const { readings } = (await told(`rounds/${round}`)) as { readings: { value: string }[] };
      return readings.map(({ value }) => value);
    }, id);
  await expect.poll(values).toEqual(['3 div', '1 div', '-3 div', '-1 div']);
});
