import { encodePhoto } from '../testing/photo.js';
import { machine, openShop, uuid, type TestShop } from '../testing/shop.js';
import { LogRow } from '../db/shopModels.js';
import { PicturePartRow, PictureRow, SurfaceEntryRow } from '../db/scrapingModels.js';

const corners = (x: number, width: number) => [
  { x, y: 0 },
  { x: x + width, y: 0 },
  { x: x + width, y: 60 },
  { x, y: 60 },
];
const face = (machineId: string) => ({
  ...{ id: uuid(), machineId, name: 'Saddle, flat way', part: 'Saddle', use: 'general', target: null, material: 'iron', liner: null },
  ...{ width: 400, height: 60, turned: 0, mirrored: false },
  zones: [
    { id: '1', use: 'bear', outline: corners(0, 200) },
    { id: '2', use: 'bear', outline: corners(200, 200) },
  ],
  reference: { kitId: null, name: 'straightedge', length: 500 },
  aim: { check: 'saddle-squareness', quantity: 'squareness', unit: 'um/m', wanted: 0, room: 20, lever: 2 },
  passes: { rough: 12, fine: 5, keepFine: 2 },
  evening: { session: 150, setUp: 20, cycle: 25 },
  ...{ version: 1, by: 'RM' },
});

describe('the scraping desk', () => {
  let shop: TestShop;
  beforeAll(async () => (shop = await openShop()));
  beforeEach(() => shop.clear());
  afterAll(() => shop.close());

  const begun = async () => {
    const lathe = machine();
    await shop.http.post('/api/machines').send(lathe).expect(201);
    const surface = face(lathe.id);
    await shop.http.post('/api/surfaces').send(surface).expect(201);
    return surface;
  };
  const entry = (surface: { id: string }, kind: string, content: object, more: object = {}) => ({
    ...{ id: uuid(), surfaceId: surface.id, kind, content, supersedes: null, by: 'RM', at: '2026-03-01T18:00:00.000Z' },
    ...more,
  });
  const send = (sent: { readonly surfaceId: string; readonly at?: string }) =>
    shop.http.post(`/api/surfaces/${sent.surfaceId}/entries`).send(sent);
  const pass = (surface: { id: string }, zone = '1') => entry(surface, 'pass', { zone, kind: 'whole', grade: 'rough', angle: 45 });
  const stored = async (surface: { machineId: string }) =>
    (await shop.http.get(`/api/machines/${surface.machineId}/surfaces`).expect(200)).body[0];
  const faultsOf = (answer: { body: { errors: { path: string; message: string }[] } }) =>
    answer.body.errors.map(({ path, message }) => `${path}: ${message}`);

  it('keeps a face and what is written down at it, in order; a pass sent twice, also at the same moment, is one', async () => {
    const surface = await begun();
    const first = pass(surface);
    const told = await Promise.all([1, 2, 3].map(() => send(first)));
    expect(told.map(({ status }) => status)).toEqual([201, 201, 201]);
    await send({ ...pass(surface, '2'), at: '2026-03-01T18:05:00.000Z' }).expect(201);
    await send(entry(surface, 'done', {}, { at: '2026-03-01T18:30:00.000Z' })).expect(201);
    const { entries, zones } = await stored(surface);
    expect(entries.map(({ kind }: { kind: string }) => kind)).toEqual(['pass', 'pass', 'done']);
    expect(zones).toEqual(surface.zones);
    // The logbook is not flooded by passes: they are counted when the evening ends.
    const log = (await LogRow.findAll()).map(({ text }) => text);
    expect(log).toContain('Saddle, flat way: done for the evening, 2 passes');
    expect(log.filter((text) => text.includes('pass')).length).toBe(1);
    await shop.http.post('/api/surfaces').send(surface).expect(201);
    expect((await shop.http.get(`/api/machines/${surface.machineId}/surfaces`)).body.length).toBe(1);
  });

  it('an evening that nobody ended is told once the next one begins, at its own time, once', async () => {
    const surface = await begun();
    const at = (day: number, minute: number): string => new Date(Date.UTC(2026, 2, day, 18, minute)).toISOString();
    const told = async () =>
      (await LogRow.findAll({ order: [['at', 'ASC']] }))
        .filter(({ text }) => text.includes('pass'))
        .map((row) => [row.text, row.at.toISOString()]);
    for (const minute of [0, 20, 40]) await send({ ...pass(surface), at: at(1, minute) }).expect(201);
    expect(await told()).toEqual([]);
    await send({ ...pass(surface), at: at(2, 0) }).expect(201);
    await send({ ...pass(surface), at: at(2, 10) }).expect(201);
    const left = ['Saddle, flat way: 3 passes; nobody wrote that the evening was done', at(1, 40)];
    expect(await told()).toEqual([left]);
    // One that was ended is told as ended, and not again.
    await send(entry(surface, 'done', {}, { at: at(2, 20) })).expect(201);
    await send({ ...pass(surface), at: at(3, 0) }).expect(201);
    expect(await told()).toEqual([left, ['Saddle, flat way: done for the evening, 2 passes', at(2, 20)]]);
  });

  it('an entry is never changed: another takes it back, once', async () => {
    const surface = await begun();
    const first = pass(surface);
    await send(first).expect(201);
    await send(entry(surface, 'withdrawn', {}, { supersedes: first.id })).expect(201);
    await send(entry(surface, 'withdrawn', {}, { supersedes: first.id })).expect(409);
    expect(faultsOf(await send(entry(surface, 'withdrawn', {})).expect(400))).toEqual(['supersedes: is missing: what is taken back']);
    expect(await SurfaceEntryRow.count()).toBe(2);
    const another = face(surface.machineId);
    await shop.http.post('/api/surfaces').send(another).expect(201);
    expect(faultsOf(await send(entry(another, 'withdrawn', {}, { supersedes: first.id })).expect(400))).toEqual([
      'supersedes: no such entry on this face',
    ]);
  });

  it('what the face cannot carry is refused by its field', async () => {
    const surface = await begun();
    expect(faultsOf(await send(pass(surface, '7')).expect(400))).toEqual(['content.zone: the face has no zone 7']);
    expect(faultsOf(await send(entry(surface, 'hinge', { from: 0, length: 400, a: 500, b: 100 })).expect(400))[0]).toContain(
      'content.a: is beyond the bearing',
    );
    expect(faultsOf(await send(entry(surface, 'pass', { zone: '1' })).expect(400)).length).toBeGreaterThan(1);
    expect(faultsOf(await send(entry(surface, 'dance', {})).expect(400))[0]).toContain('must be one of blue, lock, pass');
    const print = {
      picture: 'a'.repeat(64),
      film: 4,
      pressed: null,
      corners: null,
      threshold: 0.5,
      result: { spots: 3, spotsPerSquare: 4, bearingShare: 0.1, largestBare: 9, zones: [] },
    };
    expect(faultsOf(await send(entry(surface, 'print', print)).expect(400))).toEqual(['content.picture: is not kept here']);
    const wrong = { ...surface, id: uuid(), zones: [{ id: '1', use: 'ignore', outline: corners(350, 100) }, surface.zones[0]] };
    expect(faultsOf(await shop.http.post('/api/surfaces').send(wrong).expect(400)).join('; ')).toMatch(
      /zone 1 is there twice.*reaches over the edge/,
    );
    await shop.http
      .post('/api/surfaces')
      .send({ ...surface, id: uuid(), machineId: uuid() })
      .expect(404);
  });

  it('a face is changed by the newest version only', async () => {
    const surface = await begun();
    await shop.http
      .put(`/api/surfaces/${surface.id}`)
      .send({ ...surface, name: 'Flat way' })
      .expect(200);
    await shop.http
      .put(`/api/surfaces/${surface.id}`)
      .send({ ...surface, name: 'Another' })
      .expect(409);
    expect((await stored(surface)).name).toBe('Flat way');
    expect((await stored(surface)).version).toBe(2);
  });

  it('a mate is another face of the same machine; a face that is held back loses nothing until that is lifted', async () => {
    const surface = await begun();
    const flank = { ...face(surface.machineId), name: 'Rear flank' };
    const mate = { as: 'flank', surfaceId: surface.id, angle: 55, apart: false };
    const put = (sent: object) => shop.http.post('/api/surfaces').send(sent);
    expect(faultsOf(await put({ ...flank, mate: { ...mate, surfaceId: uuid() } }).expect(400))).toEqual([
      'mate.surfaceId: is no face of this machine',
    ]);
    expect(faultsOf(await put({ ...flank, mate: { ...mate, surfaceId: flank.id } }).expect(400))).toEqual([
      'mate.surfaceId: is this face itself',
    ]);
    expect(faultsOf(await put({ ...flank, mate: { ...mate, angle: 5 } }).expect(400))[0]).toContain('mate.angle: must be 30 at least');
    const kept = (await put({ ...flank, mate, heldBack: true }).expect(201)).body;
    expect([kept.mate, kept.heldBack]).toEqual([mate, true]);
    expect(faultsOf(await send(pass(flank)).expect(400))[0]).toContain('held back to compare with');
    await shop.http
      .put(`/api/surfaces/${flank.id}`)
      .send({ ...flank, mate, heldBack: false })
      .expect(200);
    await send(pass(flank)).expect(201);
    expect(faultsOf(await send(entry(flank, 'lock', { locks: true })).expect(400))[0]).toContain('only a bearing shell');
  });

  it('a face that is put away stays, takes nothing more, and can be taken out again; the log tells both', async () => {
    const surface = await begun();
    const put = (part: object) => shop.http.put(`/api/surfaces/${surface.id}`).send({ ...surface, ...part });
    await send(pass(surface)).expect(201);
    await put({ version: 1, putAway: true }).expect(200);
    expect(faultsOf(await send(pass(surface)).expect(400))[0]).toContain('this face is archived');
    const [kept] = (await shop.http.get(`/api/machines/${surface.machineId}/surfaces`).expect(200)).body;
    expect([kept.putAway, kept.entries.length]).toEqual([true, 1]);
    await put({ version: 2, putAway: false }).expect(200);
    await send(pass(surface)).expect(201);
    const log = (await shop.http.get(`/api/log?machine=${surface.machineId}`).expect(200)).body.entries.map(
      ({ text }: { text: string }) => text,
    );
    expect(log.filter((text: string) => text.startsWith(surface.name)).slice(0, 4)).toEqual(
      jasmine.arrayContaining([`${surface.name}: archived`, `${surface.name}: restored`]),
    );
  });

  describe('pictures', () => {
    const post = (bytes: Uint8Array, type = 'image/jpeg') =>
      shop.http.post('/api/pictures?by=RM').set('Content-Type', type).send(Buffer.from(bytes));

    it('are kept by what is in them, once, in parts, and come back as they were', async () => {
      const big = await encodePhoto(1000, 700, { noise: 90 });
      expect(big.length).toBeGreaterThan(1_000_000);
      const [one, other] = await Promise.all([post(big), post(big, 'application/octet-stream')]);
      expect([one.status, other.status]).toEqual([201, 201]);
      expect(other.body).toEqual(one.body);
      expect(await PictureRow.count()).toBe(1);
      expect(await PicturePartRow.count()).toBe(Math.ceil(big.length / 1e6));
      const { body, headers } = await shop.http.get(`/api/pictures/${one.body.hash}`).expect(200);
      expect(Buffer.compare(body as Buffer, Buffer.from(big))).toBe(0);
      expect(headers['content-type']).toBe('image/jpeg');
      expect(headers['cache-control']).toContain('immutable');
    });

    it('are turned the way they were held, and carry nothing of the camera or the place', async () => {
      const held = await encodePhoto(60, 40, { orientation: 6, place: '54.1N 2.3W' });
      expect(Buffer.from(held).includes('54.1N')).toBe(true);
      const { body } = await post(held).expect(201);
      expect([body.width, body.height]).toEqual([40, 60]);
      const kept = (await shop.http.get(`/api/pictures/${body.hash}`).expect(200)).body as Buffer;
      expect(kept.includes('54.1N') || kept.includes('Exif')).toBe(false);
      const again = await post(kept).expect(201);
      expect(again.body.hash).withContext('clean bytes keep their name').toBe(body.hash);
    });

    it('what is no picture, is too large or too many pixels is refused with the reason', async () => {
      expect(faultsOf(await post(new TextEncoder().encode('#!/bin/sh')).expect(400))).toEqual(['photo: is no picture that can be read']);
      expect(faultsOf(await post(new Uint8Array()).expect(400))).toEqual(['photo: is empty']);
      expect(faultsOf(await post(new Uint8Array(15_100_000)).expect(413))[0]).toContain('larger than 15 MB');
      const png = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==', 'base64');
      png.writeUInt32BE(20_000, 16);
      png.writeUInt32BE(10_000, 20);
      expect(faultsOf(await post(png).expect(400))).toEqual(['photo: has 200 megapixels, more than 24']);
      await shop.http.get('/api/pictures/none').expect(404);
      expect(await PictureRow.count()).toBe(0);
    });
  });
});
