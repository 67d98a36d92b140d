import { execFile } from 'node:child_process';
import { createRequire } from 'node:module';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { createHash } from 'node:crypto';
import { readSheet } from 'read-excel-file/node';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { serve } from '../../tools/served.mjs';
import { addLathe, beginRound, call, expect, openMachine, read, test } from './shop.js';

const DxfParser = createRequire(import.meta.url)('dxf-parser') as typeof import('dxf-parser').DxfParser;
const ISOMETRA = fileURLToPath(new URL('../../bin/isometra.mjs', import.meta.url));

test('a machine goes to another shop and comes back: what was done there comes in, what both changed is asked', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-9');
  await beginRound(page, /^Measure$/, { 'Distance between centres': '420 mm' }, '0.002 mm');
  await read(page, '0', '-9.5');
  await expect(call(page)).toContainText('Bring it 0.021 mm toward you.');

  const file = async (address: string): Promise<Buffer> => {
    await page.goto(`${address}/files`);
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'L-9' }).click()]);
    expect(download.suggestedFilename()).toMatch(/^isometra-L-9-\d{4}-\d\d-\d\d\.zip$/);
    return readFile(await download.path());
  };
  const choose = async (address: string, buffer: Buffer): Promise<void> => {
    await page.goto(`${address}/files`);
    await page.getByLabel('Choose an archive file').setInputFiles({ name: 'L-9.zip', mimeType: 'application/zip', buffer });
  };
  const found = page.getByRole('region', { name: 'What is in it' });
  const rename = async (address: string, nickname: string): Promise<void> => {
    const [machine] = (await (await page.request.get(`${address}/api/machines`)).json()) as { id: string; card: object }[];
    const data = { ...machine, card: { ...machine.card, nickname }, by: 'HB' };
    expect((await page.request.put(`${address}/api/machines/${machine.id}`, { data })).status()).toBe(200);
  };

  // In a process of its own: what is kept of a shop belongs to one process.
  const other = await serve({ demo: false });
  try {
    await choose(other.address, await file(shop.address));
    await expect(found).toContainText('Machine L-9');
    await expect(found).toContainText('1 machine, 1 survey, 1 round');
    // Nothing is written before it is said.
    expect(await (await page.request.get(`${other.address}/api/machines`)).json()).toEqual([]);
    await page.getByRole('button', { name: 'Import it' }).click();
    await expect(page.getByText('Imported.')).toBeVisible();
    await openMachine(page, other.address, 'L-9');
    await expect(page.getByText('0.021 mm').first()).toBeVisible();

    // Both shops change its card.
    await rename(other.address, 'the guest');
    await rename(shop.address, 'the one by the door');
    await choose(shop.address, await file(other.address));
    await expect(found).toContainText('L-9 was changed here and there');
    await expect(
      found
        .getByRole('row', { name: 'Nickname' })
        .or(found.getByRole('row', { name: /ickname/ }))
        .first(),
    ).toContainText('the guest');
    const take = page.getByRole('button', { name: 'Import it' });
    await expect(take).toBeDisabled();
    await page.getByRole('radio', { name: 'Take the archive’s' }).check();
    await take.click();
    await expect(page.getByText('Imported.')).toBeVisible();
    await page.goto(`${shop.address}/machines`);
    await expect(page.getByRole('link', { name: /^L-9/ })).toContainText('the guest');
  } finally {
    await other.stop();
  }
});

test('what is no archive is refused with the reason', async ({ page, shop }) => {
  await page.goto(`${shop.address}/files`);
  await page
    .getByLabel('Choose an archive file')
    .setInputFiles({ name: 'x.zip', mimeType: 'application/zip', buffer: Buffer.from('GIF89a') });
  await expect(page.getByText(/is not a zip that can be read/)).toBeVisible();
});

test.describe('paper of the demo', () => {
  test.use({ demo: true });

  test('the report of L-14 is opened from its survey, a table is downloaded, a label opens its machine on a phone', async ({
    page,
    shop,
  }) => {
    await openMachine(page, shop.address, 'L-14');
    await page.getByRole('link', { name: 'Survey', exact: true }).click();
    await page.getByRole('link', { name: 'Report' }).click();
    await expect(page.getByRole('combobox', { name: 'Machine' })).toContainText('L-14');
    await page.getByRole('radio', { name: 'both' }).check();
    const report = page.getByRole('link', { name: 'Open the report' });
    await expect(report).toHaveAttribute('href', /units=both&detail=full/);
    // It tells how far it is, and opens once it is made.
    await report.click();
    const made = page.getByRole('link', { name: 'Open it here' });
    await expect(made).toHaveAttribute('href', /^\/api\/reports\/[-0-9a-f]{36}\.pdf$/, { timeout: 60_000 });
    await expect.poll(() => page.context().pages().length).toBe(2);
    await page.bringToFront();
    const answer = await page.request.get(`${shop.address}${await made.getAttribute('href')}`);
    expect(answer.headers()['content-type']).toBe('application/pdf');
    expect((await answer.body()).subarray(0, 5).toString()).toBe('%PDF-');

    await page.getByRole('radio', { name: 'CSV, 0,02; semicolons' }).check();
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: /^Findings/ }).click()]);
    expect((await readFile(await download.path(), 'utf8')).split('\r\n')[0]).toContain('machine;survey;check');

    const machines = (await (await page.request.get(`${shop.address}/api/machines`)).json()) as { id: string; card: { number: string } }[];
    const lathe = machines.find(({ card }) => card.number === 'L-14');
    await page.setViewportSize({ width: 390, height: 844 });
    await page.goto(`${shop.address}/machines/${lathe?.id}`);
    await expect(page.getByText('L-14').first()).toBeVisible();
  });
});

test('a column that is pasted on the bench fills the places in order, and stops at what does not fit', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-9');
  await beginRound(page, /^Measure$/, { 'Distance between centres': '420 mm' }, '0.002 mm');
  const field = page.getByRole('textbox', { name: 'The dial reads' });
  const paste = (text: string) =>
    field.evaluate((element, words) => {
      const data = new DataTransfer();
      data.setData('text', words);
      element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    }, text);
  await paste('20\t0\n380\t-9.5');
  await expect(page.getByText('Several columns were pasted.')).toBeVisible();
  await paste('0\nlots\n');
  await expect(page.getByRole('group', { name: 'A pasted column' })).toContainText('1 of 2 pasted figures taken. This one waits for you.');
  await field.fill('-9.5');
  await field.press('Enter');
  await expect(call(page)).toContainText('Bring it 0.021 mm toward you.');
});

test.describe('from the command line', () => {
  test.use({ demo: true });

  test('a machine is exported and taken in again, a report is held against its archive, and what goes wrong is said', async ({
    page,
    shop,
  }) => {
    const folder = await mkdtemp(join(tmpdir(), 'isometra-'));
    const run = async (...words: string[]): Promise<{ code: number; out: string; err: string }> => {
      const command = promisify(execFile)(process.execPath, [ISOMETRA, ...words], { cwd: folder });
      return command.then(
        ({ stdout, stderr }) => ({ code: 0, out: stdout, err: stderr }),
        (error: { code: number; stdout: string; stderr: string }) => ({ code: error.code, out: error.stdout, err: error.stderr }),
      );
    };
    const at = ['--url', shop.address];
    const machines = (await (await page.request.get(`${shop.address}/api/machines`)).json()) as { id: string; card: { number: string } }[];
    const lathe = machines.find(({ card }) => card.number === 'L-14');
    const [survey] = (await (await page.request.get(`${shop.address}/api/machines/${lathe?.id}/surveys`)).json()) as { id: string }[];

    const exported = await run('export', 'l14.zip', '--machine', 'L-14', ...at);
    expect([exported.code, exported.err]).toEqual([0, '']);
    expect(JSON.parse(exported.out)).toMatchObject({ format: 'isometra-archive/1', scope: { of: 'machine', number: 'L-14' } });
    const taken = await run('import', 'l14.zip', ...at);
    expect([taken.code, JSON.parse(taken.out)]).toMatchObject([0, { taken: true, added: {}, differences: [] }]);

    const report = await page.request.get(`${shop.address}/api/surveys/${survey.id}/report.pdf?detail=short`);
    await writeFile(join(folder, 'report.pdf'), await report.body());
    expect((await run('export', 'survey.zip', '--survey', survey.id, ...at)).code).toBe(0);
    for (const archive of ['survey.zip', 'l14.zip']) {
      const verified = await run('verify', 'report.pdf', archive);
      expect([verified.code, JSON.parse(verified.out)]).toMatchObject([0, { made: true, survey: survey.id }]);
    }
    expect((await run('export', 'other.zip', '--machine', 'L-02', ...at)).code).toBe(0);
    expect((await run('verify', 'report.pdf', 'other.zip')).code).toBe(1);
    const torn = (await readFile(join(folder, 'survey.zip'))).subarray(0, -200);
    await writeFile(join(folder, 'torn.zip'), torn);
    expect((await run('verify', 'report.pdf', 'torn.zip')).code).toBe(1);

    const said = async (...words: string[]): Promise<unknown> => {
      const { code, err } = await run(...words);
      expect(code).toBe(2);
      return (JSON.parse(err) as { errors: { message: string }[] }).errors[0].message;
    };
    expect(await said('export', 'x.zip', '--machine', 'L-99', ...at)).toBe('no machine here has the number L-99');
    expect(await said('export', 'x.zip', '--url', 'http://127.0.0.1:1')).toContain('no shop answers at http://127.0.0.1:1');
    expect(await said('import', 'torn.zip', ...at)).toContain('is not a zip that can be read');
    expect(await said('import', 'nowhere.zip', ...at)).toContain('cannot read nowhere.zip');
    expect(await said('import', 'l14.zip', '--conflicts', 'mine', ...at)).toContain('none of ours, theirs, ask');
    expect(await said('export', '--colour', 'red')).toContain('not an option');

    // Both changed the card: nothing is taken in before it is said whose stands.
    const rename = async (nickname: string): Promise<void> => {
      const now = (await (await page.request.get(`${shop.address}/api/machines/${lathe?.id}`)).json()) as { card: object };
      await page.request.put(`${shop.address}/api/machines/${lathe?.id}`, { data: { ...now, card: { ...now.card, nickname }, by: 'HB' } });
    };
    const zip = unzipSync(await readFile(join(folder, 'l14.zip')));
    const path = `machines/${lathe?.id}.json`;
    const card = JSON.parse(strFromU8(zip[path])) as { card: { nickname: string }; version: number };
    card.card.nickname = 'theirs';
    card.version += 1;
    zip[path] = strToU8(JSON.stringify(card));
    const manifest = JSON.parse(strFromU8(zip['manifest.json'])) as { files: { path: string; size: number; sha256: string }[] };
    manifest.files = manifest.files.map((file) =>
      file.path === path ? { path, size: zip[path].length, sha256: createHash('sha256').update(zip[path]).digest('hex') } : file,
    );
    zip['manifest.json'] = strToU8(JSON.stringify(manifest));
    await writeFile(join(folder, 'theirs.zip'), zipSync(zip));
    await rename('ours');
    const asked = await run('import', 'theirs.zip', ...at);
    expect([asked.code, JSON.parse(asked.out)]).toMatchObject([
      1,
      { taken: false, differences: [{ path, fields: [{ ours: 'ours', theirs: 'theirs' }] }] },
    ]);
    expect((await run('import', 'theirs.zip', '--conflicts', 'theirs', '--by', 'HB', ...at)).code).toBe(0);
    expect(await (await page.request.get(`${shop.address}/api/machines/${lathe?.id}`)).json()).toMatchObject({
      card: { nickname: 'theirs' },
    });
    await rm(folder, { recursive: true });
  });
});

test.describe('drawings and workbooks', () => {
  test.use({ demo: true });

  test('leave the shop and are read back by other programs', async ({ page, shop }) => {
    const machines = (await (await page.request.get(`${shop.address}/api/machines`)).json()) as { id: string; card: { number: string } }[];
    const lathe = machines.find(({ card }) => card.number === 'L-14')?.id ?? '';
    const saved = async (name: RegExp): Promise<Buffer> => {
      const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name }).first().click()]);
      return readFile(await download.path());
    };
    const entities = (dxf: Buffer) =>
      (new DxfParser().parseSync(dxf.toString('utf8'))?.entities ?? []) as unknown as {
        type: string;
        text?: string;
        vertices?: { x: number; y: number }[];
      }[];

    await page.goto(`${shop.address}/machines/${lathe}/survey`);
    await expect(page.getByText(/errors drawn ×/)).toBeVisible();
    const bent = entities(await saved(/as DXF$/));
    expect(bent.filter(({ type }) => type === 'LWPOLYLINE').length).toBeGreaterThan(20);
    expect(bent.map(({ text }) => text)).toContain('from the side');

    // A strip of a face is as wide in the file as it is on the card, however wide it looks.
    const [face] = (await (await page.request.get(`${shop.address}/api/machines/${lathe}/surfaces`)).json()) as {
      id: string;
      width: number;
    }[];
    await page.goto(`${shop.address}/machines/${lathe}/scraping/${face.id}`);
    await expect(page.getByText('Save it 1 : 1:')).toBeVisible();
    const xs = entities(await saved(/as DXF$/)).flatMap(({ vertices }) => (vertices ?? []).map(({ x }) => x));
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(face.width, 3);

    await page.goto(`${shop.address}/files`);
    await page.getByRole('radio', { name: 'Workbook (.xlsx)' }).check();
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: /^Findings/ }).click()]);
    const [head, first] = await readSheet(await readFile(await download.path()));
    expect(head.slice(0, 3)).toEqual(['machine', 'survey', 'check']);
    expect(typeof first[head.indexOf('value')]).toBe('number');
  });
});

test('a move of a job card goes out as a file, is worked out by itself, and the command line answers the same', async ({ page, shop }) => {
  await addLathe(page, shop.address, 'L-8');
  await beginRound(page, /^Measure$/, { 'Distance between centres': '420 mm' }, '0.002 mm');
  await read(page, '0', '-9.5');
  await expect(call(page)).toContainText('Bring it 0.021 mm toward you.');
  await call(page).getByRole('link', { name: 'Job card for this move' }).click();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save as a move file' }).click()]);
  const file = await download.path();
  const { stdout } = await promisify(execFile)(process.execPath, [ISOMETRA, 'move', file]);
  const plan = JSON.parse(stdout) as { move: string; turns: number };
  expect(plan.move).toBe('adjuster');

  await page.goto(`${shop.address}/moves`);
  await page.getByLabel('Open a move file').setInputFiles({ name: 'L-8.json', mimeType: 'application/json', buffer: await readFile(file) });
  const answer = page.getByRole('region', { name: 'What it comes to' });
  await expect(answer).toContainText('Turn the adjusting screws');
  await expect(answer).toContainText(`Turns of the screw${plan.turns < 0 ? '−' : ''}${Number(Math.abs(plan.turns).toFixed(3))}`);
  // Another pitch, typed: half the turns.
  const pitch = page.getByRole('textbox', { name: 'Screw pitch' });
  await pitch.fill('3 mm');
  await pitch.press('Tab');
  await expect(answer).toContainText(String(Number(Math.abs(plan.turns / 2).toFixed(3))));
});
