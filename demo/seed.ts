/** Fills an empty database with the demo shop and its first orders. */
import { sql } from 'drizzle-orm';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { LineKind } from '../core/artwork/choices';
import type { Choices } from '../core/plan/choices';
import { DEFAULT_CHOICES } from '../core/plan/choices';
import { USUAL_CUT_LINE } from '../core/print/choices';
import type { Db } from '../server/db/connect';
import { cutters, films, orders, people, recipes, settings } from '../server/db/schema';
import type { Link } from '../server/db/link';
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
 * Lays the demo shop out in an empty database: once, and never again. What a shop has set, cleared or removed stays so.
 * @returns whether it did
 */
export async function seedDemo(services: CutServices): Promise<boolean> {
  const isNew = await services.db.transaction(async (tx) => {
    // two servers may start at once
    await tx.execute(sql`lock table ${settings} in share row exclusive mode`);
    const [known] = await tx.select({ at: settings.demoSeenAt }).from(settings);
    if (known?.at) return false;
    let rows = 0;
    for (const table of [films, cutters, people, orders]) rows += await tx.$count(table);
    const isEmpty = rows === 0;
    if (isEmpty) {
      await seedShop({ db: tx }, simulated());
      await seedPeople({ db: tx });
    }
    await changeSettings(tx, { demoSeenAt: new Date() });
    return isEmpty;
  });
  if (isNew) await seedOrders(services);
  return isNew;
}

/** Each of the demo's cutters, and its printer, as a simulator of its name. */
const simulated = (): Record<string, Link> =>
  Object.fromEntries(
    [...DEMO_SHOP.cutters.map(({ id }) => id), PRINTER].map((name) => [name, { by: 'simulator', name }]),
  );

/**
 * Adds what the shop owns, to a shop that has none of it.
 * @param links by cutter id; cutters without one are left out
 */
export async function seedShop(
  { db }: { readonly db: Pick<Db, 'insert' | 'execute'> },
  links: Readonly<Record<string, Link>>,
): Promise<void> {
  await db
    .insert(films)
    .values(DEMO_SHOP.films.map((data, position) => ({ id: data.id, data, position })))
    .onConflictDoNothing();
  const linked = DEMO_SHOP.cutters.filter(({ id }) => links[id]);
  for (const data of linked)
    await db.insert(cutters).values({ id: data.id, data, link: links[data.id] }).onConflictDoNothing();
  const rows = Object.entries(DEMO_SHOP.recipes).flatMap(([key, data]) => {
    const [cutterId, filmId, kind = 'kiss'] = key.split('/');
    return links[cutterId] ? [{ cutterId, filmId, kind: kind as LineKind, data }] : [];
  });
  await db.insert(recipes).values(rows).onConflictDoNothing();
  const printer = links[PRINTER];
  const printerLink = printer?.by === 'simulator' ? `simulator:${printer.name}` : printer?.panel;
  if (printerLink !== undefined) await changeSettings(db, { printerLink });
  // numbers that stand on the demo's offcuts are not given again
  await db.execute(
    sql`select setval('offcut_numbers', greatest(${LAST_OFFCUT}, (select last_value from offcut_numbers)))`,
  );
}

/** The printer's name among what is simulated. */
const PRINTER = 'printer';
/** Of the offcuts on the demo's rack. */
const LAST_OFFCUT = 21;

/** Adds the demo's people to a shop that has nobody. */
export async function seedPeople({ db }: { readonly db: Pick<Db, 'insert'> }): Promise<void> {
  const rows = await Promise.all(
    DEMO_PEOPLE.map(async ({ name, role, password, pin }) => ({
      name,
      role,
      password: await hashed(password),
      pin: await hashed(pin),
      shown: { password, pin },
    })),
  );
  await db.insert(people).values(rows);
}

async function seedOrders(services: CutServices, today = new Date()): Promise<void> {
  for (const { file, name, dueInDays, choices } of FIRST_ORDERS) {
    const bytes = await readFile(join(process.cwd(), 'demo/art', file));
    const due = new Date(today.getTime() + dueInDays * 86_400_000).toISOString().slice(0, 10);
    await startOrder(services, file, bytes, { name, due, choices: { ...DEFAULT_CHOICES, ...choices } });
  }
}
