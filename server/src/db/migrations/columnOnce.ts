import type { ModelAttributeColumnOptions, QueryInterface } from 'sequelize';

/** Add a column where the table does not have it yet: a migration that stopped half way is run again. */
export async function columnOnce(
  database: QueryInterface,
  table: string,
  name: string,
  column: ModelAttributeColumnOptions,
): Promise<void> {
  const columns = await database.describeTable(table);
  if (!columns[name]) await database.addColumn(table, name, column);
}
