import type { Sequelize } from 'sequelize';
import type { ReportQuery } from '@isometra/contract';
import { reportOf, type ToldRound } from '@isometra/work';
import { stampText } from '../archives/madeFrom.js';
import { fingerprintOf } from '../archives/writing.js';
import { notFound } from '../api/errors.js';
import { SurveyRow } from '../db/surveyModels.js';
import { listHeads } from '../services/heads.js';
import { listKit } from '../services/kit.js';
import { getMachine } from '../services/machines.js';
import { listPeople } from '../services/people.js';
import { findingOf, getRound } from '../services/rounds.js';
import { readShopCard, shopZone } from '../services/shop.js';
import type { Solver } from '../services/solver.js';
import { getSurvey } from '../services/surveys.js';
import { Printer } from './printer.js';

/** A report as it leaves the server. */
export interface MadeReport {
  /** What it is called on disk. */
  readonly name: string;
  readonly fingerprint: string;
  readonly pdf: NodeJS.ReadableStream;
}

/** Make the acceptance report of a survey. @throws ApiError where there is no such survey. */
export async function makeReport(
  { sequelize, solver }: { readonly sequelize: Sequelize; readonly solver: Solver },
  surveyId: string,
  { units, detail, checks }: ReportQuery,
): Promise<MadeReport> {
  if (!(await SurveyRow.count({ where: { id: surveyId } }))) throw notFound('survey');
  const survey = await getSurvey(surveyId);
  const [machine, heads, kit, people, shop, zone, { fingerprint }] = await Promise.all([
    getMachine(survey.machineId),
    listHeads(sequelize, solver, survey.machineId),
    listKit(),
    listPeople(sequelize),
    readShopCard(),
    shopZone(),
    fingerprintOf(sequelize, { survey: surveyId }),
  ]);
  const wanted = heads.filter((head) => head.surveyId === surveyId && (!checks || checks.includes(head.check)));
  const rounds: ToldRound[] = [];
  if (detail === 'full')
    for (const { id } of wanted)
      rounds.push({ round: await getRound(sequelize, id), finding: (await findingOf(sequelize, solver, id)).finding });
  const report = reportOf({
    ...{ machine, survey, heads, rounds, kit, zone, units, fingerprint, now: new Date().toISOString() },
    shop: shop.name ?? '',
    fineness: shop.fineness ?? 'coarse',
    short: detail === 'short',
    people: new Map(people.map(({ initials, name }) => [initials, name])),
    ...(checks && { checks }),
  });
  const printer = new Printer(report, {
    paper: shop.paper === 'Letter' ? 'Letter' : 'A4',
    subject: stampText({ survey: surveyId, fingerprint }),
  });
  const name = `${machine.card.number}-${survey.title}-report.pdf`.replace(/[^\w.-]+/g, '-');
  return { name, fingerprint, pdf: printer.print() };
}
