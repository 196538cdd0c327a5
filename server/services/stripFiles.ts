/** Strips as files. All of a plan's are made at once and kept for a while: for the same inputs nothing is planned twice. */
import { createHash } from 'node:crypto';
import { and, eq, sql } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import type { Db } from '../db/connect';
import { stripFiles } from '../db/schema';
import { Trouble } from '../problem';
import type { StripFile, StripKind } from '../work/planningTasks';
import type { OrderServices } from './orders';
import { getOrder, planInputs, withArtworks } from './orders';

/** How long files are kept that nobody may ask for again. */
const KEPT = sql`interval '1 hour'`;

/** @throws Trouble 404 when the order has no such strip as it stands */
export async function stripFile(
  services: OrderServices,
  id: number,
  stripId: string,
  kind: StripKind,
): Promise<{ readonly bytes: Uint8Array; readonly name: string }> {
  const order = await getOrder(services.db, id);
  const name = `${order.number}-${stripId}.${kind}`;
  const inputs = await planInputs(services, order);
  const key = createHash('sha256')
    .update(JSON.stringify([services.pool.version, kind, inputs]))
    .digest('hex');
  const kept = await keptFile(services.db, key, stripId);
  if (kept) return { bytes: kept, name };
  const made = await once(key, async () => {
    // somebody may have made them since they were looked for
    const since = await keptFiles(services.db, key);
    if (since.length > 0) return since;
    const files = await services.pool.run('strips', { ...(await withArtworks(services, inputs)), kind });
    await keep(services.db, key, files);
    return files;
  });
  const file = made.find(({ strip }) => strip === stripId);
  if (file) return { bytes: file.bytes, name };
  throw new Trouble(
    404,
    'no-such-strip',
    'This strip is not cut in this order as it stands. Look under Films and Layout.',
  );
}

/** Bytes of files that were asked for lately and are at hand: the database writes every byte as two letters. */
const AT_HAND = 64e6;
const atHand = new LRUCache<string, Uint8Array>({
  maxSize: AT_HAND,
  sizeCalculation: ({ byteLength }) => byteLength || 1,
});

/** What a key names never changes. */
async function keptFile(db: Db, key: string, strip: string): Promise<Uint8Array | undefined> {
  const name = `${key} ${strip}`;
  const known = atHand.get(name);
  if (known) return known;
  const [row] = await db
    .select({ bytes: stripFiles.bytes })
    .from(stripFiles)
    .where(and(eq(stripFiles.key, key), eq(stripFiles.strip, strip)));
  if (row) atHand.set(name, row.bytes);
  return row?.bytes;
}

const keptFiles = (db: Db, key: string): Promise<StripFile[]> =>
  db
    .select({ strip: stripFiles.strip, bytes: stripFiles.bytes })
    .from(stripFiles)
    .where(eq(stripFiles.key, key));

async function keep(db: Db, key: string, files: readonly StripFile[]): Promise<void> {
  await db.delete(stripFiles).where(sql`${stripFiles.madeAt} < now() - ${KEPT}`);
  if (files.length === 0) return;
  const rows = files.map(({ strip, bytes }) => ({ key, strip, bytes: Buffer.from(bytes) }));
  await db.insert(stripFiles).values(rows).onConflictDoNothing();
}

const underWay = new Map<string, Promise<readonly StripFile[]>>();

/** Whoever asks for what is just being made waits for it. */
function once(key: string, make: () => Promise<readonly StripFile[]>): Promise<readonly StripFile[]> {
  const making = underWay.get(key) ?? make().finally(() => underWay.delete(key));
  underWay.set(key, making);
  return making;
}
