import { addressOf } from '../../contracts/address';
import type { Problem } from '../../contracts/api';
import { KEY_HEADER, STEPS_TYPE } from '../../contracts/api';
import type { Ask, Given, Route } from '../../contracts/endpoints';
import { requestKeys } from './requestKeys';
import { lastStep, shareIn } from './steps';

/** What the server said no with, in words for a person. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly waysOut: readonly string[] = [],
  ) {
    super(message);
  }
}

const AWAY =
  'The server cannot be reached. Nothing is lost: what you changed is kept here and saved when it is back.';

/** Finds out who is there, when the server does not know; what was asked is asked again if somebody is. */
type WhoIsIt = (code: string) => Promise<boolean>;
let whoIsIt: WhoIsIt = () => Promise.resolve(false);
export const askWhoItIs = (ask: WhoIsIt): void => void (whoIsIt = ask);

/** Nothing need be said with a call that takes nothing. */
type Said<R extends Route> = object extends Ask<R> ? [ask?: Ask<R>] : [ask: Ask<R>];

/** Calls the server, typed by the table of endpoints; once more when it is known who is there. @throws ApiProblem */
export async function call<R extends Route>(route: R, ...said: Said<R>): Promise<Given<R>> {
  try {
    return await callOnce(route, ...said);
  } catch (error) {
    const isUnknown = error instanceof ApiProblem && error.status === 401;
    if (!isUnknown || !(await whoIsIt(error.code))) throw error;
    return callOnce(route, ...said);
  }
}

/** What must not be made twice when it is asked for again, because its answer was lost. */
const MADE_ONCE: ReadonlySet<Route> = new Set([
  'POST /api/orders',
  'POST /api/orders/text',
  'POST /api/orders/{id}/repeat',
  'POST /api/orders/{id}/queue',
] satisfies Route[]);
const keys = requestKeys();
/** The server, or something on the way to it, did not say what became of it. */
const isUnanswered = (status: number): boolean => status === 0 || status === 502 || status === 503;

async function callOnce<R extends Route>(route: R, ...[ask]: Said<R>): Promise<Given<R>> {
  const { body } = (ask ?? {}) as { body?: unknown };
  const address = addressOf(route, ask ?? ({} as Ask<R>));
  const signature = `${address} ${JSON.stringify(body)}`;
  const response = await fetch(address, {
    method: route.slice(0, route.indexOf(' ')),
    headers: {
      ...(body !== undefined && { 'Content-Type': 'application/json' }),
      ...(MADE_ONCE.has(route) && { [KEY_HEADER]: keys.keyFor(signature) }),
    },
    body: body === undefined ? undefined : JSON.stringify(body),
  }).catch(() => {
    throw new ApiProblem(0, 'away', AWAY);
  });
  if (!isUnanswered(response.status)) keys.answered(signature);
  if (response.ok) return (await response.json()) as Given<R>;
  throw problemFrom(response.status, await response.text());
}

function problemFrom(status: number, text: string): ApiProblem {
  try {
    const problem = JSON.parse(text) as Problem;
    return new ApiProblem(status, problem.code, problem.message, problem.waysOut);
  } catch {
    return new ApiProblem(status, 'away', AWAY);
  }
}

export interface Upload<T> {
  readonly done: Promise<T>;
  readonly cancel: () => void;
}

/** How far a file has come: on its way, then being read. */
export interface UploadProgress {
  readonly phase: 'sending' | 'reading';
  /** 0 … 1 */
  readonly share: number;
}

type Uploads = 'POST /api/orders' | 'POST /api/files' | 'POST /api/fonts' | 'POST /api/pictures';

/** Sends a file, and hears how far it has come. */
export function upload<R extends Uploads>(
  route: R,
  file: File,
  progress: (now: UploadProgress) => void,
): Upload<Given<R>> {
  const request = new XMLHttpRequest();
  const done = new Promise<Given<R>>((give, fail) => {
    request.upload.onprogress = ({ lengthComputable, loaded, total }) =>
      lengthComputable && progress(loaded < total ? { phase: 'sending', share: loaded / total } : READING);
    request.onprogress = () => {
      const share = shareIn(request.responseText);
      if (share !== undefined) progress({ phase: 'reading', share });
    };
    request.onload = () => {
      if (request.status === 401) return fail(notIn());
      if (request.status !== 200) return fail(problemFrom(request.status, request.responseText));
      const last = lastStep<Given<R>>(request.responseText);
      if (last && 'value' in last) give(last.value);
      else if (last && 'problem' in last)
        fail(new ApiProblem(last.status, last.problem.code, last.problem.message, last.problem.waysOut));
      else fail(new ApiProblem(0, 'away', AWAY));
    };
    request.onerror = () => fail(new ApiProblem(0, 'away', AWAY));
    request.onabort = () => fail(new ApiProblem(0, 'cancelled', 'Cancelled.'));
  });
  const form = new FormData();
  form.append('file', file);
  const signature = `${route} ${file.name} ${file.size} ${file.lastModified}`;
  done.then(
    () => keys.answered(signature),
    (problem: ApiProblem) => isUnanswered(problem.status) || keys.answered(signature),
  );
  request.open('POST', addressOf(route, {} as Ask<R>));
  if (MADE_ONCE.has(route)) request.setRequestHeader(KEY_HEADER, keys.keyFor(signature));
  request.setRequestHeader('Accept', STEPS_TYPE);
  request.send(form);
  return { done, cancel: () => request.abort() };
}

/** A file is not sent twice by itself: whoever is asked for their name brings it in once more. */
function notIn(): ApiProblem {
  void whoIsIt('log-in');
  return new ApiProblem(401, 'log-in', 'You were not logged in any more. Bring the file in once more.');
}

const READING: UploadProgress = { phase: 'reading', share: 0 };
