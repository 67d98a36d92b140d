import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { namesOf } from './api/fence.js';
import { readConfig } from './config.js';
import { connect, migrate } from './db/database.js';
import { News } from './services/news.js';
import { Solver } from './services/solver.js';
import { openShop, type TestShop } from './testing/shop.js';

describe('serving the web application', () => {
  let shop: TestShop;
  let folder: string;
  beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), 'isometra-web-'));
    mkdirSync(join(folder, 'media'));
    writeFileSync(join(folder, 'index.html'), '<title>page</title>');
    writeFileSync(join(folder, 'main-ABCD1234.js'), `"${'x'.repeat(5000)}"`);
    shop = await openShop(folder);
  });
  afterAll(async () => {
    await shop.close();
    rmSync(folder, { recursive: true });
  });

  it('keeps hashed files for a year, compressed, and asks for the page every time', async () => {
    const script = await shop.http.get('/main-ABCD1234.js').expect(200);
    expect(script.headers['cache-control']).toBe('public, max-age=31536000, immutable');
    expect(script.headers['content-encoding']).toBe('gzip');
    const page = await shop.http.get('/machines/anything').expect(200);
    expect(page.text).toContain('page');
    expect(page.headers['cache-control']).toBe('no-cache');
  });

  it('answers unknown API paths with an error, not with the page', async () => {
    const { body } = await shop.http.get('/api/unknown').expect(404);
    expect(body.errors.length).toBe(1);
  });
});

describe('configuration', () => {
  it('has safe defaults', () => {
    expect(readConfig({ DATABASE_URL: 'mariadb://a:b@127.0.0.1:1/x' })).toEqual(
      jasmine.objectContaining({ host: '127.0.0.1', port: 4780, demo: true }),
    );
  });
  it('names what is wrong', () => {
    expect(() => readConfig({ DATABASE_URL: 'postgres://x', PORT: 'many' })).toThrowError(
      /PORT must be a port number[\s\S]*DATABASE_URL must be like/,
    );
  });
});

describe('the database', () => {
  it('is brought up to date once, by however many start together', async () => {
    const url = process.env['TEST_DATABASE_URL'] ?? '';
    const several = [connect(url), connect(url), connect(url)];
    await Promise.all(several.map(migrate));
    const [{ count }] = (await several[0].query('SELECT COUNT(*) AS count FROM migrations', { type: 'SELECT' })) as { count: number }[];
    expect(Number(count)).toBeGreaterThan(0);
    await Promise.all(several.map((sequelize) => sequelize.close()));
  });
  it('that does not answer makes readiness say so', async () => {
    const { createApp } = await import('./app.js');
    const { pino } = await import('pino');
    const { default: request } = await import('supertest');
    const gone = connect('mariadb://nobody:x@127.0.0.1:9/none');
    const solver = new Solver();
    const app = createApp({ sequelize: gone, solver, news: new News(), logger: pino({ level: 'silent' }), names: namesOf('127.0.0.1') });
    await request(app).get('/api/ready').expect(503);
    const { body } = await request(app).get('/api/machines').expect(503);
    expect(body.errors[0].message).toContain('database');
    await solver.close();
  });
});
