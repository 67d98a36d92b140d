import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import express, { type Router } from 'express';
import { PROGRAM } from '../../program.js';
import { openApi } from './openApi.js';

const require = createRequire(import.meta.url);

const PAGE = `<!doctype html>
<html lang="en">
  <head>
    <meta charset="utf-8" />
    <title>Interface of Isometra</title>
    <link rel="stylesheet" href="/api/docs/viewer/swagger-ui.css" />
  </head>
  <body>
    <div id="interface"></div>
    <script src="/api/docs/viewer/swagger-ui-bundle.js"></script>
    <script src="/api/docs/begin.js"></script>
  </body>
</html>
`;
const BEGIN = `SwaggerUIBundle({ url: '/api/openapi.json', dom_id: '#interface', deepLinking: true, validatorUrl: null });\n`;

/** The description of the interface, and a page that shows it: everything it needs is served from here. */
export function docs(router: Router): void {
  // Made when it is asked for first: most shops never ask.
  let description: ReturnType<typeof openApi> | undefined;
  router.get('/openapi.json', (_request, response) => void response.json((description ??= openApi(PROGRAM))));
  router.get('/docs', (_request, response) => void response.type('html').send(PAGE));
  router.get('/docs/begin.js', (_request, response) => void response.type('js').send(BEGIN));
  router.use('/docs/viewer', express.static(dirname(require.resolve('swagger-ui-dist/package.json')), { index: false, maxAge: '1d' }));
}
