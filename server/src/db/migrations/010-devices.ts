import { DataTypes, type QueryInterface } from 'sequelize';

/** Phones and tablets that were let in from the network. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  if (await database.tableExists('paired_devices')) return;
  await database.createTable('paired_devices', {
    id: { type: DataTypes.UUID, primaryKey: true },
    name: { type: DataTypes.STRING(40), allowNull: false },
    secret: { type: DataTypes.STRING(200), allowNull: false },
    pairedAt: { type: DataTypes.DATE(3), allowNull: false },
    seenAt: { type: DataTypes.DATE(3), allowNull: false },
  });
}
