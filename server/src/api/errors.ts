import type { ErrorRequestHandler, RequestHandler } from 'express';
import { BaseError, ForeignKeyConstraintError } from 'sequelize';
import type * as z from 'zod';
import { FaultError, faultsOf, type Fault } from '@isometra/core';
import type { ApiErrors, ErrorCode } from '@isometra/contract';
import { brokenRule, faultOfRule } from '../db/constraints.js';

/** The code of a status that says enough by itself. */
const CODE_OF: Readonly<Record<number, ErrorCode>> = {
  400: 'invalid',
  401: 'not-paired',
  403: 'forbidden',
  404: 'not-found',
  409: 'conflict',
  413: 'too-large',
  422: 'takes-too-long',
  429: 'too-many-requests',
  500: 'server-error',
  503: 'database-away',
  507: 'disk-full',
};
const codeOf = (status: number): ErrorCode => CODE_OF[status] ?? (status < 500 ? 'invalid' : 'server-error');

/** An answer that is not what was asked for: its status and code, its faults, and on a conflict the row as it is now. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly faults: readonly Fault[],
    readonly current?: unknown,
    readonly code: ErrorCode = codeOf(status),
  ) {
    super(faults.map((fault) => `${fault.path} ${fault.message}`).join('; '));
  }
}

export const notFound = (what: string): ApiError =>
  new ApiError(404, [{ path: 'id', message: `no such ${what}`, example: `the id of a ${what} from its list` }]);

/** Somebody else changed the row since it was read. */
export const stale = (current: unknown): ApiError =>
  new ApiError(
    409,
    [
      {
        path: 'version',
        message: 'it was changed by someone else since you read it; the newer one is beside this',
        example: 'the version of the newer one',
      },
    ],
    current,
    'stale',
  );

/** Check a body against its schema; every fault at once. */
export function parseBody<T extends z.ZodType>(schema: T, body: unknown): z.output<T> {
  const parsed = schema.safeParse(body ?? {});
  if (parsed.success) return parsed.data;
  throw new ApiError(400, faultsOf(parsed.error, []));
}

/** The API's own 404. */
export const unknownRoute: RequestHandler = (request) => {
  const message = `there is nothing at ${request.method} ${request.baseUrl}${request.path}`;
  throw new ApiError(404, [{ path: request.path, message, example: 'GET /api/machines' }], undefined, 'no-such-address');
};

function statusAndFaults(error: unknown): [number, readonly Fault[], unknown?, ErrorCode?] {
  if (error instanceof ApiError) return [error.status, error.faults, error.current, error.code];
  if (error instanceof FaultError) return [400, error.faults];
  if (diskFull(error))
    return [
      507,
      [{ path: '', message: 'the disk of the server is full: nothing was written. Make room, then try again', example: 'free disk space' }],
    ];
  const rule = brokenRule(error);
  const broken = rule === undefined ? undefined : faultOfRule(rule);
  if (broken) return [409, [broken], undefined, 'duplicate'];
  if (error instanceof ForeignKeyConstraintError)
    return [400, [{ path: '', message: 'refers to something that does not exist', example: 'the id of a row from its list' }]];
  if (error instanceof BaseError)
    return [503, [{ path: '', message: 'the database did not answer; nothing was lost, try again', example: '' }]];
  if (error instanceof URIError) return [400, [{ path: '', message: 'the address is garbled', example: '/api/machines' }]];
  const { type, status, limit = 1e6 } = error as { type?: string; status?: number; limit?: number };
  if (type === 'entity.parse.failed')
    return [400, [{ path: '', message: 'the body is not JSON', example: '{ … }' }], undefined, 'not-json'];
  if (type === 'entity.too.large')
    return [
      413,
      [
        {
          path: '',
          message: `the body is larger than ${Math.round(limit / 1e6)} MB`,
          example: 'fewer readings at once, or a smaller picture',
        },
      ],
    ];
  if (status !== undefined && status >= 400 && status < 500)
    return [status, [{ path: '', message: (error as Error).message, example: '' }]];
  return [500, [{ path: '', message: 'something went wrong on the server; the request id helps to find it in the log', example: '' }]];
}

/** What is wrong, as the body of an answer tells it. */
export const errorBody = (error: unknown): Fault[] => [...statusAndFaults(error)[1]];

/** An error of the database with what the database itself said as its cause. */
function withParent(error: unknown): unknown {
  const { parent } = error as { readonly parent?: unknown };
  if (error instanceof Error && parent instanceof Error && error.cause === undefined) error.cause = parent;
  return error;
}

const DISK_FULL = new Set(['ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ER_ERROR_ON_WRITE', 'ENOSPC']);
const DISK_FULL_NUMBERS = new Set([1021, 1114, 1026, 28]);

/** Whether there was no room left to write. */
function diskFull(error: unknown): boolean {
  for (let next: unknown = error, k = 0; next && k < 5; k++) {
    const { code, errno, parent, cause } = next as { code?: string; errno?: number; parent?: unknown; cause?: unknown };
    if ((code && DISK_FULL.has(code)) || (errno !== undefined && DISK_FULL_NUMBERS.has(Math.abs(errno)))) return true;
    next = parent ?? cause;
  }
  return false;
}

/** Turn whatever was thrown into the one error shape. */
export const answerErrors: ErrorRequestHandler = (error: unknown, request, response, next) => {
  if (response.headersSent) return next(error);
  const [status, errors, current, code = codeOf(status)] = statusAndFaults(error);
  // Under this name the logger writes message, stack and cause.
  if (status >= 500) request.log.error({ err: withParent(error) }, 'request failed');
  const body: ApiErrors = { code, errors: [...errors], requestId: String(request.id), ...(current !== undefined && { current }) };
  return void response.status(status).json(body);
};
