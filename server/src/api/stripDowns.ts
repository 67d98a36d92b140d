import type { Router } from 'express';
import { partWriteSchema, stripDownWriteSchema } from '@isometra/contract';
import { shopDay } from '@isometra/work';
import { shopZone } from '../services/shop.js';
import { addPart, addStripDown, changePart, changeStripDown, listNeeded, listStripDowns } from '../services/stripDowns.js';
import { parseBody } from './errors.js';
import { idIn, sameId, type Means } from './means.js';

/** What is taken apart, its parts, and what is needed for them. */
export function stripDowns(router: Router, { sequelize }: Means): void {
  router.get('/machines/:id/strip-downs', async (request, response) => {
    response.json(await listStripDowns(idIn(request.params.id, 'machine')));
  });
  router.post('/strip-downs', async (request, response) => {
    const { by, at, ...stripDown } = parseBody(stripDownWriteSchema, request.body);
    response.status(201).json(await addStripDown(sequelize, stripDown, { by, at }));
  });
  router.put('/strip-downs/:id', async (request, response) => {
    const { by, at, ...stripDown } = parseBody(stripDownWriteSchema, request.body);
    sameId(request.params.id, stripDown.id);
    response.json(await changeStripDown(sequelize, stripDown, { by, at }));
  });
  router.get('/parts', async (_request, response) => {
    response.json(await listNeeded(shopDay(new Date().toISOString(), await shopZone())));
  });
  router.post('/parts', async (request, response) => {
    response.status(201).json(await addPart(sequelize, parseBody(partWriteSchema, request.body)));
  });
  router.put('/parts/:id', async (request, response) => {
    const part = parseBody(partWriteSchema, request.body);
    sameId(request.params.id, part.id);
    response.json(await changePart(sequelize, part));
  });
}
