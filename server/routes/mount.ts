/** Puts handlers under the addresses of the table of endpoints: what comes in is parsed, what goes out is typed. */
import express from 'express';
import type { Express, NextFunction, Request, Response } from 'express';
import { KEY_HEADER } from '../../contracts/api';
import type { Asked, Given, Route } from '../../contracts/endpoints';
import type { Endpoint } from '../../contracts/endpoints/endpoint';
import { ENDPOINTS } from '../../contracts/endpoints';
import type { Lookout } from '../cutters/look';
import type { Asking, LogInServices } from '../people/logIn';
import { Trouble } from '../problem';
import type { CutServices } from '../services/cuts';
import type { Watch } from '../work/pool';
import { handle, parse } from './guard';
import { asking, refuseRoute } from './rights';
import { Sent } from './sent';
import { answerInSteps, oneFile, uploadedFile } from './upload';

/** Of a request that names itself. */
const LONGEST_KEY = 100;

/** What handlers stand on. */
export interface RouteServices extends CutServices, LogInServices {
  readonly lookout: Lookout;
}

interface Came<R extends Route> extends Asked<R> {
  readonly asking: Asking;
  /** With whoever asks as the one on whose behalf things are done. */
  readonly services: RouteServices;
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

/** @param filesPerMinute how many files one sender may bring in */
export function mount(
  app: Express,
  handlers: Handlers,
  services: RouteServices,
  filesPerMinute: number,
): void {
  const upload = oneFile({ perMinute: filesPerMinute });
  const body = express.json({ limit: '2mb' });
  for (const [route, endpoint] of Object.entries<Endpoint>(ENDPOINTS)) {
    const [method, path] = route.split(' ');
    const answer = handlers[route as Route] as unknown as AnyHandler;
    const verb = method.toLowerCase() as 'get' | 'post' | 'patch';
    app[verb](
      path.replace(/\{(\w+)\}/g, ':$1'),
      (_request: Request, response: Response, next: NextFunction) => {
        refuseRoute(route as Route, asking(response));
        next();
      },
      ...(endpoint.takes ? [body] : []),
      ...(endpoint.upload ? upload : []),
      handle(async (request, response) => {
        const who = asking(response);
        const came = {
          ...(await asked(endpoint, request)),
          request,
          response,
          asking: who,
          services: {
            ...services,
            pool: services.pool.onBehalfOf(who.me?.id ?? null),
            who: who.me?.id ?? null,
            key: request.get(KEY_HEADER)?.slice(0, LONGEST_KEY),
          },
        };
        if (endpoint.upload) return answerInSteps(request, response, (watch) => answer({ ...came, watch }));
        const value = await answer(came);
        if (value instanceof Sent) response.set(value.headers).end(value.bytes);
        else if (value !== undefined) response.json(value);
      }),
    );
  }
}

async function asked({ params, query, takes, upload }: Endpoint, request: Request): Promise<object> {
  const named = params?.safeParse(request.params);
  if (named && !named.success) throw new Trouble(404, 'not-found', 'There is nothing at this address.');
  return {
    params: named?.data,
    query: query && parse(query, request.query),
    body: takes ? parse(takes, request.body) : upload ? await uploadedFile(request) : undefined,
  };
}
