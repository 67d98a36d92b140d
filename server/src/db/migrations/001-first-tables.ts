import { DataTypes, type QueryInterface } from 'sequelize';

// Sequelize writes into the column descriptions it is given: each use needs one of its own.
const id = () => ({ type: DataTypes.UUID, primaryKey: true, allowNull: false });
const version = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 1 });
const json = () => ({ type: DataTypes.JSON, allowNull: false });
const when = () => ({ type: DataTypes.DATE(3), allowNull: false });
const who = () => ({ type: DataTypes.STRING(8), allowNull: false });
const refersTo = (table: string) => ({ type: DataTypes.UUID, allowNull: false, references: { model: table, key: 'id' } });

/** Machines, kit, surveys, their checks, rounds, readings, moves and the log. */
export async function up(database: QueryInterface): Promise<void> {
  await database.createTable('machines', {
    id: id(),
    number: { type: DataTypes.STRING(24), allowNull: false, unique: true },
    kind: { type: DataTypes.STRING(24), allowNull: false },
    card: json(),
    version: version(),
  });
  await database.createTable('kit_items', {
    id: id(),
    kind: { type: DataTypes.STRING(24), allowNull: false },
    name: { type: DataTypes.STRING(60), allowNull: false },
    data: json(),
    version: version(),
  });
  await database.createTable('surveys', {
    id: id(),
    machineId: refersTo('machines'),
    title: { type: DataTypes.STRING(120), allowNull: false },
    startedAt: when(),
    endedAt: { type: DataTypes.DATE(3), allowNull: true },
    version: version(),
  });
  await database.createTable('checks', {
    id: id(),
    surveyId: refersTo('surveys'),
    kind: { type: DataTypes.STRING(60), allowNull: false },
  });
  await database.addIndex('checks', ['surveyId', 'kind'], { unique: true });
  await database.createTable('rounds', {
    id: id(),
    checkId: refersTo('checks'),
    machineId: refersTo('machines'),
    kind: { type: DataTypes.STRING(60), allowNull: false },
    setup: json(),
    plan: json(),
    instrument: { type: DataTypes.JSON, allowNull: true },
    instrumentName: { type: DataTypes.STRING(60), allowNull: true },
    conditions: json(),
    purpose: { type: DataTypes.JSON, allowNull: true },
    note: { type: DataTypes.TEXT, allowNull: true },
    by: who(),
    at: when(),
    version: version(),
  });
  await database.addIndex('rounds', ['machineId', 'kind', 'at']);
  await database.createTable('readings', {
    id: id(),
    roundId: refersTo('rounds'),
    sequence: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
    keys: json(),
    value: { type: DataTypes.STRING(60), allowNull: true },
    bare: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
    setUp: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 1 },
    supersedes: { type: DataTypes.UUID, allowNull: true, unique: true, references: { model: 'readings', key: 'id' } },
    why: { type: DataTypes.STRING(200), allowNull: true },
    by: who(),
    at: when(),
  });
  await database.addIndex('readings', ['roundId', 'sequence'], { unique: true });
  await database.createTable('moves', {
    id: id(),
    roundId: refersTo('rounds'),
    kind: { type: DataTypes.STRING(40), allowNull: false },
    quantity: { type: DataTypes.STRING(60), allowNull: false },
    amount: { type: DataTypes.DOUBLE, allowNull: false },
    unit: { type: DataTypes.STRING(20), allowNull: false },
    direction: { type: DataTypes.STRING(60), allowNull: false },
    plan: json(),
    ticks: json(),
    done: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
    shift: { type: DataTypes.STRING(60), allowNull: true },
    by: who(),
    at: when(),
    version: version(),
  });
  await database.addIndex('moves', ['roundId']);
  await database.createTable('log_entries', {
    id: { type: DataTypes.BIGINT.UNSIGNED, primaryKey: true, autoIncrement: true },
    machineId: { type: DataTypes.UUID, allowNull: true, references: { model: 'machines', key: 'id' } },
    at: when(),
    by: who(),
    what: { type: DataTypes.STRING(40), allowNull: false },
    text: { type: DataTypes.STRING(400), allowNull: false },
  });
  await database.addIndex('log_entries', ['machineId', 'at']);
}
