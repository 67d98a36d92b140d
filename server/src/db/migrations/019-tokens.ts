import { DataTypes, type QueryInterface } from 'sequelize';
import { indexOnce } from './indexOnce.js';

/** Tokens for spreadsheets and screens of the shop's own, that may only read. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  if (!(await database.tableExists('tokens')))
    await database.createTable('tokens', {
      id: { type: DataTypes.UUID, primaryKey: true, allowNull: false },
      /** SHA-256 of the secret. */
      secret: { type: DataTypes.STRING(64), allowNull: false },
      name: { type: DataTypes.STRING(60), allowNull: false },
      by: { type: DataTypes.STRING(8), allowNull: false },
      at: { type: DataTypes.DATE(3), allowNull: false },
    });
  await indexOnce(database, 'tokens', ['secret'], { name: 'tokens_secret', unique: true });
}
