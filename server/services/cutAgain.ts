/** What is spoilt is cut again, from beside the machine: all that is in it, or what was tapped on its film. */
import { asc, eq, sql } from 'drizzle-orm';
import type { Order } from '../../contracts/api';
import type { AgainAsked, Cut, QueuedPart } from '../../contracts/cuts';
import { isUnbegun } from '../../contracts/floor';
import { cutActs, cuts, cutShares } from '../db/schema';
import { Trouble } from '../problem';
import type { CutServices } from './cuts';
import { FROM_THE_START, getCut, notKept } from './cuts';
import { getOrder, planTask } from './orders';
import { placeFirst } from './floor';
import { againOf, ALONE, alreadyAgain, isOwn, putInQueue } from './queue';
import { sharingOf } from './sharing';

/**
 * Cuts it next at its machine, where its film still lies.
 * @returns the cuts that are queued
 * @throws Trouble when nothing of it is cut, or its order was changed since
 */
export async function cutAgain(services: CutServices, id: number, { at }: AgainAsked): Promise<Cut[]> {
  const cut = await getCut(services.db, id);
  if (isUnbegun(cut)) throw new Trouble(409, 'not-begun', 'Nothing of this cut is cut yet.');
  const made = at ? await spoiltOf(services, cut, at) : [await sameAgain(services, cut)];
  for (const cutterId of new Set(made.map((one) => one.cutterId)))
    await placeFirst(
      services,
      made.filter((one) => one.cutterId === cutterId).map((one) => one.id),
      cutterId,
    );
  return Promise.all(made.map((one) => getCut(services.db, one.id)));
}

/** A strip once more: the same bytes, with the force and speed that it was nudged to. */
async function sameAgain({ db, who }: CutServices, { id }: Cut): Promise<Pick<Cut, 'id' | 'cutterId'>> {
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(cuts).where(eq(cuts.id, id)).for('update');
    if (row.program.length === 0) throw notKept();
    const open = await tx
      .select({ of: cuts.againOf })
      .from(cuts)
      .where(sql`${cuts.againOf} = ${id} and ${cuts.state} not in ('done', 'cancelled')`);
    if (open.length > 0) throw alreadyAgain();
    const { id: _id, queuedAt: _queued, movedAt: _moved, ...like } = row;
    const [made] = await tx
      .insert(cuts)
      .values({ ...like, ...ANEW, againOf: id, position: 1, of: 1 })
      .returning({ id: cuts.id, cutterId: cuts.cutterId });
    await tx.update(cuts).set({ rank: cuts.id }).where(eq(cuts.id, made.id));
    const shares = await tx
      .select()
      .from(cutShares)
      .where(eq(cutShares.cutId, id))
      .orderBy(asc(cutShares.orderId));
    if (shares.length > 0)
      await tx.insert(cutShares).values(shares.map((share) => ({ ...share, cutId: made.id })));
    await tx.insert(cutActs).values({ cutId: made.id, act: 'again', who });
    return made;
  });
}

/** Nothing of it is cut. */
const ANEW = {
  ...FROM_THE_START,
  state: 'queued',
  problem: null,
  paused: false,
  slip: null,
  onNewFilm: null,
  taken: null,
  reading: null,
  record: null,
  recordWanted: false,
  asCut: null,
  deviation: null,
  deviationAt: null,
  took: null,
  howItWas: null,
  knife: null,
  offcuts: [],
  nudgesKept: null,
  endedAt: null,
} as const;

type Places = NonNullable<AgainAsked['at']>;

/** What lies at places on its film, laid out by itself. */
async function spoiltOf(services: CutServices, cut: Cut, at: Places): Promise<Cut[]> {
  if (cut.sheet)
    throw new Trouble(422, 'whole-sheet', 'Of a printed sheet, print it once more and cut all of it again.');
  const order = await getOrder(services.db, cut.orderId);
  if (order.revision !== cut.revision)
    throw new Trouble(409, 'changed', `#${order.number} was changed since this was cut.`, OTHER_WAYS);
  const asked = await onSignOf(services, order, cut, at);
  const ids = await putInQueue(services, cut.orderId, { revision: order.revision }, asked);
  return Promise.all(ids.map((made) => getCut(services.db, made)));
}

const OTHER_WAYS = [
  'Open the order, and cut the pieces again there',
  'Cut all of this film again here',
] as const;

async function onSignOf(services: CutServices, order: Order, cut: Cut, at: Places): Promise<QueuedPart> {
  const { db, pool } = services;
  const { strip, length, lines, film } = cut;
  const [row] = await db.select({ asked: cuts.asked }).from(cuts).where(eq(cuts.id, cut.id));
  const asked = row.asked ?? {};
  const sharing = isOwn(asked) ? ALONE : await sharingOf(db, order);
  const again = againOf(asked);
  const on = { strip, length, lines, at: at.map(({ x, y }) => [x, y] as const) };
  const found = await pool.run('onSign', { ...(await planTask(services, order, sharing)), again, on });
  if (!found)
    throw new Trouble(
      409,
      'laid-otherwise',
      'This film is laid out otherwise by now, so nobody knows what lay there.',
      OTHER_WAYS,
    );
  if (found.panels.length > 0) return { panels: found.panels, films: [film.id] };
  if (found.shapes.length > 0) return { again: { film: film.id, at: found.shapes } };
  throw new Trouble(
    422,
    'nothing-there',
    'Nothing of this order lies where you tapped. Tap on the pieces themselves.',
  );
}
