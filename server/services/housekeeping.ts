/** What is kept, how much of it, and for how long. */
import { and, eq, gt, inArray, isNotNull, lt, sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Kept } from '../../contracts/usage';
import type { Db } from '../db/connect';
import { cuts, files, orders, readings, revisions } from '../db/schema';
import { forgetOld } from './onlyOnce';
import { settingsOf } from './settings';

/** Bytes of readings, which can be made again at any time, that are kept. */
const MOST_READ = 2e9;
/** Files that nobody made an order of are kept so long: a page may have them in a change that is not sent yet. */
const UNORDERED = sql`interval '30 days'`;
/** Files that are looked for in orders in one go. */
const MOST_LOOKED_FOR = 200;

const EVERY_MS = 3_600_000;
/** When a server starts, it has other things to do first. */
const FIRST_MS = 60_000;

/** Clears away what is not to be kept, now and again. @returns ends it */
export function keepHouse(db: Db, log: Logger): () => void {
  const clear = (): void =>
    void clearAway(db).catch((error: unknown) => log.warn({ error: String(error) }, 'not cleared away'));
  const first = setTimeout(clear, FIRST_MS);
  const again = setInterval(clear, EVERY_MS);
  for (const timer of [first, again]) timer.unref();
  return () => {
    clearTimeout(first);
    clearInterval(again);
  };
}

/** @param mostRead bytes of readings that stay */
export async function clearAway(db: Db, mostRead = MOST_READ): Promise<void> {
  await forgetOld(db);
  await forgetReadings(db, mostRead);
  await forgetUnordered(db);
  await emptyOldCuts(db);
}

/** Those that were asked for last stay. */
const forgetReadings = (db: Db, most: number) =>
  db.execute(sql`delete from ${readings} where key in (
    select key from (
      select key, sum(octet_length(data)) over (order by used_at desc, key) as bytes from ${readings}) kept
    where bytes > ${most})`);

/** Uploads that never became part of an order. One that an order was seen to have is not looked for again. */
async function forgetUnordered(db: Db): Promise<void> {
  const isOld = and(eq(files.isInOrder, false), lt(files.createdAt, sql`now() - ${UNORDERED}`));
  const old = await db.select({ hash: files.hash }).from(files).where(isOld).limit(MOST_LOOKED_FOR);
  for (const { hash } of old) {
    // brought in once more meanwhile, it is new
    const gone = await db
      .delete(files)
      .where(and(isForsaken(hash), isOld))
      .returning({ hash: files.hash });
    if (gone.length === 0)
      await db
        .update(files)
        .set({ isInOrder: true })
        .where(and(eq(files.hash, hash), isOld));
  }
}

/** A file that no order names, now or in any revision that undo leads to. */
export function isForsaken(hash: string) {
  const like = `%${hash}%`;
  return and(
    eq(files.hash, hash),
    sql`not exists (select 1 from ${orders} where ${orders.fileHash} = ${hash} or ${orders.choices}::text like ${like})`,
    sql`not exists (select 1 from ${revisions} where ${revisions.edits}::text like ${like} or ${revisions.choices}::text like ${like})`,
  );
}

const NOTHING = Buffer.alloc(0);
/** Its program and its record are there still. */
export const isWhole = gt(sql`octet_length(${cuts.program})`, 0);

/** What was cut long ago keeps its facts, and neither its program nor its record. */
async function emptyOldCuts(db: Db): Promise<void> {
  const { keepCuts } = await settingsOf(db);
  if (keepCuts === null) return;
  await db
    .update(cuts)
    .set({ program: NOTHING, drawing: NOTHING, design: null, record: null, recordWanted: false })
    .where(
      and(
        inArray(cuts.state, ['done', 'cancelled']),
        lt(cuts.endedAt, sql`now() - make_interval(months => ${keepCuts})`),
        isWhole,
      ),
    );
}

/** Bytes that are kept, of what grows. */
export async function keptNow(db: Db): Promise<Kept> {
  const bytesOf = async (what: ReturnType<typeof sql>, from: ReturnType<typeof sql>): Promise<number> => {
    const { rows } = await db.execute(sql`select coalesce(sum(${what}), 0)::float8 as bytes from ${from}`);
    return (rows[0] as { bytes: number }).bytes;
  };
  const ended = isNotNull(cuts.endedAt);
  const [{ keepCuts }, ofFiles, read, ofCuts, count] = await Promise.all([
    settingsOf(db),
    bytesOf(sql`octet_length(bytes)`, sql`${files}`),
    bytesOf(sql`octet_length(data)`, sql`${readings}`),
    bytesOf(
      sql`octet_length(program) + octet_length(drawing) + coalesce(octet_length(design), 0) + coalesce(octet_length(record), 0)`,
      sql`${cuts} where ended_at is not null`,
    ),
    db.$count(cuts, and(ended, isWhole)),
  ]);
  return { files: ofFiles, readings: read, cuts: { bytes: ofCuts, count, months: keepCuts } };
}
