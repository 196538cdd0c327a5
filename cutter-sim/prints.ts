/** The simulated printer on the network: takes PDFs over HTTP, and keeps what it printed until it is laid into a cutter. Loopback only. */
import { createServer } from 'node:http';
import type { IncomingMessage, Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Print } from './print';
import { printPage, PrintProblem } from './printer';

/** Prints that lie in the tray, by their number. */
export type Tray = Map<number, { readonly name: string; readonly print: Print }>;

export interface RunningPrinter {
  readonly port: number;
  readonly panel: string;
  readonly tray: Tray;
  readonly close: () => Promise<void>;
}

/** Bytes of a PDF that are taken at the most. */
const MOST_BYTES = 200_000_000;
/** The tray holds so many; the oldest is taken out. */
const MOST_PRINTS = 24;

export async function servePrinter(port = 0): Promise<RunningPrinter> {
  const tray: Tray = new Map();
  let next = 1;
  const server = createServer((request, response) => {
    const send = (status: number, body: unknown): void => {
      response.writeHead(status, { 'Content-Type': 'application/json' }).end(JSON.stringify(body));
    };
    const site = request.headers['sec-fetch-site'];
    if (request.method !== 'GET' && site !== undefined && site !== 'same-origin')
      return send(403, { message: 'not from another site' });
    const { pathname, searchParams } = new URL(request.url ?? '/', 'http://printer');
    const at = `${request.method} ${pathname}`;
    if (at === 'GET /' || at === 'GET /prints')
      return send(200, [...tray].map(([id, { name, print }]) => ({ id, name, width: print.width, height: print.height }))); // prettier-ignore
    if (at !== 'POST /print') return send(404, { message: 'nothing here' });
    bytesOf(request)
      .then(printPage)
      .then((print) => {
        const id = next++;
        tray.set(id, { name: (searchParams.get('name') ?? 'print').slice(0, 100), print });
        if (tray.size > MOST_PRINTS) tray.delete(tray.keys().next().value!);
        send(200, { id });
      })
      .catch((error: unknown) =>
        send(422, { message: error instanceof PrintProblem ? error.message : 'It could not be printed.' }),
      );
  });
  await listen(server, port);
  const at = (server.address() as AddressInfo).port;
  return {
    port: at,
    panel: `http://127.0.0.1:${at}`,
    tray,
    close: async () => {
      server.closeAllConnections();
      await new Promise((done) => server.close(done));
    },
  };
}

const listen = (server: Server, port: number): Promise<void> =>
  new Promise((done, fail) => {
    server.once('error', fail);
    server.listen(port, '127.0.0.1', done);
  });

async function bytesOf(request: IncomingMessage): Promise<Uint8Array> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of request) {
    size += (chunk as Buffer).length;
    if (size > MOST_BYTES) throw new PrintProblem('That is more than the printer takes.');
    chunks.push(chunk as Buffer);
  }
  return Buffer.concat(chunks);
}
