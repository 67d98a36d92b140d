import { Op, type Sequelize, type Transaction } from 'sequelize';
import { CHANGE_KINDS, CHECKS, COARSE_STEPS, HAND_STEPS } from '@isometra/core';
import { machineFamily, surveyNoteSchema, type SurveyNote } from '@isometra/contract';
import { EVENT_WORDS, noteFaults } from '@isometra/work';
import { ApiError, notFound } from '../api/errors.js';
import { brokenRule } from '../db/constraints.js';
import { MachineRow } from '../db/shopModels.js';
import { NoteRow, RoundRow, SurveyRow } from '../db/surveyModels.js';
import { inOneGo } from '../db/transactions.js';
import { writeLog } from './log.js';

const shown = ({ id, surveyId, kind, content, supersedes, by, at }: NoteRow): SurveyNote =>
  ({ id, surveyId, kind, content, supersedes, by, at: at.toISOString() }) as SurveyNote;

/** What was written down in some surveys, oldest first, by survey id. */
export async function notesOf(surveyIds: readonly string[], transaction?: Transaction): Promise<ReadonlyMap<string, SurveyNote[]>> {
  const notes = new Map<string, SurveyNote[]>(surveyIds.map((id) => [id, []]));
  if (surveyIds.length === 0) return notes;
  const rows = await NoteRow.findAll({
    where: { surveyId: { [Op.in]: [...surveyIds] } },
    order: [
      ['at', 'ASC'],
      ['sequence', 'ASC'],
    ],
    transaction,
  });
  for (const row of rows) notes.get(row.surveyId)?.push(shown(row));
  return notes;
}

const checkTitle = (id: string): string => CHECKS.get(id)?.title ?? id;
const changeTitle = (id: string): string => CHANGE_KINDS.find((kind) => kind.id === id)?.title ?? id;
const coarseTitle = (id: string): string => COARSE_STEPS.find((step) => step.id === id)?.title.toLowerCase() ?? id;
const stepTitle = (id: string): string =>
  Object.values(HAND_STEPS)
    .flat()
    .find((step) => step.id === id)?.title ?? id;

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** A note in words for the log. */
function textOf(note: SurveyNote): string {
  switch (note.kind) {
    case 'by-hand':
      return `${stepTitle(note.content.step)} done${note.content.note ? `: ${note.content.note}` : ''}`;
    case 'rough-look':
      return `Rough look, ${coarseTitle(note.content.step)}: ${note.content.seen}`;
    case 'acceptance':
      return `${checkTitle(note.content.check)}, ${note.content.quantity} accepted: ${note.content.why}`;
    case 'bearing':
      return `Bearings felt${note.content.note ? `: ${note.content.note}` : ''}`;
    case 'planned':
      return `Planned: ${changeTitle(note.content.change.kind)}`;
    case 'planned-done':
      return 'A planned change is done';
    case 'stand-in':
      return `Stand-in for “${checkTitle(note.content.check)}”: ${note.content.where}`;
    case 'tie':
      return `Stand-in read: ${note.content.reading}${note.content.value === null ? '' : `, tied to ${note.content.value}`}`;
    case 'event':
      return `${capital(EVENT_WORDS[note.content.what] ?? note.content.what)}${note.content.note ? `: ${note.content.note}` : ''}`;
    case 'withdrawn':
      return 'A note was taken back';
  }
}

/** The check that a note speaks of; null where it speaks of none. */
function partOf({ kind, content }: SurveyNote): string | null {
  return kind === 'acceptance' || kind === 'stand-in' ? content.check : null;
}

/** Refuse a note that its survey cannot carry, or that speaks of a round of another machine. */
async function refuseFaulty(note: SurveyNote, survey: SurveyRow, transaction: Transaction): Promise<void> {
  const machine = await MachineRow.findByPk(survey.machineId, { transaction });
  const written = (await notesOf([survey.id], transaction)).get(survey.id) ?? [];
  const faults = noteFaults(note, written, machineFamily(machine?.kind ?? ''));
  const roundId = note.kind === 'acceptance' || note.kind === 'tie' ? note.content.roundId : null;
  const round = roundId === null ? undefined : await RoundRow.findByPk(roundId, { transaction, attributes: ['machineId'] });
  if (roundId !== null && round?.machineId !== survey.machineId)
    faults.push({ path: 'content.roundId', message: 'no such round on this machine', example: 'the id of a round from its list' });
  if (faults.length) throw new ApiError(400, faults);
}

/** Write something down in a survey: never changed afterwards, only superseded. Safe to send twice, also at the same moment. */
export async function addNote(sequelize: Sequelize, note: SurveyNote, given?: Transaction): Promise<SurveyNote> {
  try {
    return await inOneGo(
      sequelize,
      async (transaction) => {
        const survey = await SurveyRow.findByPk(note.surveyId, { transaction, lock: transaction.LOCK.UPDATE });
        if (!survey) throw notFound('survey');
        const known = await NoteRow.findByPk(note.id, { transaction });
        if (known) return shown(known);
        await refuseFaulty(note, survey, transaction);
        const { id, surveyId, kind, content, supersedes, by, at } = surveyNoteSchema.parse(note);
        await NoteRow.create({ id, surveyId, kind, content: { ...content }, supersedes, by, at: new Date(at) }, { transaction });
        const text = `${supersedes && kind !== 'withdrawn' ? 'Corrected: ' : ''}${textOf(note)}`;
        const place = { part: partOf(note), thing: 'survey', thingId: surveyId } as const;
        await writeLog({ machineId: survey.machineId, by, what: 'survey', text, at: new Date(at), ...place }, transaction);
        return note;
      },
      given,
    );
  } catch (error) {
    const known = brokenRule(error) === 'PRIMARY' ? await NoteRow.findByPk(note.id) : null;
    if (known) return shown(known);
    throw error;
  }
}
