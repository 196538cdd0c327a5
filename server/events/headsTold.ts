/**
 * Heads of many machines told together, a few times a second: one by one they would be all that the database and the pages
 * have time for.
 */
import type { HeadNow } from '../../contracts/api';
import { rounded } from '../../core/units/rounded';

/** ms; of more machines than one person looks at, less often */
const [EVERY_MS, MANY_EVERY_MS] = [100, 200];
const MANY = 10;
/** Bytes of heads in one notice: PostgreSQL takes less than 8000 with what is around them. */
const AT_ONCE = 7900;

export interface HeadsTold {
  /** The newest of each cut counts. */
  readonly note: (head: HeadNow) => void;
  readonly close: () => void;
}

/** As few notices as they go into: each is sent to every page by itself. */
function asNotices(heads: readonly HeadNow[]): HeadNow[][] {
  const notices: HeadNow[][] = [];
  let room = 0;
  for (const head of heads) {
    const size = JSON.stringify(head).length + 1;
    if (size > room) {
      notices.push([]);
      room = AT_ONCE;
    }
    notices.at(-1)!.push(head);
    room -= size;
  }
  return notices;
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
    for (const heads of asNotices(all)) void tell(heads).catch(() => {});
  };
  return {
    note: ({ x, y, secondsDone, ...head }) => {
      moved.set(head.cutId, { ...head, x: rounded(x), y: rounded(y), secondsDone: rounded(secondsDone) });
      timer ??= setTimeout(flush, last > MANY ? MANY_EVERY_MS : EVERY_MS);
    },
    close: () => clearTimeout(timer),
  };
}
