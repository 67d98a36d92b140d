import type { Router } from 'express';
import { nameDateSchema, planWriteSchema } from '@isometra/contract';
import { nameDate, settlePlan, shopPlan } from '../services/plans.js';
import { ApiError, parseBody } from './errors.js';
import { idIn, type Means } from './means.js';

/** What is left to do, and what people settle of it. */
export function plans(router: Router, { sequelize, solver }: Means): void {
  router.get('/plans', async (_request, response) => void response.json(await shopPlan({ sequelize, solver })));
  router.get('/machines/:id/plan', async (request, response) => {
    response.json(await shopPlan({ sequelize, solver }, idIn(request.params.id, 'machine')));
  });
  router.put('/machines/:id/plan', async (request, response) => {
    const plan = parseBody(planWriteSchema, request.body);
    if (plan.machineId !== request.params.id)
      throw new ApiError(400, [{ path: 'machineId', message: 'is not the id in the address', example: request.params.id }]);
    response.json(await settlePlan(sequelize, plan));
  });
  router.post('/machines/:id/plan/named', async (request, response) => {
    await nameDate(idIn(request.params.id, 'machine'), parseBody(nameDateSchema, request.body));
    response.status(204).end();
  });
}
