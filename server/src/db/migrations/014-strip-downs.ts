import { DataTypes, type QueryInterface } from 'sequelize';
import { indexOnce } from './indexOnce.js';

const reference = (table: string) => ({ type: DataTypes.UUID, allowNull: false, references: { model: table, key: 'id' } });
const version = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 1 });

/** What is taken apart, and the parts that came off it. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  if (!(await database.tableExists('strip_downs')))
    await database.createTable('strip_downs', {
      id: { type: DataTypes.UUID, primaryKey: true, allowNull: false },
      machineId: reference('machines'),
      name: { type: DataTypes.STRING(60), allowNull: false },
      archived: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
      begunAt: { type: DataTypes.DATE(3), allowNull: false },
      version: version(),
    });
  if (!(await database.tableExists('parts')))
    await database.createTable('parts', {
      id: { type: DataTypes.UUID, primaryKey: true, allowNull: false },
      stripDownId: reference('strip_downs'),
      number: { type: DataTypes.SMALLINT.UNSIGNED, allowNull: false },
      place: { type: DataTypes.DOUBLE, allowNull: false },
      details: { type: DataTypes.JSON, allowNull: false },
      need: { type: DataTypes.JSON, allowNull: true },
      fitted: { type: DataTypes.JSON, allowNull: true },
      pictures: { type: DataTypes.JSON, allowNull: false },
      /** The state of the work on it, to look for; null where there is nothing to do. */
      needState: { type: DataTypes.STRING(10), allowNull: true },
      /** Null for a part that was removed: its number is free again. */
      standing: { type: DataTypes.BOOLEAN, allowNull: true },
      version: version(),
    });
  await indexOnce(database, 'strip_downs', ['machineId', 'begunAt'], { name: 'strip_downs_of' });
  await indexOnce(database, 'parts', ['stripDownId', 'number', 'standing'], { name: 'parts_number', unique: true });
  await indexOnce(database, 'parts', ['needState'], { name: 'parts_need' });
}
