import { DataTypes, type QueryInterface } from 'sequelize';
import { indexOnce } from './indexOnce.js';

/** Every state that a card, a piece of kit or a face has had. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  if (!(await database.tableExists('earlier_states')))
    await database.createTable('earlier_states', {
      id: { type: DataTypes.BIGINT.UNSIGNED, primaryKey: true, autoIncrement: true },
      what: { type: DataTypes.STRING(24), allowNull: false },
      thingId: { type: DataTypes.UUID, allowNull: false },
      version: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      state: { type: DataTypes.JSON, allowNull: false },
      by: { type: DataTypes.STRING(8), allowNull: true },
      at: { type: DataTypes.DATE(3), allowNull: true },
    });
  await indexOnce(database, 'earlier_states', ['what', 'thingId', 'version'], { name: 'earlier_states_of', unique: true });
}
