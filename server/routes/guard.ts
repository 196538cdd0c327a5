import type { ErrorRequestHandler, NextFunction, Request, RequestHandler, Response } from 'express';
import multer from 'multer';
import type { Logger } from 'pino';
import type { z } from 'zod';
import { isDatabaseAway, isDiskFull, isUnkeepable } from '../db/away';
import { tooBig } from '../files/limits';
import { TOO_BUSY, tooBusy, Trouble } from '../problem';
import { STEPS_TYPE } from '../../contracts/api';

/** Parses input at the edge. @throws Trouble 400 that names the field */
export function parse<T extends z.ZodType>(schema: T, input: unknown): z.infer<T> {
  const parsed = schema.safeParse(input);
  if (parsed.success) return parsed.data;
  const [issue] = parsed.error.issues;
  const field = issue.path.join('.') || 'the request';
  throw new Trouble(400, 'bad-input', `${field}: ${issue.message}.`);
}

/** Async handlers whose errors reach the error handler. */
export const handle =
  (work: (request: Request, response: Response) => Promise<unknown>): RequestHandler =>
  (request, response, next) => {
    work(request, response).catch(next);
  };

/**
 * Changes are taken only from the app's own pages, and a browser says which page a change comes from: another site's form
 * or script is turned away, and so is whatever does not say (OWASP, Cross-Site Request Forgery Prevention: verify the
 * origin with standard headers).
 */
export function sameSiteOnly(request: Request, _response: Response, next: NextFunction): void {
  if (request.method === 'GET' || request.method === 'HEAD') return next();
  const site = request.get('sec-fetch-site');
  const origin = request.get('origin');
  const isOurs = origin === undefined ? site === 'same-origin' : hostOf(origin) === request.get('host');
  if (isOurs && (site === undefined || site === 'same-origin')) return next();
  next(new Trouble(403, 'other-site', 'This change came from another site and was not made.'));
}

const hostOf = (origin: string): string | undefined =>
  URL.canParse(origin) ? new URL(origin).host : undefined;

/** s after which whoever was told to come back may do so. */
const RETRY_S = 2;

/** Requests that are answered at once; more are turned away. */
const MOST_UNDER_WAY = 250;

/** Whoever only asks is turned away while too many do; what a person did is taken, and pages that listen are none of them. */
export function notTooMany(most = MOST_UNDER_WAY): RequestHandler {
  let underWay = 0;
  return (request, response, next) => {
    if (request.method !== 'GET' || request.path === '/events') return next();
    if (underWay >= most) return next(tooBusy());
    underWay++;
    response.once('close', () => underWay--);
    next();
  };
}

/** A refused query says all that was to be written. */
const MOST_LOGGED = 400;

/** Turns errors into a sentence; what a person need not know stays in the log. */
export function errorHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    const trouble = asTrouble(error, request.method === 'GET');
    // too much to do is no fault, and writing of it is more to do
    if (trouble.status >= 500 && trouble.code !== TOO_BUSY)
      log.error({ error: String(error).slice(0, MOST_LOGGED), path: request.path }, 'request failed');
    // (RFC 9110, 10.2.3)
    if (trouble.status === 503 && !response.headersSent) response.set('Retry-After', String(RETRY_S));
    if (!response.headersSent) response.status(trouble.status).json(trouble);
    else if (!response.get('content-type')?.startsWith(STEPS_TYPE)) next(error);
    else response.end(JSON.stringify({ status: trouble.status, problem: trouble }));
  };
}

const LOOK_FIRST = 'Look whether it was done, then try again.';

/** @param isLook nothing was to be changed: of all else nobody knows whether it was done before this went wrong */
function asTrouble(error: unknown, isLook: boolean): Trouble {
  if (error instanceof Trouble) return error;
  if (error instanceof multer.MulterError) {
    if (error.code === 'LIMIT_FILE_SIZE') return new Trouble(413, 'too-big', tooBig().message);
    return new Trouble(400, 'bad-upload', 'One file at a time can be brought in.');
  }
  if (isUnkeepable(error)) {
    return new Trouble(
      400,
      'bad-input',
      'Something in this cannot be kept: a number or date beyond reason, or characters that are none. Change it and try again.',
    );
  }
  if (/unexpected end of form|malformed part|boundary not found/i.test(String(error)))
    return new Trouble(400, 'bad-upload', 'The file did not come in whole. Bring it in again.');
  if (isDatabaseAway(error)) {
    return new Trouble(
      503,
      'database-away',
      `The database cannot be reached just now. ${isLook ? 'Try again in a moment.' : LOOK_FIRST}`,
    );
  }
  if (isDiskFull(error))
    return new Trouble(507, 'disk-full', 'The server’s disk is full: this was not kept. Free room on it, then try again.'); // prettier-ignore
  const status = (error as { status?: unknown })?.status;
  if (status === 413) return new Trouble(413, 'too-big', 'That is more than this address takes.');
  if (typeof status === 'number' && status < 500)
    return new Trouble(status, 'bad-input', 'The request cannot be read.');
  return new Trouble(
    500,
    'fault',
    `Something went wrong inside Jam Pan. ${isLook ? 'Try once more.' : LOOK_FIRST}`,
  );
}
