import type { ErrorRequestHandler, RequestHandler, Response } from 'express';
import type { Logger } from 'pino';
import type { z } from 'zod';
import { fieldErrors, type Problem } from '@fairwatt/contract';
import { databaseIsGone } from './database/gone.ts';

/** An expected failure that becomes a problem document. */
export class HttpProblem extends Error {
  readonly problem: Problem;
  constructor(status: number, type: string, title: string, extra: Partial<Problem> = {}) {
    super(title);
    this.problem = { type: `/problems/${type}`, title, status, ...extra };
  }
}

/** Somebody signs who is nobody here. */
export const noTechnician = () =>
  new HttpProblem(403, 'unknown-technician', 'Pick a name first: this one is not known here', {
    errors: [{ path: 'by', message: 'not a technician of this shop' }],
  });

export const notOwner = (title: string) =>
  new HttpProblem(403, 'not-an-owner', title, { errors: [{ path: 'by', message: 'is not an owner of this shop' }] });

export function sendProblem(response: Response, problem: Problem): void {
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
}

/** Parses what came in; what does not fit becomes 422 with the fields that are wrong. */
export function parseInput<T>(schema: z.ZodType<T>, input: unknown, what: string): T {
  const result = schema.safeParse(input);
  if (!result.success)
    throw new HttpProblem(422, 'invalid', `${what} is not valid`, { errors: fieldErrors(result.error) });
  return result.data;
}

export const notFoundHandler: RequestHandler = (request, response) => {
  sendProblem(response, {
    type: '/problems/not-found',
    title: 'There is nothing here',
    status: 404,
    detail: request.path,
  });
};

/**
 * A failure of the one who asked, as the framework and the readers of bodies throw it: a bad address, bad packing, too
 * much.
 */
interface RequestError {
  readonly type: string;
  readonly status: number;
}
function requestError(error: unknown): RequestError | null {
  if (!(error instanceof Error) || !('status' in error) || typeof error.status !== 'number') return null;
  if (error.status < 400 || error.status > 499) return null;
  return { status: error.status, type: 'type' in error ? String(error.type) : '' };
}

/**
 * What the database itself refused: the last line behind the schemas, and worth a line in the log, since a schema
 * should have told it at the field.
 */
function refusedByDatabase(error: unknown): Problem | null {
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  if (code === '23505') return { type: '/problems/already-there', title: 'This is there already', status: 409 };
  if (/^2[23]/.test(code))
    return {
      type: '/problems/not-storable',
      title: 'Something in this cannot be stored; nothing was changed',
      status: 422,
    };
  return null;
}

/** No room on the disk: of the database, or of the server itself. */
const noRoom = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && (error.code === '53100' || error.code === 'ENOSPC');

/** Turns whatever was thrown into a problem document; nothing of its inside leaves the server. */
export function errorHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, _request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    if (error instanceof HttpProblem) {
      sendProblem(response, error.problem);
      return;
    }
    const ofTheRequest = requestError(error);
    if (ofTheRequest?.type === 'entity.too.large') {
      sendProblem(response, {
        type: '/problems/too-large',
        title: 'This is too large; at most 8 MB are taken',
        status: 413,
      });
      return;
    }
    if (ofTheRequest?.type.startsWith('entity.parse') === true) {
      sendProblem(response, { type: '/problems/not-json', title: 'This is not JSON, or it is cut off', status: 400 });
      return;
    }
    if (ofTheRequest !== null) {
      sendProblem(response, {
        type: '/problems/bad-request',
        title: 'The request could not be read',
        status: ofTheRequest.status,
      });
      return;
    }
    if (noRoom(error)) {
      log.error({ err: error }, 'no room on the disk');
      sendProblem(response, {
        type: '/problems/disk-full',
        title: 'There is no room left on the disk; nothing was changed, and what you type is kept',
        status: 507,
      });
      return;
    }
    if (databaseIsGone(error)) {
      log.warn('database not reachable');
      sendProblem(response, {
        type: '/problems/database-away',
        title: 'The database is away; try again in a moment',
        status: 503,
      });
      return;
    }
    const refused = refusedByDatabase(error);
    if (refused !== null) {
      log.error({ err: error }, 'refused by the database only');
      sendProblem(response, refused);
      return;
    }
    log.error(error instanceof Error ? { err: error } : { thrown: String(error) }, 'unexpected failure');
    sendProblem(response, {
      type: '/problems/internal',
      title: 'Something went wrong here; sending it again does no harm',
      status: 500,
    });
  };
}
