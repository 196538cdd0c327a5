/** What people want of the cuts that this process feeds, asked for all of them at once. */
import { inArray } from 'drizzle-orm';
import type { Nudges } from '../../core/devicelang/nudged';
import type { Db } from '../db/connect';
import { cuts } from '../db/schema';

/** Stop is a state of the cut, and so is what was nudged: they are looked for this often, whether or not anybody hears of them. */
const LOOK_MS = 400;

interface Wanted {
  readonly state: string;
  readonly nudges: Nudges;
}

export interface CutWatch {
  /** @returns ends it */
  readonly follow: (cutId: number, hear: (wanted: Wanted) => void) => () => void;
  readonly close: () => void;
}

export function watchCuts(db: Db): CutWatch {
  const hearing = new Map<number, (wanted: Wanted) => void>();
  const look = async (): Promise<void> => {
    if (hearing.size === 0) return;
    const rows = await db
      .select({ id: cuts.id, state: cuts.state, nudges: cuts.nudges })
      .from(cuts)
      .where(inArray(cuts.id, [...hearing.keys()]));
    for (const { id, ...wanted } of rows) hearing.get(id)?.(wanted);
  };
  const timer = setInterval(() => void look().catch(() => {}), LOOK_MS); // away: leases run out if it stays so
  return {
    follow: (cutId, hear) => {
      hearing.set(cutId, hear);
      return () => hearing.delete(cutId);
    },
    close: () => clearInterval(timer),
  };
}
