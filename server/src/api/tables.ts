import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Router } from 'express';
import * as z from 'zod';
import { idSchema } from '@isometra/contract';
import { getMachine } from '../services/machines.js';
import { csvOf, TABLES } from '../tables/tables.js';
import { ApiError, parseBody } from './errors.js';
import type { Means } from './means.js';

/** How a table is asked for. */
export const tableQuery = z.strictObject({
  decimal: z.enum(['point', 'comma'], { error: 'must be point or comma' }).default('point'),
  machine: idSchema.optional(),
});

/** Tables for spreadsheets. */
export function tables(router: Router, means: Means): void {
  router.get('/tables/:name.csv', async (request, response) => {
    const { name } = request.params;
    const table = Object.hasOwn(TABLES, name) ? TABLES[name] : undefined;
    if (!table)
      throw new ApiError(404, [{ path: 'name', message: `there is no table "${name}"`, example: Object.keys(TABLES).join(', ') }]);
    const { decimal, machine } = parseBody(tableQuery, request.query);
    const number = machine && (await getMachine(machine)).card.number;
    response.type('text/csv').attachment(`isometra-${number ? `${number.replace(/[^\w.-]+/g, '-')}-` : ''}${name}.csv`);
    await pipeline(Readable.from(csvOf(table, { ...means, ...(machine && { machineId: machine }) }, decimal)), response);
  });
}
