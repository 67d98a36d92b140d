import type { ReportQuery, ReportStep } from '@isometra/contract';
import { readingSheet, reportOf, solveWhatStands, type ToldRound } from '@isometra/work';
import { stampText } from '../archives/madeFrom.js';
import { fingerprintOf, Stopped } from '../archives/writing.js';
import { notFound } from '../api/errors.js';
import type { Means } from '../api/means.js';
import { SurveyRow } from '../db/surveyModels.js';
import { listHeads } from '../services/heads.js';
import { listKit } from '../services/kit.js';
import { getMachine, listMachines } from '../services/machines.js';
import { listPeople } from '../services/people.js';
import { getRound, sheetFor } from '../services/rounds.js';
import { readShopCard, shopZone } from '../services/shop.js';
import { listStripDowns } from '../services/stripDowns.js';
import { listSurfaces } from '../services/surfaces.js';
import { getSurvey } from '../services/surveys.js';
import type { Label } from './labels.js';
import type { Paper } from './printer.js';

/** A report as it leaves the server. */
export interface MadeReport {
  /** What it is called on disk. */
  readonly name: string;
  readonly pdf: Uint8Array;
}

/** What a paper is made with. */
type Shelf = Pick<Means, 'sequelize' | 'solver'>;

/** How far a report is. Whoever waits may have gone away meanwhile. */
export interface Told {
  readonly tell: (doing: ReportStep, done: number, of: number) => void;
  readonly signal: AbortSignal;
}
const UNTOLD: Told = { tell: () => undefined, signal: new AbortController().signal };

const paperOf = ({ paper }: { readonly paper?: string }): Paper => (paper === 'Letter' ? 'Letter' : 'A4');

/** A blank sheet for a round, to be filled in without a screen. */
export async function makeReadingSheet({ sequelize, solver }: Shelf, roundId: string, system: 'mm' | 'inch'): Promise<Uint8Array> {
  const round = await getRound(sequelize, roundId);
  const [machine, shop, zone] = await Promise.all([getMachine(round.machineId), readShopCard(), shopZone()]);
  const report = readingSheet({ machine, round, system, zone });
  return solver.printed('report', { report, paper: paperOf(shop), subject: 'Reading sheet' });
}

/** What labels are made of. */
export const LABELLED = ['machines', 'kit', 'boxes'] as const;

/** Labels of all machines, all kit, or the boxes that parts lie in. @param address where the shop is found. */
export async function makeLabels({ solver }: Shelf, of: (typeof LABELLED)[number], address: string): Promise<Uint8Array> {
  const shop = await readShopCard();
  return solver.printed('labels', { labels: await LABELS[of](address), paper: paperOf(shop) });
}

const LABELS: Readonly<Record<(typeof LABELLED)[number], (address: string) => Promise<readonly Label[]>>> = {
  machines: async (address) =>
    (await listMachines())
      .filter(({ archived }) => !archived)
      .map(({ id, card }) => ({ title: card.number, line: card.nickname ?? '', address: `${address}/machines/${id}` })),
  kit: async (address) =>
    (await listKit())
      .filter(({ archived }) => !archived)
      .map(({ id, name, care }) => ({ title: name, line: care.due ? `due ${care.due}` : '', address: `${address}/kit#${id}` })),
  boxes: async (address) => {
    const boxes = new Map<string, Label>();
    for (const { id: machineId, card } of (await listMachines()).filter(({ archived }) => !archived))
      for (const { id, name, archived, parts } of await listStripDowns(machineId))
        for (const part of archived ? [] : parts) {
          const { box } = part.details as { readonly box?: string };
          const key = `${id} ${box}`;
          if (!box || part.removed) continue;
          const known = boxes.get(key);
          const line = [known?.line, String(part.number)].filter(Boolean).join(', ');
          boxes.set(key, {
            title: `${card.number}: ${box}`,
            line: known ? line : `${name}: parts ${part.number}`,
            address: `${address}/machines/${machineId}/parts/${id}`,
          });
        }
    return [...boxes.values()];
  },
};

/** Make the acceptance report of a survey. @throws ApiError where there is no such survey; Stopped where nobody waits for it any more. */
export async function makeReport(
  { sequelize, solver }: Shelf,
  surveyId: string,
  { units, detail, checks }: ReportQuery,
  { tell, signal }: Told = UNTOLD,
): Promise<MadeReport> {
  if (!(await SurveyRow.count({ where: { id: surveyId } }))) throw notFound('survey');
  const survey = await getSurvey(surveyId);
  const [machine, heads, kit, surfaces, people, shop, zone, { fingerprint }] = await Promise.all([
    getMachine(survey.machineId),
    listHeads(sequelize, solver, survey.machineId),
    listKit(),
    listSurfaces(survey.machineId),
    listPeople(sequelize),
    readShopCard(),
    shopZone(),
    fingerprintOf(sequelize, { survey: surveyId }),
  ]);
  const wanted = heads.filter((head) => head.surveyId === surveyId && (!checks || checks.includes(head.check)));
  const rounds: ToldRound[] = [];
  if (detail === 'full')
    for (const { id } of wanted) {
      if (signal.aborted) throw new Stopped();
      tell('rounds', rounds.length, wanted.length);
      const { round, sheet, context } = await sheetFor(sequelize, solver, id, heads);
      rounds.push({ round, finding: solveWhatStands(sheet, context).finding });
    }
  const report = reportOf({
    ...{ machine, survey, heads, rounds, kit, surfaces, zone, units, fingerprint, now: new Date().toISOString() },
    shop: shop.name ?? '',
    fineness: shop.fineness ?? 'coarse',
    short: detail === 'short',
    people: new Map(people.map(({ initials, name }) => [initials, name])),
    ...(checks && { checks }),
  });
  tell('printing', 0, 1);
  const pdf = await solver.printed('report', { report, paper: paperOf(shop), subject: stampText({ survey: surveyId, fingerprint }) });
  const name = `${machine.card.number}-${survey.title}-report.pdf`.replace(/[^\w.-]+/g, '-');
  return { name, pdf };
}
