/** The code on a printed sheet, read at a cutter, brings up its cut. */
import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import type { Cut } from '../../contracts/cuts';
import { readSheetCode } from '../../core/print/sheets';
import { cuts, orders } from '../db/schema';
import { Trouble } from '../problem';
import type { CutServices } from './cuts';
import { getCut, lockQueue } from './cuts';

/**
 * @returns the cut, which the cutter now asks the sheet for
 * @throws Trouble when it is no code of ours, its cut is not waiting here, or the cutter is at work
 */
export async function bringUp(services: CutServices, code: string, cutterId: string): Promise<Cut> {
  const { db, hub } = services;
  const read = readSheetCode(code);
  if (!read)
    throw new Trouble(
      422,
      'no-sheet-code',
      'This is not the code of a printed sheet, such as #2047 1: its order and which of its sheets.',
    );
  const { order, sheet } = read;
  const isSheet = and(eq(orders.number, order), sql`(${cuts.sheet}->>'number')::int = ${sheet}`);
  const [newest] = await db
    .select({ id: cuts.id, state: cuts.state, cutterId: cuts.cutterId })
    .from(cuts)
    .innerJoin(orders, eq(orders.id, cuts.orderId))
    .where(isSheet)
    .orderBy(desc(cuts.id))
    .limit(1);
  const name = `Sheet ${sheet} of #${order}`;
  if (!newest)
    throw new Trouble(
      404,
      'sheet-not-queued',
      `${name} is not in the queue. Queue its order, then read it again.`,
    );
  if (newest.cutterId !== cutterId && newest.state !== 'done' && newest.state !== 'cancelled')
    throw new Trouble(409, 'elsewhere', `${name} waits at another cutter.`);
  if (newest.state === 'queued') await swapIn(services, newest.id, cutterId, name);
  else if (newest.state === 'done' || newest.state === 'cancelled')
    throw new Trouble(
      409,
      'sheet-done',
      `${name} is ${newest.state === 'done' ? 'cut' : 'left out'} already. In its order, under Print marks, it can be cut again.`,
    );
  const cut = await getCut(db, newest.id);
  await hub.tell({ kind: 'cut', cutId: cut.id, orderId: cut.orderId, cutterId });
  return cut;
}

/** What only waits for its film gives way; what is under way does not, and then all stays as it was. */
async function swapIn({ db }: CutServices, id: number, cutterId: string, name: string): Promise<void> {
  await db.transaction(async (tx) => {
    await lockQueue(tx, cutterId);
    const own = eq(cuts.cutterId, cutterId);
    await tx
      .update(cuts)
      .set({ state: 'queued' })
      .where(and(own, eq(cuts.state, 'wants-film')));
    const [busy] = await tx
      .select({ id: cuts.id })
      .from(cuts)
      .where(and(own, inArray(cuts.state, ['checking', 'cutting', 'stopping', 'stopped'])))
      .limit(1);
    if (busy) throw new Trouble(409, 'cutter-busy', 'This cutter is at work. Read the code once it is done.');
    const up = await tx
      .update(cuts)
      .set({ state: 'wants-film', problem: null, movedAt: sql`now()` })
      .where(and(eq(cuts.id, id), eq(cuts.state, 'queued')))
      .returning({ id: cuts.id });
    if (up.length === 0)
      throw new Trouble(409, 'not-now', `${name} was taken out of the queue a moment ago.`);
  });
}
