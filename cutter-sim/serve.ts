/** A simulated cutter on the network: a raw TCP port that takes HP-GL, and a panel over HTTP. Loopback only. */
import { createServer as createTcp } from 'node:net';
import type { Socket } from 'node:net';
import { cutterPanel } from './cutterPanel';
import type { Machine } from './machine';
import { createMachine } from './machine';
import { DEMO_MACHINES } from './machines';
import { z } from 'zod';
import { closed, jsonOf, listen, portOf, servePanel } from './panelServer';
import type { RunningPrinter, Tray } from './prints';
import { servePrinter } from './prints';
import type { LoadedFilm, MachineSpec } from './spec';

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
  readonly status: Machine['status'];
  readonly strokes: Machine['strokes'];
  readonly close: () => Promise<void>;
}

const TICK_MS = 15;

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
  let pace = timeFactor;
  let last = performance.now();
  const ticker = setInterval(() => {
    const now = performance.now();
    machine.advance(((now - last) / 1000) * pace);
    last = now;
    if (client?.isPaused() && !machine.isFull()) client.resume();
  }, TICK_MS);

  const panel = await servePanel(panelPort, {
    ...cutterPanel(machine, tray, () => client?.destroy()),
    // what is looked at closely runs slower, or stands until its time is turned on
    'POST /pace': async (request) => {
      const { times } = z.object({ times: z.number().min(0).max(1000) }).parse(await jsonOf(request));
      pace = times;
      return { times };
    },
    'POST /advance': async (request) => {
      const { seconds } = z.object({ seconds: z.number().min(0).max(3600) }).parse(await jsonOf(request));
      machine.advance(seconds);
      return { seconds };
    },
  });
  await listen(tcp, port);
  return {
    port: portOf(tcp),
    panel: panel.url,
    status: machine.status,
    strokes: machine.strokes,
    close: async () => {
      clearInterval(ticker);
      client?.destroy();
      await Promise.all([panel.close(), closed(tcp)]);
    },
  };
}

/** Where each is to be reached, by id; missing: on whichever port is free. */
export type MachinePorts = Readonly<
  Record<string, { readonly port: number; readonly panelPort?: number } | undefined>
>;

/** The ports of machines that ran before. @param links as {@link linksTo} gives them */
export const portsOf = (
  links: Readonly<Record<string, { readonly port: number; readonly panel: string }>>,
): MachinePorts =>
  Object.fromEntries(
    Object.entries(links).map(([id, { port, panel }]) => [
      id,
      { port, panelPort: Number(new URL(panel).port) },
    ]),
  );

/** All of the demo shop's cutters, by id, and its printer under a name that no cutter has. */
export async function serveShop(
  timeFactor: number,
  ports: MachinePorts = {},
): Promise<Readonly<Record<string, RunningSim | RunningPrinter>>> {
  const printer = await servePrinter(ports[PRINTER]?.port);
  const running = Object.entries(DEMO_MACHINES).map(async ([id, machine]) => {
    const { port, panelPort } = ports[id] ?? {};
    return [id, await serveSim({ ...machine, timeFactor, port, panelPort, tray: printer.tray })] as const;
  });
  return { ...Object.fromEntries(await Promise.all(running)), [PRINTER]: printer };
}

const PRINTER = 'printer';

/** How each of them is reached, by id. */
export const linksTo = (sims: Readonly<Record<string, Pick<RunningSim, 'port' | 'panel'>>>) =>
  Object.fromEntries(
    Object.entries(sims).map(([id, { port, panel }]) => [id, { host: '127.0.0.1', port, panel }]),
  );
