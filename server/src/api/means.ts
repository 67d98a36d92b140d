import type { Sequelize } from 'sequelize';
import { idSchema } from '@isometra/contract';
import type { Devices } from '../services/devices.js';
import type { News } from '../services/news.js';
import type { Solver } from '../services/solver.js';
import { ApiError, notFound } from './errors.js';

/** What the routes work with. */
export interface Means {
  readonly sequelize: Sequelize;
  readonly solver: Solver;
  readonly news: News;
  /** Where devices of the network find the shop, and which of them are let in; left out where nothing but this machine is served. */
  readonly lan?: { readonly devices: Devices; readonly address: string };
}

/** The id in the path; anything but a UUID is simply not there. */
export function idIn(value: string, what: string): string {
  const parsed = idSchema.safeParse(value);
  if (!parsed.success) throw notFound(what);
  return parsed.data;
}

/** The body must be about the row that the path names. @param field of the body that names it. */
export function sameId(path: string, body: string, field = 'id'): void {
  if (path !== body) throw new ApiError(400, [{ path: field, message: 'is not the id in the address', example: path }]);
}
