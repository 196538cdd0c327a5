import { and, eq, lt, or, sql } from 'drizzle-orm';
import type { Db } from '../db/connect';
import { urgently } from '../db/connect';
import { perDatabase } from '../db/perDatabase';
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
  let asked = Date.now();
  while (!(await take(db, cutterId, holder))) {
    if (Date.now() >= givesUp) return undefined;
    await new Promise((done) => setTimeout(done, 100));
    asked = Date.now();
  }
  const held = heldIn(db);
  held.keep(holder, asked + LEASE_MS);
  return {
    holder,
    held: () => Date.now() < held.until(holder),
    release: async () => {
      held.drop(holder);
      await db.delete(leases).where(and(eq(leases.cutterId, cutterId), eq(leases.holder, holder)));
    },
  };
}

/** Leases that this process holds, renewed together: of fifty cutters, one by one, that is a query every 40 ms. */
const heldIn = perDatabase((db) => {
  /** When each ends unless it is renewed, ms since 1970, by its holder. */
  const ends = new Map<string, number>();
  const renewAll = async (): Promise<void> => {
    const [asked, holders] = [Date.now(), [...ends.keys()]];
    const rows = await renewed(urgently(db)).execute({ holders });
    const still = new Set(rows.map(({ holder }) => holder));
    for (const holder of holders)
      if (ends.has(holder)) ends.set(holder, still.has(holder) ? asked + LEASE_MS : 0);
  };
  let timer: ReturnType<typeof setInterval> | undefined;
  return {
    keep: (holder: string, until: number): void => {
      ends.set(holder, until);
      // while the database is away they run out by themselves
      timer ??= setInterval(() => void renewAll().catch(() => {}), RENEW_MS);
    },
    until: (holder: string): number => ends.get(holder) ?? 0,
    drop: (holder: string): void => {
      ends.delete(holder);
      if (ends.size > 0) return;
      clearInterval(timer);
      timer = undefined;
    },
  };
});

const expiresAt = sql<number>`${now} + ${sql.raw(String(LEASE_MS))}`;

const renewed = perDatabase((db) =>
  db
    .update(leases)
    .set({ expiresAt })
    .where(sql`${leases.holder} = any(${sql.placeholder('holders')})`)
    .returning({ holder: leases.holder })
    .prepare('renewed-leases'),
);

async function take(db: Db, cutterId: string, holder: string): Promise<boolean> {
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
