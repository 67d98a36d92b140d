import { DataTypes, type QueryInterface } from 'sequelize';

/** Machines, kit and limit sheets in the archive, with when and by whom. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  for (const table of ['machines', 'kit_items', 'limit_sheets']) {
    const columns = await database.describeTable(table);
    if (!columns['archived']) await database.addColumn(table, 'archived', { type: DataTypes.JSON, allowNull: true });
  }
}
