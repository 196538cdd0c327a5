/**
 * What the server answers to, once: its routes, the pages' calls and the API description are all typed and made from
 * this table.
 */
import type { z } from 'zod';
import { calibrationsEndpoints } from './endpoints/calibrations';
import { cutsEndpoints } from './endpoints/cuts';
import type { Endpoints } from './endpoints/endpoint';
import { ordersEndpoints } from './endpoints/orders';
import { peopleEndpoints } from './endpoints/people';
import { shopEndpoints } from './endpoints/shop';
import { usageEndpoints } from './endpoints/usage';

export const ENDPOINTS = {
  ...peopleEndpoints,
  ...shopEndpoints,
  ...ordersEndpoints,
  ...cutsEndpoints,
  ...calibrationsEndpoints,
  ...usageEndpoints,
} satisfies Endpoints;

export type Route = keyof typeof ENDPOINTS;
type Of<R extends Route> = (typeof ENDPOINTS)[R];

type Sent<R extends Route, From extends string, To extends string> =
  Of<R> extends { readonly [K in From]: infer S extends z.ZodType }
    ? object extends z.input<S>
      ? { readonly [K in To]?: z.input<S> }
      : { readonly [K in To]: z.input<S> }
    : unknown;
/** What is said with a call, by whoever calls. */
export type Ask<R extends Route> = Sent<R, 'params', 'params'> &
  Sent<R, 'query', 'query'> &
  Sent<R, 'takes', 'body'>;

type Heard<R extends Route, From extends string> =
  Of<R> extends { readonly [K in From]: infer S extends z.ZodType } ? z.output<S> : undefined;
/** The same as the server has it, parsed. */
export interface Asked<R extends Route> {
  readonly params: Heard<R, 'params'>;
  readonly query: Heard<R, 'query'>;
  readonly body: Of<R> extends { readonly upload: true }
    ? { readonly name: string; readonly bytes: Buffer }
    : Heard<R, 'takes'>;
}

/** What a call gives; undefined where it gives no JSON. */
export type Given<R extends Route> = Of<R>['gives'] extends infer S extends z.ZodType
  ? z.output<S>
  : undefined;
