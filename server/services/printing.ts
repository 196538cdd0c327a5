/** Sheets that go to the shop's printer. */
import { Trouble } from '../problem';
import type { OrderServices } from './orders';
import { getOrder, sheetOf } from './orders';
import { printerLink, settingsOf } from './settings';

/** A printer that has not taken a sheet by then does not answer, ms. */
const PRINTER_MS = 60_000;

/** Prints a sheet as the order stands: without its cut lines, at its exact size. */
export async function printSheet(
  services: OrderServices,
  id: number,
  sheet: string,
): Promise<{ name: string }> {
  const { db } = services;
  const at = await printerLink(db);
  const { printer } = await settingsOf(db);
  if (!at)
    throw new Trouble(
      409,
      'no-printer',
      `${printer.name} is not linked. Take the PDF to it by hand, at 100 %.`,
    );
  const bytes = await sheetOf(services, id, sheet, { as: 'pdf', lines: 'no', dpi: 300 });
  const { number } = await getOrder(db, id);
  const name = `#${number} ${sheet.replace('-', ' ')}`;
  const away = (): Trouble =>
    new Trouble(
      503,
      'printer-away',
      `${printer.name} does not answer. See that it is switched on, then print again.`,
    );
  const to = new URL('/print', at);
  to.searchParams.set('name', name);
  const answer = await fetch(to, {
    method: 'POST',
    body: bytes as BodyInit,
    signal: AbortSignal.timeout(PRINTER_MS),
  }).catch(() => {
    throw away();
  });
  if (!answer.ok) throw away();
  return { name };
}
