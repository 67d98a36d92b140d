import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Report } from '@isometra/work';
import { OpenArchive } from '../archives/reading.js';
import { madeFrom, stampOf } from '../archives/madeFrom.js';
import { fillDemo } from '../services/demo/shop.js';
import { exported, onDisk } from '../testing/archives.js';
import { machine, openShop, uuid, type TestShop } from '../testing/shop.js';
import { fonts } from './fonts.js';
import { Printer } from './printer.js';

/** Read a PDF by a program that did not write it. */
async function readBy(
  program: string,
  args: (file: string) => readonly string[],
  pdf: Buffer,
): Promise<{ readonly text: string; readonly ok: boolean }> {
  const file = join(tmpdir(), `isometra-${uuid()}.pdf`);
  writeFileSync(file, pdf);
  try {
    const { stdout, stderr, status, error } = spawnSync(program, [...args(file)], { encoding: 'utf8', maxBuffer: 50_000_000 });
    if (error) throw error;
    return { text: `${stdout}${stderr}`, ok: status === 0 };
  } finally {
    await rm(file, { force: true });
  }
}
const textOf = async (pdf: Buffer): Promise<string> => (await readBy('pdftotext', (file) => ['-layout', file, '-'], pdf)).text;

async function bytesOf(stream: NodeJS.ReadableStream): Promise<Buffer> {
  const pieces: Buffer[] = [];
  for await (const piece of stream) pieces.push(piece as Buffer);
  return Buffer.concat(pieces);
}

describe('labels', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  afterAll(() => shop.close());

  it('carry a code that a phone reads: the address of the machine', async () => {
    await shop.clear();
    const one = machine('L-14');
    await shop.http.post('/api/machines').send(one).expect(201);
    const pdf = (await shop.http.get('/api/labels.pdf').query({ of: 'machines' }).buffer().expect(200)).body as Buffer;
    expect(await textOf(pdf)).toContain('L-14');
    const folder = mkdtempSync(join(tmpdir(), 'isometra-label-'));
    writeFileSync(join(folder, 'label.pdf'), pdf);
    spawnSync('pdftoppm', ['-r', '150', '-png', '-f', '1', '-l', '1', join(folder, 'label.pdf'), join(folder, 'label')]);
    const picture = readdirSync(folder).find((name) => name.endsWith('.png'));
    const { stdout } = spawnSync('zbarimg', ['--raw', '-q', join(folder, picture ?? '')], { encoding: 'utf8' });
    expect(stdout.trim()).toMatch(new RegExp(`^http://127\\.0\\.0\\.1:\\d+/machines/${one.id}$`));
    await rm(folder, { recursive: true });
    for (const of of ['kit', 'boxes']) await shop.http.get('/api/labels.pdf').query({ of }).expect(200);
    await shop.http.get('/api/labels.pdf').expect(400);
  }, 60_000);
});

describe('the report of a survey', () => {
  let shop: TestShop;
  let surveyId: string;
  let machineId: string;
  beforeAll(async () => {
    shop = await openShop();
    await shop.clear();
    await fillDemo(shop.sequelize);
    const machines = (await shop.http.get('/api/machines').expect(200)).body as { id: string; card: { number: string } }[];
    const lathe = machines.find(({ card }) => card.number === 'L-14');
    machineId = lathe?.id ?? '';
    surveyId = ((await shop.http.get(`/api/machines/${machineId}/surveys`).expect(200)).body as { id: string }[])[0].id;
  }, 60_000);
  afterAll(() => shop.close());

  const report = async (query: Record<string, string> = {}): Promise<Buffer> =>
    (await shop.http.get(`/api/surveys/${surveyId}/report.pdf`).query(query).buffer().expect(200).expect('Content-Type', 'application/pdf'))
      .body as Buffer;

  it('is a sound, tagged PDF whose text can be searched, every page numbered', async () => {
    const begun = Date.now();
    const pdf = await report();
    expect(Date.now() - begun).toBeLessThan(15_000);
    expect((await readBy('qpdf', (file) => ['--check', file], pdf)).ok).toBeTrue();
    const info = (await readBy('pdfinfo', (file) => [file], pdf)).text;
    expect(info).toMatch(/Tagged:\s+yes/);
    expect(info).toMatch(/Title:\s+Acceptance report: L-14/);
    const pages = Number(/Pages:\s+(\d+)/.exec(info)?.[1]);
    const text = await textOf(pdf);
    for (const page of [1, pages]) expect(text).toContain(`Page ${page} of ${pages}`);
    for (const words of [
      'Bar between centres',
      'As found',
      'Moves that were made',
      'It went the wrong way',
      'Not measured',
      'Measured by',
      'Who and when',
    ])
      expect(text).toContain(words);
    // What is told aloud is told in an order: a heading of the first level, then tables with their heads.
    const tags = (await readBy('pdfinfo', (file) => ['-struct', file], pdf)).text;
    for (const tag of ['H1', 'H2', 'Table', 'TH', 'TD', 'Figure']) expect(tags).toContain(tag);
  }, 60_000);

  it('comes short for a customer, in inches too', async () => {
    const [whole, short] = [await report({ units: 'inch' }), await report({ units: 'inch', detail: 'short' })];
    expect(short.length).toBeLessThan(whole.length);
    const text = await textOf(short);
    expect(text).toContain('thou');
    expect(text).not.toContain(' mm');
    expect(text).not.toContain('Round 1');
  }, 60_000);

  it('says from which data it was made: the archive of just that data, and no other, confirms it', async () => {
    const pdf = await report({ detail: 'short' });
    const archive = await exported(shop, { survey: surveyId });
    const made = (zip: Uint8Array) => onDisk(zip, async (file) => (await madeFrom(pdf, await OpenArchive.open(file))).made);
    expect(stampOf(pdf).survey).toBe(surveyId);
    expect(await made(archive)).toBeTrue();
    const { body: lathe } = await shop.http.get(`/api/machines/${machineId}`).expect(200);
    await shop.http
      .put(`/api/machines/${machineId}`)
      .send({ ...lathe, card: { ...lathe.card, notes: 'sold' }, by: 'AB' })
      .expect(200);
    expect(await made(await exported(shop, { survey: surveyId }))).toBeFalse();
    expect(() => stampOf(Buffer.from('%PDF-1.7 of somebody else'))).toThrowError(/nothing of the data/);
    expect(() => stampOf(Buffer.from('hello'))).toThrowError(/is not a PDF/);
  }, 60_000);

  it('has a blank sheet beside it for every round: a numbered box for every place, in working order', async () => {
    const { body: rounds } = await shop.http.get(`/api/machines/${machineId}/rounds`).query({ check: 'tailstock-traverse' }).expect(200);
    const pdf = (await shop.http.get(`/api/rounds/${rounds[0].id}/sheet.pdf`).buffer().expect(200)).body as Buffer;
    const text = await textOf(pdf);
    for (const words of ['L-14', 'Bar between centres', 'Read from the first box to the last']) expect(text).toContain(words);
    expect(text).toMatch(/\n\s*1\s+\S/);
    expect(text).toMatch(/\n\s*4\s+\S/);
    await shop.http.get(`/api/rounds/${uuid()}/sheet.pdf`).expect(404);
  }, 60_000);

  it('has every round as a sheet too, which is solved to the same finding', async () => {
    const { body: rounds } = await shop.http.get(`/api/machines/${machineId}/rounds`).expect(200);
    for (const { id, check } of (rounds as { id: string; check: string }[]).filter((_round, i) => i % 5 === 0)) {
      const { body: sheet } = await shop.http.get(`/api/rounds/${id}/sheet.json`).expect(200);
      const { body: told } = await shop.http.get(`/api/rounds/${id}/finding`).expect(200);
      expect(sheet)
        .withContext(check)
        .toEqual(jasmine.objectContaining({ format: 'isometra-sheet/1', check }));
      const { body: solved } = await shop.http.post('/api/solve').send(sheet);
      const values = ({ quantities = {} }: { quantities?: Record<string, { value: number; verdict: string }> }) =>
        Object.entries(quantities).map(([name, { value, verdict }]) => [name, value, verdict]);
      expect(values(solved)).withContext(check).toEqual(values(told.finding));
    }
  }, 60_000);

  it('names what is asked for wrongly', async () => {
    const { body } = await shop.http.get(`/api/surveys/${surveyId}/report.pdf`).query({ units: 'cubits' }).expect(400);
    expect(body.errors[0]).toEqual(jasmine.objectContaining({ path: 'units', message: 'must be mm, inch or both' }));
    await shop.http.get(`/api/surveys/${uuid()}/report.pdf`).expect(404);
  });

  it('tells how far it is, and is fetched by its ticket; what cannot be made is the last line', async () => {
    const lines = async (survey: string) => {
      const { text } = await shop.http.get(`/api/surveys/${survey}/report`).query({ detail: 'full' }).buffer().expect(200);
      return text
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line) as Record<string, unknown>);
    };
    const told = await lines(surveyId);
    expect(told[0]).toEqual({ doing: 'rounds', done: 0, of: jasmine.any(Number) });
    expect(told.at(-2)).toEqual({ doing: 'printing', done: 0, of: 1 });
    const { body } = await shop.http
      .get(`/api/reports/${String(told.at(-1)?.['ticket'])}.pdf`)
      .buffer()
      .expect(200)
      .expect('Content-Type', 'application/pdf')
      .expect('Content-Disposition', /report\.pdf/);
    expect((body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    await shop.http.get(`/api/reports/${uuid()}.pdf`).expect(404);
    expect(await lines(uuid())).toEqual([{ errors: [jasmine.objectContaining({ message: jasmine.stringMatching(/survey/) })] }]);
  }, 60_000);

  it('prints letters of other languages, and a mark for signs that its fonts do not have', async () => {
    const made: Report = {
      title: 'Łódź',
      foot: 'Łódź',
      blocks: [
        { kind: 'heading', level: 1, text: 'Łukasz Żółć, ± 0.02 mm − µm' },
        { kind: 'text', text: 'Drehbank für Spitzenhöhe 200, ů ő ğ, 旋盤 🔧' },
        {
          kind: 'table',
          name: 'Long',
          columns: ['One', 'Two'],
          widths: [1, 1],
          rows: Array.from({ length: 120 }, (_, i) => ({ cells: [`row ${i}`, 'x'.repeat(300)] })),
        },
      ],
    };
    const pdf = await bytesOf(new Printer(made, { paper: 'Letter', subject: 'x' }, await fonts()).print());
    const text = await textOf(pdf);
    expect(text).toContain('Łukasz Żółć, ± 0.02 mm − µm');
    expect(text).toContain('ů ő ğ, ?? ?');
    expect(text).toContain('row 119');
    // The head of a table is on every page that it runs over.
    const pages = Number(/Pages:\s+(\d+)/.exec((await readBy('pdfinfo', (file) => [file], pdf)).text)?.[1]);
    expect(text.split(/\bOne\b/).length - 1).toBe(pages);
  }, 60_000);
});
