/** A page hears of the shop only as long as its log-in counts. */
import { inArray } from 'drizzle-orm';
import type { Logger } from 'pino';
import type { Db } from '../db/connect';
import { sessions } from '../db/schema';
import type { Hub } from './hub';

/** Ends the event streams of log-ins that are gone, whenever people are changed. @returns stops doing so */
export function endLostPages({ db, hub }: { readonly db: Db; readonly hub: Hub }, log: Logger): () => void {
  return hub.on((event) => {
    if (event.kind !== 'people' && event.kind !== 'missed') return;
    endLost(db, hub).catch((error: unknown) => log.warn({ error: String(error) }, 'pages of lost log-ins'));
  });
}

async function endLost(db: Db, hub: Hub): Promise<void> {
  const pages = hub.pages.activeSessions;
  const ids = [...new Set(pages.map((page) => page.state.sid))];
  if (ids.length === 0) return;
  const rows = await db.select({ sid: sessions.sid }).from(sessions).where(inArray(sessions.sid, ids));
  const known = new Set(rows.map(({ sid }) => sid));
  for (const page of pages) if (!known.has(page.state.sid)) page.state.end();
}
