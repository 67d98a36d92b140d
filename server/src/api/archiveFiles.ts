import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import busboy from 'busboy';
import type { Request, Response, Router } from 'express';
import * as z from 'zod';
import { whoSchema } from '@isometra/contract';
import { CONFLICTS, type ArchiveLine } from '@isometra/contract/archive';
import { OpenArchive } from '../archives/reading.js';
import { scopeOf } from '../archives/scopes.js';
import { takeArchive, type How } from '../archives/taking.js';
import { fingerprintOf, Stopped, writeArchive } from '../archives/writing.js';
import { ApiError, parseBody } from './errors.js';
import { answerByLines, goneAway, paced } from './lines.js';
import type { Means } from './means.js';

/** Bytes of an archive that is sent. */
const MOST_BYTES = 8_000_000_000;

/** Of what an archive is asked for. */
export const archiveQuery = z.strictObject({
  machine: z.string().max(40).optional(),
  survey: z.uuid({ error: 'must be the id of a survey' }).optional(),
});

/** What is told beside an archive that is sent. */
const told = z.strictObject({
  conflicts: z.enum(CONFLICTS, { error: 'must be ours, theirs or ask' }).default('ask'),
  choices: z
    .string()
    .transform((text, context): unknown => {
      try {
        return JSON.parse(text);
      } catch {
        context.addIssue({ code: 'custom', message: 'must be JSON like {"machines/….json":"ours"}' });
        return z.NEVER;
      }
    })
    .pipe(z.record(z.string().max(200), z.enum(['ours', 'theirs'])))
    .optional(),
  by: whoSchema.default('?'),
});

/** What an archive is called on disk: "isometra-L-14-2026-12-01.zip". */
const fileName = (what: string): string => `isometra-${what.replace(/[^\w.-]+/g, '-')}-${new Date().toISOString().slice(0, 10)}.zip`;

/** Archives out of the shop and into it. */
export function archiveFiles(router: Router, means: Means): void {
  const { sequelize } = means;
  router.get('/archive.zip', async (request, response) => {
    const of = parseBody(archiveQuery, request.query);
    const scope = await scopeOf(of);
    response
      .type('application/zip')
      .attachment(fileName(scope.of === 'shop' ? 'shop' : scope.of === 'machine' ? scope.number : `${scope.machine}-${scope.title}`));
    await writeArchive(sequelize, of, response).catch((error: unknown) => {
      if (!(error instanceof Stopped)) throw error;
    });
  });
  router.get('/archive/fingerprint', async (request, response) => {
    response.json(await fingerprintOf(sequelize, parseBody(archiveQuery, request.query)));
  });
  router.post('/archive/look', (request, response) => received(request, response, means, true));
  router.post('/archive', (request, response) => received(request, response, means, false));
}

/** Take an archive off the line into a file, look at it or take it in, and tell how far it is, line by line. */
async function received(request: Request, response: Response, { sequelize }: Means, look: boolean): Promise<void> {
  const file = join(tmpdir(), `isometra-${randomUUID()}.zip`);
  const gone = goneAway(response);
  try {
    const fields = await saved(request, file);
    const { conflicts, choices, by } = parseBody(told, fields);
    const take = async (line: (one: ArchiveLine) => void): Promise<void> => {
      const archive = await OpenArchive.open(file);
      try {
        const how: How = { conflicts, by, look, signal: gone, tell: paced(line), ...(choices && { choices }) };
        line({ result: await takeArchive(sequelize, archive, how) });
      } finally {
        archive.close();
      }
    };
    await answerByLines(request, response, take);
  } finally {
    await rm(file, { force: true });
  }
}

/** Write the file of a form to disk, and return its other fields. */
async function saved(request: Request, file: string): Promise<Record<string, string>> {
  const fields: Record<string, string> = {};
  let found: Promise<void> | undefined;
  let tooLarge = false;
  const refuse = (message: string): ApiError =>
    new ApiError(400, [{ path: 'archive', message, example: 'a form with the fields archive (the zip), conflicts and choices' }]);
  if (!request.is('multipart/form-data')) throw refuse('must be sent as a form, multipart/form-data');
  const form = busboy({ headers: request.headers, limits: { fileSize: MOST_BYTES, files: 1, fields: 10, fieldSize: 4_000_000 } });
  form.on('field', (name, value) => void (fields[name] = value));
  form.on('file', (_name, stream: Readable) => {
    stream.once('limit', () => (tooLarge = true));
    found = pipeline(stream, createWriteStream(file));
    found.catch(() => undefined);
  });
  try {
    await pipeline(request, form);
    await found;
  } catch (error) {
    throw refuse(`was not sent to its end: ${(error as Error).message}`);
  }
  if (!found) throw refuse('is missing');
  if (tooLarge) throw new ApiError(413, [{ path: 'archive', message: 'is larger than 8 GB', example: 'an archive of one machine' }]);
  return fields;
}
