import type { Problem } from '../../contracts/api';
import { lastStep, shareIn } from './steps';
import { STEPS_TYPE } from '../../contracts/api';

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

export async function call<T>(method: 'GET' | 'POST' | 'PATCH', path: string, body?: unknown): Promise<T> {
  const response = await fetch(path, {
    method,
    headers: body === undefined ? {} : { 'Content-Type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  }).catch(() => {
    throw new ApiProblem(0, 'away', AWAY);
  });
  if (response.ok) return (await response.json()) as T;
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

/** Sends a file, and hears how far it has come. */
export function upload<T>(path: string, file: File, progress: (now: UploadProgress) => void): Upload<T> {
  const request = new XMLHttpRequest();
  const done = new Promise<T>((give, fail) => {
    request.upload.onprogress = ({ lengthComputable, loaded, total }) =>
      lengthComputable && progress(loaded < total ? { phase: 'sending', share: loaded / total } : READING);
    request.onprogress = () => {
      const share = shareIn(request.responseText);
      if (share !== undefined) progress({ phase: 'reading', share });
    };
    request.onload = () => {
      if (request.status !== 200) return fail(problemFrom(request.status, request.responseText));
      const last = lastStep<T>(request.responseText);
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
  request.open('POST', path);
  request.setRequestHeader('Accept', STEPS_TYPE);
  request.send(form);
  return { done, cancel: () => request.abort() };
}

const READING: UploadProgress = { phase: 'reading', share: 0 };
