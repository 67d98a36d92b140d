import Papa from 'papaparse';
import { readSheet } from 'read-excel-file/node';
import { fillDemo } from '../services/demo/shop.js';
import { openShop, uuid, type TestShop } from '../testing/shop.js';
import { TABLES } from '../tables/tables.js';

describe('tables for spreadsheets', () => {
  let shop: TestShop;
  beforeAll(async () => {
    shop = await openShop();
    await shop.clear();
    await fillDemo(shop.sequelize);
  }, 60_000);
  afterAll(() => shop.close());

  const csv = async (name: string, query: Record<string, string> = {}): Promise<string> =>
    (
      await shop.http
        .get(`/api/tables/${name}.csv`)
        .query(query)
        .expect(200)
        .expect('Content-Type', /text\/csv/)
    ).text;
  const rowsOf = (text: string) => Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), { header: true, skipEmptyLines: true });

  it('each has a head, whole rows and nothing that cannot be read back', async () => {
    for (const name of Object.keys(TABLES)) {
      const { data, errors } = rowsOf(await csv(name));
      expect(errors).withContext(name).toEqual([]);
      expect(data.length).withContext(name).toBeGreaterThan(0);
      expect(Object.keys(data[0]))
        .withContext(name)
        .toEqual([...TABLES[name].columns]);
    }
  }, 60_000);

  it('figures are the same with a point and with a comma', async () => {
    const [point, comma] = [rowsOf(await csv('findings')), rowsOf(await csv('findings', { decimal: 'comma' }))];
    expect(comma.meta.delimiter).toBe(';');
    expect(comma.data.map(({ value }) => Number(value.replace(',', '.')))).toEqual(point.data.map(({ value }) => Number(value)));
    expect(comma.data.some(({ value }) => value.includes(','))).toBeTrue();
    expect(point.data.every(({ value }) => Number.isFinite(Number(value)))).toBeTrue();
    expect(point.data[0]['read at']).toMatch(/^\d{4}-\d\d-\d\dT/);
  }, 60_000);

  it('of one machine tell of no other, and what would be a formula is text', async () => {
    const machine = { id: uuid(), card: { number: '=1+1', kind: 'engine-lathe', notes: '@evil' }, version: 1, by: 'AB' };
    await shop.http.post('/api/machines').send(machine).expect(201);
    const text = await csv('machines', { machine: machine.id });
    expect(rowsOf(text).data.length).toBe(1);
    expect(text).toContain("'=1+1");
    expect(text).toContain("'@evil");
    // A value below zero stays a figure.
    expect((await csv('limits')).includes("'-")).toBeFalse();
  });

  it('are workbooks too, with figures that are figures: another program reads back what the CSV says', async () => {
    for (const name of Object.keys(TABLES)) {
      const { body } = await shop.http
        .get(`/api/tables/${name}.xlsx`)
        .buffer()
        .parse((response, done) => {
          const pieces: Buffer[] = [];
          response.on('data', (piece: Buffer) => pieces.push(piece));
          response.on('end', () => done(null, Buffer.concat(pieces)));
        })
        .expect(200)
        .expect('Content-Type', /spreadsheetml/)
        .expect('Content-Disposition', new RegExp(`isometra-${name}\\.xlsx`));
      const [head, ...rows] = await readSheet(body as Buffer);
      expect(head)
        .withContext(name)
        .toEqual([...TABLES[name].columns]);
      const { data } = rowsOf(await csv(name));
      expect(rows.length).withContext(name).toBe(data.length);
      const told = rows.map((row) => row.map((cell) => String(cell ?? '')).join('|'));
      const wanted = data.map((row) => TABLES[name].columns.map((column) => row[column].replace(/^'(?=[=@+-])/, '')).join('|'));
      expect(told).withContext(name).toEqual(wanted);
    }
    const [findings] = [await shop.http.get('/api/tables/findings.xlsx').query({ decimal: 'comma' })];
    expect(findings.status).toBe(400);
  }, 90_000);

  it('that there are not are named', async () => {
    const { body } = await shop.http.get('/api/tables/secrets.csv').expect(404);
    expect(body.errors[0].example).toContain('readings');
    await shop.http.get('/api/tables/constructor.csv').expect(404);
    await shop.http.get('/api/tables/kit.csv').query({ decimal: 'dot' }).expect(400);
  });
});
