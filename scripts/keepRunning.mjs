// Programs that are started again when they end, for ever, with growing delays: one that cannot start stops no other.

/** ms before the first new start, and at most. */
const [FIRST_DELAY, MOST_DELAY] = [1000, 30_000];
/** ms that a program has run for when its end is no longer taken for a failed start. */
const STEADY = 60_000;

/**
 * @param name for the log
 * @param start starts it; @returns a promise of { child, … } as soon as it is ready
 * @param log takes sentences
 * @param delays for tests: shorter ones
 * @returns the first that ran, `now()` the one that runs, and `end()` ends it for good
 */
export async function keepRunning(name, start, log, delays = [FIRST_DELAY, MOST_DELAY]) {
  const [first, most] = delays;
  let running = await start();
  let isOver = false;
  let delay = first;
  let since = Date.now();
  let timer;

  const watch = () => {
    running.child.removeAllListeners('exit');
    running.child.once('exit', () => {
      if (isOver) return;
      if (Date.now() - since > STEADY) delay = first;
      log(`${name} ended and is started again.`);
      again();
    });
  };
  const again = () => {
    timer = setTimeout(async () => {
      try {
        const next = await start();
        if (isOver) return void next.child.kill('SIGKILL');
        running = next;
        since = Date.now();
        watch();
        log(`${name} runs again.`);
      } catch (error) {
        if (isOver) return;
        delay = Math.min(most, 2 * delay);
        log(
          `${name} could not be started again: ${firstLine(error)} Next try in ${Math.ceil(delay / 1000)} s.`,
        );
        again();
      }
    }, delay);
  };
  watch();
  return {
    now: () => running,
    /** @returns a promise that is kept once it has ended */
    end: () => {
      isOver = true;
      clearTimeout(timer);
      const { child } = running;
      child.removeAllListeners('exit');
      if (child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
      const ended = new Promise((done) => child.once('exit', done));
      child.kill('SIGTERM');
      return ended;
    },
    kill: () => running.child.kill('SIGKILL'),
  };
}

const firstLine = (error) => `${String(error?.message ?? error).split('\n')[0]}.`;
