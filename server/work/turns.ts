/** Who is next where more is asked for than can be done at once: fair between people, short work before long. */

/** Work that waits for its turn. */
export interface Wanted {
  /** On whose behalf; null: nobody's. */
  readonly who: number | null;
  /** s that it is likely to take, by what is known when it is asked. */
  readonly seconds: () => number;
}

/** s from which work is long: of that a person has one at a time while others wait. */
const LONG = 1;

interface Waiting extends Wanted {
  readonly since: number;
  readonly begin: () => void;
}

export interface Turns {
  /** How many wait. */
  readonly waiting: () => number;
  /**
   * Waits for the work's turn.
   * @param signal gives it up while it waits: then this rejects with the signal's reason
   * @returns is called when the work is over
   */
  readonly take: (wanted: Wanted, signal?: AbortSignal) => Promise<() => void>;
}

/**
 * Among all that waits that is next which would be over soonest, less what it has waited: so what is short goes before what is
 * long, and what is long waits no longer than it takes by itself. A person's works wait one after the other, not all at once; while
 * a long one of theirs is done, another comes behind all that others want.
 * @param atOnce works at once
 * @param now s
 */
export function takeTurns(atOnce: number, now: () => number = () => performance.now() / 1000): Turns {
  let waiting: readonly Waiting[] = [];
  const running = new Set<Wanted>();
  /** When work of each was over last. */
  const lastEnds = new Map<number | null, number>();

  const isLong = ({ seconds }: Wanted): boolean => seconds() >= LONG;
  const isOneMore = (wanted: Wanted): boolean =>
    isLong(wanted) && [...running].some((one) => one.who === wanted.who && isLong(one));
  const rank = ({ who, seconds, since }: Waiting): number =>
    seconds() - (now() - Math.max(since, lastEnds.get(who) ?? since));
  const isBefore = (a: Waiting, b: Waiting): boolean => {
    const [one, other] = [isOneMore(a), isOneMore(b)];
    return one === other ? rank(a) < rank(b) : other;
  };

  function beginNext(): void {
    while (running.size < atOnce && waiting.length > 0) {
      const next = waiting.reduce((best, one) => (isBefore(one, best) ? one : best));
      waiting = waiting.filter((one) => one !== next);
      running.add(next);
      next.begin();
    }
  }

  return {
    waiting: () => waiting.length,
    take: (wanted, signal) =>
      new Promise((begun, given) => {
        signal?.throwIfAborted();
        const giveUp = (): void => {
          waiting = waiting.filter((one) => one !== mine);
          given(signal!.reason as Error);
        };
        const mine: Waiting = {
          ...wanted,
          since: now(),
          begin: () => {
            signal?.removeEventListener('abort', giveUp);
            begun(() => {
              running.delete(mine);
              lastEnds.set(mine.who, now());
              beginNext();
            });
          },
        };
        signal?.addEventListener('abort', giveUp, { once: true });
        waiting = [...waiting, mine];
        beginNext();
      }),
  };
}
