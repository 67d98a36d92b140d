import fc from 'fast-check';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { readFileSync } from 'node:fs';
import { strFromU8, strToU8, zipSync } from 'fflate';
import type { KitItem, Machine, Remark } from '@isometra/contract';
import { fillDemo } from '../services/demo/shop.js';
import { edited, exported, filesOf, forged, manifestOf, onDisk, sameness, sent, type Files } from '../testing/archives.js';
import { encodePhoto } from '../testing/photo.js';
import { indicator, machine, move, openShop, reading, round, uuid, type TestShop } from '../testing/shop.js';
import { madeFrom, stampText } from './madeFrom.js';
import { OpenArchive } from './reading.js';
import { takeArchive } from './taking.js';

const schemaOf = (kind: string): object =>
  JSON.parse(readFileSync(new URL(`../../../docs/formats/schemas/archive-${kind}.json`, import.meta.url), 'utf8')) as object;

describe('an archive', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const post = (path: string, body: object) => shop.http.post(`/api/${path}`).send(body).expect(201);
  const put = (path: string, body: object) => shop.http.put(`/api/${path}`).send(body).expect(200);
  const get = async <T>(path: string): Promise<T> => (await shop.http.get(`/api/${path}`).expect(200)).body as T;
  const remark = (more: Partial<Remark>): Remark => ({
    ...{ id: uuid(), machineId: null, part: null, place: { path: '/kit', words: 'Kit' }, text: 'Felt torn', pictures: [] },
    ...{ supersedes: null, by: 'HB', at: '2026-03-01T08:00:00.000Z', ...more },
  });
  const pathFor = (zip: Uint8Array, folder: string): string => {
    const path = Object.keys(filesOf(zip)).find((name) => name.startsWith(`${folder}/`));
    if (!path) throw new Error(`nothing in ${folder}`);
    return path;
  };

  it('of the demo, taken into an empty shop and written again, holds the same byte for byte', async () => {
    await fillDemo(shop.sequelize);
    await post('people', { initials: 'SD', name: 'Sam', meant: null, working: null, by: 'SD' }).catch(() => undefined);
    const first = await exported(shop);
    // Every file is as its published schema says, by a validator that knows nothing of ours.
    const schemas = new Map<string, (content: unknown) => boolean>();
    for (const [path, bytes] of Object.entries(filesOf(first)).filter(([name]) => name.endsWith('.json'))) {
      const kind = path === 'manifest.json' ? 'manifest' : path.split('/')[0];
      const known = schemas.get(kind) ?? new Ajv2020({ strict: false, validateFormats: false }).compile(schemaOf(kind));
      schemas.set(kind, known);
      expect(known(JSON.parse(strFromU8(bytes))))
        .withContext(path)
        .toBeTrue();
    }
    expect(manifestOf(first).holds).toEqual(jasmine.objectContaining({ machines: 6, rounds: 65, pictures: 3 }));
    await shop.clear();
    const { result } = await sent(shop, first);
    expect(result?.taken).toBeTrue();
    expect(sameness(await exported(shop))).toEqual(sameness(first));
    // Taken in once more it changes nothing.
    const again = await sent(shop, first);
    expect(again.result).toEqual(jasmine.objectContaining({ added: {}, newer: {}, grown: {}, differences: [], taken: true }));
    expect(sameness(await exported(shop))).toEqual(sameness(first));
  }, 120_000);

  it('is exact for any shop', async () => {
    const text = fc.string({ unit: 'grapheme', maxLength: 40 });
    const made = fc.record({
      machines: fc.uniqueArray(fc.stringMatching(/^[A-Z]-\d{1,3}$/), { minLength: 1, maxLength: 3 }),
      values: fc.array(fc.record({ value: fc.integer({ min: -90, max: 90 }), replaced: fc.boolean() }), { minLength: 1, maxLength: 4 }),
      notes: fc.array(text, { maxLength: 4 }),
      photos: fc.integer({ min: 0, max: 2 }),
      moved: fc.boolean(),
    });
    await fc.assert(
      fc.asyncProperty(made, async ({ machines, values, notes, photos, moved }) => {
        await shop.clear();
        for (const number of machines) {
          const one = machine(number);
          await post('machines', one);
          const begun = round(one.id);
          await post('rounds', begun);
          for (const [i, { value, replaced }] of values.entries()) {
            const taken = reading(i * 10, `${value} div`);
            await post(`rounds/${begun.id}/readings`, taken);
            if (replaced)
              await post(`rounds/${begun.id}/readings`, reading(i * 10, `${value + 1} div`, { supersedes: taken.id, why: 'misread' }));
          }
          if (moved) await post('moves', move(begun.id));
          let before: string | null = null;
          for (const words of notes.filter((words) => words.trim())) {
            const written: Remark = remark({ machineId: one.id, text: words, supersedes: before });
            await post('remarks', written);
            before = written.id;
          }
        }
        const dial = indicator();
        await post('kit', dial);
        for (let i = 0; i < photos; i++)
          await shop.http
            .post(`/api/kit/${dial.id}/photos`)
            .query({ id: uuid(), by: 'AB' })
            .type('image/jpeg')
            .send(Buffer.from(await encodePhoto(20 + i, 16)))
            .expect(201);
        const first = await exported(shop);
        await shop.clear();
        expect((await sent(shop, first)).result?.taken).toBeTrue();
        expect(sameness(await exported(shop))).toEqual(sameness(first));
      }),
      { numRuns: 5 },
    );
  }, 120_000);

  it('brings a machine to another shop and back: what was done there comes in, and nothing is asked', async () => {
    const lathe = machine('L-14');
    await post('machines', lathe);
    const begun = round(lathe.id);
    await post('rounds', begun);
    await post(`rounds/${begun.id}/readings`, reading(20, '1 div'));
    const decided = move(begun.id);
    await post('moves', decided);
    const home = await exported(shop);
    const out = await exported(shop, { machine: 'L-14' });

    await shop.clear();
    await post('kit', indicator());
    expect((await sent(shop, out)).result).toEqual(jasmine.objectContaining({ taken: true, differences: [], renamed: [] }));
    await put(`machines/${lathe.id}`, { ...lathe, card: { ...lathe.card, nickname: 'The long one' }, by: 'SD' });
    await put(`moves/${decided.id}`, { ...decided, ticks: [0, 1] });
    await post(`rounds/${begun.id}/readings`, reading(40, '2 div'));
    const back = await exported(shop, { machine: 'L-14' });

    await shop.clear();
    await sent(shop, home);
    const { result } = await sent(shop, back);
    expect(result).toEqual(jasmine.objectContaining({ taken: true, differences: [], added: { kit: 1 }, newer: { machines: 1, moves: 1 } }));
    expect(result?.grown['readings']).toBe(1);
    expect((await get<Machine>(`machines/${lathe.id}`)).card.nickname).toBe('The long one');
    expect((await get<unknown[]>(`machines/${lathe.id}/states`)).length).toBe(2);
    expect(sameness(await exported(shop, { machine: 'L-14' }))).toEqual(sameness(back));
    // The old archive of this shop is older than what stands here now: nothing goes back.
    const old = await sent(shop, home);
    expect(old.result).toEqual(jasmine.objectContaining({ taken: true, differences: [], newer: {} }));
    expect((await get<Machine>(`machines/${lathe.id}`)).card.nickname).toBe('The long one');
  });

  describe('of a card that both changed', () => {
    let lathe: Machine & { by: string };
    let theirs: Buffer;
    const changed = (nickname: string, version = 1) =>
      put(`machines/${lathe.id}`, { ...lathe, version, card: { ...lathe.card, nickname }, by: 'AB' });
    beforeEach(async () => {
      lathe = machine('L-14');
      await post('machines', lathe);
      const common = await exported(shop);
      await changed('There');
      theirs = await exported(shop);
      await shop.clear();
      await sent(shop, common);
      await changed('Here');
    });
    const nickname = async () => (await get<Machine>(`machines/${lathe.id}`)).card.nickname;

    it('asks, shows both side by side, and changes nothing before it is answered', async () => {
      const before = sameness(await exported(shop));
      const { result } = await sent(shop, theirs);
      expect(result?.taken).toBeFalse();
      expect(result?.differences).toEqual([
        {
          path: `machines/${lathe.id}.json`,
          called: 'L-14',
          fields: [{ field: jasmine.stringContaining('ickname') as never, ours: 'Here', theirs: 'There' }],
        },
      ]);
      expect(sameness(await exported(shop))).toEqual(before);
    });

    it('keeps ours, and does not ask again', async () => {
      expect((await sent(shop, theirs, { conflicts: 'ours' })).result?.taken).toBeTrue();
      expect(await nickname()).toBe('Here');
      expect((await sent(shop, theirs)).result).toEqual(jasmine.objectContaining({ taken: true, differences: [] }));
    });

    it('takes theirs as a change of today: what stood here is kept among the earlier states', async () => {
      const { result } = await sent(shop, theirs, { choices: JSON.stringify({ [`machines/${lathe.id}.json`]: 'theirs' }), by: 'HB' });
      expect(result?.taken).toBeTrue();
      expect(await nickname()).toBe('There');
      const states = await get<readonly { readonly changes: readonly { readonly to: string }[] }[]>(`machines/${lathe.id}/states`);
      expect(states.map(({ changes }) => changes[0]?.to)).toEqual(['There', 'Here', undefined as never]);
      const log = await get<{ entries: readonly { text: string; by: string }[] }>('log');
      expect(log.entries[0]).toEqual(jasmine.objectContaining({ by: 'HB', text: jasmine.stringContaining('L-14: taken as it stands') }));
      // Each goes on from there.
      await changed('Later', (await get<Machine>(`machines/${lathe.id}`)).version);
    });
  });

  it('of a limit sheet that both changed keeps every version, with the one that was chosen last', async () => {
    const id = uuid();
    const content = (reason: string) => ({
      format: 'isometra-limits/1',
      name: 'Ours',
      lines: [{ check: 'tailstock-traverse', quantity: 'offsetHorizontal', zone: ['-15 um', '15 um'], reason }],
    });
    const change = (reason: string, version: number) => put(`limits/${id}`, { id, content: content(reason), version, by: 'AB' });
    await post('limits', { id, content: content('first'), version: 1, by: 'AB' });
    const common = await exported(shop);
    await change('there', 1);
    const theirs = await exported(shop);
    for (const [choice, last, stands] of [
      ['theirs', 3, 'there'],
      ['ours', 4, 'here'],
    ] as const) {
      await shop.clear();
      await sent(shop, common);
      await change('here', 1);
      const asked = await sent(shop, theirs);
      expect(asked.result?.taken).toBeFalse();
      expect(JSON.stringify(asked.result?.differences)).toContain('there');
      expect((await sent(shop, theirs, { conflicts: choice })).result?.taken).toBeTrue();
      const [sheet] = await get<{ version: number; content: { lines: { reason: string }[] } }[]>('limits');
      expect([sheet.version, sheet.content.lines[0].reason]).toEqual([last, stands]);
      const versions = await get<{ content: { lines: { reason: string }[] } }[]>(`limits/${id}/versions`);
      expect(versions.map((one) => one.content.lines[0].reason)).toEqual(jasmine.arrayContaining(['first', 'here', 'there']));
      // It is changed from there as ever, and the same archive asks nothing more.
      await change('later', last);
      expect((await sent(shop, theirs)).result).toEqual(jasmine.objectContaining({ taken: true, differences: [] }));
    }
  });

  it('asks which of two readings counts that both put in place of one', async () => {
    const lathe = machine('L-14');
    await post('machines', lathe);
    const begun = round(lathe.id);
    await post('rounds', begun);
    const wrong = reading(20, '1 div');
    await post(`rounds/${begun.id}/readings`, wrong);
    const common = await exported(shop);
    await post(`rounds/${begun.id}/readings`, reading(20, '5 div', { supersedes: wrong.id, why: 'misread' }));
    const theirs = await exported(shop);
    await shop.clear();
    await sent(shop, common);
    await post(`rounds/${begun.id}/readings`, reading(20, '7 div', { supersedes: wrong.id, why: 'needle stuck' }));
    const asked = await sent(shop, theirs, {}, true);
    expect(asked.result?.differences.map(({ fields }) => fields)).toEqual([
      [{ field: 'readings', ours: '7 div (needle stuck)', theirs: '5 div (misread)' }],
    ]);
    expect((await sent(shop, theirs)).result?.taken).toBeFalse();
    await sent(shop, theirs, { conflicts: 'theirs' });
    const { readings } = await get<{ readings: readonly { value: string; supersedes: string | null }[] }>(`rounds/${begun.id}`);
    expect(readings.map(({ value }) => value)).toEqual(['1 div', '7 div', '5 div']);
    expect(new Set(readings.map(({ supersedes }) => supersedes)).size).toBe(3);
  });

  it('sent twice at the same moment comes in once', async () => {
    await post('machines', machine('L-14'));
    const theirs = await exported(shop);
    await shop.clear();
    const answers = await Promise.all([sent(shop, theirs), sent(shop, theirs)]);
    expect(answers.map(({ result }) => result?.taken)).toEqual([true, true]);
    expect((await get<Machine[]>('machines')).length).toBe(1);
    expect(sameness(await exported(shop))).toEqual(sameness(theirs));
  });

  it('of another machine of the same number comes in under the next free one', async () => {
    await post('machines', machine('L-14'));
    const theirs = await exported(shop);
    await shop.clear();
    await post('machines', machine('L-14'));
    const { result } = await sent(shop, theirs);
    expect(result).toEqual(jasmine.objectContaining({ taken: true, renamed: [{ from: 'L-14', to: 'L-14 (2)' }] }));
    expect((await get<Machine[]>('machines')).map(({ card }) => card.number)).toEqual(['L-14', 'L-14 (2)']);
  });

  it('of one machine or survey holds what belongs to it and what it mentions, and nothing else', async () => {
    await fillDemo(shop.sequelize);
    const all = await get<Machine[]>('machines');
    const lathe = all.find(({ card }) => card.number === 'L-14') as Machine;
    const files = filesOf(await exported(shop, { machine: 'L-14' }));
    expect(Object.keys(files).filter((path) => path.startsWith('machines/'))).toEqual([`machines/${lathe.id}.json`]);
    expect(Object.keys(files).some((path) => path.startsWith('shop/'))).toBeFalse();
    const kit = await get<KitItem[]>('kit');
    const own = Object.keys(files).filter((path) => path.startsWith('kit/'));
    expect(own.length).toBeLessThan(kit.length);
    // Every instrument that a round was read on comes along, with its certificate.
    const read = Object.entries(files)
      .filter(([path]) => path.startsWith('rounds/'))
      .flatMap(([, bytes]) => (JSON.parse(strFromU8(bytes)) as { instrumentName: string | null }).instrumentName ?? []);
    for (const name of new Set(read)) expect(own).toContain(`kit/${kit.find((item) => item.name === name)?.id}.json`);
    expect(read.length).toBeGreaterThan(0);
    // What it leans on is in it: another shop takes it in.
    const [survey] = await get<{ id: string }[]>(`machines/${lathe.id}/surveys`);
    const part = await exported(shop, { survey: survey.id });
    const whole = await exported(shop);
    await shop.clear();
    expect((await sent(shop, part)).result?.taken).toBeTrue();
    expect(sameness(await exported(shop, { survey: survey.id }))).toEqual(sameness(part));

    // A report that was made from the survey is made from the archive of the whole shop too, and from no other.
    const fingerprint = await onDisk(part, async (file) => (await OpenArchive.open(file)).fingerprint);
    const pdf = Buffer.from(`%PDF-1.7 ${stampText({ survey: survey.id, fingerprint })}`);
    const made = (zip: Uint8Array) => onDisk(zip, async (file) => (await madeFrom(pdf, await OpenArchive.open(file))).made);
    expect(await made(part)).toBeTrue();
    expect(await made(whole)).toBeTrue();
    const changed = forged(part, (inside) => edited(inside, pathFor(part, 'rounds'), (one) => (one['note'] = 'nothing to see')));
    expect(await made(changed)).toBeFalse();
  }, 120_000);

  describe('is refused with the reason, and the shop is as it was, where it', () => {
    let good: Buffer;
    let before: Record<string, string>;
    beforeEach(async () => {
      const lathe = machine('L-14');
      await post('machines', lathe);
      const begun = round(lathe.id);
      await post('rounds', begun);
      await post(`rounds/${begun.id}/readings`, reading(20, '1 div'));
      good = await exported(shop);
      await shop.clear();
      await post('machines', machine('M-1'));
      before = sameness(await exported(shop));
    });
    const refused = async (zip: Uint8Array, message: RegExp, path?: string): Promise<void> => {
      const { errors, result } = await sent(shop, zip, { conflicts: 'theirs' });
      expect(result).toBeUndefined();
      expect(errors?.[0].message).toMatch(message);
      if (path !== undefined) expect(errors?.[0].path).toContain(path);
      expect(sameness(await exported(shop))).toEqual(before);
    };
    const anyJson = (files: Files, folder: string): string => Object.keys(files).find((path) => path.startsWith(folder)) as string;

    it('is torn', async () => refused(good.subarray(0, good.length - 100), /not a zip|end is missing/));
    it('is something else', async () => refused(Buffer.from('GIF89a, or so'), /not a zip/));
    it('is another zip', async () => refused(zipSync({ 'readme.txt': strToU8('hello') }), /not a place|not written by Isometra/));
    it('has no manifest', async () => refused(zipSync({}), /not written by Isometra|not a zip/));
    it('is of a later format', async () =>
      refused(
        forged(good, (files) => edited(files, 'manifest.json', (one) => (one['format'] = 'isometra-archive/2')), { honest: false }),
        /is isometra-archive\/2, and this version/,
      ));
    it('holds a file that was changed', async () =>
      refused(
        forged(good, (files) => edited(files, anyJson(files, 'rounds/'), (one) => (one['note'] = 'x'.repeat(3))), { honest: false }),
        /has \d+ bytes and should have|SHA-256 is another/,
      ));
    it('holds a file of the same length that was changed', async () =>
      refused(
        forged(
          good,
          (files) => {
            const path = anyJson(files, 'machines/');
            files[path] = strToU8(Buffer.from(files[path]).toString('utf8').replace('L-14', 'L-15'));
          },
          { honest: false },
        ),
        /SHA-256 is another/,
      ));
    it('leads out of its folder', async () => {
      await refused(
        forged(good, (files) => (files['../../etc/passwd'] = strToU8('root'))),
        /invalid relative path|not a place/,
      );
      await refused(
        forged(good, (files) => (files['/tmp/x'] = strToU8('x'))),
        /absolute path|not a place/,
      );
      await refused(
        forged(good, (files) => (files['kit/..%2f..json'] = strToU8('{}'))),
        /not a place/,
      );
    });
    it('lacks a file', async () =>
      refused(
        forged(good, (files) => delete files[anyJson(files, 'rounds/')], { honest: false }),
        /stands in the manifest and is not in the zip/,
      ));
    it('leans on what is nowhere', async () =>
      refused(
        forged(good, (files) => delete files[anyJson(files, 'machines/')]),
        /leans on a machine/,
      ));
    it('holds what this version does not know', async () => {
      await refused(
        forged(good, (files) => edited(files, anyJson(files, 'rounds/'), (one) => (one['kind'] = 'bed-of-roses'))),
        /"bed-of-roses" is not known/,
        'rounds/',
      );
      await refused(
        forged(good, (files) => edited(files, anyJson(files, 'machines/'), (one) => (one['evil'] = true))),
        /nrecognized key/,
        'machines/',
      );
      await refused(
        forged(good, (files) =>
          edited(files, anyJson(files, 'machines/'), (one) => ((one['card'] as Record<string, unknown>)['kind'] = 7)),
        ),
        /./,
        'card.kind',
      );
    });
    it('says it is another thing than its name says', async () =>
      refused(
        forged(good, (files) => edited(files, anyJson(files, 'rounds/'), (one) => (one['id'] = uuid()))),
        /holds something else than its name says/,
      ));
    it('unpacks to more than a disk holds', async () => {
      const bomb = forged(good, (files) => (files[`rounds/${uuid()}.json`] = new Uint8Array(70_000_000)));
      expect(bomb.length).toBeLessThan(1_000_000);
      await refused(bomb, /larger than any file of an archive/);
    });
    it('holds a photograph that is none', async () => {
      const lies = uuid();
      await refused(
        forged(good, (files) => (files[`kit/${lies}/${uuid()}.png`] = strToU8('<script>alert(1)</script>'))),
        /no photograph of the kind/,
      );
    });
    it('gives one reading to two rounds', async () => {
      const twice = forged(good, (files) => {
        const path = anyJson(files, 'rounds/');
        const other = uuid();
        files[`rounds/${other}.json`] = files[path];
        edited(files, `rounds/${other}.json`, (one) => (one['id'] = other));
      });
      await refused(twice, /already the id of something else/);
    });
    it('is stopped on the way', async () => {
      const stop = new AbortController();
      const tell = (doing: string): void => void (doing === 'writing' && stop.abort());
      await onDisk(good, async (file) => {
        const archive = await OpenArchive.open(file);
        await expectAsync(takeArchive(shop.sequelize, archive, { conflicts: 'ask', by: 'AB', signal: stop.signal, tell })).toBeRejected();
        archive.close();
      });
      expect(sameness(await exported(shop))).toEqual(before);
    });
    it('is not sent as a form', async () => {
      const { body } = await shop.http.post('/api/archive').type('application/zip').send(good).expect(400);
      expect(body.errors[0]).toEqual(jasmine.objectContaining({ path: 'archive', message: jasmine.stringContaining('as a form') }));
    });
  });

  it('of what is not here says which numbers there are', async () => {
    await post('machines', machine('L-14'));
    const { body } = await shop.http.get('/api/archive.zip').query({ machine: 'L-99' }).expect(404);
    expect(body.errors[0]).toEqual({ path: 'machine', message: 'no machine here has the number L-99', example: 'L-14' });
    await shop.http.get('/api/archive.zip').query({ survey: uuid() }).expect(404);
    await shop.http.get('/api/archive.zip').query({ survey: 'yes' }).expect(400);
  });
});
