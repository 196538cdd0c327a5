/** A simulated machine's front on the network: answers over HTTP, to its own page and to programs. Loopback only. */
import { createServer } from 'node:http';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { AddressInfo, Server } from 'node:net';

/** What is asked cannot be done, and why. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** By method and path; what one gives is sent as JSON, text as a page. */
export type Routes = Readonly<Record<string, (request: IncomingMessage, query: URLSearchParams) => unknown>>;

export interface RunningPanel {
  readonly port: number;
  readonly url: string;
  readonly close: () => Promise<void>;
}

export async function servePanel(port: number, routes: Routes): Promise<RunningPanel> {
  const server = createServer((request, response) => void answer(routes, request, response));
  await listen(server, port);
  const at = portOf(server);
  return {
    port: at,
    url: `http://127.0.0.1:${at}`,
    close: async () => {
      server.closeAllConnections();
      await closed(server);
    },
  };
}

const OWN_NAMES = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/i;

async function answer(routes: Routes, request: IncomingMessage, response: ServerResponse): Promise<void> {
  const send = (status: number, body: unknown): void => {
    response.writeHead(status, { 'Content-Type': 'application/json' }).end(JSON.stringify(body));
  };
  // a page elsewhere that renames itself to this machine is turned away
  if (!OWN_NAMES.test(request.headers.host ?? '')) return send(421, { message: 'not by this name' });
  const site = request.headers['sec-fetch-site'];
  if (request.method !== 'GET' && site !== undefined && site !== 'same-origin')
    return send(403, { message: 'not from another site' });
  try {
    const asked = askedFor(request);
    if (!asked) return send(400, { message: 'that is no address' });
    const { pathname, searchParams } = asked;
    const name = `${request.method} ${pathname}`;
    if (!Object.hasOwn(routes, name)) return send(404, { message: 'nothing here' });
    const given = await routes[name](request, searchParams);
    if (typeof given !== 'string') return send(200, given);
    response.writeHead(200, { 'Content-Type': 'text/html; charset=utf-8' }).end(given);
  } catch (error) {
    if (error instanceof Refused) return send(error.status, { message: error.message });
    send(500, { message: 'it does not work' });
  }
}

/** @returns undefined: what stands there is no address, such as `//` */
function askedFor({ url = '/' }: IncomingMessage): URL | undefined {
  try {
    return new URL(url, 'http://panel');
  } catch {
    return undefined;
  }
}

/** @param most bytes that are taken at the most */
export async function bytesOf(request: IncomingMessage, most = 100_000): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of request) {
    size += (chunk as Buffer).length;
    if (size > most) throw new Refused(413, 'that is too much');
    chunks.push(chunk as Buffer);
  }
  return Buffer.concat(chunks);
}

export async function jsonOf(request: IncomingMessage): Promise<unknown> {
  const text = (await bytesOf(request)).toString('utf8');
  try {
    return JSON.parse(text);
  } catch {
    throw new Refused(400, 'not JSON');
  }
}

export const listen = (server: Server, port: number): Promise<void> =>
  new Promise((done, fail) => {
    server.once('error', fail);
    server.listen(port, '127.0.0.1', done);
  });
export const portOf = (server: Server): number => (server.address() as AddressInfo).port;
export const closed = (server: Server): Promise<unknown> => new Promise((done) => server.close(done));
