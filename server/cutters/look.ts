/** What the shop's cutters say of themselves. Asked only while no cut has them, under a lease like a cut's. */
import { randomUUID } from 'node:crypto';
import { and, asc, eq, inArray } from 'drizzle-orm';
import type { CutterState } from '../../contracts/shop';
import type { Db } from '../db/connect';
import { cuts, cutters } from '../db/schema';
import { filmIn } from './feed';
import { takeLease } from './lease';
import { LinkLost, openLink } from './link';

type CutterRow = typeof cutters.$inferSelect;

/** What was seen this short a time ago is still true enough: several pages ask at once, ms. */
const FRESH_MS = 1000;
/** One that is at rest answers at once; a press that wants the cutter must not wait long for a look, ms. */
const ANSWER_MS = 2500;
/** Another server may just be asking the same: that is no work, ms. */
const PATIENCE_MS = 2000;
/** States in which a cutter's line belongs to its cut. */
const AT_WORK = ['checking', 'cutting', 'stopping'];

export interface Lookout {
  /** @param only id of the one that is asked; missing: all of them */
  readonly states: (only?: string) => Promise<CutterState[]>;
}

export function createLookout(db: Db): Lookout {
  const seen = new Map<string, { at: number; state: Promise<CutterState> }>();
  const look = (row: CutterRow): Promise<CutterState> => {
    const before = seen.get(row.id);
    if (before && Date.now() - before.at < FRESH_MS) return before.state;
    const state = lookAt(db, row);
    seen.set(row.id, { at: Date.now(), state });
    return state;
  };
  return {
    states: async (only) => {
      const wanted = only === undefined ? undefined : eq(cutters.id, only);
      return Promise.all((await db.select().from(cutters).where(wanted).orderBy(asc(cutters.id))).map(look));
    },
  };
}

async function lookAt(db: Db, { id, data, link: line }: CutterRow): Promise<CutterState> {
  const about = { id, name: data.name, panel: line.panel ?? null, film: null, problem: null };
  const busy = await db
    .select({ id: cuts.id })
    .from(cuts)
    .where(and(eq(cuts.cutterId, id), inArray(cuts.state, AT_WORK)))
    .limit(1);
  const lease = busy.length > 0 ? undefined : await takeLease(db, id, `look ${randomUUID()}`, PATIENCE_MS);
  if (!lease) return { ...about, state: 'at-work' };
  try {
    const link = await openLink(line);
    try {
      return { ...about, state: 'answers', film: (await filmIn(link, data, ANSWER_MS)) ?? null };
    } finally {
      link.close();
    }
  } catch (error) {
    if (!(error instanceof LinkLost)) throw error;
    return { ...about, state: 'away', problem: error.message };
  } finally {
    await lease.release().catch(() => {}); // runs out by itself
  }
}
