import { addLathe, allDone, beginRound, call, expect, read, test } from './shop.js';

test('a round that contradicts itself rules nothing, and is put right by reading one place again', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-31');
  await page.locator('iso-ladder a[href$="bench/bed-twist"]').click();
  await page.getByLabel('I have read and done this').check();
  await page.getByLabel('One division').fill('5 um/m');
  await page.getByRole('button', { name: 'Start the round' }).click();
  // The bed twists by 50 µm/m per metre; the last figure is typed without its decimal point.
  await read(page, '0', '0', '5', '-5', '10', '-100');
  await expect(call(page).locator('h2').first()).toContainText('Too close to call');
  await expect(call(page)).toContainText('contradicts the others');
  await expect(call(page)).toContainText('A decimal point in the wrong place?');
  await expect(call(page).getByRole('link', { name: 'Job card for this move' })).toHaveCount(0);

  await page.keyboard.press('r');
  await read(page, '-10');
  await expect(call(page)).toContainText('was read again: the first reading contradicted the others, the second fits them and counts');
  await expect(call(page)).not.toContainText('A decimal point in the wrong place?');
  await expect(call(page).locator('h2').first()).toContainText('Out');
  await expect(call(page)).toContainText('your side rising toward the tailstock');
  await expect(call(page)).toContainText('50 µm/m per m');
});

test('a shim at the wrong truck: it is told on the bench, and goes out again before another goes in', async ({ page, shop }) => {
  const id = crypto.randomUUID();
  const card = { number: 'V-41', kind: 'machining-centre', trucks: { spacing: '320 mm' } };
  await page.request.post(`${shop.address}/api/machines`, { data: { id, card, version: 1, by: 'HB' } });
  const round = async (last: number, first = false) => {
    await page.goto(`${shop.address}/machines/${id}/bench/axis-squareness`);
    await page.getByLabel('I have read and done this').check();
    if (first) {
      await page.getByLabel('One division').fill('0.002 mm');
      await page.getByText('it counts up').click();
      await page.getByRole('radiogroup', { name: 'Stylus, on the reference leg' }).getByText('the column side').click();
      await page.getByRole('radiogroup', { name: 'Stylus, on the test leg' }).getByText('the right').click();
      await page.getByRole('radiogroup', { name: 'Flipped over, on the reference leg' }).getByText('as before').click();
      await page.getByRole('radiogroup', { name: 'Flipped over, on the test leg' }).getByText('as before').click();
    }
    await page.getByRole('button', { name: 'Start the round' }).click();
    const leg = ['0', String(last), '0'];
    await read(page, '0', '0', '0', ...leg, '0', '0', '0', ...leg);
  };
  const job = page.locator('iso-job-card');
  const toCard = () => call(page).getByRole('link', { name: 'Job card for this move' }).click();

  await round(24, true);
  // Nobody said on which side of the truck its shoulder is: the call stands all the same, and its card asks for that.
  await expect(call(page)).toContainText('Turn it 0.072 mm in 300 mm');
  await toCard();
  const lacks = job.getByRole('region', { name: 'What the plan lacks' });
  await expect(lacks).toContainText('Shoulder of the master rail’s trucks? The result is complete.');
  await expect(job).not.toContainText('hardware');
  await expect(lacks.getByRole('radio', { checked: true })).toHaveCount(0);
  await lacks.getByText('on their left').click();
  await lacks.getByRole('button', { name: 'Save it on the machine card' }).click();
  await expect(job).toContainText('Lay in 0.077 mm between the rear truck and its shoulder');
  await allDone(page);

  // It went in at the front one: what was 240 µm/m is now 480.
  await round(48);
  await expect(call(page)).toContainText('The last move went the wrong way');
  await expect(call(page)).toContainText('Take out what was put in first: see the job card.');
  await expect(page.locator('iso-ladder li', { hasText: 'Squareness of the axes' }).first()).toContainText('last move: wrong way');
  await toCard();
  await expect(job).toContainText('Take out what was put in (0.072 mm in 300 mm) first');
  await expect(job).not.toContainText('Lay in');
  const second = page.url();
  await page.goto(`${shop.address}/machines`);
  await expect(page.locator('main, body').first()).toContainText('wrong way');
  await page.goto(second);
  await page.getByRole('button', { name: 'The shims are out' }).click();
  await expect(job).toContainText('It is out again. Read a new round before anything else is put in.');
  await page.goto(`${shop.address}/machines`);
  await expect(page.locator('main, body').first()).toContainText('It was moved: read it again');

  // It is out again, and the round is as it was: the card is given as at first.
  await round(24);
  await expect(call(page)).not.toContainText('went the wrong way');
  await expect(call(page)).not.toContainText('nothing was moved in between');
  await toCard();
  await expect(job).toContainText('Lay in 0.077 mm');
});

test('shims between two side moves: the screw is not judged by what the shims may have done', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-33');
  await beginRound(page, /^Measure$/, { 'Distance between centres': '420 mm' }, '0.002 mm');
  // 38 µm away from the operator, and 20 low.
  await read(page, '0', '-19', '0', '-10', '0');
  const cards = call(page).getByRole('link', { name: 'Job card for this move' });
  const bench = page.url();
  for (let i = 0; i < 2; i++) {
    await page.goto(bench);
    // The one that was done has no card any more: the other one is the first.
    await cards.first().click();
    await allDone(page);
  }
  await expect(page).toHaveURL(/bench\/tailstock-traverse$/);
  await page.getByLabel('I have read and done this').check();
  await page.getByRole('button', { name: 'Start the round' }).click();
  await read(page, '0', '19', '0', '2', '0');
  await expect(call(page)).toContainText('Another move of this check was made before it was read again');
  await expect(call(page)).not.toContainText('wrong way');
});
