import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type { ArchiveScope } from '@isometra/contract/archive';
import { byName, remarksOf } from '@isometra/work';
import { ApiError, notFound } from '../api/errors.js';
import { RemarkRow } from '../db/remarkModel.js';
import { KitRow, MachineRow } from '../db/shopModels.js';
import { SurveyRow } from '../db/surveyModels.js';
import { KEEPING, pathOf, type ThingKind } from './things.js';

/** What an archive is asked for: the whole shop, a machine by its number or id, a survey by its id. */
export interface Asked {
  readonly machine?: string;
  readonly survey?: string;
}

/** Kinds of which only what is mentioned comes along, unless it is the whole shop. */
const MENTIONED: readonly ThingKind[] = ['people', 'pictures', 'kit', 'limits'];

/** Which logbooks, by machine and survey. */
type LogOf = { readonly machineId: string | null; readonly surveyId: string | null };

/** What belongs to an archive. */
export interface Belonging {
  readonly scope: ArchiveScope;
  /** Keys by kind, in order. */
  readonly things: readonly (readonly [ThingKind, readonly string[]])[];
  readonly logs: readonly LogOf[];
  /** Paths of what comes along where it is mentioned, by the names under which it is; empty for the whole shop. */
  readonly mentioned: ReadonlyMap<string, readonly string[]>;
}

/** Which machine or survey is meant. */
export async function scopeOf({ machine, survey }: Asked, transaction?: Transaction): Promise<ArchiveScope> {
  const given = transaction && { transaction };
  if (survey !== undefined) {
    const row = await SurveyRow.findByPk(survey, given);
    if (!row) throw notFound('survey');
    const of = await MachineRow.findByPk(row.machineId, given);
    if (machine !== undefined && of?.number !== machine && of?.id !== machine)
      throw new ApiError(400, [{ path: 'survey', message: `is not a survey of ${machine}`, example: 'the id of one of its surveys' }]);
    return { of: 'survey', id: row.id, title: row.title, machine: of?.number ?? '' };
  }
  if (machine === undefined) return { of: 'shop' };
  const row = (await MachineRow.findOne({ where: { number: machine }, ...given })) ?? (await MachineRow.findByPk(machine, given));
  if (!row) {
    const all = await MachineRow.findAll({ attributes: ['number'], order: [['number', 'ASC']], ...given });
    const known = all.map(({ number }) => number).join(', ');
    throw new ApiError(404, [{ path: 'machine', message: `no machine here has the number ${machine}`, example: known || 'L-14' }]);
  }
  return { of: 'machine', id: row.id, number: row.number };
}

/** The keys of a kind by a query. */
type Query = (sql: string, replacements?: Readonly<Record<string, unknown>>) => Promise<string[]>;

const OF_MACHINE: readonly (readonly [ThingKind, string])[] = [
  ['machines', 'SELECT id AS k FROM machines WHERE id = :id'],
  ['plans', 'SELECT machineId AS k FROM plans WHERE machineId = :id'],
  ['surveys', 'SELECT id AS k FROM surveys WHERE machineId = :id'],
  ['rounds', 'SELECT id AS k FROM rounds WHERE machineId = :id'],
  ['moves', 'SELECT v.id AS k FROM moves v JOIN rounds r ON r.id = v.roundId WHERE r.machineId = :id'],
  ['surfaces', 'SELECT id AS k FROM surfaces WHERE machineId = :id'],
  ['strip-downs', 'SELECT id AS k FROM strip_downs WHERE machineId = :id'],
  ['parts', 'SELECT p.id AS k FROM parts p JOIN strip_downs s ON s.id = p.stripDownId WHERE s.machineId = :id'],
  ['remarks', 'SELECT id AS k FROM remarks WHERE machineId = :id'],
];
const OF_ROUNDS = 'FROM rounds r JOIN checks c ON c.id = r.checkId WHERE c.surveyId = :id';

async function ofSurvey(query: Query, id: string, machineId: string, transaction: Transaction): Promise<Belonging['things']> {
  const rounds = await query(`SELECT r.id AS k ${OF_ROUNDS}`, { id });
  const remarks = await RemarkRow.findAll({ where: { machineId }, attributes: ['id', 'path', 'supersedes'], transaction });
  return [
    ['machines', [machineId]],
    ['surveys', [id]],
    ['rounds', rounds],
    ['moves', await query(`SELECT v.id AS k FROM moves v WHERE v.roundId IN (SELECT r.id ${OF_ROUNDS})`, { id })],
    [
      'remarks',
      remarksOf(remarks, new Set(rounds))
        .map((remark) => remark.id)
        .sort(),
    ],
  ];
}

/** What may be mentioned: everything of the kinds that come along, by the names it goes by. */
async function mentionable(query: Query, transaction: Transaction): Promise<ReadonlyMap<string, readonly string[]>> {
  const pairs: [string, string][] = [];
  for (const kind of MENTIONED) {
    const { model, key } = KEEPING[kind];
    for (const name of await query(`SELECT \`${key}\` AS k FROM ${String(model.getTableName())}`)) pairs.push([name, pathOf(kind, name)]);
  }
  // Rounds say on which instrument they were read by its name.
  for (const { id, name } of await KitRow.findAll({ attributes: ['id', 'name'], order: [['id', 'ASC']], transaction }))
    pairs.push([name, pathOf('kit', id)]);
  for (const both of await query(`SELECT CONCAT(id, ' ', limitSheetId) AS k FROM limit_sheet_versions`)) {
    const [version, sheet] = both.split(' ');
    pairs.push([version, pathOf('limits', sheet)]);
  }
  return byName(pairs);
}

/** What belongs to an archive of something. */
export async function belongingTo(sequelize: Sequelize, asked: Asked, transaction: Transaction): Promise<Belonging> {
  const scope = await scopeOf(asked, transaction);
  const query: Query = async (sql, replacements = {}) => {
    const rows = await sequelize.query<{ k: string }>(`${sql} ORDER BY k`, { replacements, type: QueryTypes.SELECT, transaction });
    return rows.map(({ k }) => k);
  };
  const surveysOf = (machineId: string) => query('SELECT id AS k FROM surveys WHERE machineId = :machineId', { machineId });
  const logsOf = async (machineId: string): Promise<LogOf[]> => [
    { machineId, surveyId: null },
    ...(await surveysOf(machineId)).map((surveyId) => ({ machineId, surveyId })),
  ];
  if (scope.of === 'survey') {
    const machineId = (await SurveyRow.findByPk(scope.id, { transaction, rejectOnEmpty: true })).machineId;
    const things = await ofSurvey(query, scope.id, machineId, transaction);
    return { scope, things, logs: [{ machineId, surveyId: scope.id }], mentioned: await mentionable(query, transaction) };
  }
  if (scope.of === 'machine') {
    const things: [ThingKind, string[]][] = [];
    for (const [kind, sql] of OF_MACHINE) things.push([kind, await query(sql, { id: scope.id })]);
    return { scope, things, logs: await logsOf(scope.id), mentioned: await mentionable(query, transaction) };
  }
  const things: [ThingKind, string[]][] = [];
  for (const kind of Object.keys(KEEPING) as ThingKind[]) {
    const { model, key } = KEEPING[kind];
    things.push([kind, await query(`SELECT \`${key}\` AS k FROM ${String(model.getTableName())}`)]);
  }
  const machines = things.find(([kind]) => kind === 'machines')?.[1] ?? [];
  const logs = [];
  for (const machineId of machines) logs.push(...(await logsOf(machineId)));
  return { scope, things, logs: [...logs, { machineId: null, surveyId: null }], mentioned: new Map() };
}
