import { randomUUID } from 'node:crypto';
import type { Request, Response, Router } from 'express';
import { LRUCache } from 'lru-cache';
import * as z from 'zod';
import { reportQuerySchema, type ReportLine, type ReportStep } from '@isometra/contract';
import { LABELLED, makeLabels, makeReadingSheet, makeReport, type MadeReport } from '../report/makeReport.js';
import { sheetFor } from '../services/rounds.js';
import { notFound, parseBody } from './errors.js';
import { answerByLines, goneAway, paced } from './lines.js';
import { idIn, type Means } from './means.js';

/** Send what a browser shows or prints. */
function send(response: Response, name: string, pdf: Uint8Array): void {
  response.type('application/pdf').set('Content-Disposition', `inline; filename="${name}"`).send(Buffer.from(pdf));
}

/** Reports that were made while somebody looked at how far they were, until they are fetched: ms, and bytes of all of them. */
const KEPT = { ttl: 10 * 60_000, maxSize: 100_000_000 };

/** How a blank sheet, and how labels are asked for. */
export const sheetQuery = z.strictObject({ units: z.enum(['mm', 'inch'], { error: 'must be mm or inch' }).default('mm') });
export const labelQuery = z.strictObject({ of: z.enum(LABELLED, { error: `must be ${LABELLED.join(', ')}` }) });

/** Where a phone finds the shop: on the network where it is let in, else as this was asked. */
const addressOf = ({ lan }: Means, request: Request): string => lan?.address ?? `${request.protocol}://${request.headers.host ?? ''}`;

/** Everything that is printed. */
export function paper(router: Router, means: Means): void {
  router.get('/surveys/:id/report.pdf', async (request, response) => {
    const report = await makeReport(means, idIn(request.params.id, 'survey'), parseBody(reportQuerySchema, request.query));
    send(response, report.name, report.pdf);
  });
  const made = new LRUCache<string, MadeReport>({ ...KEPT, sizeCalculation: ({ pdf }) => pdf.length });
  router.get('/surveys/:id/report', async (request, response) => {
    const id = idIn(request.params.id, 'survey');
    const query = parseBody(reportQuerySchema, request.query);
    await answerByLines<ReportLine>(request, response, async (line) => {
      const told = { tell: paced<ReportStep>(line), signal: goneAway(response) };
      const report = await makeReport(means, id, query, told);
      const ticket = randomUUID();
      made.set(ticket, report);
      line({ ticket });
    });
  });
  router.get('/reports/:ticket.pdf', (request, response) => {
    const report = made.get(request.params.ticket);
    if (!report) throw notFound('report');
    send(response, report.name, report.pdf);
  });
  router.get('/rounds/:id/sheet.pdf', async (request, response) => {
    const { units } = parseBody(sheetQuery, request.query);
    send(response, 'reading-sheet.pdf', await makeReadingSheet(means, idIn(request.params.id, 'round'), units));
  });
  router.get('/rounds/:id/sheet.json', async (request, response) => {
    const { sheet } = await sheetFor(means.sequelize, means.solver, idIn(request.params.id, 'round'));
    response.attachment(`${String(sheet['check'])}.json`).json(sheet);
  });
  router.get('/labels.pdf', async (request, response) => {
    const { of } = parseBody(labelQuery, request.query);
    send(response, `labels-${of}.pdf`, await makeLabels(means, of, addressOf(means, request)));
  });
}
