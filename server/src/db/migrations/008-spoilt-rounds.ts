import { DataTypes, type QueryInterface } from 'sequelize';

/** Rounds that were struck out, with who did it and why: kept, and counted nowhere. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  const columns = await database.describeTable('rounds');
  if (!columns['struck']) await database.addColumn('rounds', 'struck', { type: DataTypes.JSON, allowNull: true });
}
