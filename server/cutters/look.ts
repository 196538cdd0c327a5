/** What the shop's cutters say of themselves. Asked only while no cut has them, under a lease like a cut's. */
import { panelOf } from './links/simulators';
import { and, asc, eq, inArray } from 'drizzle-orm';
import type { CutterState } from '../../contracts/shop';
import type { Db } from '../db/connect';
import { isSilent } from '../db/link';
import { cuts, cutters } from '../db/schema';
import { borrowed } from './borrowed';
import { filmIn } from './feed';
import { LinkLost } from './links/link';

type CutterRow = typeof cutters.$inferSelect;

/** What was seen this short a time ago is still true enough: several pages ask at once, ms. */
const FRESH_MS = 1000;
/** One that is at rest answers at once; a press that wants the cutter must not wait long for a look, ms. */
const ANSWER_MS = 2500;
/** Another server may just be asking the same: that is no work, ms. */
const PATIENCE_MS = 2000;
/** States in which a cutter's line belongs to its cut. */
export const AT_WORK = ['checking', 'cutting', 'stopping'];

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

async function lookAt(db: Db, row: CutterRow): Promise<CutterState> {
  const { id, data, link: line } = row;
  const about = { id, name: data.name, panel: panelOf(line) ?? null, film: null, problem: null };
  const busy = await db
    .select({ id: cuts.id })
    .from(cuts)
    .where(and(eq(cuts.cutterId, id), inArray(cuts.state, AT_WORK)))
    .limit(1);
  const atWork: CutterState = { ...about, state: 'at-work' };
  if (busy.length > 0) return atWork;
  try {
    const seen = await borrowed(db, row, 'look', PATIENCE_MS, async (link) => ({
      film: isSilent(line) ? null : ((await filmIn(link, data, ANSWER_MS)) ?? null),
    }));
    return seen ? { ...about, state: isSilent(line) ? 'silent' : 'answers', ...seen } : atWork;
  } catch (error) {
    if (!(error instanceof LinkLost)) throw error;
    return { ...about, state: 'away', problem: error.message };
  }
}
