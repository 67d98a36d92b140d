import type { IndexesOptions, QueryInterface } from 'sequelize';

/** Add an index where the table does not have it yet: a migration that stopped half way is run again. */
export async function indexOnce(
  database: QueryInterface,
  table: string,
  columns: string[],
  options: IndexesOptions & { readonly name: string },
): Promise<void> {
  const indexes = (await database.showIndex(table)) as { readonly name: string }[];
  if (!indexes.some(({ name }) => name === options.name)) await database.addIndex(table, columns, options);
}
