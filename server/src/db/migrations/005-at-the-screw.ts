import { DataTypes, type QueryInterface } from 'sequelize';

/** What was seen at the screw: by which dial a part was moved, and what it did on tightening. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  const columns = await database.describeTable('moves');
  if (!columns['made']) await database.addColumn('moves', 'made', { type: DataTypes.JSON, allowNull: true });
}
