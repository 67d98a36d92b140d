import { pipeline } from 'node:stream/promises';
import type { Request, Response, Router } from 'express';
import * as z from 'zod';
import { reportQuerySchema } from '@isometra/contract';
import { LABELLED, makeLabels, makeReadingSheet, makeReport } from '../report/makeReport.js';
import { sheetFor } from '../services/rounds.js';
import { parseBody } from './errors.js';
import { idIn, type Means } from './means.js';

/** Send what a browser shows or prints; whoever goes away meanwhile has it no more. */
async function send(response: Response, name: string, pdf: NodeJS.ReadableStream): Promise<void> {
  response.type('application/pdf').set('Content-Disposition', `inline; filename="${name}"`);
  await pipeline(pdf, response).catch((error: unknown) => {
    if ((error as { code?: string }).code !== 'ERR_STREAM_PREMATURE_CLOSE') throw error;
  });
}

/** How a blank sheet, and how labels are asked for. */
export const sheetQuery = z.strictObject({ units: z.enum(['mm', 'inch'], { error: 'must be mm or inch' }).default('mm') });
export const labelQuery = z.strictObject({ of: z.enum(LABELLED, { error: `must be ${LABELLED.join(', ')}` }) });

/** Where a phone finds the shop: on the network where it is let in, else as this was asked. */
const addressOf = ({ lan }: Means, request: Request): string => lan?.address ?? `${request.protocol}://${request.headers.host ?? ''}`;

/** Everything that is printed. */
export function paper(router: Router, means: Means): void {
  router.get('/surveys/:id/report.pdf', async (request, response) => {
    const report = await makeReport(means, idIn(request.params.id, 'survey'), parseBody(reportQuerySchema, request.query));
    await send(response, report.name, report.pdf);
  });
  router.get('/rounds/:id/sheet.pdf', async (request, response) => {
    const { units } = parseBody(sheetQuery, request.query);
    await send(response, 'reading-sheet.pdf', await makeReadingSheet(means.sequelize, idIn(request.params.id, 'round'), units));
  });
  router.get('/rounds/:id/sheet.json', async (request, response) => {
    const { sheet } = await sheetFor(means.sequelize, means.solver, idIn(request.params.id, 'round'));
    response.attachment(`${String(sheet['check'])}.json`).json(sheet);
  });
  router.get('/labels.pdf', async (request, response) => {
    const { of } = parseBody(labelQuery, request.query);
    await send(response, `labels-${of}.pdf`, await makeLabels(of, addressOf(means, request)));
  });
}
