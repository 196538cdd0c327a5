/** Whoever guesses has to wait: tries are counted in the database, whichever server process they reach. */
import { createHash } from 'node:crypto';
import type pg from 'pg';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { Trouble } from '../problem';

/** Tries at one thing from one place, and from one place at whatever, within so many seconds. */
const LIMITS = {
  password: { points: 8, duration: 15 * 60 },
  pin: { points: 6, duration: 5 * 60 },
  place: { points: 80, duration: 15 * 60 },
} as const;
type Limited = keyof typeof LIMITS;

export interface Attempts {
  /**
   * Counts a try before it is looked at; one that was right is forgiven.
   * @param at what is tried, such as a name
   * @param from where the try comes from
   * @throws Trouble 429 when there were too many
   */
  readonly at: <T>(
    what: 'password' | 'pin',
    at: string,
    from: string,
    look: () => Promise<T | undefined>,
  ) => Promise<T | undefined>;
}

export function countAttempts(lines: pg.Pool): Attempts {
  const limiter = (what: Limited) =>
    new RateLimiterPostgres({
      storeClient: lines,
      tableName: 'attempts',
      tableCreated: true,
      keyPrefix: what,
      ...LIMITS[what],
    });
  const limiters = { password: limiter('password'), pin: limiter('pin'), place: limiter('place') };
  return {
    at: async (what, at, from, look) => {
      // names are as long as somebody types them
      const key = createHash('sha256').update(`${at.trim().toLowerCase()} ${from}`).digest('hex');
      await take(limiters.place, from);
      await take(limiters[what], key);
      const right = await look();
      if (right === undefined) return undefined;
      await Promise.all([limiters[what].delete(key), limiters.place.reward(from)]);
      return right;
    },
  };
}

async function take(limiter: RateLimiterPostgres, key: string): Promise<void> {
  try {
    await limiter.consume(key);
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error;
    const minutes = Math.max(1, Math.ceil(error.msBeforeNext / 60_000));
    throw new Trouble(
      429,
      'too-many-tries',
      `That was tried too often. Wait ${minutes === 1 ? 'a minute' : `${minutes} minutes`}, then try again; a lead can set a new password.`,
    );
  }
}
