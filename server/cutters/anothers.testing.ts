/** Cutters as another server would have them. */
import { and, eq } from 'drizzle-orm';
import type { Db } from '../db/connect';
import { cuts, leases } from '../db/schema';

const HOLDER = 'another';
/** Longer than any test. */
const HELD_MS = 60_000;

/** Another one has this cutter until it is given back. @returns gives it back */
export async function heldByAnother(db: Db, cutterId: string): Promise<() => Promise<void>> {
  const lease = { holder: HOLDER, expiresAt: Date.now() + HELD_MS };
  await db
    .insert(leases)
    .values({ cutterId, ...lease })
    .onConflictDoUpdate({ target: leases.cutterId, set: lease });
  const isIts = and(eq(leases.cutterId, cutterId), eq(leases.holder, HOLDER));
  return async () => void (await db.delete(leases).where(isIts));
}

/** Another one cuts this: without its lease it would soon be found forsaken. @returns gives the cutter back */
export async function cutByAnother(
  db: Db,
  { id, cutterId }: Pick<typeof cuts.$inferSelect, 'id' | 'cutterId'>,
): Promise<() => Promise<void>> {
  const giveBack = await heldByAnother(db, cutterId);
  await db.update(cuts).set({ state: 'cutting' }).where(eq(cuts.id, id));
  return giveBack;
}
