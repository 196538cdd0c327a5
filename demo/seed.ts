/** Fills an empty database with the demo shop and its first orders. */
import { sql } from 'drizzle-orm';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { LineKind } from '../core/artwork/choices';
import type { Choices } from '../core/plan/choices';
import { DEFAULT_CHOICES } from '../core/plan/choices';
import { USUAL_CUT_LINE } from '../core/print/choices';
import { cutters, films, orders, people, recipes } from '../server/db/schema';
import type { TcpLink } from '../server/db/link';
import type { CutServices } from '../server/services/cuts';
import { startOrder } from '../server/services/orders';
import { changeSettings } from '../server/services/settings';
import { hashed } from '../server/people/passwords';
import { DEMO_PEOPLE } from './people';
import { DEMO_SHOP } from './shop';

const { artwork, layout, films: filmChoices, print } = DEFAULT_CHOICES;

export const FIRST_ORDERS: readonly {
  file: string;
  name: string;
  dueInDays: number;
  choices: Partial<Choices>;
}[] = [
  {
    file: 'marsh-wren.svg',
    name: 'Marsh Wren hull names',
    dueInDays: 4,
    choices: { artwork: { ...artwork, width: 1240 }, layout: { ...layout, copies: 2 } },
  },
  {
    file: 'sail-numbers.svg',
    name: 'Class numbers, sail 4127',
    dueInDays: 6,
    choices: { artwork: { ...artwork, height: 300 }, layout: { ...layout, copies: 2 } },
  },
  {
    file: 'crew-shirt.svg',
    name: 'Crew shirts, mirrored',
    dueInDays: 9,
    choices: {
      artwork: { ...artwork, width: 220 },
      films: { ...filmChoices, film: { '#e0604c': 'flock-coral', '#f6f5f1': 'flock-white' } },
      layout: { ...layout, copies: 12, spacing: 6 },
    },
  },
  {
    file: 'slipway-sign.svg',
    name: 'Slipway sign',
    dueInDays: 11,
    choices: { artwork: { ...artwork, width: 900 } },
  },
  {
    file: 'tide-dial.svg',
    name: 'Tide dial, creased',
    dueInDays: 13,
    choices: {
      artwork: {
        ...artwork,
        lines: { ...artwork.lines, colour: { '#1f5a3c': 'crease', '#b0202f': 'through' } },
      },
      films: { ...filmChoices, film: { '#ead9b4': 'dial-card' } },
      layout: { ...layout, border: 'none' },
      cutter: { order: 'saltpan', film: {} },
    },
  },
  {
    file: 'race-hut.svg',
    name: 'Race hut wall',
    dueInDays: 18,
    choices: { artwork: { ...artwork, width: 3300 } },
  },
  {
    file: 'ice-cream-stickers.svg',
    name: 'Ice-cream stickers',
    dueInDays: 8,
    choices: {
      films: { ...filmChoices, print: ['#2e6f7e', '#fbfbf8', '#e2a21b'] },
      layout: { ...layout, copies: 24 },
      print: {
        ...print,
        lines: [
          { ...USUAL_CUT_LINE, offset: 0 },
          { ...USUAL_CUT_LINE, kind: 'perforated', offset: 3, smallestRadius: 3 },
        ],
        bleed: 2,
      },
      cutter: { order: 'plover', film: {} },
    },
  },
];

/**
 * Adds what the shop owns; where it is already there, nothing happens but that its cutters are reached anew.
 * @param links by cutter id; cutters without one are left out
 */
export async function seedShop(
  { db }: Pick<CutServices, 'db'>,
  links: Readonly<Record<string, TcpLink>>,
): Promise<void> {
  await db
    .insert(films)
    .values(DEMO_SHOP.films.map((data, position) => ({ id: data.id, data, position })))
    .onConflictDoNothing();
  const linked = DEMO_SHOP.cutters.filter(({ id }) => links[id]);
  for (const data of linked) {
    const link = links[data.id];
    await db
      .insert(cutters)
      .values({ id: data.id, data, link })
      .onConflictDoUpdate({ target: cutters.id, set: { link } });
  }
  const rows = Object.entries(DEMO_SHOP.recipes).flatMap(([key, data]) => {
    const [cutterId, filmId, kind = 'kiss'] = key.split('/');
    return links[cutterId] ? [{ cutterId, filmId, kind: kind as LineKind, data }] : [];
  });
  await db.insert(recipes).values(rows).onConflictDoNothing();
  const printer = links[PRINTER]?.panel;
  if (printer) await changeSettings(db, { printerLink: printer });
  // numbers that stand on the demo's offcuts are not given again
  await db.execute(
    sql`select setval('offcut_numbers', greatest(${LAST_OFFCUT}, (select last_value from offcut_numbers)))`,
  );
}

/** The printer's name among what is linked. */
const PRINTER = 'printer';
/** Of the offcuts on the demo's rack. */
const LAST_OFFCUT = 21;

/** Adds the demo's people to a shop that has nobody. */
export async function seedPeople({ db }: Pick<CutServices, 'db'>): Promise<void> {
  const rows = await Promise.all(
    DEMO_PEOPLE.map(async ({ name, role, password, pin }) => ({
      name,
      role,
      password: await hashed(password),
      pin: await hashed(pin),
      shown: { password, pin },
    })),
  );
  await db.transaction(async (tx) => {
    // two servers may start at once
    await tx.execute(sql`lock table ${people} in share row exclusive mode`);
    if ((await tx.$count(people)) === 0) await tx.insert(people).values(rows);
  });
}

export async function seedOrders(services: CutServices, today = new Date()): Promise<void> {
  const known = await services.db.select({ id: orders.id }).from(orders).limit(1);
  if (known.length > 0) return;
  for (const { file, name, dueInDays, choices } of FIRST_ORDERS) {
    const bytes = await readFile(join(process.cwd(), 'demo/art', file));
    const due = new Date(today.getTime() + dueInDays * 86_400_000).toISOString().slice(0, 10);
    await startOrder(services, file, bytes, { name, due, choices: { ...DEFAULT_CHOICES, ...choices } });
  }
}
