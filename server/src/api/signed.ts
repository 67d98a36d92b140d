import type { RequestHandler } from 'express';
import { putRight, typingMistakes } from '../services/people.js';

/** The list of people tells initials as they were typed. */
const AS_TYPED = /^\/people(\/|$)/;

const NONE: ReadonlyMap<string, string> = new Map();

/** Whatever is answered: what was written under mistyped initials is told as written by whom they were meant for. */
export const signed: RequestHandler = async (request, response, next) => {
  // What needs no database is answered without one.
  const mistakes = AS_TYPED.test(request.path) ? NONE : await typingMistakes().catch(() => NONE);
  if (mistakes.size) {
    const send = response.send.bind(response);
    const isJson = (): boolean => response.get('Content-Type')?.includes('json') ?? false;
    response.send = (body: unknown) =>
      send(typeof body === 'string' && isJson() ? JSON.stringify(putRight(JSON.parse(body) as unknown, mistakes)) : body);
  }
  next();
};
