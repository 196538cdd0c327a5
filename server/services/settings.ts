/** What the shop sets for itself. */
import { eq } from 'drizzle-orm';
import type { ShopChange } from '../../contracts/shop';
import type { FilmSize } from '../../core/films/leftover';
import type { Printer } from '../../core/print/choices';
import { USUAL_PRINTER } from '../../core/print/choices';
import type { Db } from '../db/connect';
import { settings } from '../db/schema';

export interface Settings {
  /** Smallest offcut that is kept. */
  readonly leastOffcut: FilmSize;
  readonly printer: Printer;
  /** Where it takes PDFs over HTTP; null: it is given them by hand. */
  readonly printerLink: string | null;
}

const SHOP = 'shop';
/** Until the shop says otherwise. */
const USUAL: Settings = {
  leastOffcut: { width: 200, length: 300 },
  printer: USUAL_PRINTER,
  printerLink: null,
};

export async function settingsOf(db: Pick<Db, 'select'>): Promise<Settings> {
  const [row] = await db.select().from(settings).where(eq(settings.id, SHOP));
  const { leastOffcut, printer, printerLink } = row ?? USUAL;
  return { leastOffcut, printer: printer ?? USUAL.printer, printerLink };
}

export async function changeSettings(
  db: Db,
  change: ShopChange & { readonly printerLink?: string },
): Promise<void> {
  if (Object.keys(change).length === 0) return;
  await db
    .insert(settings)
    .values({ id: SHOP, ...USUAL, ...change })
    .onConflictDoUpdate({ target: settings.id, set: change });
}
