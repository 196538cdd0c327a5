/** The simulated printer on the network: takes PDFs over HTTP, and keeps what it printed until it is laid into a cutter. */
import { bytesOf, Refused, servePanel } from './panelServer';
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
  const prints = () =>
    [...tray].map(
      ([
        id,
        {
          name,
          print: { width, height },
        },
      ]) => ({ id, name, width, height }),
    );
  const panel = await servePanel(port, {
    'GET /': prints,
    'POST /print': async (request, query) => {
      const print = await printPage(await bytesOf(request, MOST_BYTES)).catch((error: unknown) => {
        throw new Refused(422, error instanceof PrintProblem ? error.message : 'It could not be printed.');
      });
      const id = next++;
      tray.set(id, { name: (query.get('name') ?? 'print').slice(0, 100), print });
      if (tray.size > MOST_PRINTS) tray.delete(tray.keys().next().value!);
      return { id };
    },
  });
  return { port: panel.port, panel: panel.url, tray, close: panel.close };
}
