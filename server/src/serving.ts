import { createServer } from 'node:http';
import { pino } from 'pino';
import { isLoopback, namesOf } from './api/fence.js';
import { createApp } from './app.js';
import type { Config } from './config.js';
import { connect, migrate } from './db/database.js';
import { fillDemo, isEmpty } from './services/demo/shop.js';
import { Devices } from './services/devices.js';
import { News } from './services/news.js';
import { Solver } from './services/solver.js';

/** How long a line stays open on which nothing comes, in ms. */
const LINE_KEPT = 600_000;

/** A server that is up. */
export interface Serving {
  readonly address: string;
  /** A code that lets the first device in; left out where nothing but this machine is served. */
  readonly code?: string;
  /** Take no more requests, wait for those that are being answered, and let go of the database. */
  readonly stop: () => Promise<void>;
}

/**
 * Bring the database up to date, fill an empty one with the demo where that is wanted, and serve.
 *
 * @param given a solver that other servers of this process use too; left out, it has one of its own and closes it.
 */
export async function startServing(config: Config, given?: Solver): Promise<Serving> {
  const logger = pino({ level: config.logLevel }, pino.destination(2));
  const sequelize = connect(config.databaseUrl);
  await migrate(sequelize);
  if (config.demo && (await isEmpty())) await fillDemo(sequelize);
  const solver = given ?? new Solver();
  const news = new News();
  const names = namesOf(config.host, config.names);
  // Whoever does not sit at this machine is let in one by one.
  const devices = isLoopback(config.host) ? undefined : new Devices(sequelize);
  const lan = devices && { devices, address: config.address ?? `http://${config.host}:${config.port}` };
  const server = createServer(createApp({ sequelize, solver, news, logger, names, webRoot: config.webRoot, ...(lan && { lan }) }));
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    // Longer than a browser keeps a line open that is not used (five minutes): one that is closed just as it is used again loses its
    // request.
    server.keepAliveTimeout = LINE_KEPT;
    server.listen(config.port, config.host, resolve);
  }).catch(async (error: unknown) => {
    await sequelize.close();
    if (!given) await solver.close();
    throw error;
  });
  const bound = server.address();
  const port = typeof bound === 'object' && bound ? bound.port : config.port;
  const stop = async (): Promise<void> => {
    await new Promise<void>((resolve) => {
      server.close(() => resolve());
      news.close();
      server.closeIdleConnections();
      // A line that is never quiet is cut after a while.
      setTimeout(() => server.closeAllConnections(), 3000).unref();
    });
    await sequelize.close();
    if (!given) await solver.close();
  };
  const code = await devices?.issue();
  return { address: `http://${config.host}:${port}`, ...(code && { code: code.code }), stop };
}
