import { DataTypes, type QueryInterface } from 'sequelize';

/** Rungs that are done by hand and eye: cleaning before the first, the proof cut after the last. */
export async function up(database: QueryInterface): Promise<void> {
  await database.addColumn('surveys', 'byHand', { type: DataTypes.JSON, allowNull: true });
}
