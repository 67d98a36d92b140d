import type { Sequelize, Transaction } from 'sequelize';
import { HAND_STEPS } from '@isometra/core';
import {
  defaultPlan,
  usualSheet,
  type Accepted,
  type BearingNote,
  type ByHand,
  type Planned,
  type School,
  type Skipped,
  type StandInLog,
  type Survey,
  type SurveyWrite,
} from '@isometra/contract';
import { notFound, stale } from '../api/errors.js';
import { MachineRow, SurveyRow } from '../db/models.js';
import { pinColumns, pinnedSheets } from './limits.js';
import { writeLog } from './log.js';

/** Surveys of a machine, oldest first, with the sheet each is judged by. */
export async function listSurveys(machineId: string): Promise<Survey[]> {
  const machine = await MachineRow.findByPk(machineId);
  if (!machine) throw notFound('machine');
  const rows = await SurveyRow.findAll({
    where: { machineId },
    order: [
      ['startedAt', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  const usual = usualSheet(machine.kind);
  const pinned = await pinnedSheets(
    rows.map(({ id, limitVersionId, startingLimits }) => ({
      id,
      limitVersionId: limitVersionId ?? null,
      startingLimits: startingLimits ?? null,
      usual,
    })),
  );
  return rows.map((row) => ({
    id: row.id,
    machineId,
    title: row.title,
    startedAt: row.startedAt.toISOString(),
    endedAt: row.endedAt?.toISOString() ?? null,
    school: row.school as School,
    order: row.rungs ?? defaultPlan(machine.kind).order,
    skipped: (row.skipped as Skipped[] | null) ?? [],
    accepted: (row.accepted as Accepted[] | null) ?? [],
    planned: (row.planned as Planned[] | null) ?? [],
    standIns: (row.standIns as StandInLog[] | null) ?? [],
    bearings: (row.bearings as BearingNote[] | null) ?? [],
    byHand: (row.byHand as ByHand[] | null) ?? [],
    version: row.version ?? 1,
    ...(pinned.get(row.id) as Pick<Survey, 'limits' | 'judge'>),
  }));
}

async function getSurvey(machineId: string, id: string): Promise<Survey> {
  const survey = (await listSurveys(machineId)).find((entry) => entry.id === id);
  if (!survey) throw notFound('survey');
  return survey;
}

async function columns(survey: SurveyWrite) {
  const { title, school, order, skipped, accepted, planned, standIns, bearings, byHand } = survey;
  return {
    title,
    school,
    rungs: order,
    skipped,
    accepted,
    planned,
    standIns,
    bearings,
    byHand,
    startedAt: new Date(survey.startedAt),
    endedAt: survey.endedAt === null ? null : new Date(survey.endedAt),
    ...(await pinColumns(survey.limits)),
  };
}

/** Begin a survey; the one that was running ends. Safe to send twice. */
export async function addSurvey(sequelize: Sequelize, survey: SurveyWrite, by: string): Promise<Survey> {
  if (!(await MachineRow.findByPk(survey.machineId))) throw notFound('machine');
  if (await SurveyRow.findByPk(survey.id)) return getSurvey(survey.machineId, survey.id);
  const row = await columns(survey);
  await sequelize.transaction(async (transaction: Transaction) => {
    await SurveyRow.update({ endedAt: row.startedAt }, { where: { machineId: survey.machineId, endedAt: null }, transaction });
    await SurveyRow.create({ id: survey.id, machineId: survey.machineId, ...row, version: 1 }, { transaction });
    await writeLog({ machineId: survey.machineId, by, what: 'survey', text: `Survey begun: ${survey.title}` }, transaction);
  });
  return getSurvey(survey.machineId, survey.id);
}

/** What of a survey was changed, in words for the log. */
function changeText(before: Survey, after: SurveyWrite): string {
  const parts: string[] = [];
  if (before.title !== after.title) parts.push(`title “${after.title}”`);
  if (before.school !== after.school) parts.push(`after a move: ${after.school === 'top' ? 'from the top' : 'only what it upsets'}`);
  if (JSON.stringify(before.order) !== JSON.stringify(after.order)) parts.push('order of the rungs');
  if (JSON.stringify(before.limits) !== JSON.stringify(after.limits)) parts.push('limit sheet');
  for (const { check, why } of after.skipped)
    if (!before.skipped.some((entry) => entry.check === check)) parts.push(`${check} left out: ${why}`);
  for (const { check } of before.skipped) if (!after.skipped.some((entry) => entry.check === check)) parts.push(`${check} taken up again`);
  for (const { check, quantity, roundId, why } of after.accepted) {
    const known = before.accepted.some((entry) => entry.roundId === roundId && entry.quantity === quantity);
    if (!known) parts.push(`${check} ${quantity} accepted: ${why}`);
  }
  for (const { id, change, doneAt } of after.planned) {
    const known = before.planned.find((entry) => entry.id === id);
    if (!known) parts.push(`planned: ${change.kind}`);
    else if (known.doneAt === null && doneAt !== null) parts.push(`planned change done: ${change.kind}`);
  }
  if (after.bearings.length > before.bearings.length) parts.push('bearings felt');
  for (const { step, note } of after.byHand.slice(before.byHand.length)) {
    const title =
      Object.values(HAND_STEPS)
        .flat()
        .find((entry) => entry.id === step)?.title ?? step;
    parts.push(`${title} done${note ? `: ${note}` : ''}`);
  }
  if (before.endedAt === null && after.endedAt !== null) parts.push('ended');
  return parts.length ? `Survey changed: ${parts.join('; ')}` : '';
}

/** Change a survey; a stale version gets 409 with the newer row. */
export async function changeSurvey(survey: SurveyWrite, by: string): Promise<Survey> {
  const before = await getSurvey(survey.machineId, survey.id);
  const { startedAt: _fixed, ...row } = await columns(survey);
  const [changed] = await SurveyRow.update({ ...row, version: survey.version + 1 }, { where: { id: survey.id, version: survey.version } });
  const now = await getSurvey(survey.machineId, survey.id);
  const { judge: _judge, version: _version, ...stands } = now;
  const { version: _sent, ...wanted } = survey;
  if (!changed && JSON.stringify(sorted(stands)) !== JSON.stringify(sorted({ ...wanted, startedAt: now.startedAt }))) throw stale(now);
  const text = changed ? changeText(before, survey) : '';
  if (text) await writeLog({ machineId: survey.machineId, by, what: 'survey', text });
  return now;
}

const sorted = (row: object): unknown => Object.fromEntries(Object.entries(row).sort(([a], [b]) => a.localeCompare(b)));
