/** What the shop sets for itself. */
import { eq, sql } from 'drizzle-orm';
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
  /** All machines are stopped, and nothing begins. */
  readonly paused: boolean;
  /** Months that programs and records of cuts are kept; null: for ever. */
  readonly keepCuts: number | null;
  /** Where it takes PDFs over HTTP; null: it is given them by hand. */
  readonly printerLink: string | null;
}

const SHOP = 'shop';
/** Until the shop says otherwise. */
const USUAL: Settings = {
  leastOffcut: { width: 200, length: 300 },
  printer: USUAL_PRINTER,
  printerLink: null,
  paused: false,
  keepCuts: null,
};

/** As they are stored; null: the shop has said nothing yet. */
export type StoredSettings = (Omit<Settings, 'printer'> & { readonly printer: Printer | null }) | null;

export async function settingsOf(db: Pick<Db, 'select'>): Promise<Settings> {
  const [row] = await db.select().from(settings).where(eq(settings.id, SHOP));
  return settingsFrom(row ?? null);
}

/** For a query that asks for more than them. */
export const storedSettings = sql<StoredSettings>`(select json_build_object('leastOffcut', ${settings.leastOffcut},
  'printer', ${settings.printer}, 'paused', ${settings.paused}, 'printerLink', ${settings.printerLink}, 'keepCuts', ${settings.keepCuts})
  from ${settings} where ${settings.id} = ${SHOP})`;

export function settingsFrom(stored: StoredSettings): Settings {
  const { printer, ...rest } = stored ?? USUAL;
  return { ...rest, printer: printer ?? USUAL.printer };
}

export async function changeSettings(
  db: Pick<Db, 'insert'>,
  change: ShopChange & {
    readonly printerLink?: string;
    readonly paused?: boolean;
    readonly demoSeenAt?: Date;
  },
): Promise<void> {
  if (Object.keys(change).length === 0) return;
  await db
    .insert(settings)
    .values({ id: SHOP, ...USUAL, ...change })
    .onConflictDoUpdate({ target: settings.id, set: change });
}
