import type { RequestHandler } from 'express';
import type { News } from '../services/news.js';
import { notFound } from './errors.js';

/** ms between signs of life: a proxy on the way cuts a line that is quiet for longer. */
const BEAT = 20_000;

/**
 * What happens to a round as it happens, by server-sent events: each tells what and who, and the listener asks for the round itself.
 *
 * @param known whether there is such a round. @param idOf the round in the address.
 */
export function listening(news: News, idOf: (path: string) => string, known: (id: string) => Promise<boolean>): RequestHandler {
  return async (request, response) => {
    const id = idOf(String(request.params['id']));
    if (!(await known(id))) throw notFound('round');
    // Left as they are on the way: compressed, they would wait for each other.
    response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform', 'X-Accel-Buffering': 'no' });
    response.flushHeaders();
    response.write('retry: 1000\n\n');
    const beat = setInterval(() => response.write(': here\n\n'), BEAT);
    const leave = news.hear(
      id,
      (told) => response.write(`data: ${JSON.stringify(told)}\n\n`),
      () => response.end(),
    );
    response.on('close', () => {
      clearInterval(beat);
      leave();
    });
  };
}
