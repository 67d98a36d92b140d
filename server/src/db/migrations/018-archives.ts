import { DataTypes, type QueryInterface } from 'sequelize';

/** States that other shops are known to have had, and archives that were taken in. Safe to run again half way. */
export async function up(database: QueryInterface): Promise<void> {
  const hash = () => ({ type: DataTypes.CHAR(64), allowNull: false });
  if (!(await database.tableExists('seen_states')))
    await database.createTable('seen_states', {
      kind: { type: DataTypes.STRING(16), allowNull: false, primaryKey: true },
      name: { type: DataTypes.STRING(40), allowNull: false, primaryKey: true },
      hash: { ...hash(), primaryKey: true },
    });
  if (!(await database.tableExists('imports')))
    await database.createTable('imports', {
      id: { type: DataTypes.BIGINT.UNSIGNED, primaryKey: true, autoIncrement: true, allowNull: false },
      /** SHA-256 of what was in it. */
      fingerprint: hash(),
      scope: { type: DataTypes.JSON, allowNull: false },
      written: { type: DataTypes.DATE(3), allowNull: false },
      by: { type: DataTypes.STRING(8), allowNull: false },
      at: { type: DataTypes.DATE(3), allowNull: false },
    });
}
