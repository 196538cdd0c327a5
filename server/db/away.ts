/** The database goes away and comes back: a restart, a network that drops, a machine that sleeps. */

/** PostgreSQL's error classes and codes for a connection that is not there, or not to be had (PostgreSQL 15, Appendix A). */
const AWAY_CODE = /^(08...|53[034]00|57P0[123])$/;
const AWAY_SYSTEM = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'ENOTFOUND',
  'EHOSTUNREACH',
]);
/** What the driver says in words only. */
const AWAY_WORDS =
  /connection terminated|timeout exceeded when trying to connect|client has encountered a connection error|connection error and is not queryable/i;

/** Whether an error says that the database cannot be reached just now, and not that it refused what was asked. */
export function isDatabaseAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const code = String((error as { code?: unknown }).code ?? '');
  if (AWAY_CODE.test(code) || AWAY_SYSTEM.has(code) || AWAY_WORDS.test(error.message)) return true;
  return isDatabaseAway(error.cause);
}

/** Whether the database refused a value: too large, no date, no text (PostgreSQL 15, Appendix A, class 22). */
export function isUnkeepable(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  return /^22/.test(String((error as { code?: unknown }).code ?? '')) || isUnkeepable(error.cause);
}

/** Whether a disk has no room: the server's own, or the database's (PostgreSQL 15, Appendix A, disk_full). */
export function isDiskFull(error: unknown): boolean {
  const { code, cause } = Object(error) as { code?: unknown; cause?: unknown };
  return (
    code === 'ENOSPC' || code === 'EDQUOT' || code === '53100' || (cause !== undefined && isDiskFull(cause))
  );
}

/** Whether there is one like it already, where there can be only one (PostgreSQL 15, Appendix A, unique_violation). */
export function isTaken(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  return (error as { code?: unknown }).code === '23505' || isTaken(error.cause);
}

const FIRST_WAIT_MS = 100;
const LONGEST_WAIT_MS = 3000;

/** Waits between tries: each twice as long as the one before, up to a limit. */
export function backOff(first = FIRST_WAIT_MS, longest = LONGEST_WAIT_MS): () => Promise<void> {
  let next = first;
  return () => {
    const wait = next;
    next = Math.min(longest, next * 2);
    return new Promise((done) => setTimeout(done, wait));
  };
}

/**
 * Does work that must not be lost: while the database is away it is tried again.
 * @param givenUp asked before every new try; when it says so, the last error is thrown
 */
export async function untilBack<T>(work: () => Promise<T>, givenUp: () => boolean): Promise<T> {
  const wait = backOff();
  for (;;) {
    try {
      return await work();
    } catch (error) {
      if (!isDatabaseAway(error) || givenUp()) throw error;
      await wait();
    }
  }
}
