import { DataTypes, QueryTypes, type QueryInterface } from 'sequelize';

const reference = (table: string, allowNull = false) => ({ type: DataTypes.UUID, allowNull, references: { model: table, key: 'id' } });
const when = (allowNull = false) => ({ type: DataTypes.DATE(3), allowNull });
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false });
const whole = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false });
const json = () => ({ type: DataTypes.JSON, allowNull: false });

type Json = Readonly<Record<string, unknown>>;

/** A note as it is put into its table. */
interface Note {
  readonly id: string;
  readonly surveyId: string;
  readonly kind: string;
  readonly content: string;
  readonly by: string;
  readonly at: string;
}

/** The columns in which a survey kept what was written down, before each had a row of its own. */
interface OldSurvey {
  readonly id: string;
  readonly machineId: string;
  readonly accepted: unknown;
  readonly planned: unknown;
  readonly standIns: unknown;
  readonly bearings: unknown;
  readonly byHand: unknown;
}

const rowsOf = (raw: unknown): Json[] => {
  const value: unknown = typeof raw === 'string' ? JSON.parse(raw) : raw;
  return Array.isArray(value) ? (value as Json[]) : [];
};

/** Everything that was written down in a survey, a note for each. */
function notesOf(survey: OldSurvey): Note[] {
  const note = (kind: string, { by, at }: Json, content: Json, known: unknown = crypto.randomUUID()): Note => ({
    id: String(known),
    surveyId: survey.id,
    kind,
    content: JSON.stringify(content),
    by: String(by),
    at: new Date(String(at)).toISOString().replace('T', ' ').replace('Z', ''),
  });
  const planned = rowsOf(survey.planned).flatMap(({ id, change, doneAt, ...signed }) => [
    note('planned', signed, { change }, id),
    ...(doneAt ? [note('planned-done', { ...signed, at: doneAt }, { planned: id })] : []),
  ]);
  const standIns = rowsOf(survey.standIns).flatMap(({ id, check, quantity, where, entries }) => {
    const ties = rowsOf(entries);
    const first = ties[0] ?? { by: '?', at: new Date().toISOString() };
    return [
      note('stand-in', first, { check, quantity, where }, id),
      ...ties.map(({ reading, value, ...signed }) => note('tie', signed, { standIn: id, reading, roundId: null, value })),
    ];
  });
  return [
    ...rowsOf(survey.byHand).map(({ step, note: found, ...signed }) => note('by-hand', signed, { step, note: found })),
    ...rowsOf(survey.accepted).map(({ by, at, ...content }) => note('acceptance', { by, at }, content)),
    ...planned,
    ...standIns,
    ...rowsOf(survey.bearings).map(({ id, by, at, ...content }) => note('bearing', { by, at }, content, id)),
  ].sort((a, b) => a.at.localeCompare(b.at));
}

const OLD = ['accepted', 'planned', 'standIns', 'bearings', 'byHand'] as const;

async function hasColumn(database: QueryInterface, table: string, column: string): Promise<boolean> {
  return column in (await database.describeTable(table));
}

/**
 * What was written down in a survey becomes rows of its own; a move tells when it was begun and when it was done;
 * findings are kept. Each step looks first whether it was taken: a migration that broke off goes on where it stopped.
 */
export async function up(database: QueryInterface): Promise<void> {
  const tables = await database.showAllTables();
  const make = async (name: string, columns: Parameters<QueryInterface['createTable']>[1]) => {
    if (!tables.includes(name)) await database.createTable(name, columns);
  };
  await make('survey_notes', {
    id: { type: DataTypes.UUID, primaryKey: true, allowNull: false },
    sequence: { type: DataTypes.BIGINT.UNSIGNED, allowNull: false, autoIncrement: true, unique: true },
    surveyId: reference('surveys'),
    kind: text(24),
    content: json(),
    supersedes: reference('survey_notes', true),
    by: text(8),
    at: when(),
  });
  await make('findings', {
    roundId: { ...reference('rounds'), primaryKey: true },
    sequence: whole(),
    version: whole(),
    judging: text(160),
    core: text(20),
    head: json(),
  });
  if (!tables.includes('survey_notes'))
    await database.addIndex('survey_notes', ['supersedes'], { unique: true, name: 'survey_notes_supersedes' });
  if (await hasColumn(database, 'surveys', 'accepted')) await takeNotes(database);
  if (await hasColumn(database, 'moves', 'at')) await tellTimes(database);
}

async function takeNotes(database: QueryInterface): Promise<void> {
  const { sequelize } = database;
  const surveys = await sequelize.query<OldSurvey>(`SELECT id, machineId, ${OLD.join(', ')} FROM surveys`, {
    type: QueryTypes.SELECT,
  });
  const notes = surveys.flatMap(notesOf);
  if (notes.length)
    await sequelize.transaction(async (transaction) => {
      await sequelize.query('DELETE FROM survey_notes', { type: QueryTypes.DELETE, transaction });
      await database.bulkInsert('survey_notes', notes, { transaction });
    });
  await sequelize.query(`ALTER TABLE surveys ${OLD.map((column) => `DROP COLUMN ${column}`).join(', ')}`);
}

/** Until now a move counted from when its card was begun. */
async function tellTimes(database: QueryInterface): Promise<void> {
  const { sequelize } = database;
  if (!(await hasColumn(database, 'moves', 'doneAt'))) await database.addColumn('moves', 'doneAt', when(true));
  await sequelize.query('UPDATE moves SET doneAt = `at` WHERE done = 1 AND doneAt IS NULL', { type: QueryTypes.UPDATE });
  await sequelize.query('ALTER TABLE moves CHANGE `at` begunAt DATETIME(3) NOT NULL, DROP COLUMN done');
}
