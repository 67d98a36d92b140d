import { DataTypes, type QueryInterface } from 'sequelize';

/** Surveys in the archive, with when and by whom. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  const columns = await database.describeTable('surveys');
  if (!columns['archived']) await database.addColumn('surveys', 'archived', { type: DataTypes.JSON, allowNull: true });
}
