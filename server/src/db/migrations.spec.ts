import { QueryTypes, type Sequelize } from 'sequelize';
import { startingSheet } from '@isometra/core';
import { campaignOf } from '@isometra/work';
import { listSurveys } from '../services/surveys.js';
import { connect, migrate, MIGRATIONS, NewerDatabase } from './database.js';
import { MoveRow } from './surveyModels.js';
import { up as firstTables } from './migrations/001-first-tables.js';
import { up as campaigns } from './migrations/002-campaigns.js';
import { up as byHand } from './migrations/003-by-hand.js';

const OF = 'isometra_of_old';
const id = (tail: string) => `0d2ff3bb-9ea9-4c7b-8d14-${tail.padStart(12, '0')}`;
const AT = '2026-03-01T08:00:00.000Z';

/** A database as the versions before this one left it. */
async function old(server: Sequelize, url: string): Promise<Sequelize> {
  await server.query(`DROP DATABASE IF EXISTS ${OF}`);
  await server.query(`CREATE DATABASE ${OF} CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`);
  const sequelize = connect(url.replace(/\/[^/]*$/, `/${OF}`));
  const tables = sequelize.getQueryInterface();
  for (const up of [firstTables, campaigns, byHand]) await up(tables);
  await sequelize.query('CREATE TABLE migrations (name VARCHAR(255) PRIMARY KEY)');
  await tables.bulkInsert('migrations', [{ name: '001-first-tables' }, { name: '002-campaigns' }, { name: '003-by-hand' }]);
  return sequelize;
}

describe('migrations', () => {
  it('say why they do not go back', () => {
    expect(MIGRATIONS.filter(({ noWayDown }) => !noWayDown)).toEqual([]);
  });
});

describe('a database of an older version', () => {
  const url = process.env['TEST_DATABASE_URL'] ?? '';
  let server: Sequelize;
  let sequelize: Sequelize;
  beforeAll(async () => {
    server = connect(url);
    sequelize = await old(server, url);
  });
  afterAll(async () => {
    await sequelize.close();
    await server.query(`DROP DATABASE ${OF}`);
    await server.close();
  });

  it('keeps everything that was written down, and tells when its moves were done', async () => {
    const tables = sequelize.getQueryInterface();
    const signed = { by: 'HB', at: AT };
    const columns = {
      accepted: [{ check: 'seat', quantity: 'rock', roundId: id('3'), why: 'small', ...signed }],
      planned: [{ id: id('7'), change: { kind: 'weight', fields: { slope: '10 um/m' } }, doneAt: '2026-03-02T08:00:00.000Z', ...signed }],
      standIns: [
        { id: id('8'), check: 'spindle-axis', quantity: 'slopeV', where: 'nose', entries: [{ reading: '12 um', value: 3, ...signed }] },
      ],
      bearings: [{ id: id('9'), endFloat: '7 um', drag: [{ turn: 0, drag: 1 }], note: 'cold', ...signed }],
      byHand: [{ step: 'clean', note: null, ...signed }],
    };
    await tables.bulkInsert('machines', [
      { id: id('1'), number: 'L-1', kind: 'engine-lathe', card: '{"number":"L-1","kind":"engine-lathe"}', version: 1 },
    ]);
    await tables.bulkInsert('surveys', [
      {
        ...{ id: id('2'), machineId: id('1'), title: 'Old', startedAt: '2026-03-01 07:00:00', version: 4 },
        ...Object.fromEntries(Object.entries(columns).map(([name, rows]) => [name, JSON.stringify(rows)])),
      },
    ]);
    await tables.bulkInsert('checks', [{ id: id('4'), surveyId: id('2'), kind: 'seat' }]);
    const round = { id: id('3'), checkId: id('4'), machineId: id('1'), kind: 'seat', setup: '{}', plan: '{}', conditions: '{}', by: 'HB' };
    await tables.bulkInsert('rounds', [{ ...round, at: '2026-03-01 08:00:00', version: 1 }]);
    const move = {
      roundId: id('3'),
      kind: 'adjuster',
      quantity: 'q',
      amount: 1,
      unit: 'um',
      direction: 'up',
      plan: '{}',
      ticks: '[]',
      by: 'HB',
      version: 1,
    };
    await tables.bulkInsert('moves', [
      { ...move, id: id('5'), done: true, at: '2026-03-01 09:00:00' },
      { ...move, id: id('6'), done: false, at: '2026-03-01 10:00:00' },
    ]);

    await migrate(sequelize);
    await migrate(sequelize);

    const survey = campaignOf((await listSurveys(id('1')))[0]);
    expect(survey.judge).toEqual(startingSheet('general'));
    expect(survey.accepted.map(({ why }) => why)).toEqual(['small']);
    expect(survey.planned).toEqual([
      { id: id('7'), by: 'HB', at: AT, change: { kind: 'weight', fields: { slope: '10 um/m' } }, doneAt: '2026-03-02T08:00:00.000Z' },
    ] as never);
    expect(survey.standIns[0].entries.map(({ reading, value }) => [reading, value])).toEqual([['12 um', 3]]);
    expect(survey.bearings.map(({ endFloat, note }) => [endFloat, note])).toEqual([['7 um', 'cold']]);
    expect(survey.byHand.map(({ step }) => step)).toEqual(['clean']);
    const moves = await MoveRow.findAll({ order: [['begunAt', 'ASC']] });
    expect(moves.map(({ doneAt }) => doneAt?.toISOString() ?? null)).toEqual(['2026-03-01T09:00:00.000Z', null]);
    const gone = await sequelize.query(`SHOW COLUMNS FROM surveys LIKE 'byHand'`, { type: QueryTypes.SELECT });
    expect(gone).toEqual([]);
  });
});

describe('a database of a newer version', () => {
  const url = process.env['TEST_DATABASE_URL'] ?? '';

  it('is left alone, and the person is told which version to start', async () => {
    const server = connect(url);
    const sequelize = await old(server, url);
    await sequelize.getQueryInterface().bulkInsert('migrations', [{ name: '999-from-the-future' }]);
    await expectAsync(migrate(sequelize)).toBeRejectedWithError(NewerDatabase, /newer version of Isometra \(999-from-the-future\)/);
    const tables = await sequelize.getQueryInterface().showAllTables();
    expect(tables).withContext('nothing was changed').not.toContain('shop_settings');
    await sequelize.close();
    await server.query(`DROP DATABASE ${OF}`);
    await server.close();
  });
});
