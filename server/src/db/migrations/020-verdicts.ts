import { DataTypes, type QueryInterface } from 'sequelize';
import { columnOnce } from './columnOnce.js';

const VERDICTS = ['in', 'out', 'unsure'];
/** Where any quantity of a finding has this verdict: its name, else nothing. */
const named = (verdict: string): string =>
  `IF(JSON_SEARCH(head, 'one', '${verdict}', NULL, '$.finding.quantities.*.verdict') IS NULL, NULL, '${verdict}')`;

/**
 * The verdicts that a round has stand beside what it said: counting over a shop need not look into each of them. Safe to run again half
 * way.
 */
export async function up(database: QueryInterface): Promise<void> {
  await columnOnce(database, 'findings', 'verdicts', { type: DataTypes.STRING(16), allowNull: false, defaultValue: '' });
  await database.sequelize.query(`UPDATE findings SET verdicts = CONCAT_WS(',', ${VERDICTS.map(named).join(', ')})`);
}
