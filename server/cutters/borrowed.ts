/** A cutter's line for a moment, for what is no cut: under a lease like a cut's. */
import { randomUUID } from 'node:crypto';
import type { Db } from '../db/connect';
import type { cutters } from '../db/schema';
import { takeLease } from './lease';
import type { CutterLink } from './links/link';
import { openLink } from './links/open';

/**
 * @param who what it is for
 * @param patience how long somebody else may have it meanwhile, ms
 * @returns undefined: somebody else has the cutter
 * @throws LinkLost when it cannot be reached
 */
export async function borrowed<T>(
  db: Db,
  { id, link: line }: Pick<typeof cutters.$inferSelect, 'id' | 'link'>,
  who: string,
  patience: number,
  work: (link: CutterLink) => Promise<T>,
): Promise<T | undefined> {
  const lease = await takeLease(db, id, `${who} ${randomUUID()}`, patience);
  if (!lease) return undefined;
  try {
    const link = await openLink(line);
    try {
      return await work(link);
    } finally {
      link.close();
    }
  } finally {
    await lease.release().catch(() => {}); // runs out by itself
  }
}
