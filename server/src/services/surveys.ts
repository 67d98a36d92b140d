import { isDeepStrictEqual } from 'node:util';
import type { Sequelize, Transaction } from 'sequelize';
import { CHECKS } from '@isometra/core';
import { usualSheet, type School, type Skipped, type StoredSurvey, type SurveyWrite } from '@isometra/contract';
import { defaultPlan, surveyWriteOf } from '@isometra/work';
import { notFound, stale } from '../api/errors.js';
import { brokenRule } from '../db/constraints.js';
import { MachineRow } from '../db/shopModels.js';
import { SurveyRow } from '../db/surveyModels.js';
import { inOneGo } from '../db/transactions.js';
import { pinColumns, pinnedSheets } from './limits.js';
import { keepState, type Version } from './states.js';
import { archivedOf } from './archive.js';
import { writeLog } from './log.js';
import { notesOf } from './notes.js';

/** Surveys of a machine, oldest first, with the sheet each is judged by and what was written down in it. */
export async function listSurveys(machineId: string, transaction?: Transaction): Promise<StoredSurvey[]> {
  const machine = await MachineRow.findByPk(machineId, { transaction });
  if (!machine) throw notFound('machine');
  const order: [string, string][] = [
    ['startedAt', 'ASC'],
    ['id', 'ASC'],
  ];
  const rows = await SurveyRow.findAll({ where: { machineId }, order, transaction });
  return shown(machine, rows, transaction);
}

async function shown(machine: MachineRow, rows: readonly SurveyRow[], transaction?: Transaction): Promise<StoredSurvey[]> {
  const usual = usualSheet(machine.kind);
  const pins = rows.map(({ id, limitVersionId, startingLimits }) => ({
    id,
    limitVersionId: limitVersionId ?? null,
    startingLimits: startingLimits ?? null,
    usual,
  }));
  const [pinned, notes] = await Promise.all([
    pinnedSheets(pins, transaction),
    notesOf(
      rows.map(({ id }) => id),
      transaction,
    ),
  ]);
  return rows.map((row) => ({
    id: row.id,
    machineId: machine.id,
    title: row.title,
    startedAt: row.startedAt.toISOString(),
    endedAt: row.endedAt?.toISOString() ?? null,
    school: row.school as School,
    order: row.rungs ?? defaultPlan(machine.kind).order,
    skipped: (row.skipped as Skipped[] | null) ?? [],
    version: row.version ?? 1,
    notes: notes.get(row.id) ?? [],
    ...archivedOf(row),
    ...(pinned.get(row.id) as Pick<StoredSurvey, 'limits' | 'judge'>),
  }));
}

/** One survey, as it stands. */
export async function getSurvey(id: string, transaction?: Transaction): Promise<StoredSurvey> {
  const row = await SurveyRow.findByPk(id, { transaction });
  const machine = row && (await MachineRow.findByPk(row.machineId, { transaction }));
  if (!machine) throw notFound('survey');
  return (await shown(machine, [row], transaction))[0];
}

async function columns(survey: SurveyWrite, transaction: Transaction) {
  const { title, school, order, skipped } = survey;
  return {
    title,
    school,
    rungs: order,
    skipped,
    startedAt: new Date(survey.startedAt),
    endedAt: survey.endedAt === null ? null : new Date(survey.endedAt),
    ...(await pinColumns(survey.limits, transaction)),
  };
}

/** Begin a survey; the one that was running ends. Safe to send twice, also at the same moment. */
export async function addSurvey(sequelize: Sequelize, survey: SurveyWrite, by: string, given?: Transaction): Promise<StoredSurvey> {
  try {
    const write = async (transaction: Transaction): Promise<void> => {
      const machine = await MachineRow.findByPk(survey.machineId, { transaction, lock: transaction.LOCK.UPDATE });
      if (!machine) throw notFound('machine');
      const row = await columns(survey, transaction);
      await SurveyRow.create({ id: survey.id, machineId: survey.machineId, ...row, version: 1 }, { transaction });
      if (row.endedAt === null) await endOthers(survey, row.startedAt, by, transaction);
      const place = { thing: 'survey', thingId: survey.id } as const;
      await writeLog({ machineId: survey.machineId, by, what: 'survey', text: `Survey begun: ${survey.title}`, ...place }, transaction);
    };
    await inOneGo(sequelize, write, given);
  } catch (error) {
    if (brokenRule(error) !== 'PRIMARY') throw error;
  }
  return getSurvey(survey.id, given);
}

/** Only one survey of a machine runs. */
async function endOthers({ id, machineId }: SurveyWrite, endedAt: Date, by: string, transaction: Transaction): Promise<void> {
  for (const other of await SurveyRow.findAll({ where: { machineId, endedAt: null }, transaction })) {
    if (other.id === id) continue;
    await other.update({ endedAt, version: (other.version ?? 1) + 1 }, { transaction });
    const place = { thing: 'survey', thingId: other.id } as const;
    await writeLog({ machineId, by, what: 'survey', text: `Survey ended: ${other.title}`, ...place }, transaction);
  }
}

/** What of a survey is kept of every earlier state. */
const stateOf = ({ title, school, order, skipped, limits }: SurveyWrite, version: number): Version => ({
  version,
  state: { title, school, order, skipped, limits },
});

const checkTitle = (check: string): string => CHECKS.get(check)?.title ?? check;

/** What of a survey was changed, in words for the log. */
function changeText(before: StoredSurvey, after: SurveyWrite): string {
  const parts: string[] = [];
  if (before.title !== after.title) parts.push(`title “${after.title}”`);
  if (before.school !== after.school) parts.push(`after a move: ${after.school === 'top' ? 'from the top' : 'only what it upsets'}`);
  if (!isDeepStrictEqual(before.order, after.order)) parts.push('order of the checks');
  if (!isDeepStrictEqual(before.limits, after.limits)) parts.push('limit sheet');
  for (const { check, why } of after.skipped)
    if (!before.skipped.some((entry) => entry.check === check)) parts.push(`${checkTitle(check)} left out: ${why}`);
  for (const { check } of before.skipped)
    if (!after.skipped.some((entry) => entry.check === check)) parts.push(`${checkTitle(check)} taken up again`);
  if (before.endedAt === null && after.endedAt !== null) parts.push('ended');
  if (before.endedAt !== null && after.endedAt === null) parts.push('taken up again');
  return parts.length ? `Survey changed: ${parts.join('; ')}` : '';
}

/** Change a survey; a stale version gets 409 with the newer row. */
export function changeSurvey(sequelize: Sequelize, survey: SurveyWrite, by: string, given?: Transaction): Promise<StoredSurvey> {
  const { id, version } = survey;
  return inOneGo(
    sequelize,
    async (transaction) => {
      const row = await SurveyRow.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE });
      if (!row) throw notFound('survey');
      const before = await getSurvey(id, transaction);
      const fixed = { machineId: before.machineId, startedAt: before.startedAt, version: before.version };
      const wanted: SurveyWrite = { ...survey, ...fixed };
      if (isDeepStrictEqual(surveyWriteOf(before), surveyWriteOf(wanted))) return before;
      if (before.version !== version) throw stale(before);
      await row.update({ ...(await columns(wanted, transaction)), version: version + 1 }, { transaction });
      await keepState({ what: 'surveys', id, by }, stateOf(wanted, version + 1), stateOf(before, version), transaction);
      if (before.endedAt !== null && wanted.endedAt === null) await endOthers(wanted, new Date(), by, transaction);
      const text = changeText(before, survey);
      if (text) await writeLog({ machineId: row.machineId, by, what: 'survey', text, thing: 'survey', thingId: id }, transaction);
      return getSurvey(id, transaction);
    },
    given,
  );
}
