import { QueryTypes, Sequelize, type QueryInterface } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { up as firstTables } from './migrations/001-first-tables.js';
import { up as campaigns } from './migrations/002-campaigns.js';
import { up as byHand } from './migrations/003-by-hand.js';
import { up as notesAndFindings } from './migrations/004-notes-and-findings.js';
import { up as atTheScrew } from './migrations/005-at-the-screw.js';
import { up as scraping } from './migrations/006-scraping.js';
import { up as shopTime } from './migrations/007-shop-time.js';
import { up as spoiltRounds } from './migrations/008-spoilt-rounds.js';
import { up as archive } from './migrations/009-archive.js';
import { up as devices } from './migrations/010-devices.js';
import { up as earlierStates } from './migrations/011-earlier-states.js';
import { up as logbook } from './migrations/012-logbook.js';
import { up as remarks } from './migrations/013-remarks.js';
import { up as stripDowns } from './migrations/014-strip-downs.js';
import { up as people } from './migrations/015-people.js';
import { up as archivedSurveys } from './migrations/016-archived-surveys.js';
import { up as plans } from './migrations/017-plans.js';
import { up as archives } from './migrations/018-archives.js';
import { defineArchives } from './archiveModels.js';
import { up as tokens } from './migrations/019-tokens.js';
import { up as verdicts } from './migrations/020-verdicts.js';
import { definePlans } from './planModels.js';
import { defineRemarks } from './remarkModel.js';
import { defineScraping } from './scrapingModels.js';
import { defineShop } from './shopModels.js';
import { defineStripDowns } from './stripDownModels.js';
import { defineSurveys } from './surveyModels.js';

/** Why no migration goes back: there is no place in older tables for what was entered since. */
const LOSES = 'older tables have no place for what was entered since: go back with a copy of the data folder instead';

interface Migration {
  readonly name: string;
  readonly up: (database: QueryInterface) => Promise<void>;
  /** Why there is no way down. */
  readonly noWayDown: string;
}

/** Migrations in order: forward only, run at start. */
export const MIGRATIONS: readonly Migration[] = [
  { name: '001-first-tables', up: firstTables, noWayDown: 'nothing is left without these tables' },
  { name: '002-campaigns', up: campaigns, noWayDown: LOSES },
  { name: '003-by-hand', up: byHand, noWayDown: LOSES },
  { name: '004-notes-and-findings', up: notesAndFindings, noWayDown: LOSES },
  { name: '005-at-the-screw', up: atTheScrew, noWayDown: LOSES },
  { name: '006-scraping', up: scraping, noWayDown: LOSES },
  { name: '007-shop-time', up: shopTime, noWayDown: LOSES },
  { name: '008-spoilt-rounds', up: spoiltRounds, noWayDown: LOSES },
  { name: '009-archive', up: archive, noWayDown: LOSES },
  { name: '010-devices', up: devices, noWayDown: LOSES },
  { name: '011-earlier-states', up: earlierStates, noWayDown: LOSES },
  { name: '012-logbook', up: logbook, noWayDown: LOSES },
  { name: '013-remarks', up: remarks, noWayDown: LOSES },
  { name: '014-strip-downs', up: stripDowns, noWayDown: LOSES },
  { name: '015-people', up: people, noWayDown: LOSES },
  { name: '016-archived-surveys', up: archivedSurveys, noWayDown: LOSES },
  { name: '017-plans', up: plans, noWayDown: LOSES },
  { name: '018-archives', up: archives, noWayDown: LOSES },
  { name: '019-tokens', up: tokens, noWayDown: LOSES },
  { name: '020-verdicts', up: verdicts, noWayDown: 'its column is worked out from the others: it may stay' },
];

/** Connect, without changing anything. */
export function connect(databaseUrl: string): Sequelize {
  const sequelize = new Sequelize(databaseUrl.replace(/^mysql:/, 'mariadb:'), {
    dialect: 'mariadb',
    logging: false,
    timezone: '+00:00',
    dialectOptions: { connectTimeout: 4000 },
    define: { charset: 'utf8mb4', collate: 'utf8mb4_bin' },
    pool: { max: 10, acquire: 15_000 },
  });
  defineShop(sequelize);
  defineSurveys(sequelize);
  defineScraping(sequelize);
  defineRemarks(sequelize);
  defineStripDowns(sequelize);
  definePlans(sequelize);
  defineArchives(sequelize);
  return sequelize;
}

/** The database was used by a newer version of the application. */
export class NewerDatabase extends Error {
  constructor(readonly steps: readonly string[]) {
    super(
      `This shop was last opened by a newer version of Isometra (${steps.join(', ')}). Start that version, or go back to a copy of the data folder from before.`,
    );
  }
}

/** Bring the tables up to date. One process at a time: several may start together. @throws NewerDatabase, and changes nothing. */
export async function migrate(sequelize: Sequelize): Promise<void> {
  const storage = new SequelizeStorage({ sequelize, tableName: 'migrations' });
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up }) => ({ name, up: () => up(sequelize.getQueryInterface()) })),
    storage,
    logger: undefined,
  });
  const connection = await sequelize.transaction();
  // Read as a SELECT: the driver's answer to a raw query cannot be taken apart by this ORM.
  const lock = { transaction: connection, type: QueryTypes.SELECT } as const;
  try {
    await sequelize.query(`SELECT GET_LOCK('isometra-migrations', 60)`, lock);
    // A newer version may have written what this one does not read: it is left as it is.
    const unknown = (await storage.executed()).filter((name) => !MIGRATIONS.some((own) => own.name === name));
    if (unknown.length) throw new NewerDatabase(unknown);
    await umzug.up();
  } finally {
    await sequelize.query(`SELECT RELEASE_LOCK('isometra-migrations')`, lock);
    await connection.commit();
  }
}
