import { DataTypes, type QueryInterface } from 'sequelize';

// Sequelize writes into the column descriptions it is given: each use needs one of its own.
const id = () => ({ type: DataTypes.UUID, primaryKey: true, allowNull: false });
const version = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 1 });
const json = () => ({ type: DataTypes.JSON, allowNull: false });
const maybeJson = () => ({ type: DataTypes.JSON, allowNull: true });
const when = () => ({ type: DataTypes.DATE(3), allowNull: false });
const who = () => ({ type: DataTypes.STRING(8), allowNull: false });
const refersTo = (table: string, allowNull = false) => ({ type: DataTypes.UUID, allowNull, references: { model: table, key: 'id' } });

/** Limit sheets with all their versions, surveys as campaigns, the care of the kit and its photographs. */
export async function up(database: QueryInterface): Promise<void> {
  await database.createTable('limit_sheets', {
    id: id(),
    name: { type: DataTypes.STRING(60), allowNull: false },
    version: version(),
  });
  await database.createTable('limit_sheet_versions', {
    id: id(),
    limitSheetId: refersTo('limit_sheets'),
    version: version(),
    content: json(),
    by: who(),
    at: when(),
  });
  await database.addIndex('limit_sheet_versions', ['limitSheetId', 'version'], { unique: true });
  await database.addColumn('surveys', 'school', { type: DataTypes.STRING(8), allowNull: false, defaultValue: 'cascade' });
  await database.addColumn('surveys', 'rungs', maybeJson());
  await database.addColumn('surveys', 'skipped', maybeJson());
  await database.addColumn('surveys', 'accepted', maybeJson());
  for (const column of ['planned', 'standIns', 'bearings']) await database.addColumn('surveys', column, maybeJson());
  await database.addColumn('surveys', 'startingLimits', { type: DataTypes.STRING(24), allowNull: true });
  await database.addColumn('surveys', 'limitVersionId', refersTo('limit_sheet_versions', true));
  await database.addColumn('kit_items', 'care', maybeJson());
  await database.addColumn('kit_items', 'dueOn', { type: DataTypes.DATEONLY, allowNull: true });
  await database.addIndex('kit_items', ['dueOn']);
  await database.createTable('attachments', {
    id: id(),
    kitItemId: refersTo('kit_items'),
    mime: { type: DataTypes.STRING(40), allowNull: false },
    bytes: { type: DataTypes.BLOB('medium'), allowNull: false },
    by: who(),
    at: when(),
  });
  await database.addIndex('attachments', ['kitItemId', 'at']);
}
