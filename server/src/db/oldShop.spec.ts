import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { createConnection } from 'mariadb';
import { QueryTypes, type Sequelize } from 'sequelize';
import { fromJson } from './columns.js';
import { listHeads } from '../services/heads.js';
import { listKit } from '../services/kit.js';
import { listLimitSheets } from '../services/limits.js';
import { listMachines } from '../services/machines.js';
import { Solver } from '../services/solver.js';
import { listStates } from '../services/states.js';
import { listSurfaces } from '../services/surfaces.js';
import { listSurveys } from '../services/surveys.js';
import { connect, migrate } from './database.js';
import { up as verdicts } from './migrations/020-verdicts.js';

const OF = 'isometra_demo_of_old';
/** The demo shop as version 0.2.0 left it, before earlier states were kept. */
const DUMP = new URL('../../old-shops/demo-0.2.0.sql.gz', import.meta.url);

describe('a shop of version 0.2.0', () => {
  const url = process.env['TEST_DATABASE_URL'] ?? '';
  const ofOld = url.replace(/\/[^/]*$/, `/${OF}`);
  let server: Sequelize;
  let sequelize: Sequelize;
  let before: Readonly<Record<string, number>>;
  let after: Readonly<Record<string, number>>;
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
    before = await counts();
    await migrate(sequelize);
    after = await counts();
  }, 60_000);
  afterAll(async () => {
    await sequelize.close();
    await server.query(`DROP DATABASE ${OF}`);
    await server.close();
  });

  it('comes up whole: every row is there, and everything can be read', async () => {
    expect(before['readings']).toBeGreaterThan(100);
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

  it('has the verdicts of each round beside what it said, whether the round was worked out before there was a place for them or after', async () => {
    const said = async () => {
      const rows = await sequelize.query<{ verdicts: string; head: string | Head }>('SELECT verdicts, head FROM findings', {
        type: QueryTypes.SELECT,
      });
      for (const { verdicts, head } of rows) expect(verdicts).toBe(verdictsIn(fromJson<Head>(head)));
      return rows.map(({ verdicts }) => verdicts);
    };
    const solver = new Solver();
    for (const { id } of await listMachines()) await listHeads(sequelize, solver, id);
    await solver.close();
    // Nothing could be made of one of them.
    await sequelize.query(`UPDATE findings SET verdicts = '', head = '{"finding":null}' LIMIT 1`);
    const workedOut = await said();
    expect(workedOut).toContain('in,out');
    expect(workedOut).toContain('');
    await sequelize.query('ALTER TABLE findings DROP COLUMN verdicts');
    await verdicts(sequelize.getQueryInterface());
    expect(await said()).toEqual(workedOut);
  }, 60_000);
});

interface Head {
  readonly finding: { readonly quantities: Readonly<Record<string, { readonly verdict: string | null }>> } | null;
}
const verdictsIn = (head: Head | null): string =>
  ['in', 'out', 'unsure'].filter((one) => Object.values(head?.finding?.quantities ?? {}).some(({ verdict }) => verdict === one)).join();
