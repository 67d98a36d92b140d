import { DataTypes, type QueryInterface } from 'sequelize';
import { columnOnce } from './columnOnce.js';
import { indexOnce } from './indexOnce.js';

/** What people settle of plans, when they work, dates that were named, and addresses of calendars. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  await columnOnce(database, 'people', 'working', { type: DataTypes.JSON, allowNull: true });
  if (!(await database.tableExists('plans')))
    await database.createTable('plans', {
      machineId: { type: DataTypes.UUID, primaryKey: true, allowNull: false, references: { model: 'machines', key: 'id' } },
      settled: { type: DataTypes.JSON, allowNull: false },
      version: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
    });
  if (!(await database.tableExists('named_dates')))
    await database.createTable('named_dates', {
      id: { type: DataTypes.BIGINT.UNSIGNED, primaryKey: true, autoIncrement: true, allowNull: false },
      surveyId: { type: DataTypes.UUID, allowNull: false, references: { model: 'surveys', key: 'id' } },
      /** The day of the shop on which it was named: one a day counts. */
      namedOn: { type: DataTypes.DATEONLY, allowNull: false },
      p10: { type: DataTypes.DATEONLY, allowNull: false },
      p50: { type: DataTypes.DATEONLY, allowNull: false },
      p90: { type: DataTypes.DATEONLY, allowNull: false },
    });
  await indexOnce(database, 'named_dates', ['surveyId', 'namedOn'], { name: 'named_dates_day', unique: true });
  if (!(await database.tableExists('calendars')))
    await database.createTable('calendars', {
      id: { type: DataTypes.UUID, primaryKey: true, allowNull: false },
      /** SHA-256 of the secret in its address. */
      secret: { type: DataTypes.STRING(64), allowNull: false },
      name: { type: DataTypes.STRING(60), allowNull: false },
      by: { type: DataTypes.STRING(8), allowNull: false },
      at: { type: DataTypes.DATE(3), allowNull: false },
    });
  await indexOnce(database, 'calendars', ['secret'], { name: 'calendars_secret', unique: true });
}
