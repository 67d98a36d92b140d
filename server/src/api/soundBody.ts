import type { RequestHandler } from 'express';
import { pathText, type Fault } from '@isometra/core';
import { ApiError } from './errors.js';

/** JSON columns of the database hold no deeper nesting. */
const DEEPEST = 30;
/** No figure of a machine is larger; what is would only overflow later. */
const LARGEST = 1e9;
const MOST = 20;

// Half of a pair of code units is no character: the database refuses it, and no font has a sign for it.
const HALF_A_SIGN = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

interface Waiting {
  readonly value: unknown;
  readonly path: readonly PropertyKey[];
}

/**
 * What the database would refuse in a body: texts with half a sign in them, nesting that is too deep, numbers that no machine has.
 * Walks without recursion, so that depth itself does no harm.
 */
export function unsound(body: unknown): Fault[] {
  const faults: Fault[] = [];
  const waiting: Waiting[] = [{ value: body, path: [] }];
  const say = (path: readonly PropertyKey[], message: string, example: string): void =>
    void (faults.length < MOST && faults.push({ path: pathText(path.slice(0, 12)), message, example }));
  for (let next = waiting.pop(); next && faults.length < MOST; next = waiting.pop()) {
    const { value, path } = next;
    if (typeof value === 'string' && (HALF_A_SIGN.test(value) || value.includes('\u0000')))
      say(path, 'holds a sign that cannot be written down', 'the same text without it');
    if (typeof value === 'number' && Math.abs(value) > LARGEST) say(path, `is beyond any machine: at most ${LARGEST}`, '12.5');
    if (typeof value !== 'object' || value === null) continue;
    if (path.length > DEEPEST) {
      say(path, `is nested deeper than ${DEEPEST} levels`, 'a plain value');
      continue;
    }
    for (const [key, part] of Object.entries(value)) {
      if (HALF_A_SIGN.test(key)) say([...path, '?'], 'has a name with a sign that cannot be written down', 'a plain name');
      waiting.push({ value: part, path: [...path, Array.isArray(value) ? Number(key) : key] });
    }
  }
  return faults;
}

/** Refuse a body that could not be stored, before anything looks into it. What is only worked out says itself what is wrong with it. */
export const soundBody: RequestHandler = (request, _response, next) => {
  const faults = Buffer.isBuffer(request.body) ? [] : unsound(request.body);
  if (faults.length) throw new ApiError(400, faults);
  next();
};
