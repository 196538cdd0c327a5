/** Puts handlers under the addresses of the table of endpoints: what comes in is parsed, what goes out is typed. */
import express from 'express';
import type { Express, NextFunction, Request, Response } from 'express';
import type { Asked, Endpoint, Given, Route } from '../../contracts/endpoints';
import { ENDPOINTS } from '../../contracts/endpoints';
import { needsOf } from '../../contracts/rights';
import type { Asking } from '../people/logIn';
import { Trouble } from '../problem';
import type { Watch } from '../work/pool';
import { handle, parse } from './guard';
import { asking, refuseUnless } from './rights';
import { Sent } from './sent';
import { answerInSteps, oneFile, uploadedFile } from './upload';

interface Came<R extends Route> extends Asked<R> {
  readonly request: Request;
  readonly response: Response;
  /** For an upload: hears how far it is, and is told to give up. */
  readonly watch: Watch;
}

/** Gives the answer's value, or what is sent in its stead; undefined when it has answered by itself. */
type Handler<R extends Route> = (
  came: Came<R>,
) => Promise<Given<R> extends undefined ? Sent | undefined : Given<R> | Sent>;

/** One for every route of the table: a missing one is an error of types. */
export type Handlers = { readonly [R in Route]: Handler<R> };

type AnyHandler = (came: object) => Promise<unknown>;

/**
 * @param handlersFor what answers whoever asks
 * @param filesPerMinute how many files one sender may bring in
 */
export function mount(app: Express, handlersFor: (who: Asking) => Handlers, filesPerMinute: number): void {
  const upload = oneFile(filesPerMinute);
  const body = express.json({ limit: '2mb' });
  for (const [route, endpoint] of Object.entries<Endpoint>(ENDPOINTS)) {
    const [method, path] = route.split(' ');
    const needs = needsOf(route as Route);
    const verb = method.toLowerCase() as 'get' | 'post' | 'patch';
    app[verb](
      path.replace(/\{(\w+)\}/g, ':$1'),
      (_request: Request, response: Response, next: NextFunction) => {
        refuseUnless(needs, asking(response));
        next();
      },
      ...(endpoint.takes ? [body] : []),
      ...(endpoint.upload ? upload : []),
      handle(async (request, response) => {
        const answer = handlersFor(asking(response))[route as Route] as unknown as AnyHandler;
        const came = { ...asked(endpoint, request), request, response };
        if (endpoint.upload) return answerInSteps(request, response, (watch) => answer({ ...came, watch }));
        const value = await answer(came);
        if (value instanceof Sent) response.set(value.headers).end(value.bytes);
        else if (value !== undefined) response.json(value);
      }),
    );
  }
}

function asked({ params, query, takes, upload }: Endpoint, request: Request): object {
  const named = params?.safeParse(request.params);
  if (named && !named.success) throw new Trouble(404, 'not-found', 'There is nothing at this address.');
  return {
    params: named?.data,
    query: query && parse(query, request.query),
    body: takes ? parse(takes, request.body) : upload ? uploadedFile(request) : undefined,
  };
}
