import { hostname, networkInterfaces } from 'node:os';
import type { RequestHandler } from 'express';
import { ApiError } from './errors.js';

const LOOPBACK = ['localhost', '127.0.0.1', '::1'];
const ANY = ['0.0.0.0', '::', ''];

/** Whether a server that listens there is reached from its own machine only. */
export const isLoopback = (host: string): boolean => LOOPBACK.includes(host) || host.startsWith('127.');

/** The names under which a server that listens on `host` may be asked; more may be given. */
export function namesOf(host: string, more: readonly string[] = []): ReadonlySet<string> {
  const own = (): string[] => [
    hostname(),
    ...Object.values(networkInterfaces())
      .flat()
      .flatMap((face) => (face ? [face.address] : [])),
  ];
  const names = ANY.includes(host) ? [...LOOPBACK, ...own()] : LOOPBACK.includes(host) ? LOOPBACK : [host];
  return new Set([...names, ...more].map((name) => name.toLowerCase()));
}

/** A host without its port: `[::1]:4780` → `::1`. */
function nameOf(host: string): string {
  const [, bracketed, plain] = /^(?:\[([^\]]*)\]|([^:]*))(?::\d+)?$/.exec(host.trim().toLowerCase()) ?? [];
  return bracketed ?? plain ?? '';
}

function hostOf(origin: string): string | undefined {
  return URL.canParse(origin) ? new URL(origin).host : undefined;
}

const refused = (path: string, message: string, example: string): ApiError => new ApiError(403, [{ path, message, example }]);

/**
 * Answer only to the names the server was started for, and to pages that it served itself: a page of another origin,
 * or another name that leads here, gets 403 before anything is read.
 */
export function fence(names: ReadonlySet<string>): RequestHandler {
  return (request, _response, next) => {
    const host = request.headers.host ?? '';
    if (!names.has(nameOf(host))) throw refused('Host', `"${host}" is not a name of this server`, [...names][0]);
    const { origin } = request.headers;
    if (origin !== undefined && hostOf(origin) !== host.toLowerCase())
      throw refused('Origin', `a page of "${origin}" may not ask this server`, `http://${host}`);
    if (origin === undefined && request.headers['sec-fetch-site'] === 'cross-site' && request.path.startsWith('/api'))
      throw refused('Origin', 'a page of another site may not ask this server', `http://${host}`);
    next();
  };
}
