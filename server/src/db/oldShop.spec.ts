import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { createConnection } from 'mariadb';
import { QueryTypes, type Sequelize } from 'sequelize';
import { listKit } from '../services/kit.js';
import { listLimitSheets } from '../services/limits.js';
import { listMachines } from '../services/machines.js';
import { listStates } from '../services/states.js';
import { listSurfaces } from '../services/surfaces.js';
import { listSurveys } from '../services/surveys.js';
import { connect, migrate } from './database.js';

const OF = 'isometra_demo_of_old';
/** The demo shop as version 0.2.0 left it, before earlier states were kept. */
const DUMP = new URL('../../old-shops/demo-0.2.0.sql.gz', import.meta.url);

describe('a shop of version 0.2.0', () => {
  const url = process.env['TEST_DATABASE_URL'] ?? '';
  const ofOld = url.replace(/\/[^/]*$/, `/${OF}`);
  let server: Sequelize;
  let sequelize: Sequelize;
  const counts = async (): Promise<Record<string, number>> => {
    const tables = (await sequelize.getQueryInterface().showAllTables()) as unknown as readonly (string | { readonly tableName: string })[];
    const names = tables.map((table) => (typeof table === 'string' ? table : table.tableName)).filter((name) => name !== 'migrations');
    const rows = await Promise.all(
      names.map(async (name) => {
        const [{ count }] = await sequelize.query<{ count: number | bigint }>(`SELECT COUNT(*) AS count FROM \`${name}\``, {
          type: QueryTypes.SELECT,
        });
        return [name, Number(count)] as const;
      }),
    );
    return Object.fromEntries(rows);
  };

  beforeAll(async () => {
    server = connect(url);
    await server.query(`DROP DATABASE IF EXISTS ${OF}`);
    await server.query(`CREATE DATABASE ${OF} CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`);
    const connection = await createConnection(`${ofOld.replace(/^mysql:/, 'mariadb:')}?multipleStatements=true&connectTimeout=20000`);
    // The first line speaks to the program that the dump would be read by.
    const statements = gunzipSync(readFileSync(DUMP)).toString('utf8').replace(/^.*\n/, '');
    await connection.query(statements);
    await connection.end();
    sequelize = connect(ofOld);
  }, 60_000);
  afterAll(async () => {
    await sequelize.close();
    await server.query(`DROP DATABASE ${OF}`);
    await server.close();
  });

  it('comes up whole: every row is there, and everything can be read', async () => {
    const before = await counts();
    expect(before['readings']).toBeGreaterThan(100);
    await migrate(sequelize);
    const after = await counts();
    for (const [table, count] of Object.entries(before)) expect(after[table]).withContext(table).toBe(count);
    const machines = await listMachines();
    expect(machines.map(({ card }) => card.number)).toEqual(['L-02', 'L-14', 'M-03', 'M-11', 'T-06', 'V-20']);
    expect((await listKit()).length).toBe(before['kit_items']);
    await listLimitSheets();
    for (const { id } of machines) {
      expect((await listSurveys(id)).length).toBeGreaterThan(0);
      await listSurfaces(id);
      expect(await listStates('machines', id)).toEqual([]);
    }
    // What the log said before leads to where it happened now: every round and every move, each to its own.
    const led = (what: string, table: string) =>
      sequelize.query<{ thingId: string | null; there: number }>(
        `SELECT l.thingId, (SELECT COUNT(*) FROM ${table} t WHERE t.id = l.thingId) AS there FROM log_entries l WHERE l.what = '${what}'`,
        { type: QueryTypes.SELECT },
      );
    for (const [what, table] of [
      ['round', 'rounds'],
      ['move', 'moves'],
      ['scraping', 'surfaces'],
      ['kit', 'kit_items'],
    ]) {
      const rows = await led(what, table);
      expect(rows.length).withContext(what).toBeGreaterThan(0);
      expect(rows.filter(({ there }) => Number(there) !== 1))
        .withContext(what)
        .toEqual([]);
    }
    const begun = await led('round', 'rounds');
    expect(new Set(begun.map(({ thingId }) => thingId)).size).toBe(begun.length);
  }, 60_000);
});
