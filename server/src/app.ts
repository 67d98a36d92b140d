import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { answerErrors } from './api/errors.js';
import { fence } from './api/fence.js';
import { signed } from './api/signed.js';
import { soundBody } from './api/soundBody.js';
import { subscribed } from './api/plans.js';
import { pairing } from './api/pairing.js';
import { byToken } from './api/tokens.js';
import type { Means } from './api/means.js';
import { apiRoutes } from './api/routes.js';

const HASHED = /-[A-Z0-9]{8}\.(?:js|css|woff2?)$/i;

/** Headers that mean something with a page alone. */
const OF_PAGES = ['Content-Security-Policy', 'Cross-Origin-Opener-Policy', 'Origin-Agent-Cluster', 'Referrer-Policy', 'X-Frame-Options'];

interface Parts extends Means {
  readonly logger: Logger;
  /** Names under which it may be asked. */
  readonly names: ReadonlySet<string>;
  readonly webRoot?: string;
}

/** The whole HTTP application: API, health and the built web application. */
export function createApp({ logger, names, webRoot, ...means }: Parts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    pinoHttp({
      logger,
      genReqId: (_request, response) => setRequestId(response),
      autoLogging: { ignore: (request) => !request.url?.startsWith('/api') },
    }),
  );
  app.use(fence(names));
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          'script-src': ["'self'"],
          'style-src': ["'self'", "'unsafe-inline'"],
          'img-src': ["'self'", 'data:', 'blob:'],
          'worker-src': ["'self'", 'blob:'],
          'upgrade-insecure-requests': null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.get('/calendar/:secret.ics', subscribed(means));
  app.use(byToken);
  if (means.lan) app.use(pairing(means.lan.devices));
  app.use(compression());
  app.get('/api/health', (_request, response) => void response.json({ status: 'up' }));
  app.get('/api/ready', async (_request, response) => {
    const ready = await means.sequelize.authenticate().then(
      () => true,
      () => false,
    );
    response.status(ready ? 200 : 503).json({ status: ready ? 'ready' : 'the database does not answer' });
  });
  app.use('/api', express.json({ limit: '1mb', strict: false }), soundBody, signed, apiRoutes(means));
  if (webRoot && existsSync(webRoot)) serveWeb(app, webRoot);
  app.use(answerErrors);
  return app;
}

function setRequestId(response: { setHeader(name: string, value: string): unknown }): string {
  const id = crypto.randomUUID();
  response.setHeader('X-Request-Id', id);
  return id;
}

/** Hashed files may be kept for a year; the page itself is asked for every time. */
function serveWeb(app: Express, webRoot: string): void {
  app.use(
    express.static(webRoot, {
      index: false,
      setHeaders: (response, path) => {
        const hashed = HASHED.test(path);
        response.setHeader('Cache-Control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
        // What a page may do is said with the page, and with a worker: forty times more it is only weight.
        if (hashed && !path.includes('worker')) for (const name of OF_PAGES) response.removeHeader(name);
      },
    }),
  );
  app.get(/^\/(?!api(?:\/|$))/, (_request, response) => {
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(join(webRoot, 'index.html'));
  });
}
