import { DataTypes, type QueryInterface } from 'sequelize';

/** What is settled for the whole shop; and which rounds are dated beyond the server's own time. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  if (!(await database.showAllTables()).includes('shop_settings'))
    await database.createTable('shop_settings', {
      name: { type: DataTypes.STRING(40), primaryKey: true },
      value: { type: DataTypes.STRING(200), allowNull: false },
      by: { type: DataTypes.STRING(8), allowNull: true },
      at: { type: DataTypes.DATE(3), allowNull: false },
    });
  const columns = await database.describeTable('rounds');
  if (!columns['ahead']) await database.addColumn('rounds', 'ahead', { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false });
}
