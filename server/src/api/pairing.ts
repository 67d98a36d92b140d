import { parse, serialize } from 'cookie';
import express, { Router, type Request, type Response } from 'express';
import type { Devices } from '../services/devices.js';
import { ApiError } from './errors.js';
import { isLoopback } from './fence.js';

const COOKIE = 'isometra_device';
const YEAR = 365 * 24 * 3600;

/** Whether a request comes from the machine that the server runs on, and from no proxy on it that others come through. */
function fromHere({ socket, headers }: Request): boolean {
  const from = (socket.remoteAddress ?? '').replace(/^::ffff:/, '');
  return isLoopback(from) && headers['x-forwarded-for'] === undefined && headers.forwarded === undefined;
}

/**
 * The door to the network: who is not on this machine is let in by a device that was paired, and by nothing else. A page is answered
 * with the question for the code, the API with 401.
 */
export function pairing(devices: Devices): Router {
  const router = Router();
  router.post('/pair', express.urlencoded({ extended: false, limit: '1kb' }), async (request, response) => {
    const { code, name } = (request.body ?? {}) as Readonly<Record<string, unknown>>;
    try {
      const shown = await devices.pair(String(code ?? ''), String(name ?? ''));
      response.setHeader('Set-Cookie', serialize(COOKIE, shown, { httpOnly: true, sameSite: 'lax', path: '/', maxAge: YEAR }));
      response.redirect(303, '/');
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      ask(response, 403, error.faults[0].message);
    }
  });
  router.use(async (request, response, next) => {
    if (fromHere(request) || response.locals['byToken']) return next();
    if (await devices.knows(parse(request.headers.cookie ?? '')[COOKIE])) return next();
    if (request.path.startsWith('/api')) throw new ApiError(401, [NOT_PAIRED], undefined, 'not-paired');
    ask(response, 401, '');
  });
  return router;
}

/** Answer with the question for the code. Without a word of where it was asked from, its form would be one of nowhere to the fence. */
const ask = (response: Response, status: number, problem: string): void => {
  response.status(status).set({ 'Cache-Control': 'no-store', 'Referrer-Policy': 'same-origin' }).type('html').send(page(problem));
};

const NOT_PAIRED = {
  path: '',
  message: 'This device is not let in any more. Load the page again to pair it. What was entered here stays in this browser until then.',
  example: '',
};

const escaped = (text: string): string => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** The question for the code: a page by itself, because nothing of the application is given out before. */
const page = (problem: string): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>Isometra: pair this device</title>
<style>
body { margin: 0; padding: 32px 20px; background: #eef0ee; color: #1d252c; font: 17px/1.45 system-ui, sans-serif; }
main { max-width: 420px; margin: 0 auto; display: grid; grid-template-columns: minmax(0, 1fr); gap: 14px; }
h1, p { margin: 0; }
form { display: grid; grid-template-columns: minmax(0, 1fr); gap: 14px; }
label { display: grid; gap: 4px; font-weight: 600; }
input { box-sizing: border-box; width: 100%; min-height: 48px; padding: 0 12px; border: 1px solid #6b7780; font: inherit; }
input[name=code] { font-size: 28px; letter-spacing: 0.2em; }
button { min-height: 52px; border: 1px solid #1d252c; background: #f0bc1e; color: #1d252c; font: inherit; font-weight: 700; }
.problem { padding: 8px 12px; border-left: 6px solid #b3261e; background: #fbeeec; font-weight: 600; }
</style>
</head>
<body>
<main>
<h1>Pair this device</h1>
<p>Isometra runs on a machine in this shop and lets in devices that it knows. Ask there for the code: it stands where Isometra was started, and on the page Machines under “Phones and tablets”.</p>
${problem && `<p class="problem" role="alert">${escaped(problem)}</p>`}
<form method="post" action="/pair">
<label>Code, six digits<input name="code" inputmode="numeric" autocomplete="one-time-code" maxlength="7" required autofocus></label>
<label>What this device is called<input name="name" maxlength="40" placeholder="e.g. Phone at the lathe"></label>
<button type="submit">Let this device in</button>
</form>
</main>
</body>
</html>
`;
