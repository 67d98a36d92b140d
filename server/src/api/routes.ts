import express, { Router } from 'express';
import type { Sequelize } from 'sequelize';
import * as z from 'zod';
import { planMove, solve } from '@isometra/core';
import {
  idSchema,
  kitItemSchema,
  limitSheetWriteSchema,
  machineSchema,
  moveSchema,
  readingSchema,
  roundSchema,
  surveySchema,
  whoSchema,
  type KitItem,
  type Machine,
} from '@isometra/contract';
import { fillDemo, isEmpty } from '../services/demo/shop.js';
import { addKit, addPhoto, changeKit, getPhoto, listKit } from '../services/kit.js';
import { addLimitSheet, changeLimitSheet, listLimitSheets, listVersions } from '../services/limits.js';
import { readLog } from '../services/log.js';
import { addMachine, changeMachine, getMachine, listMachines } from '../services/machines.js';
import { addMove, changeMove } from '../services/moves.js';
import { addReadings, addRound, changeRound, getRound, listRounds } from '../services/rounds.js';
import { addSurvey, changeSurvey, listSurveys } from '../services/surveys.js';
import { ApiError, notFound, parseBody, unknownRoute } from './errors.js';

/** The id in the path; anything but a UUID is simply not there. */
function idIn(value: string, what: string): string {
  const parsed = idSchema.safeParse(value);
  if (!parsed.success) throw notFound(what);
  return parsed.data;
}

/** The body must be about the row that the path names. */
function sameId(path: string, body: string): void {
  if (path !== body) throw new ApiError(400, [{ path: 'id', message: 'is not the id in the address', example: path }]);
}

const machineWrite = machineSchema.extend({ by: whoSchema });

/** The card is checked against its schema but kept as typed. */
function machineOf(body: unknown): { machine: Machine; by: string } {
  const { id, version, by } = parseBody(machineWrite, body);
  return { machine: { id, version, card: (body as { card: Machine['card'] }).card }, by };
}

function solving(router: Router): void {
  router.post('/solve', (request, response) => void response.json(solve(request.body)));
  router.post('/move', (request, response) => void response.json(planMove(request.body)));
}

function machines(router: Router): void {
  router.get('/machines', async (_request, response) => void response.json(await listMachines()));
  router.post('/machines', async (request, response) => {
    const { machine, by } = machineOf(request.body);
    response.status(201).json(await addMachine(machine, by));
  });
  router.get('/machines/:id', async (request, response) => void response.json(await getMachine(idIn(request.params.id, 'machine'))));
  router.put('/machines/:id', async (request, response) => {
    const { machine, by } = machineOf(request.body);
    sameId(request.params.id, machine.id);
    response.json(await changeMachine(machine, by));
  });
  router.get('/machines/:id/log', async (request, response) => void response.json(await readLog(idIn(request.params.id, 'machine'))));
}

function kit(router: Router): void {
  router.get('/kit', async (_request, response) => void response.json(await listKit()));
  router.post(
    '/kit',
    async (request, response) => void response.status(201).json(await addKit(parseBody(kitItemSchema, request.body) as KitItem)),
  );
  router.put('/kit/:id', async (request, response) => {
    const item = parseBody(kitItemSchema, request.body) as KitItem;
    sameId(request.params.id, item.id);
    response.json(await changeKit(item));
  });
  router.post('/kit/:id/photos', express.raw({ type: 'image/*', limit: '4mb' }), async (request, response) => {
    const { id, by } = parseBody(photoQuery, request.query);
    const kitId = idIn(String(request.params['id']), 'piece of kit');
    response.status(201).json(await addPhoto(kitId, id, String(request.headers['content-type'] ?? ''), request.body, by));
  });
  router.get('/photos/:id', async (request, response) => {
    const { mime, bytes } = await getPhoto(idIn(request.params.id, 'photograph'));
    response.set({ 'Content-Type': mime, 'Cache-Control': 'private, max-age=31536000, immutable' }).send(bytes);
  });
}

const photoQuery = z.object({ id: idSchema, by: whoSchema });

function limits(router: Router, sequelize: Sequelize): void {
  router.get('/limits', async (_request, response) => void response.json(await listLimitSheets()));
  router.get('/limits/:id/versions', async (request, response) => {
    response.json(await listVersions(idIn(request.params.id, 'limit sheet')));
  });
  router.post('/limits', async (request, response) => {
    response.status(201).json(await addLimitSheet(sequelize, parseBody(limitSheetWriteSchema, request.body)));
  });
  router.put('/limits/:id', async (request, response) => {
    const sheet = parseBody(limitSheetWriteSchema, request.body);
    sameId(request.params.id, sheet.id);
    response.json(await changeLimitSheet(sequelize, sheet));
  });
}

const surveyWrite = surveySchema.extend({ by: whoSchema });

function surveys(router: Router, sequelize: Sequelize): void {
  router.get('/machines/:id/surveys', async (request, response) => {
    response.json(await listSurveys(idIn(request.params.id, 'machine')));
  });
  router.post('/surveys', async (request, response) => {
    const { by, ...survey } = parseBody(surveyWrite, request.body);
    response.status(201).json(await addSurvey(sequelize, survey, by));
  });
  router.put('/surveys/:id', async (request, response) => {
    const { by, ...survey } = parseBody(surveyWrite, request.body);
    sameId(request.params.id, survey.id);
    response.json(await changeSurvey(survey, by));
  });
}

const checkQuery = z.object({ check: z.string().max(60).optional() });

function rounds(router: Router, sequelize: Sequelize): void {
  router.get('/machines/:id/rounds', async (request, response) => {
    const { check } = parseBody(checkQuery, request.query);
    response.json(await listRounds(idIn(request.params.id, 'machine'), check));
  });
  router.post(
    '/rounds',
    async (request, response) => void response.status(201).json(await addRound(sequelize, parseBody(roundSchema, request.body))),
  );
  router.get('/rounds/:id', async (request, response) => void response.json(await getRound(idIn(request.params.id, 'round'))));
  router.put('/rounds/:id', async (request, response) => {
    const round = parseBody(roundSchema, request.body);
    sameId(request.params.id, round.id);
    response.json(await changeRound(sequelize, round));
  });
  router.post('/rounds/:id/readings', async (request, response) => {
    const body: unknown = request.body;
    const readings = Array.isArray(body) ? parseBody(z.array(readingSchema).min(1).max(1000), body) : [parseBody(readingSchema, body)];
    response.status(201).json(await addReadings(sequelize, idIn(request.params.id, 'round'), readings));
  });
  router.post(
    '/moves',
    async (request, response) => void response.status(201).json(await addMove(sequelize, parseBody(moveSchema, request.body))),
  );
  router.put('/moves/:id', async (request, response) => {
    const move = parseBody(moveSchema, request.body);
    sameId(request.params.id, move.id);
    response.json(await changeMove(sequelize, move));
  });
}

/** Everything under /api but health. */
export function apiRoutes(sequelize: Sequelize): Router {
  const router = Router();
  solving(router);
  machines(router);
  kit(router);
  limits(router, sequelize);
  surveys(router, sequelize);
  rounds(router, sequelize);
  router.post('/demo', async (_request, response) => {
    if (!(await isEmpty()))
      throw new ApiError(409, [{ path: '', message: 'the shop is not empty: the demo is only put into an empty one', example: '' }]);
    await fillDemo(sequelize);
    response.status(201).json(await listMachines());
  });
  router.use(unknownRoute);
  return router;
}
