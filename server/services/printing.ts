/** Printed sheets of an order: as files, and on their way to the shop's printer. */
import type { SheetQuery } from '../../contracts/print';
import type { ArtworkChoices } from '../../core/artwork/choices';
import { addressOf } from '../cutters/links/simulators';
import type { Db } from '../db/connect';
import { Trouble } from '../problem';
import type { SheetFile } from '../work/planningTasks';
import type { OrderServices } from './orders';
import { decidedAt, getOrder, planTask } from './orders';
import { originalOf } from './readings';
import { settingsOf } from './settings';

/** A printed sheet of an order as it stands. */
export async function sheetOf(
  services: OrderServices,
  id: number,
  sheetId: string,
  asked: SheetQuery,
): Promise<SheetFile & { readonly number: number }> {
  const order = await getOrder(services.db, id);
  const made = await decidedAt(services.db, order);
  const task = { ...(await planTask(services, order)), orderNumber: order.number, made };
  const files = await printedFiles(services.db, task.choices.artwork);
  const file = await services.pool.run('sheetFile', { ...task, sheetId, asked, files });
  if (!file) {
    throw new Trouble(
      404,
      'no-such-sheet',
      'This sheet is not printed in this order as it stands. Look under Films and Print marks.',
    );
  }
  return { number: order.number, ...file };
}

/** Files of the pictures that are printed as they are, by hash. */
async function printedFiles(
  db: Db,
  { pieces }: Pick<ArtworkChoices, 'pieces'>,
): Promise<ReadonlyMap<string, Uint8Array>> {
  const hashes = pieces.flatMap(({ source }) =>
    source.kind === 'file' && source.trace?.by === 'print' ? [source.hash] : [],
  );
  return new Map(
    await Promise.all([...new Set(hashes)].map(async (hash) => [hash, await originalOf(db, hash)] as const)),
  );
}

/** A printer that has not taken a sheet by then does not answer, ms. */
const PRINTER_MS = 60_000;

/** Prints a sheet as the order stands: without its cut lines, at its exact size. */
export async function printSheet(
  services: OrderServices,
  id: number,
  sheet: string,
): Promise<{ name: string }> {
  const printer = await linkedPrinter(services.db);
  const { number, bytes, stop } = await sheetOf(services, id, sheet, { as: 'pdf', lines: 'no', dpi: 300 });
  if (stop) throw new Trouble(409, 'not-printed', `${stop} See Print marks in the order.`);
  return sendToPrinter(printer, `#${number} ${sheet.replace('-', ' ')}`, bytes);
}

/** @throws Trouble when the shop's printer has no link */
export async function linkedPrinter(db: Db): Promise<LinkedPrinter> {
  const { printer, printerLink } = await settingsOf(db);
  const link = printerLink === null ? undefined : addressOf(printerLink);
  if (printerLink !== null && link === undefined) throw printerAway(printer.name);
  if (link !== undefined) return { name: printer.name, link };
  throw new Trouble(
    409,
    'no-printer',
    `${printer.name} is not linked. Take the PDF to it by hand, at 100 %.`,
  );
}
const printerAway = (name: string): Trouble =>
  new Trouble(503, 'printer-away', `${name} does not answer. See that it is switched on, then print again.`);

interface LinkedPrinter {
  readonly name: string;
  readonly link: string;
}

/** @throws Trouble when it does not take it */
export async function sendToPrinter(
  printer: LinkedPrinter,
  name: string,
  bytes: Uint8Array,
): Promise<{ name: string }> {
  const to = new URL('/print', printer.link);
  to.searchParams.set('name', name);
  const answer = await fetch(to, {
    method: 'POST',
    body: bytes as BodyInit,
    signal: AbortSignal.timeout(PRINTER_MS),
  }).catch(() => undefined);
  if (!answer?.ok) throw printerAway(printer.name);
  return { name };
}
