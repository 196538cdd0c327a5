/** A simulated cutter on the network: a raw TCP port that takes HP-GL, and a panel over HTTP. Loopback only. */
import { createServer as createHttp } from 'node:http';
import type { IncomingMessage } from 'node:http';
import { createServer as createTcp } from 'node:net';
import type { AddressInfo, Server, Socket } from 'node:net';
import { z } from 'zod';
import type { Machine } from './machine';
import { createMachine } from './machine';
import { DEMO_MACHINES } from './machines';
import { PANEL_PAGE } from './panelPage';
import type { Print } from './print';
import { lay } from './print';
import type { RunningPrinter, Tray } from './prints';
import { servePrinter } from './prints';
import type { LoadedFilm, MachineSpec } from './spec';
import { fromFilm, onFilm } from './spec';

export interface SimOptions {
  readonly spec: MachineSpec;
  /** How much faster than a clock the machine's time runs. */
  readonly timeFactor: number;
  readonly port?: number;
  readonly panelPort?: number;
  readonly film?: LoadedFilm;
  /** Prints that can be laid into it. */
  readonly tray?: Tray;
}

export interface RunningSim {
  readonly port: number;
  readonly panel: string;
  readonly close: () => Promise<void>;
}

const TICK_MS = 15;

const filmSchema = z.object({
  name: z.string().max(100).default('film'),
  width: z.number().min(50).max(3000),
  length: z.number().min(100).max(100_000).default(25_000),
  toughness: z.number().min(5).max(500).default(60),
});

/** How a print is laid into a cutter, and what became of it on the way. */
const laySchema = z.object({
  print: z.number().int(),
  turn: z.number().min(-360).max(360).default(0),
  shift: z.tuple([z.number().min(-200).max(200), z.number().min(-200).max(200)]).default([0, 0]),
  stretch: z.tuple([z.number().min(0.5).max(2), z.number().min(0.5).max(2)]).default([1, 1]),
  bow: z.number().min(-20).max(20).default(0),
  mirrored: z.boolean().default(false),
  ink: z.number().min(0).max(1).default(1),
  /** What lies over it: x, y and radius, mm on the page. */
  covers: z
    .array(z.tuple([z.number(), z.number(), z.number()]))
    .max(20)
    .default([]),
  /** Where the operator puts the head: a place of the page, met to a few millimetres. */
  head: z.tuple([z.number(), z.number()]).optional(),
});

function layPrint(
  machine: Machine,
  spec: MachineSpec,
  print: Print,
  { print: _id, head, ...lie }: z.infer<typeof laySchema>,
): void {
  const loaded = lay(print, lie);
  machine.load({ name: 'print', width: print.height, length: print.width, toughness: 60, print: loaded });
  if (!head) return;
  const [x, y] = fromFilm(spec, print.height, ...loaded.onFilm(...head));
  machine.put({ x, y });
}

/** What was cut as it lies on the print, mm on the page. */
function onPrint(spec: MachineSpec, machine: Machine): number[][] {
  const { film } = machine.status();
  const { print } = film ?? {};
  if (!film || !print) return [];
  return machine
    .strokes()
    .map(({ points }) =>
      points.flatMap((_, i) =>
        i % 2 === 0 ? [...print.toPage(...onFilm(spec, film, points[i], points[i + 1]))] : [],
      ),
    );
}

/** What an operator sees beneath the pointer: a place of the page; null without a print. */
function headOnPrint(spec: MachineSpec, machine: Machine): readonly number[] | null {
  const { film, x, y } = machine.status();
  return film?.print ? film.print.toPage(...onFilm(spec, film, x, y)) : null;
}

const knobSchema = z.object({ force: z.number().min(0).max(1000) });

export async function serveSim({
  spec,
  timeFactor,
  port = 0,
  panelPort = 0,
  film,
  tray = new Map(),
}: SimOptions): Promise<RunningSim> {
  let client: Socket | undefined;
  const machine = createMachine(spec, (text) => client?.write(text, 'latin1'));
  machine.load(film);
  const tcp = createTcp((socket) => {
    client?.destroy();
    client = socket;
    socket.setNoDelay(true);
    socket.on('data', (bytes) => {
      if (!machine.receive(bytes.toString('latin1'))) socket.pause();
    });
    socket.on('error', () => {});
    // a cutter does not know that its sender went away: it finishes what it has
    socket.on('close', () => {
      if (client === socket) client = undefined;
    });
  });
  let last = performance.now();
  const ticker = setInterval(() => {
    const now = performance.now();
    machine.advance(((now - last) / 1000) * timeFactor);
    last = now;
    if (client?.isPaused() && !machine.isFull()) client.resume();
  }, TICK_MS);

  const panel = createHttp((request, response) => {
    const send = (status: number, body: unknown): void => {
      response.writeHead(status, { 'Content-Type': 'application/json' }).end(JSON.stringify(body));
    };
    const site = request.headers['sec-fetch-site'];
    if (request.method !== 'GET' && site !== undefined && site !== 'same-origin')
      return send(403, { message: 'not from another site' });
    const at = `${request.method} ${request.url}`;
    if (at === 'GET /')
      return void response.writeHead(200, { 'Content-Type': 'text/html; charset=utf-8' }).end(PANEL_PAGE);
    if (at === 'GET /status') return send(200, machine.status());
    if (at === 'GET /record') return send(200, { lines: machine.strokes() });
    if (at === 'GET /on-print') return send(200, { lines: onPrint(spec, machine) });
    if (at === 'GET /head-on-print') return send(200, headOnPrint(spec, machine));
    if (at === 'GET /tray')
      return send(200, [...tray].map(([id, { name }]) => ({ id, name }))); // prettier-ignore
    if (at === 'POST /switch-off') {
      client?.destroy();
      machine.drop();
      return send(200, machine.status());
    }
    if (at === 'POST /unload') {
      machine.load(undefined);
      return send(200, machine.status());
    }
    if (at !== 'POST /load' && at !== 'POST /knob' && at !== 'POST /load-print')
      return send(404, { message: 'nothing here' });
    bodyOf(request)
      .then((body) => {
        if (at === 'POST /knob') {
          const knob = knobSchema.safeParse(body);
          if (!knob.success) return send(400, { message: 'the force is a number of g' });
          machine.turnKnob(knob.data.force);
          return send(200, machine.status());
        }
        if (at === 'POST /load-print') {
          const laid = laySchema.safeParse(body);
          const print = laid.success ? tray.get(laid.data.print)?.print : undefined;
          if (!laid.success || !print) return send(400, { message: 'there is no such print in the tray' });
          layPrint(machine, spec, print, laid.data);
          return send(200, machine.status());
        }
        const parsed = filmSchema.safeParse(body);
        if (!parsed.success) return send(400, { message: 'the film needs a width in mm' });
        machine.load(parsed.data);
        send(200, machine.status());
      })
      .catch(() => send(400, { message: 'not JSON' }));
  });
  await Promise.all([listen(tcp, port), listen(panel, panelPort)]);
  return {
    port: (tcp.address() as AddressInfo).port,
    panel: `http://127.0.0.1:${(panel.address() as AddressInfo).port}`,
    close: async () => {
      clearInterval(ticker);
      client?.destroy();
      panel.closeAllConnections();
      await Promise.all([tcp, panel].map((server) => new Promise((done) => server.close(done))));
    },
  };
}

/** All of the demo shop's cutters, by id, and its printer under a name that no cutter has. */
export async function serveShop(
  timeFactor: number,
): Promise<Readonly<Record<string, RunningSim | RunningPrinter>>> {
  const printer = await servePrinter();
  const running = Object.entries(DEMO_MACHINES).map(
    async ([id, machine]) => [id, await serveSim({ ...machine, timeFactor, tray: printer.tray })] as const,
  );
  return { ...Object.fromEntries(await Promise.all(running)), [PRINTER]: printer };
}

const PRINTER = 'printer';

/** How each of them is reached, by id. */
export const linksTo = (sims: Readonly<Record<string, Pick<RunningSim, 'port' | 'panel'>>>) =>
  Object.fromEntries(
    Object.entries(sims).map(([id, { port, panel }]) => [id, { host: '127.0.0.1', port, panel }]),
  );

const listen = (server: Server, port: number): Promise<void> =>
  new Promise((done, fail) => {
    server.once('error', fail);
    server.listen(port, '127.0.0.1', done);
  });

async function bodyOf(request: IncomingMessage): Promise<unknown> {
  const chunks: Buffer[] = [];
  for await (const chunk of request) chunks.push(chunk as Buffer);
  return JSON.parse(Buffer.concat(chunks).toString('utf8'));
}
