/** How long threads compute, and the end of those that take too long. */
import { readFileSync } from 'node:fs';

/** Ticks of the processor's time a second, as Linux counts them for programs. */
const TICKS = 100;
/** ms between two looks. */
const EVERY = 500;

/** What reading one file may take. */
export interface ReadingLimits {
  /** Of one core; waiting for another process does not count. */
  readonly seconds: number;
  /** Of what a thread keeps, MB. */
  readonly memory: number;
}

export const READING_LIMITS: ReadingLimits = { seconds: 40, memory: 1500 };

/** @param thread below /proc; @returns seconds of the processor that it took so far (proc(5), stat: utime and stime) */
function secondsOf(thread: string): number {
  const stat = readFileSync(`/proc/${thread}/stat`, 'utf8');
  // its name may hold blanks and brackets
  const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
  return (Number(fields[11]) + Number(fields[12])) / TICKS;
}

/**
 * Calls `onOver` once a thread has computed for so long from now on.
 * @returns ends the watch
 */
export function watchThread(thread: string, seconds: number, onOver: () => void): () => void {
  let start: number | undefined;
  const timer = setInterval(() => {
    try {
      const now = secondsOf(thread);
      start ??= now;
      if (now - start > seconds) onOver();
    } catch {
      clearInterval(timer); // the thread is gone
    }
  }, EVERY);
  timer.unref();
  return () => clearInterval(timer);
}
