import { getDocumentProxy } from 'unpdf';
import { call, expect, read, test } from './shop.js';

/** Where texts begin on the pages of a PDF: page, mm from the left, and the text. */
async function textsOf(pdf: Buffer): Promise<{ page: number; x: number; text: string }[]> {
  const document = await getDocumentProxy(new Uint8Array(pdf));
  const found: { page: number; x: number; text: string }[] = [];
  for (let page = 1; page <= document.numPages; page++) {
    const { items } = await (await document.getPage(page)).getTextContent();
    for (const item of items) if ('str' in item) found.push({ page, x: (item.transform[4] * 25.4) / 72, text: item.str.trim() });
  }
  return found;
}

test('a cutting template is printed 1:1, with a bar to lay a rule on, its words on the same sheet', async ({ page, shop }) => {
  const id = crypto.randomUUID();
  const base = { length: '160 mm', width: '110 mm', bolt: '16 mm' };
  const card = { number: 'L-72', kind: 'engine-lathe', centreDistance: '1000 mm', base };
  await page.request.post(`${shop.address}/api/machines`, { data: { id, card, version: 1, by: 'HB' } });
  await page.goto(`${shop.address}/machines/${id}/bench/tailstock-traverse`);
  await page.getByLabel('I have read and done this').check();
  await page.getByLabel('Distance between centres').fill('420 mm');
  await page.getByLabel('One division').fill('0.002 mm');
  await page.getByText('it counts up').click();
  await page.getByRole('button', { name: 'Start the round' }).click();
  await read(page, '0', '0', '0', '-40', '0');
  await call(page).getByRole('link', { name: 'Job card for this move' }).click();
  await expect(page.locator('iso-shim-templates svg')).toBeVisible();

  const texts = await textsOf(await page.pdf({ format: 'A4', landscape: true }));
  const bar = texts.find(({ text }) => text === '50 mm');
  const zero = texts.filter(({ text, page: on }) => text === '0' && on === bar?.page).at(-1);
  expect(bar && zero && bar.x - zero.x).toBeGreaterThan(49.8);
  expect(bar && zero && bar.x - zero.x).toBeLessThan(50.2);
  const words = (of: typeof texts) =>
    of
      .map(({ text }) => text)
      .join(' ')
      .replace(/\s+/g, ' ');
  const onSheet = words(texts.filter(({ page: on }) => on === bar?.page));
  expect(onSheet).toContain('Lay a rule on the bar');
  expect(onSheet).toContain('Cutting template, 1:1');
  // Neither plate nor keys are printed.
  expect(words(texts)).not.toContain('mm or inch');
});

/** What a printer leaves free at its edges. */
const MARGIN = { top: '12mm', right: '12mm', bottom: '12mm', left: '12mm' };

test.describe('of the demo', () => {
  test.use({ demo: true });

  test('every job card is one page, and a set-up sheet has what was chosen and no examples', async ({ page, shop }) => {
    test.slow();
    const machines = (await (await page.request.get(`${shop.address}/api/machines`)).json()) as { id: string; card: { number: string } }[];
    const pages = async () => (await getDocumentProxy(new Uint8Array(await page.pdf({ format: 'A4', margin: MARGIN })))).numPages;
    for (const number of ['L-14', 'M-03', 'M-11', 'T-06']) {
      const id = machines.find(({ card }) => card.number === number)?.id ?? '';
      const heads = (await (await page.request.get(`${shop.address}/api/machines/${id}/rounds`)).json()) as {
        id: string;
        moves: { quantity: string }[];
      }[];
      const moved = heads.flatMap(({ id: round, moves }) => moves.map(({ quantity }) => `${round}/${quantity}`)).slice(-3);
      for (const move of moved) {
        await page.goto(`${shop.address}/machines/${id}/move/${move}`);
        await expect(page.locator('article ol').first()).toBeVisible();
        // A template 1:1 has a sheet of its own.
        const templates = await page.locator('iso-shim-templates').count();
        expect(await pages(), `${number} ${move}`).toBe(1 + templates);
      }
    }

    const lathe = machines.find(({ card }) => card.number === 'L-14')?.id ?? '';
    await page.goto(`${shop.address}/machines/${lathe}/bench/spindle-axis`);
    await expect(page.getByRole('heading', { name: 'Instrument in hand' })).toBeVisible();
    await page.emulateMedia({ media: 'print' });
    await expect(page.getByText('Read elsewhere, and saved as a sheet?')).toBeHidden();
    // What is chosen is told by more than a ground that no printer prints.
    const weights = await page
      .locator('iso-choices')
      .first()
      .evaluate((choices) =>
        Array.from(choices.querySelectorAll('label'), (label) => [label.classList.contains('on'), getComputedStyle(label).fontWeight]),
      );
    for (const [on, weight] of weights) expect(weight).toBe(on ? '700' : '400');
    expect(await pages()).toBeLessThanOrEqual(2);
  });
});
