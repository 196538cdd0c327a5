/** What becomes of a cut, written down and told. */
import type { Placeholder, SQL } from 'drizzle-orm';
import { and, eq, exists, ne, sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import { untilBack } from '../db/away';
import type { Db } from '../db/connect';
import { perDatabase } from '../db/perDatabase';
import { cuts, leases } from '../db/schema';
import type { Hub } from '../events/hub';
import { wearKnife } from '../services/knives';
import { bookCut } from '../services/stock';
import type { WorkPool } from '../work/pool';
import type { CutWatch } from './watchCuts';

export interface Services {
  readonly db: Db;
  readonly hub: Hub;
  readonly pool: WorkPool;
  readonly log: Logger;
  readonly isClosing: () => boolean;
  readonly watch: CutWatch;
}

export type CutRow = typeof cuts.$inferSelect;

const wholeRow = perDatabase((db) =>
  db
    .select()
    .from(cuts)
    .where(eq(cuts.id, sql.placeholder('id')))
    .prepare('row-of-cut'),
);
/** All of a cut as it is stored, its program too. */
export async function rowOf(db: Db, id: number): Promise<CutRow | undefined> {
  const [row] = await wholeRow(db).execute({ id });
  return row;
}

/** Which cut it is, and who is told of it. */
export type CutNamed = Pick<CutRow, 'id' | 'orderId' | 'cutterId'>;

/** Only who has the cutter may say what becomes of its cut: a feeder that was away too long has lost it. */
export const isHolder = (db: Db, { holder }: { readonly holder: string | Placeholder }): SQL =>
  exists(
    db
      .select({ id: leases.cutterId })
      .from(leases)
      .where(and(eq(leases.cutterId, cuts.cutterId), eq(leases.holder, holder))),
  );

/** What became of a cut is never lost: while the database is away it is tried again. What is done stays so. */
export async function settle(
  services: Services,
  cut: CutNamed,
  to: Partial<CutRow>,
  provided: SQL | undefined,
): Promise<void> {
  const { db, hub, isClosing } = services;
  await untilBack(
    () =>
      db
        .update(cuts)
        .set(to)
        .where(and(eq(cuts.id, cut.id), ne(cuts.state, 'done'), provided)),
    isClosing,
  );
  await tellOfCut(hub, cut);
}

/** A cut is over: its film is used up in the same step, so that no fault in between counts it twice or never. */
export async function finish(
  { db, hub, isClosing }: Services,
  cut: CutRow,
  to: Partial<CutRow>,
  provided: SQL | undefined,
): Promise<void> {
  const over = () =>
    db.transaction(async (tx) => {
      const isDone = await tx
        .update(cuts)
        .set({ ...to, state: 'done' })
        .where(and(eq(cuts.id, cut.id), ne(cuts.state, 'done'), provided))
        .returning({ id: cuts.id });
      if (isDone.length === 0) return;
      const knife = await wearKnife(tx, cut);
      const offcuts = await bookCut(tx, cut);
      if (knife || offcuts.length > 0)
        await tx.update(cuts).set({ knife, offcuts }).where(eq(cuts.id, cut.id));
    });
  await untilBack(over, isClosing);
  await hub.tell({ kind: 'shop' }).catch(() => {});
  await tellOfCut(hub, cut);
}

/** Pages that miss this ask again when their line is back. */
const tellOfCut = (hub: Hub, { id, orderId, cutterId }: CutNamed): Promise<void> =>
  hub.tell({ kind: 'cut', cutId: id, orderId, cutterId }).catch(() => {});
