import type { Request, Response } from 'express';
import { FaultError } from '@isometra/core';
import { Stopped } from '../archives/writing.js';
import { ApiError, errorBody } from './errors.js';

/** Aborted when whoever waits for an answer has gone away. */
export function goneAway(response: Response): AbortSignal {
  const gone = new AbortController();
  response.once('close', () => void (response.writableFinished || gone.abort()));
  return gone.signal;
}

/** How far something is, told at most ten times a second; that something else is begun, or done, is always told. */
export function paced<Doing extends string>(
  line: (one: { readonly doing: Doing; readonly done: number; readonly of: number }) => void,
): (doing: Doing, done: number, of: number) => void {
  let last = 0;
  let before: Doing | undefined;
  return (doing, done, of) => {
    if (doing === before && Date.now() - last < 100 && done !== of) return;
    [last, before] = [Date.now(), doing];
    line({ doing, done, of });
  };
}

/** Answer line by line while something is done: how far it is, then what came of it. What goes wrong meanwhile is the last line. */
export async function answerByLines<Line>(
  request: Request,
  response: Response,
  work: (line: (one: Line) => void) => Promise<void>,
): Promise<void> {
  response.status(200).set({ 'Content-Type': 'application/x-ndjson', 'Cache-Control': 'no-transform' });
  const line = (one: unknown): void => void response.write(`${JSON.stringify(one)}\n`);
  try {
    await work(line);
  } catch (error) {
    if (!(error instanceof Stopped)) {
      if (!(error instanceof FaultError || error instanceof ApiError)) request.log.error({ err: error }, `${request.path} failed`);
      line({ errors: errorBody(error) });
    }
  }
  response.end();
}
