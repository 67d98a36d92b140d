import { DataTypes, type QueryInterface } from 'sequelize';

const uuid = () => ({ type: DataTypes.UUID, primaryKey: true, allowNull: false });
const reference = (table: string, allowNull = false) => ({ type: DataTypes.UUID, allowNull, references: { model: table, key: 'id' } });
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false });
const whole = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false });
const when = () => ({ type: DataTypes.DATE(3), allowNull: false });
const json = () => ({ type: DataTypes.JSON, allowNull: false });
const hash = (more: object) => ({ type: DataTypes.CHAR(64), allowNull: false, ...more });

/** Pictures by what is in them, in pieces that any server takes; faces that are scraped and what is written down at them. */
export async function up(database: QueryInterface): Promise<void> {
  const tables = await database.showAllTables();
  const make = async (name: string, columns: Parameters<QueryInterface['createTable']>[1]): Promise<boolean> => {
    if (tables.includes(name)) return false;
    await database.createTable(name, columns);
    return true;
  };
  await make('pictures', {
    hash: hash({ primaryKey: true }),
    type: text(8),
    width: whole(),
    height: whole(),
    size: whole(),
    by: text(8),
    at: when(),
  });
  await make('picture_parts', {
    hash: hash({ primaryKey: true, references: { model: 'pictures', key: 'hash' } }),
    part: { ...whole(), primaryKey: true },
    bytes: { type: DataTypes.BLOB('medium'), allowNull: false },
  });
  await make('surfaces', { id: uuid(), machineId: reference('machines'), name: text(60), card: json(), version: whole() });
  const fresh = await make('surface_entries', {
    id: uuid(),
    sequence: { type: DataTypes.BIGINT.UNSIGNED, allowNull: false, autoIncrement: true, unique: true },
    surfaceId: reference('surfaces'),
    kind: text(12),
    content: json(),
    supersedes: reference('surface_entries', true),
    by: text(8),
    at: when(),
  });
  if (fresh) await database.addIndex('surface_entries', ['supersedes'], { unique: true, name: 'surface_entries_supersedes' });
}
