import { and, eq, lt, or, sql } from 'drizzle-orm';
import type { Db } from '../db/connect';
import { leases } from '../db/schema';

/** A lease that is not renewed for this long is anybody's. */
export const LEASE_MS = 6000;
const RENEW_MS = 2000;
/** Somebody may just be asking the cutter what is in it: that does not take so long, ms. */
export const LEASE_PATIENCE_MS = 8000;

/** The database's clock: server processes need not agree on the time. */
const now = sql<number>`(extract(epoch from clock_timestamp()) * 1000)::bigint`;

export interface Lease {
  /** Names this run: the same process has no lease by right of an earlier one. */
  readonly holder: string;
  /** False once another process may have taken the cutter. */
  readonly held: () => boolean;
  readonly release: () => Promise<void>;
}

/**
 * Takes a cutter for one run, or undefined when another one has it.
 * @param patience how long to wait for it, ms
 */
export async function takeLease(
  db: Db,
  cutterId: string,
  holder: string,
  patience = 0,
): Promise<Lease | undefined> {
  const givesUp = Date.now() + patience;
  while (!(await renew(db, cutterId, holder))) {
    if (Date.now() >= givesUp) return undefined;
    await new Promise((done) => setTimeout(done, 100));
  }
  let until = Date.now() + LEASE_MS;
  const timer = setInterval(() => {
    const asked = Date.now();
    renew(db, cutterId, holder)
      .then((ok) => (until = ok ? asked + LEASE_MS : 0))
      .catch(() => {}); // the database is away: the lease runs out by itself
  }, RENEW_MS);
  return {
    holder,
    held: () => Date.now() < until,
    release: async () => {
      clearInterval(timer);
      await db.delete(leases).where(and(eq(leases.cutterId, cutterId), eq(leases.holder, holder)));
    },
  };
}

async function renew(db: Db, cutterId: string, holder: string): Promise<boolean> {
  const expiresAt = sql<number>`${now} + ${LEASE_MS}`;
  const rows = await db
    .insert(leases)
    .values({ cutterId, holder, expiresAt })
    .onConflictDoUpdate({
      target: leases.cutterId,
      set: { holder, expiresAt },
      setWhere: or(eq(leases.holder, holder), lt(leases.expiresAt, now)),
    })
    .returning({ id: leases.cutterId });
  return rows.length > 0;
}
