/**
 * Heads of many machines told together, a few times a second: one by one they would be all that the database and the pages
 * have time for.
 */
import type { HeadNow } from '../../contracts/api';
import { rounded } from '../../core/units/rounded';

/** ms; of more machines than one person looks at, less often */
const [EVERY_MS, MANY_EVERY_MS] = [100, 200];
const MANY = 10;
/** In one notice: PostgreSQL takes 8000 bytes, and a head is less than 160. */
const AT_ONCE = 45;

export interface HeadsTold {
  /** The newest of each cut counts. */
  readonly note: (head: HeadNow) => void;
  readonly close: () => void;
}

export function tellHeads(tell: (heads: readonly HeadNow[]) => Promise<void>): HeadsTold {
  const moved = new Map<number, HeadNow>();
  let last = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const flush = (): void => {
    timer = undefined;
    const all = [...moved.values()];
    moved.clear();
    last = all.length;
    // what is not told now is told with the next
    for (let k = 0; k < all.length; k += AT_ONCE) void tell(all.slice(k, k + AT_ONCE)).catch(() => {});
  };
  return {
    note: ({ x, y, secondsDone, ...head }) => {
      moved.set(head.cutId, { ...head, x: rounded(x), y: rounded(y), secondsDone: rounded(secondsDone) });
      timer ??= setTimeout(flush, last > MANY ? MANY_EVERY_MS : EVERY_MS);
    },
    close: () => clearTimeout(timer),
  };
}
