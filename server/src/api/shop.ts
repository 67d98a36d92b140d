import type { Router } from 'express';
import { firstBrowserSchema, personWriteSchema, shopCardWriteSchema, shopWriteSchema } from '@isometra/contract';
import { keepPerson, listPeople } from '../services/people.js';
import { changeShopCard, chooseZone, getShop, getShopCard, takeFirstZone } from '../services/shop.js';
import { ApiError, parseBody } from './errors.js';
import type { Means } from './means.js';

/** What is settled for the whole shop, and its people. */
export function shop(router: Router, { sequelize }: Means): void {
  router.get('/shop/card', async (_request, response) => void response.json(await getShopCard()));
  router.put('/shop/card', async (request, response) => {
    response.json(await changeShopCard(sequelize, parseBody(shopCardWriteSchema, request.body)));
  });
  router.get('/people', async (_request, response) => void response.json(await listPeople(sequelize)));
  router.put('/people/:initials', async (request, response) => {
    const { by, ...person } = parseBody(personWriteSchema, request.body);
    if (person.initials !== request.params.initials)
      throw new ApiError(400, [{ path: 'initials', message: 'are not those in the address', example: request.params.initials }]);
    response.json(await keepPerson(sequelize, person, by));
  });
  router.get('/shop', async (_request, response) => void response.json(await getShop()));
  router.put('/shop', async (request, response) => {
    const { timeZone, by } = parseBody(shopWriteSchema, request.body);
    response.json(await chooseZone(sequelize, timeZone, by));
  });
  router.post('/shop/first-browser', async (request, response) => {
    response.json(await takeFirstZone(parseBody(firstBrowserSchema, request.body).timeZone));
  });
}
