/**
 * Feeds a cutter that answers nothing: as fast as it takes, and never further ahead than a few seconds of what it is reckoned to
 * cut, so that a stop takes hold. How far it is is reckoned too.
 */
import { linesWithin, ANNOUNCED_BYTES, saidAs, startOf } from './feed';
import type { FeedCallbacks } from './feed';
import type { SentProgram } from '../work/makeCuts';
import type { FolderLink } from '../db/link';
import { writeCut } from './links/folder';
import type { CutterLink } from './links/link';
import { LinkLost } from './links/link';
import type { Place } from './whereabouts';

/** s that it is fed ahead: a machine that is faster than it is reckoned does not wait. */
const AHEAD_S = 8;
const TICK_MS = 100;

/** A clock that tests turn. */
export interface Clock {
  /** ms */
  readonly now: () => number;
  readonly sleep: (ms: number) => Promise<void>;
}
const REAL: Clock = {
  now: () => performance.now(),
  sleep: (ms) => new Promise((done) => setTimeout(done, ms)),
};

/** @returns how many lines it was given in all: what it was given it cuts */
export async function feedSilently(
  link: Pick<CutterLink, 'send'>,
  program: SentProgram,
  from: Place,
  callbacks: FeedCallbacks,
  clock: Clock = REAL,
): Promise<number> {
  const { announce, shouldStop } = callbacks;
  const { lines, doneAt } = program;
  const say = saidAs(callbacks);
  const reckoned = reckoning(program, from.line, callbacks, clock);
  let announced = from.line;
  let given = from.line;
  await link.send(startOf(program, from, say));
  while (given < lines.length && !shouldStop()) {
    if (doneAt[given] - reckoned.seconds() > AHEAD_S && given > reckoned.lines(given)) {
      await clock.sleep(TICK_MS);
      reckoned.tell(given);
      continue;
    }
    if (given >= announced) {
      announced = linesWithin(lines, given, ANNOUNCED_BYTES);
      await announce(announced);
      if (shouldStop()) break;
    }
    await link.send(say(lines[given], given, true));
    given++;
    reckoned.waitFor(given);
    reckoned.tell(given);
  }
  if (given === lines.length) await link.send(program.tail);
  while (reckoned.lines(given) < given) {
    await clock.sleep(TICK_MS);
    reckoned.tell(given);
  }
  return given;
}

/** Writes all that is left of a cut into a folder, and waits as long as that is said to take. */
export async function feedFolder(
  { folder }: FolderLink,
  name: string,
  program: SentProgram,
  from: Place,
  callbacks: FeedCallbacks,
  clock: Clock = REAL,
): Promise<number> {
  const { lines, tail } = program;
  const say = saidAs(callbacks);
  const rest = lines.slice(from.line).map((line, i) => say(line, from.line + i, true));
  await callbacks.announce(lines.length);
  const takeBack = await writeCut(folder, name, startOf(program, from, say) + rest.join('') + tail);
  const reckoned = reckoning(program, from.line, callbacks, clock);
  while (reckoned.lines(lines.length) < lines.length) {
    if (callbacks.shouldStop()) {
      if (await takeBack()) return from.line;
      throw new LinkLost('its file is taken from the folder already: stop it at its own panel');
    }
    await clock.sleep(TICK_MS);
    reckoned.tell(lines.length);
  }
  return lines.length;
}

/** How far it is by the time that its lines are said to take. */
function reckoning({ doneAt }: SentProgram, from: number, { progress }: FeedCallbacks, { now }: Clock) {
  const base = from > 0 ? doneAt[from - 1] : 0;
  let begun = now();
  // never backwards
  let done = from;
  const seconds = (): number => base + (now() - begun) / 1000;
  const lines = (given: number): number => {
    const at = seconds();
    while (done < given && doneAt[done] <= at) done++;
    return done;
  };
  return {
    seconds,
    lines,
    /** It took a line only now: it is no further than before that one, whatever the clock says. */
    waitFor: (given: number): void => {
      const before = given > 1 ? doneAt[given - 2] : 0;
      if (seconds() > before) begun = now() - 1000 * Math.max(0, before - base);
    },
    tell: (given: number): void => progress(undefined, lines(given)),
  };
}
