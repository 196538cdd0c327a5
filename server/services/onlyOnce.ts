/** What is asked for again, because its answer was lost, is made once. */
import { eq, lt, sql } from 'drizzle-orm';
import type { Db, Tx } from '../db/connect';
import { madeOnce } from '../db/schema';
import type { ByWhom } from '../people/who';

const nameOf = (what: string, { who, key }: ByWhom): string => `${what} ${who} ${key}`;
/**
 * Makes something in a transaction, once for each request that names itself; whoever asks meanwhile waits for it.
 * @returns its ids, whether they were made now or before
 */
export async function onlyOnce(
  tx: Tx,
  what: string,
  by: ByWhom,
  make: () => Promise<readonly number[]>,
): Promise<readonly number[]> {
  if (by.key === undefined) return make();
  const name = nameOf(what, by);
  const claimed = await tx
    .insert(madeOnce)
    .values({ key: name, made: [] })
    .onConflictDoNothing()
    .returning({ key: madeOnce.key });
  if (claimed.length === 0) return (await madeBefore(tx, what, by))!;
  const made = await make();
  await tx.update(madeOnce).set({ made }).where(eq(madeOnce.key, name));
  return made;
}

/** Ids of what was made for the same request before. */
export async function madeBefore(
  db: Pick<Db, 'select'>,
  what: string,
  by: ByWhom,
): Promise<readonly number[] | undefined> {
  if (by.key === undefined) return undefined;
  const [row] = await db
    .select({ made: madeOnce.made })
    .from(madeOnce)
    .where(eq(madeOnce.key, nameOf(what, by)));
  return row?.made;
}

/** Forgets requests that nobody sends again: that is done within minutes, or not at all. */
export const forgetOld = (db: Db) =>
  db.delete(madeOnce).where(lt(madeOnce.madeAt, sql`now() - interval '1 day'`));
