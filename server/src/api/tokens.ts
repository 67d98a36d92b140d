import type { RequestHandler, Router } from 'express';
import * as z from 'zod';
import { newTokenSchema, whoSchema, type MadeToken } from '@isometra/contract';
import { tokens as given } from '../services/tokens.js';
import { ApiError, parseBody } from './errors.js';
import { idIn, type Means } from './means.js';

/** Tokens for spreadsheets and screens of the shop's own. */
export function tokens(router: Router, { sequelize }: Means): void {
  router.get('/tokens', async (_request, response) => void response.json(await given.list()));
  router.post('/tokens', async (request, response) => {
    const { name, by } = parseBody(newTokenSchema, request.body);
    const { secret: token, ...made } = await given.add(sequelize, name, by);
    response.status(201).json({ ...made, token } satisfies MadeToken);
  });
  router.delete('/tokens/:id', async (request, response) => {
    const { by } = parseBody(z.object({ by: whoSchema }), request.query);
    response.json(await given.revoke(sequelize, idIn(request.params.id, 'token'), by));
  });
}

const READS = ['GET', 'HEAD'];

/** Whoever shows a token may read, from wherever it comes, and nothing else: a wrong one is refused, and so is every write. */
export const byToken: RequestHandler = async (request, response, next) => {
  const [, token] = /^Bearer\s+(\S+)$/i.exec(request.headers.authorization ?? '') ?? [];
  if (token === undefined) return next();
  if (!(await given.knows(token)))
    throw new ApiError(401, [
      { path: 'Authorization', message: 'this token is not known, or was revoked', example: 'a token from the page Files' },
    ]);
  if (!READS.includes(request.method))
    throw new ApiError(403, [{ path: 'Authorization', message: 'this token may only read', example: 'GET /api/machines' }]);
  response.locals['byToken'] = true;
  next();
};
