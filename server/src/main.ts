import { createServer } from 'node:http';
import { pino } from 'pino';
import { namesOf } from './api/fence.js';
import { createApp } from './app.js';
import { readConfig } from './config.js';
import { connect, migrate } from './db/database.js';
import { fillDemo, isEmpty } from './services/demo/shop.js';
import { Solver } from './services/solver.js';

/** Start, say on the standard output where, and stop cleanly on SIGTERM or SIGINT. */
async function main(): Promise<void> {
  const config = readConfig(process.env);
  const logger = pino({ level: config.logLevel }, pino.destination(2));
  const sequelize = connect(config.databaseUrl);
  await migrate(sequelize);
  if (config.demo && (await isEmpty())) await fillDemo(sequelize);
  const solver = new Solver();
  const names = namesOf(config.host, config.names);
  const server = createServer(createApp({ sequelize, solver, logger, names, webRoot: config.webRoot }));
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    // Longer than a proxy or a browser keeps a line open: one that is closed just as it is used again loses its request.
    server.keepAliveTimeout = 65_000;
    server.listen(config.port, config.host, resolve);
  });
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : config.port;
  console.log(`listening http://${config.host}:${port}`);
  const stop = (): void => {
    server.close(() => void Promise.all([sequelize.close(), solver.close()]).then(() => process.exit(0)));
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), 3000).unref();
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
}

main().catch((error: unknown) => {
  const { code, message } = error as { code?: string; message?: string };
  console.error(code === 'EADDRINUSE' ? `The port is taken. Choose another: PORT=4790 npm start` : (message ?? error));
  process.exit(1);
});
