import { DataTypes, type QueryInterface } from 'sequelize';

/** People of the shop by their initials; and room for all that is settled on its page. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  await database.changeColumn('shop_settings', 'value', { type: DataTypes.TEXT, allowNull: false });
  if (!(await database.tableExists('people')))
    await database.createTable('people', {
      initials: { type: DataTypes.STRING(8), primaryKey: true, allowNull: false },
      name: { type: DataTypes.STRING(60), allowNull: false },
      meant: { type: DataTypes.STRING(8), allowNull: true },
    });
}
