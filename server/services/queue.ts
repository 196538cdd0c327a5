/** Orders frozen into cuts: what is asked for of one, and what may not be queued twice. */
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Order } from '../../contracts/api';
import type { Cut, QueuedPart, SharingNow } from '../../contracts/cuts';
import { isSpoilt, OPEN_STATES } from '../../contracts/cuts';
import type { Again, PanelsAgain } from '../../core/films/again';
import type { Db } from '../db/connect';
import { cutActs, cuts, cutShares, orders } from '../db/schema';
import { Trouble } from '../problem';
import type { MadeCut } from '../work/makeCuts';
import type { MadePlan } from '../work/planningTasks';
import type { CutServices } from './cuts';
import { listCuts, promoteNext } from './cuts';
import { madeBefore, onlyOnce } from './onlyOnce';
import { getOrder, planInputs, withArtworks } from './orders';
import { madeFrom } from './madeFrom';
import { pack } from './pack';
import { sharingOf } from './sharing';
import { loadShop } from './shop';

/** What was shown of an order when it was queued: its revision, and the versions of the shop and of what it shares. */
export interface Shown {
  readonly revision: number;
  readonly shop?: string;
  readonly sharing?: string;
}

/** Freezes the order's plan as it stands into one cut a strip, in cutting order. */
export async function queueOrder(
  services: CutServices,
  orderId: number,
  shown: Shown,
  asked: QueuedPart = {},
  hold = false,
): Promise<Cut[]> {
  await putInQueue(services, orderId, shown, asked, hold);
  return listCuts(services.db, { orderId });
}

/** @returns the cuts that were made */
export async function putInQueue(
  services: CutServices,
  orderId: number,
  { revision, shop, sharing: shownSharing }: Shown,
  asked: QueuedPart,
  hold = false,
): Promise<readonly number[]> {
  const { db, hub, who, key } = services;
  const what = `queue ${orderId}`;
  const before = await madeBefore(db, what, services);
  if (before) return before;
  const order = await getOrder(db, orderId);
  if (order.revision !== revision) {
    throw new Trouble(
      409,
      'changed',
      'Somebody changed this order a moment ago. Look at it once more, then queue it.',
    );
  }
  if (shop !== undefined && shop !== (await loadShop(db)).version) {
    throw new Trouble(
      409,
      'shop-changed',
      'A film, a recipe or a cutter was changed a moment ago. Look at the order once more, then queue it.',
    );
  }
  const isAlone = isOwn(asked);
  const sharing = isAlone ? ALONE : await sharingOf(db, order);
  if (!isAlone && shownSharing !== undefined && shownSharing !== sharing.version) throw sharingChanged();
  const wanted = await cutsAsked(services, order, sharing, asked);
  const madeIds = await db.transaction((tx) =>
    onlyOnce(tx, what, { who, key }, async () => {
      // one order is queued once at a time, however often and from wherever the button is pressed; those it shares film with too
      const together = [orderId, ...sharing.guests.map(({ id }) => id)];
      await tx.select().from(orders).where(inArray(orders.id, together)).orderBy(orders.id).for('update');
      if (!isAlone && (await sharingOf(tx, order)).version !== sharing.version) throw sharingChanged();
      const onFilms = wanted.map(({ film }) => film.id);
      await refuseTwice(tx, orderId, asked);
      if (!isSpoilt(asked)) await refuseQueued(tx, { ...order, films: onFilms });
      for (const guest of sharing.guests)
        await refuseQueued(tx, { ...guest, films: guest.films.filter((film) => onFilms.includes(film)) });
      const made = await tx
        .insert(cuts)
        .values(
          wanted.map((cut, i) => ({
            ...rowOf(cut),
            orderId,
            revision,
            asked,
            position: i + 1,
            of: wanted.length,
            state: hold ? 'held' : 'queued',
          })),
        )
        .returning({ id: cuts.id });
      const ids = made.map(({ id }) => id);
      // behind all that was queued before
      await tx.update(cuts).set({ rank: cuts.id }).where(inArray(cuts.id, ids));
      const act = hold ? 'held' : 'queued';
      await tx.insert(cutActs).values(ids.map((cutId) => ({ cutId, act, who }) as const));
      const whose = { host: { id: orderId, revision }, guests: sharing.guests };
      await tx.insert(cutShares).values(wanted.flatMap((cut, i) => sharesIn(made[i].id, cut, whose)));
      return ids;
    }),
  );
  for (const cutterId of new Set(wanted.map((cut) => cut.cutterId))) await promoteNext(services, cutterId);
  for (const id of [orderId, ...sharing.guests.map((guest) => guest.id)])
    await hub.tell({ kind: 'order', orderId: id });
  return madeIds;
}

/** An order is not queued as a whole while some of it is in the queue, and nothing spoilt is cut again twice at once. */
async function refuseTwice(tx: Pick<Db, 'select'>, orderId: number, asked: QueuedPart): Promise<void> {
  const open = await tx
    .select({ isSame: sql<boolean>`coalesce(${cuts.asked} = ${JSON.stringify(asked)}::jsonb, false)` })
    .from(cuts)
    .where(and(eq(cuts.orderId, orderId), inArray(cuts.state, [...OPEN_STATES])));
  if (isSpoilt(asked)) {
    if (open.some(({ isSame }) => isSame)) throw alreadyAgain();
  } else if (open.length > 0 && asked.films === undefined)
    throw new Trouble(
      409,
      'already-queued',
      'This order is already in the queue. Finish or cancel those cuts first.',
    );
}

export const alreadyAgain = (): Trouble =>
  new Trouble(409, 'already-again', 'That is in the queue to be cut again already.');

/** The shapes or panels that are planned by themselves; undefined: all there is. */
export const againOf = ({ again, panels }: QueuedPart): Again | PanelsAgain | undefined =>
  again ?? (panels && { panels });

/** Only the order's own: shapes, panels and sheets that are spoilt are cut again by themselves. */
export const isOwn = (asked: QueuedPart): boolean => asked.own === true || isSpoilt(asked);

/** What is asked for of an order, with its bytes. @throws Trouble when it cannot be cut as it stands */
export async function cutsAsked(
  services: CutServices,
  order: Order,
  sharing: SharingNow,
  asked: QueuedPart,
): Promise<readonly ToQueue[]> {
  const { films, sheets } = asked;
  const inputs = await planInputs(services, order, sharing);
  const plan = await services.pool.run('make', {
    ...(await withArtworks(services, inputs)),
    again: againOf(asked),
  });
  const stop = plan.findings.find((finding) => finding.severity === 'stop');
  if (stop) throw new Trouble(422, stop.code, stop.message, stop.waysOut);
  const wanted = plan.cuts.filter(
    ({ film, sheet }) =>
      (!films || films.includes(film.id)) && (!sheets || (sheet && sheets.includes(sheet.number))),
  );
  if (wanted.length === 0) throw nothingToCut(plan);
  const from = madeFrom(inputs);
  return wanted.map((cut) => ({ ...cut, madeFrom: from(cut.film.id) }));
}

/** A made cut with the hash of what it was planned from. */
export type ToQueue = MadeCut & { readonly madeFrom: string };

/** A made cut as it is stored. */
export const rowOf = ({ shares: _shares, design, ...cut }: ToQueue) => ({
  ...cut,
  lines: cut.program.lines.length,
  program: pack(cut.program),
  drawing: pack(cut.drawing),
  design: design ? pack(design) : null,
});

/** Orders on a strip, as they were when it was planned. */
export interface Whose {
  readonly host: Pick<Order, 'id' | 'revision'>;
  readonly guests: readonly Pick<Order, 'id' | 'number' | 'revision'>[];
}

/** Whose a cut is, as it is stored. */
export const sharesIn = (cutId: number, { shares }: Pick<MadeCut, 'shares'>, { host, guests }: Whose) =>
  shares.map(({ order, ...share }) => {
    const { id, revision } = guests.find(({ number }) => number === order) ?? host;
    return { ...share, cutId, orderId: id, revision };
  });

/** An order by itself. */
export const ALONE: SharingNow = { guests: [], away: {}, refused: [], version: '' };

const sharingChanged = (): Trouble =>
  new Trouble(
    409,
    'sharing-changed',
    'An order on the same film was changed a moment ago. Look at the film once more, then queue it.',
  );

function nothingToCut({ findings }: MadePlan): Trouble {
  const elsewhere = findings.find(({ code }) => code === 'cut-with');
  return elsewhere
    ? new Trouble(422, elsewhere.code, elsewhere.message, elsewhere.waysOut)
    : new Trouble(422, 'nothing', 'There is nothing to cut in this order.');
}

/** An order's film is not queued by itself and with another's at once. */
async function refuseQueued(
  tx: Pick<Db, 'select'>,
  { id, number, films }: Pick<SharingNow['guests'][number], 'id' | 'number' | 'films'>,
): Promise<void> {
  const open = await tx
    .select({ film: sql<string>`${cuts.film}->>'name'` })
    .from(cuts)
    .innerJoin(cutShares, eq(cutShares.cutId, cuts.id))
    .where(
      and(
        eq(cutShares.orderId, id),
        inArray(cuts.state, [...OPEN_STATES]),
        inArray(sql`${cuts.film}->>'id'`, [...films]),
      ),
    );
  if (open.length > 0)
    throw new Trouble(
      409,
      'guest-queued',
      `${open[0].film} of #${number} is in the queue already. Finish or cancel that cut first.`,
    );
}
