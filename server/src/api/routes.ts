import express, { Router } from 'express';
import { renderSVG } from 'uqr';
import * as z from 'zod';
import {
  ARCHIVED,
  condense,
  idSchema,
  KEPT,
  kitItemSchema,
  limitSheetWriteSchema,
  logQuerySchema,
  machineSchema,
  moveSchema,
  readingSchema,
  roundSchema,
  surfaceSchema,
  deskEntrySchema,
  redateSchema,
  remarkSchema,
  strikeSchema,
  surveyNoteSchema,
  surveySchema,
  whoSchema,
  type KitItem,
  type Lan,
  type Machine,
  type MoveWrite,
} from '@isometra/contract';
import { MOST_BYTES } from '@isometra/core/print';
import { fillDemo, isEmpty } from '../services/demo/shop.js';
import { Answers } from '../services/answers.js';
import { shopBoard } from '../services/board.js';
import { finderOf } from '../services/finder.js';
import { listHeads } from '../services/heads.js';
import { archive } from '../services/archive.js';
import { addKit, addPhoto, changeKit, getPhoto, listKit, removePhoto } from '../services/kit.js';
import { addLimitSheet, changeLimitSheet, listLimitSheets, listVersions } from '../services/limits.js';
import { readLogbook } from '../services/logbook.js';
import { addMachine, changeMachine, getMachine, listMachines } from '../services/machines.js';
import { addMove, changeMove } from '../services/moves.js';
import { addNote } from '../services/notes.js';
import { addReadings } from '../services/readings.js';
import { addRound, changeRound, findingOf, getRound, hasRound, listRounds, redateRound, strikeRound } from '../services/rounds.js';
import { cardThen } from '../services/cardThen.js';
import { addRemark, listRemarks } from '../services/remarks.js';
import { addPicture, getPicture } from '../services/pictures.js';
import { addEntries, addSurface, changeSurface, listSurfaces } from '../services/surfaces.js';
import { listStates, stateAt } from '../services/states.js';
import { addSurvey, changeSurvey, listSurveys } from '../services/surveys.js';
import { listening } from './listening.js';
import { ApiError, notFound, parseBody, unknownRoute } from './errors.js';
import { idIn, sameId, type Means } from './means.js';
import { docs } from './described/docs.js';
import { archiveFiles } from './archiveFiles.js';
import { paper } from './paper.js';
import { plans } from './plans.js';
import { shop } from './shop.js';
import { stripDowns } from './stripDowns.js';
import { tables } from './tables.js';
import { tokens } from './tokens.js';

const machineWrite = machineSchema.extend({ by: whoSchema });

/** The card is checked against its schema but kept as typed. */
function machineOf(body: unknown): { machine: Machine; by: string } {
  const { id, version, by } = parseBody(machineWrite, body);
  return { machine: { id, version, card: (body as { card: Machine['card'] }).card }, by };
}

function solving(router: Router, { solver }: Means): void {
  router.post('/solve', async (request, response) => void response.json(await solver.answer('sheet', request.body)));
  router.post('/move', async (request, response) => void response.json(await solver.answer('move', request.body)));
  router.post('/plan', async (request, response) => void response.json(await solver.answer('job', request.body)));
  router.post('/history', async (request, response) => void response.json(await solver.answer('history', request.body)));
}

function machines(router: Router, { sequelize }: Means): void {
  router.get('/machines', async (_request, response) => void response.json(await listMachines()));
  router.post('/machines', async (request, response) => {
    const { machine, by } = machineOf(request.body);
    response.status(201).json(await addMachine(sequelize, machine, { by }));
  });
  router.get('/machines/:id', async (request, response) => void response.json(await getMachine(idIn(request.params.id, 'machine'))));
  router.put('/machines/:id', async (request, response) => {
    const { machine, by } = machineOf(request.body);
    sameId(request.params.id, machine.id);
    response.json(await changeMachine(sequelize, machine, by));
  });
}

/** Notes from any screen. */
function remarks(router: Router, { sequelize }: Means): void {
  router.post('/remarks', async (request, response) => {
    response.status(201).json(await addRemark(sequelize, parseBody(remarkSchema, request.body)));
  });
  router.get('/remarks', async (request, response) => {
    response.json(await listRemarks(parseBody(remarkQuery, request.query)));
  });
}

const remarkQuery = z.strictObject({ path: z.string().max(300) });

/** What was done in the shop, and by whom. */
function logbook(router: Router, { sequelize, solver }: Means): void {
  router.get('/log', async (request, response) => {
    response.json(await readLogbook({ sequelize, solver }, parseBody(logQuerySchema, request.query)));
  });
}

/** Phones and tablets of the shop. */
function network(router: Router, { lan, news }: Means): void {
  router.get('/lan', (_request, response) => {
    const address = lan?.address ?? '';
    response.json({ on: lan !== undefined, address, picture: lan ? renderSVG(address, { border: 2 }) : '' } satisfies Lan);
  });
  if (!lan) return;
  const { devices } = lan;
  router.post('/lan/code', async (_request, response) => void response.status(201).json(await devices.issue()));
  router.get('/devices', async (_request, response) => void response.json(await devices.list()));
  router.delete('/devices/:id', async (request, response) => {
    const { by } = parseBody(z.object({ by: whoSchema }), request.query);
    const left = await devices.revoke(idIn(request.params.id, 'device'), by);
    // Whoever listens asks again, and is let in again or not.
    news.close();
    response.json(left);
  });
}

const awayWrite = z.strictObject({ away: z.boolean({ error: 'must be true or false' }), by: whoSchema });

/** Machines, kit and limit sheets go into the archive and come out of it again. */
function archives(router: Router, { sequelize }: Means): void {
  for (const kind of ARCHIVED)
    router.post(`/${kind}/:id/archive`, async (request, response) => {
      response.json(await archive(sequelize, kind, idIn(request.params['id'], 'thing'), parseBody(awayWrite, request.body)));
    });
}

/** Every state that something has had, and any of them as it stood. */
function states(router: Router): void {
  for (const what of KEPT) {
    router.get(`/${what}/:id/states`, async (request, response) => {
      response.json(await listStates(what, idIn(String(request.params['id']), 'thing')));
    });
    router.get(`/${what}/:id/states/:version`, async (request, response) => {
      const version = Number(request.params['version']);
      if (!Number.isInteger(version)) throw notFound('state');
      response.json(await stateAt(what, idIn(String(request.params['id']), 'thing'), version));
    });
  }
}

const kitWrite = kitItemSchema.extend({ by: whoSchema });

function itemOf(body: unknown): { item: KitItem; by: string } {
  const { by, ...item } = parseBody(kitWrite, body);
  return { item, by };
}

function kit(router: Router, { sequelize, solver }: Means): void {
  router.get('/kit', async (_request, response) => void response.json(await listKit()));
  router.post('/kit', async (request, response) => {
    const { item, by } = itemOf(request.body);
    response.status(201).json(await addKit(sequelize, item, by));
  });
  router.put('/kit/:id', async (request, response) => {
    const { item, by } = itemOf(request.body);
    sameId(request.params.id, item.id);
    response.json(await changeKit(sequelize, item, by));
  });
  router.post('/kit/:id/photos', express.raw({ type: 'image/*', limit: '4mb' }), async (request, response) => {
    const { id, by } = parseBody(photoQuery, request.query);
    const kitId = idIn(String(request.params['id']), 'piece of kit');
    const photo = { id, by, mime: String(request.headers['content-type'] ?? ''), bytes: request.body as unknown };
    response.status(201).json(await addPhoto(sequelize, solver, kitId, photo));
  });
  router.delete('/kit/:id/photos/:photo', async (request, response) => {
    const { by } = parseBody(z.object({ by: whoSchema }), request.query);
    const [kitId, photo] = [idIn(request.params.id, 'piece of kit'), idIn(request.params.photo, 'photograph')];
    response.json(await removePhoto(sequelize, kitId, photo, by));
  });
  router.get('/photos/:id', async (request, response) => {
    const { mime, bytes } = await getPhoto(idIn(request.params.id, 'photograph'));
    response.set({ 'Content-Type': mime, 'Cache-Control': 'private, max-age=31536000, immutable' }).send(bytes);
  });
}

const photoQuery = z.object({ id: idSchema, by: whoSchema });

function limits(router: Router, { sequelize }: Means): void {
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

function surveys(router: Router, { sequelize }: Means): void {
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
    response.json(await changeSurvey(sequelize, survey, by));
  });
  router.post('/surveys/:id/notes', async (request, response) => {
    const note = parseBody(surveyNoteSchema, request.body);
    sameId(request.params.id, note.surveyId);
    response.status(201).json(await addNote(sequelize, note));
  });
}

const checkQuery = z.object({ check: z.string().max(60).optional() });

function rounds(router: Router, { sequelize, solver, news }: Means, answers: Answers): void {
  /** A round as it was written: who shows it hears of it. */
  const told = <R extends { readonly id: string; readonly by: string }>(round: R): R => {
    news.tell(round.id, { what: 'round', ids: [round.id], by: round.by });
    return round;
  };
  router.get('/finder', async (_request, response) => {
    response.type('json').send(await answers.of('finder', () => finderOf(sequelize)));
  });
  // What is overdue changes with the time too.
  router.get('/board', async (_request, response) => {
    const hour = new Date().toISOString().slice(0, 13);
    response.type('json').send(await answers.of(`board ${hour}`, () => shopBoard(sequelize, solver)));
  });
  router.get('/machines/:id/heads', async (request, response) => {
    const [id, condensed] = [idIn(request.params.id, 'machine'), request.query['condensed'] === '1'];
    const work = async (): Promise<unknown> => {
      const heads = await listHeads(sequelize, solver, id);
      return condensed ? condense(heads) : heads;
    };
    response.type('json').send(await answers.of(`heads ${id} ${condensed}`, work));
  });
  router.get('/machines/:id/rounds', async (request, response) => {
    const { check } = parseBody(checkQuery, request.query);
    response.json(await listRounds(sequelize, idIn(request.params.id, 'machine'), check));
  });
  router.post('/rounds', async (request, response) => {
    response.status(201).json(await addRound(sequelize, parseBody(roundSchema, request.body)));
  });
  router.get('/rounds/:id', async (request, response) => {
    response.json(await getRound(sequelize, idIn(request.params.id, 'round')));
  });
  router.get(
    '/rounds/:id/events',
    listening(news, (id) => idIn(id, 'round'), hasRound),
  );
  router.get('/rounds/:id/card', async (request, response) => {
    response.json(await cardThen(await getRound(sequelize, idIn(request.params.id, 'round'))));
  });
  router.get('/rounds/:id/finding', async (request, response) => {
    response.json(await findingOf(sequelize, solver, idIn(request.params.id, 'round')));
  });
  router.put('/rounds/:id', async (request, response) => {
    const round = parseBody(roundSchema, request.body);
    sameId(request.params.id, round.id);
    response.json(told(await changeRound(sequelize, round)));
  });
  router.post('/rounds/:id/strike', async (request, response) => {
    const strike = parseBody(strikeSchema, request.body);
    sameId(request.params.id, strike.id);
    response.json(told(await strikeRound(sequelize, strike)));
  });
  router.post('/rounds/:id/date', async (request, response) => {
    const redate = parseBody(redateSchema, request.body);
    sameId(request.params.id, redate.id);
    response.json(told(await redateRound(sequelize, redate)));
  });
  router.post('/rounds/:id/readings', async (request, response) => {
    const body: unknown = request.body;
    const readings = Array.isArray(body) ? parseBody(manyReadings, body) : [parseBody(readingSchema, body)];
    const id = idIn(request.params.id, 'round');
    const taken = await addReadings(sequelize, id, readings);
    news.tell(id, { what: 'reading', ids: taken.map((reading) => reading.id), by: readings[readings.length - 1].by });
    response.status(201).json(taken);
  });
}

const manyReadings = z.array(readingSchema).min(1).max(1000);

function moves(router: Router, { sequelize, news }: Means): void {
  const told = (move: MoveWrite): MoveWrite => {
    news.tell(move.roundId, { what: 'move', ids: [move.id], by: move.by });
    return move;
  };
  router.post('/moves', async (request, response) => {
    response.status(201).json(told(await addMove(sequelize, parseBody(moveSchema, request.body))));
  });
  router.put('/moves/:id', async (request, response) => {
    const move = parseBody(moveSchema, request.body);
    sameId(request.params.id, move.id);
    response.json(told(await changeMove(sequelize, move)));
  });
}

const surfaceWrite = surfaceSchema.extend({ by: whoSchema });
const pictureQuery = z.object({ by: whoSchema });

function scraping(router: Router, { sequelize, solver }: Means): void {
  router.get('/machines/:id/surfaces', async (request, response) => {
    response.json(await listSurfaces(idIn(request.params.id, 'machine')));
  });
  router.post('/surfaces', async (request, response) => {
    const { by, ...surface } = parseBody(surfaceWrite, request.body);
    response.status(201).json(await addSurface(sequelize, surface, by));
  });
  router.put('/surfaces/:id', async (request, response) => {
    const { by, ...surface } = parseBody(surfaceWrite, request.body);
    sameId(request.params.id, surface.id);
    response.json(await changeSurface(sequelize, surface, by));
  });
  router.post('/surfaces/:id/entries', async (request, response) => {
    const entry = parseBody(deskEntrySchema, request.body);
    sameId(request.params.id, entry.surfaceId);
    const [written] = await addEntries(sequelize, [entry], entry.surfaceId);
    response.status(201).json(written);
  });
  router.post('/pictures', express.raw({ type: () => true, limit: MOST_BYTES }), async (request, response) => {
    const { by } = parseBody(pictureQuery, request.query);
    response.status(201).json(await addPicture(sequelize, solver, request.body as unknown, by));
  });
  router.get('/pictures/:hash', async (request, response) => {
    const { mime, bytes } = await getPicture(request.params.hash);
    response.set({ 'Content-Type': mime, 'Cache-Control': 'private, max-age=31536000, immutable' }).send(bytes);
  });
}

/** Everything under /api but health. */
export function apiRoutes(means: Means): Router {
  const router = Router();
  const answers = new Answers();
  router.use((request, response, next) => {
    if (request.method !== 'GET' && request.method !== 'HEAD') {
      const over = answers.begin();
      response.once('finish', over).once('close', over);
    }
    next();
  });
  rounds(router, means, answers);
  for (const part of [
    solving,
    network,
    shop,
    machines,
    logbook,
    remarks,
    kit,
    limits,
    archives,
    states,
    surveys,
    moves,
    scraping,
    stripDowns,
    plans,
    archiveFiles,
    tables,
    paper,
    docs,
    tokens,
  ])
    part(router, means);
  router.post('/demo', async (_request, response) => {
    if (!(await isEmpty()))
      throw new ApiError(409, [{ path: '', message: 'the shop is not empty: the demo is only put into an empty one', example: '' }]);
    await fillDemo(means.sequelize);
    response.status(201).json(await listMachines());
  });
  router.use(unknownRoute);
  return router;
}
