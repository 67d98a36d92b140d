import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { addLathe, beginRound, call, expect, read, test } from './shop.js';

/** A table that rises 40 µm in each metre to the right, read at 300 places; its needle counts the other way. One division is 2 µm. */
const slopeUmPerM = 40;
const lines = Array.from({ length: 300 }, (_, i) => {
  const [row, k] = [Math.floor(i / 25), i % 25];
  const at = 25 * (row % 2 ? 24 - k : k);
  return [at, 20 * row, -Number(((slopeUmPerM * at) / 1000 / 2).toFixed(1))];
});

const FAULTS: Readonly<Record<number, (line: readonly number[]) => readonly (number | string)[]>> = {
  3: ([, across]) => [999, across, 0],
  30: ([at, across]) => [at, across, 'abc'],
  57: ([at, across]) => [at, across, ''],
  84: ([, across, value]) => ['', across, value],
  111: ([at, , value]) => [at, '', value],
  138: ([at, across]) => [at, across, 500],
  165: () => [50, 0, -1],
  192: ([at, across]) => [at, across, '2 furlongs'],
  219: ([at, across]) => [at, across, '1.5'],
  246: ([at, across, value]) => [at, across, value, 'a remark', 'too many cells'],
  273: ([, across, value]) => ['left', across, value],
};
const written = (rows: readonly (readonly (number | string)[])[]): string =>
  [
    'At (mm);Across (mm);Dial;Remark',
    ...rows.map((row) => row.map((cell) => (typeof cell === 'number' ? String(cell).replace('.', ',') : cell)).join(';')),
  ].join('\r\n');

test('300 readings from a spreadsheet with eleven faults: each row has its reason, the others are written, the rest follows', async ({
  page,
  shop,
}) => {
  const machine = { id: randomUUID(), card: { number: 'M-7', kind: 'turret-mill' }, version: 1, by: 'HB' };
  expect((await page.request.post(`${shop.address}/api/machines`, { data: machine })).status()).toBe(201);
  const round = {
    ...{ id: randomUUID(), machineId: machine.id, check: 'table-parallelism-x', setup: {}, conditions: {}, purpose: null, by: 'HB' },
    plan: { stations: '25', length: '600 mm', rows: '12', width: '220 mm' },
    ...{
      instrument: { kind: 'lever', graduation: '2 um', sense: 1, range: '100' },
      instrumentName: null,
      at: new Date().toISOString(),
      version: 1,
    },
  };
  expect((await page.request.post(`${shop.address}/api/rounds`, { data: round })).status()).toBe(201);
  await page.goto(`${shop.address}/machines/${machine.id}/bench/${round.check}/${round.id}`);
  await page.getByRole('link', { name: 'readings from a table' }).click();

  const open = async (rows: readonly (readonly (number | string)[])[]): Promise<void> =>
    page.locator('input[type=file]').setInputFiles({ name: 'grid.csv', mimeType: 'text/csv', buffer: Buffer.from(written(rows)) });
  await open(lines.map((line, i) => FAULTS[i]?.(line) ?? line));
  // No unit is taken for granted: as long as nobody says what the dial column is in, none of its rows is written.
  await expect(page.getByRole('button', { name: 'Write 0 readings' })).toBeDisabled();
  await page.getByLabel('Unit of Reading').click();
  await page.getByRole('option', { name: 'div', exact: true }).click();
  await page.getByText('turn the signs').click();

  const becomes = page.getByRole('region', { name: 'What each row becomes' });
  await expect(becomes).toContainText('289 to write');
  await expect(becomes).toContainText('11 cannot be taken');
  for (const [i, reason] of [
    [3, 'no place of the round is at 999 mm; the nearest is at 600 mm'],
    [30, '"abc" is no figure'],
    [57, 'has no reading'],
    [84, 'say which column is "along the travel"'],
    [111, 'say which column is "across the travel"'],
    [138, 'is more than the dial can travel'],
    [165, 'stands in the table already'],
    [192, 'furlongs'],
    [219, 'has a point, where figures have a decimal comma'],
    [246, 'has more cells than the columns have names'],
    [273, '"left" is no figure'],
  ] as const)
    await expect(becomes.getByRole('row').filter({ has: page.getByRole('cell', { name: String(i + 2), exact: true }) })).toContainText(
      reason,
    );

  await becomes.getByRole('button', { name: 'Write 289 readings' }).click();
  await expect(page.getByText('289 readings written. 11 rows were left out')).toBeVisible();
  await page.getByRole('link', { name: 'the bench' }).click();
  // 40 µm in a metre is 0.012 mm in 300 mm.
  await expect(call(page)).toContainText('0.012 mm in 300 mm rising toward the right');

  // Put right and read again, only the eleven are new: the columns are read as last time.
  await page.getByRole('link', { name: 'readings from a table' }).click();
  await open(lines);
  await expect(page.getByText('The columns are read as they were last time.')).toBeVisible();
  await expect(becomes).toContainText('289 here already');
  await becomes.getByRole('button', { name: 'Write 11 readings' }).click();
  await expect(page.getByText('11 readings written.')).toBeVisible();
  await expect
    .poll(
      async () =>
        ((await (await page.request.get(`${shop.address}/api/rounds/${round.id}`)).json()) as { readings: unknown[] }).readings.length,
      {
        timeout: 90_000,
      },
    )
    .toBe(300);
});

test('new certificates from a list of the laboratory change what is known, as one thing to take back', async ({ page, shop }) => {
  const item = {
    ...{
      id: randomUUID(),
      kind: 'straightedge',
      name: 'Camelback',
      data: { length: '900 mm', material: 'cast-iron' },
      care: {},
      photos: [],
    },
    ...{ version: 1, by: 'HB' },
  };
  expect((await page.request.post(`${shop.address}/api/kit`, { data: item })).status()).toBe(201);
  await page.goto(`${shop.address}/files`);
  await page.getByRole('link', { name: 'Kit, or new certificates of it' }).click();
  await expect(page.getByRole('heading', { name: 'Kit from a table' })).toBeVisible();
  const buffer = Buffer.from('Instrument,Certificate no,Next due\nCamelback,C-77,2028-01-31\nNew square,C-9,2027-02-30\n');
  await page.locator('input[type=file]').setInputFiles({ name: 'lab.csv', mimeType: 'text/csv', buffer });
  await expect(page.getByText('Due again on: not given → 31 Jan 2028')).toBeVisible();
  await page.getByRole('button', { name: 'Write 1 piece of kit' }).click();
  const due = async () => ((await (await page.request.get(`${shop.address}/api/kit`)).json()) as { care: { due?: string } }[])[0].care.due;
  await expect.poll(due).toBe('2028-01-31');
  await page.keyboard.press('Control+z');
  await expect.poll(due).toBe(undefined);
});

test('a round is saved as a sheet and opened as a round again: it says the same', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-9');
  await beginRound(page, /^Measure$/, { 'Distance between centres': '420 mm' }, '0.002 mm');
  await read(page, '0', '-9.5');
  await expect(call(page)).toContainText('Bring it 0.021 mm toward you.');
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'sheet file' }).click()]);
  const buffer = await readFile(await download.path());
  const before = page.url();
  await page.getByRole('link', { name: 'set up a new round' }).click();
  await expect(page.getByText('Read elsewhere, and saved as a sheet?')).toBeVisible();
  await page.getByLabel('Open a sheet file').setInputFiles({ name: 'sheet.json', mimeType: 'application/json', buffer });
  await expect(call(page)).toContainText('Bring it 0.021 mm toward you.');
  expect(page.url()).not.toBe(before);
});

test('a table of readings while the shop cannot be reached: nothing is lost, and another screen that has read it too doubles nothing', async ({
  page,
  shop,
}) => {
  await addLathe(page, shop.address, 'L-6');
  await beginRound(page, /^Measure$/, { 'Distance between centres': '420 mm' }, '0.002 mm');
  await expect(page.getByRole('textbox', { name: /reads/i }).or(page.locator('#reading'))).toBeVisible();
  const bench = page.url();
  const other = await page.context().newPage();
  const paste = async (on: typeof page): Promise<void> => {
    await on.goto(`${bench}/table`);
    await on.getByLabel('Paste cells here').evaluate((field) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text', 'Reading (div)\n0\n-9.5\n');
      field.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    });
    await expect(on.getByRole('region', { name: 'What each row becomes' })).toContainText('2 to write');
  };
  await paste(page);
  await paste(other);

  await page.context().setOffline(true);
  await page.getByRole('button', { name: 'Write 2 readings' }).click();
  await expect(page.getByText('2 readings written.')).toBeVisible();
  await page.getByRole('link', { name: 'the bench' }).click();
  // The result is worked out here; the shop is still to be told.
  await expect(call(page)).toContainText('Bring it 0.021 mm toward you.');
  await expect(page.getByRole('status').filter({ hasText: /\d/ }).first()).toBeVisible();
  await page.context().setOffline(false);
  const readings = async () =>
    ((await (await page.request.get(`${shop.address}/api/rounds/${bench.split('/').at(-1) ?? ''}`)).json()) as { readings: unknown[] })
      .readings.length;
  await expect.poll(readings, { timeout: 60_000 }).toBe(2);

  // The other screen hears of them: its rows are known now.
  await expect(other.getByRole('region', { name: 'What each row becomes' })).toContainText('2 here already', { timeout: 30_000 });
  await expect(other.getByRole('button', { name: 'Write 0 readings' })).toBeDisabled();
  expect(await readings()).toBe(2);
});
