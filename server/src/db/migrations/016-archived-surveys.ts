import { DataTypes, type QueryInterface } from 'sequelize';
import { columnOnce } from './columnOnce.js';

/** Surveys in the archive, with when and by whom. Safe to run again half way. */
export const up = (database: QueryInterface): Promise<void> =>
  columnOnce(database, 'surveys', 'archived', { type: DataTypes.JSON, allowNull: true });
