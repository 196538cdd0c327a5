/** The shop's cutters as records: added, changed, retired; where each listens, and whether it answers there. */
import { and, eq, inArray, sql } from 'drizzle-orm';
import { isSame } from '../../contracts/edits';
import type { CutterChange, LinkTest, LinkTo, NewCutter, ShopNow } from '../../contracts/shop';
import { linkSchema, MADE_FOR } from '../../contracts/shop';
import type { Cutter } from '../../core/layout/cutter';
import { cutterTrouble, FIRST_RECIPE, newCutter } from '../../core/layout/cutterRecord';
import { borrowed } from '../cutters/borrowed';
import { filmIn } from '../cutters/feed';
import { LinkLost } from '../cutters/links/link';
import { AT_WORK } from '../cutters/look';
import type { Db, Tx } from '../db/connect';
import type { Link } from '../db/link';
import { isSilent } from '../db/link';
import { cuts, cutters, recipes } from '../db/schema';
import { notFound, Trouble } from '../problem';
import { OPEN_STATES } from '../../contracts/cuts';
import type { ShopServices } from './shop';
import { loadShop } from './shop';

type Row = typeof cutters.$inferSelect;

async function rowOf(db: Db, id: string): Promise<Row> {
  const [row] = await db.select().from(cutters).where(eq(cutters.id, id));
  if (!row) throw notFound('cutter');
  return row;
}

/** The same, held: nobody changes it, and no cut is queued for it, until the transaction is over. */
async function heldRow(tx: Tx, id: string): Promise<Row> {
  const [row] = await tx.select().from(cutters).where(eq(cutters.id, id)).for('update');
  if (!row) throw notFound('cutter');
  return row;
}

const cutsOf = (tx: Tx, id: string, states: readonly string[]): Promise<number> =>
  tx.$count(cuts, and(eq(cuts.cutterId, id), inArray(cuts.state, [...states])));

/**
 * Changes a cutter's record; orders that go to it are planned with it from then on. The row is held meanwhile, so that two who
 * change different things of it both do, and nothing is queued in between.
 * @throws Trouble when the record could be no machine's, or cuts that wait rely on what is changed
 */
export async function changeCutter(
  { db, hub }: ShopServices,
  id: string,
  change: CutterChange,
): Promise<ShopNow> {
  await db.transaction((tx) => changeHeld(tx, id, () => change));
  await hub.tell({ kind: 'shop' });
  return loadShop(db);
}

/** The same within a transaction. @param changeOf what is changed of the record as it is */
export async function changeHeld(
  tx: Tx,
  id: string,
  changeOf: (data: Cutter) => CutterChange,
): Promise<void> {
  const row = await heldRow(tx, id);
  const change = changeOf(row.data);
  const data: Cutter = { ...row.data, ...change };
  const trouble = cutterTrouble(data);
  if (trouble) throw new Trouble(422, 'no-machine', trouble);
  if (MADE_FOR.some((key) => change[key] !== undefined && !isSame(change[key], row.data[key])))
    await nothingWaits(tx, row, 'are made for it as it is');
  await tx.update(cutters).set({ data }).where(eq(cutters.id, id));
}

async function nothingWaits(tx: Tx, { id, data }: Row, why: string): Promise<void> {
  const waiting = await cutsOf(tx, id, OPEN_STATES);
  if (waiting === 0) return;
  throw new Trouble(
    409,
    'cuts-wait',
    `${waiting === 1 ? '1 cut' : `${waiting} cuts`} at ${data.name} ${why}.`,
    ['Finish them, or take them back in their orders', 'Change it after that'],
  );
}

/** Adds a cutter as most of its kind are, to be corrected. */
export async function addCutter(
  { db, hub }: ShopServices,
  { name, kind, link }: NewCutter,
): Promise<ShopNow> {
  const base =
    name
      .toLowerCase()
      .normalize('NFKD')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'cutter';
  await db.transaction(async (tx) => {
    const known = new Set((await tx.select({ id: cutters.id }).from(cutters)).map(({ id }) => id));
    let id = base;
    for (let n = 2; known.has(id); n++) id = `${base}-${n}`;
    await tx.insert(cutters).values({ id, data: newCutter(id, name, kind), link });
    await tx.insert(recipes).values({ cutterId: id, filmId: '*', kind: 'kiss', data: FIRST_RECIPE });
  });
  await hub.tell({ kind: 'shop' });
  return loadShop(db);
}

/** Takes a cutter out of use, or back into it. @throws Trouble while cuts wait for it, or when it is the last one */
export async function retireCutter(
  { db, hub }: ShopServices,
  id: string,
  isRetired: boolean,
): Promise<ShopNow> {
  await db.transaction(async (tx) => {
    const rows = await tx.select().from(cutters).for('update');
    const row = rows.find((one) => one.id === id);
    if (!row) throw notFound('cutter');
    if (isRetired) {
      await nothingWaits(tx, row, 'wait for it');
      if (!rows.some((one) => one.id !== id && !one.data.isRetired))
        throw new Trouble(
          409,
          'last-cutter',
          `${row.data.name} is the shop's last cutter: nothing could be planned without one.`,
          ['Add another one first'],
        );
    }
    await tx
      .update(cutters)
      .set({ data: sql`${cutters.data} || ${JSON.stringify({ isRetired })}::jsonb` })
      .where(eq(cutters.id, id));
  });
  await hub.tell({ kind: 'shop' });
  return loadShop(db);
}

export const linkOf = async (db: Db, id: string): Promise<LinkTo> => toldOf((await rowOf(db, id)).link);

/** As it is told, without the panel. */
function toldOf({ panel: _panel, ...link }: Link): LinkTo {
  return linkSchema.parse({ by: 'tcp', ...link });
}

/** @throws Trouble while the cutter is spoken to */
export async function changeLink({ db, hub }: ShopServices, id: string, to: LinkTo): Promise<LinkTo> {
  await db.transaction(async (tx) => {
    const { data, link } = await heldRow(tx, id);
    if ((await cutsOf(tx, id, AT_WORK)) > 0)
      throw new Trouble(409, 'at-work', `${data.name} is at work. Change its link when the cut is done.`);
    // a panel belongs to the machine that was there
    const { panel } = link;
    const isThere = 'port' in link && 'port' in to && link.host === to.host && link.port === to.port;
    const kept = isThere && panel !== undefined ? { ...to, panel } : to;
    await tx.update(cutters).set({ link: kept }).where(eq(cutters.id, id));
  });
  await hub.tell({ kind: 'shop' });
  return to;
}

/** One that is at rest answers within this time, ms; and so long somebody else may just be asking it. */
const [ANSWER_MS, PATIENCE_MS] = [5000, 4000];

/** Asks a cutter over its link as it is kept, and says how that went. */
export async function testLink(db: Db, id: string): Promise<LinkTest> {
  const row = await rowOf(db, id);
  const none = { answers: false, takes: false, ms: null, film: null, problem: null, tries: [] } as const;
  try {
    const tested = await borrowed(db, row, 'test', PATIENCE_MS, async (link) => {
      if (isSilent(row.link)) return { ...none, takes: true };
      const begun = performance.now();
      const film = await filmIn(link, row.data, ANSWER_MS);
      return { ...none, answers: true, ms: performance.now() - begun, film: film ?? null };
    });
    return tested ?? { ...none, problem: `${row.data.name} is at work: it is not asked meanwhile.` };
  } catch (error) {
    if (!(error instanceof LinkLost)) throw error;
    return { ...none, problem: error.message, tries: triesFor(error.message, row) };
  }
}

const TRIES_FOLDER = ['See that the folder may be written to by whoever runs Jam Pan'];
const TRIES_SIMULATOR = ['Start Jam Pan with its simulated cutters, or give the cutter another link'];
const triesForPort = (name: string, device: string): string[] => [
  `See that ${name} is switched on, its cable is in and ${device} is its port`,
  `See that whoever runs Jam Pan may write to ${device}, and that no other program holds it`,
  'See that speed and handshake are those of its own settings',
];

function triesFor(why: string, { data, link }: Row): string[] {
  const { name } = data;
  if (link.by === 'simulator') return TRIES_SIMULATOR;
  if (!('host' in link)) return link.by === 'folder' ? TRIES_FOLDER : triesForPort(name, link.device);
  if (/closed$/.test(why))
    return [
      `Nothing listens at ${link.host}, port ${link.port}: look in ${name}'s own settings which port it takes`,
      `See that ${name} is switched on, and that no other program holds its line`,
    ];
  if (/does not answer/.test(why))
    return [
      `Something listens there and says nothing: see that ${name} is at rest and no menu is open at its panel`,
      'See that it is the cutter that has this address, and not another machine',
    ];
  return [
    `See that ${name} is switched on and its network cable is in`,
    `See that ${link.host} is its address: its panel shows it`,
  ];
}
