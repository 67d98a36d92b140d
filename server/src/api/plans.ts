import type { RequestHandler, Router } from 'express';
import * as z from 'zod';
import { nameDateSchema, newCalendarSchema, planWriteSchema, whoSchema, type MadeCalendar } from '@isometra/contract';
import { calendars, calendarText } from '../services/calendar.js';
import { shopDue } from '../services/due.js';
import { listSurveys } from '../services/surveys.js';
import { workedHours } from '../services/timings.js';
import { nameDate, settlePlan, shopPlan } from '../services/plans.js';
import { notFound, parseBody } from './errors.js';
import { idIn, sameId, type Means } from './means.js';

/** What is left to do, and what people settle of it. */
export function plans(router: Router, { sequelize, solver }: Means): void {
  router.get('/plans', async (_request, response) => void response.json(await shopPlan({ sequelize, solver })));
  router.get('/machines/:id/plan', async (request, response) => {
    response.json(await shopPlan({ sequelize, solver }, idIn(request.params.id, 'machine')));
  });
  router.get('/machines/:id/hours', async (request, response) => {
    const id = idIn(request.params.id, 'machine');
    response.json(await workedHours(sequelize, id, await listSurveys(id)));
  });
  router.get('/due', async (_request, response) => void response.json(await shopDue(sequelize, solver)));
  router.get('/calendar.ics', async (_request, response) => {
    response
      .type('text/calendar')
      .attachment('isometra.ics')
      .send(await calendarText({ sequelize, solver }));
  });
  router.get('/calendars', async (_request, response) => void response.json(await calendars.list()));
  router.post('/calendars', async (request, response) => {
    const { name, by } = parseBody(newCalendarSchema, request.body);
    const { secret, ...made } = await calendars.add(sequelize, name, by);
    response.status(201).json({ ...made, address: `/calendar/${secret}.ics` } satisfies MadeCalendar);
  });
  router.delete('/calendars/:id', async (request, response) => {
    const { by } = parseBody(z.object({ by: whoSchema }), request.query);
    response.json(await calendars.revoke(sequelize, idIn(request.params.id, 'calendar address'), by));
  });
  router.put('/machines/:id/plan', async (request, response) => {
    const plan = parseBody(planWriteSchema, request.body);
    sameId(request.params.id, plan.machineId, 'machineId');
    response.json(await settlePlan(sequelize, plan));
  });
  router.post('/machines/:id/plan/named', async (request, response) => {
    await nameDate(idIn(request.params.id, 'machine'), parseBody(nameDateSchema, request.body));
    response.status(204).end();
  });
}

/** The calendar under an address that was given out: whoever has it needs nothing else, and gets nothing else. */
export function subscribed({ sequelize, solver }: Means): RequestHandler {
  return async (request, response) => {
    const secret = String(request.params['secret']);
    if (!/^[\w-]{20,60}$/.test(secret) || !(await calendars.knows(secret))) throw notFound('calendar');
    response.setHeader('Cache-Control', 'private, max-age=600');
    response.type('text/calendar').send(await calendarText({ sequelize, solver }));
  };
}
