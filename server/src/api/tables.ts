import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Router } from 'express';
import * as z from 'zod';
import { idSchema } from '@isometra/contract';
import { getMachine } from '../services/machines.js';
import { csvOf, MOST_ROWS, TABLES, workbookOf } from '../tables/tables.js';
import { ApiError, parseBody } from './errors.js';
import type { Means } from './means.js';

/** How a table is asked for. */
export const tableQuery = z.strictObject({
  decimal: z.enum(['point', 'comma'], { error: 'must be point or comma' }).default('point'),
  machine: idSchema.optional(),
});

/** How a workbook is asked for: its figures have no sign of their own. */
export const workbookQuery = tableQuery.omit({ decimal: true });

/** A workbook. */
export const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** @throws ApiError where there is no such table. */
function tableOf(name: string): (typeof TABLES)[string] {
  const table = Object.hasOwn(TABLES, name) ? TABLES[name] : undefined;
  if (table) return table;
  throw new ApiError(404, [{ path: 'name', message: `there is no table "${name}"`, example: Object.keys(TABLES).join(', ') }]);
}

async function fileName(table: string, machine: string | undefined, kind: 'csv' | 'xlsx'): Promise<string> {
  const number = machine && (await getMachine(machine)).card.number;
  return `isometra-${number ? `${number.replace(/[^\w.-]+/g, '-')}-` : ''}${table}.${kind}`;
}

/** Tables for spreadsheets. */
export function tables(router: Router, means: Means): void {
  router.get('/tables/:name.csv', async (request, response) => {
    const table = tableOf(request.params.name);
    const { decimal, machine } = parseBody(tableQuery, request.query);
    response.type('text/csv').attachment(await fileName(request.params.name, machine, 'csv'));
    await pipeline(Readable.from(csvOf(table, { ...means, ...(machine && { machineId: machine }) }, decimal)), response);
  });
  router.get('/tables/:name.xlsx', async (request, response) => {
    const table = tableOf(request.params.name);
    const { machine } = parseBody(workbookQuery, request.query);
    const workbook = await workbookOf(table, { ...means, ...(machine && { machineId: machine }) });
    if (!workbook) {
      const message = `has more than ${MOST_ROWS} rows: that is too many for a workbook`;
      throw new ApiError(413, [{ path: 'name', message, example: `/api/tables/${request.params.name}.csv` }]);
    }
    response.type(XLSX).attachment(await fileName(request.params.name, machine, 'xlsx'));
    await pipeline(workbook, response);
  });
}
