import { DataTypes, type QueryInterface } from 'sequelize';
import { indexOnce } from './indexOnce.js';

const reference = (table: string) => ({ type: DataTypes.UUID, allowNull: true, references: { model: table, key: 'id' } });

/** Notes that are written from any screen, with photographs. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  if (!(await database.tableExists('remarks')))
    await database.createTable('remarks', {
      id: { type: DataTypes.UUID, primaryKey: true, allowNull: false },
      sequence: { type: DataTypes.BIGINT.UNSIGNED, allowNull: false, autoIncrement: true, unique: true },
      machineId: reference('machines'),
      part: { type: DataTypes.STRING(60), allowNull: true },
      place: { type: DataTypes.JSON, allowNull: false },
      path: { type: DataTypes.STRING(300), allowNull: false },
      text: { type: DataTypes.TEXT, allowNull: false },
      pictures: { type: DataTypes.JSON, allowNull: false },
      supersedes: reference('remarks'),
      by: { type: DataTypes.STRING(8), allowNull: false },
      at: { type: DataTypes.DATE(3), allowNull: false },
    });
  await indexOnce(database, 'remarks', ['supersedes'], { name: 'remarks_supersedes', unique: true });
  await indexOnce(database, 'remarks', ['path'], { name: 'remarks_path' });
}
