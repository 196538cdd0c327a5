/** What an address of the server is asked with, and what it gives. */
import type { z } from 'zod';

export type Method = 'GET' | 'POST' | 'PATCH';

export interface Endpoint {
  readonly says: string;
  /** What stands in the address between braces. */
  readonly params?: z.ZodObject;
  readonly query?: z.ZodObject;
  /** JSON body. */
  readonly takes?: z.ZodType;
  /** Multipart, one file in the field `file`. */
  readonly upload?: true;
  /** JSON, or the type of what comes instead. */
  readonly gives: z.ZodType | string;
}

/** A part of the table of addresses. */
export type Endpoints = Readonly<Record<`${Method} /api/${string}`, Endpoint>>;
