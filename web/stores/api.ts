import type { Problem } from '../../contracts/api';

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

/** Sends a file with progress from 0 to 1. */
export function upload<T>(path: string, file: File, progress: (share: number) => void): Upload<T> {
  const request = new XMLHttpRequest();
  const done = new Promise<T>((give, fail) => {
    request.upload.onprogress = (event) => event.lengthComputable && progress(event.loaded / event.total);
    request.onload = () =>
      request.status === 200
        ? give(JSON.parse(request.responseText) as T)
        : fail(problemFrom(request.status, request.responseText));
    request.onerror = () => fail(new ApiProblem(0, 'away', AWAY));
    request.onabort = () => fail(new ApiProblem(0, 'cancelled', 'Cancelled.'));
  });
  const form = new FormData();
  form.append('file', file);
  request.open('POST', path);
  request.send(form);
  return { done, cancel: () => request.abort() };
}
