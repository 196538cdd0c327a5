import { availableParallelism } from 'node:os';
import { basename, dirname } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { builtProgram } from '../../scripts/builtProgram.mjs';
import { tooBusy } from '../problem';
import { tooComplicated } from '../files/tooComplicated';
import { READING_LIMITS, watchThread } from './clock';
import type * as planningTasks from './planningTasks';
import type { Answer } from './readingTasks';
import type * as readingTasks from './readingTasks';
import { rememberSeconds } from './guess';
import { takeTurns } from './turns';

type Tasks = typeof planningTasks & typeof readingTasks;
type NameIn<T> = {
  [K in keyof T]: T[K] extends (...args: never[]) => unknown ? K : never;
}[keyof T];
export type TaskName = NameIn<Tasks>;

/** Whoever waits for some work. */
export interface Watch {
  /** Gives the work up: its thread ends and another takes its place. */
  readonly signal?: AbortSignal;
  /** Hears how far it has come, 0 … 1, from tasks that take a `port`. */
  readonly tell?: (share: number) => void;
}

export interface WorkPool {
  /** Tells one version of the computation from another: what an earlier one made is not given out by a later. */
  readonly version: string;
  /** @throws Trouble 503 when too much waits already */
  readonly run: <K extends TaskName>(
    name: K,
    input: Parameters<Tasks[K]>[0],
    watch?: Watch,
  ) => Promise<Awaited<ReturnType<Tasks[K]>>>;
  /** The same on somebody's behalf: where much waits, people take turns. */
  readonly onBehalfOf: (who: number | null) => WorkPool;
  readonly close: () => Promise<void>;
}

/** All that threads for reading do: neither do they wait for planning, nor does planning wait for a file. */
const READING: Readonly<Record<NameIn<typeof readingTasks>, true>> = {
  takeIn: true,
  read: true,
  typeset: true,
  lookAtFont: true,
  measurePicture: true,
  showPicture: true,
  readRecord: true,
};

/** Of what a thread that plans keeps, MB. */
const PLANNING_MEMORY = 1500;

const isOutOfMemory = (error: unknown): boolean =>
  (error as { code?: unknown }).code === 'ERR_WORKER_OUT_OF_MEMORY';

/** What is answered instead of a reading that was ended. */
const UNWORKABLE: Answer<never> = {
  ok: false,
  code: 'unworkable',
  message: tooComplicated('file').message,
};

/** Tasks that wait for one of them; whoever comes later is told so. */
const MOST_WAITING = 200;

/** The order that a plan is of, or about how large a file is: what it took last is what it will take. */
function aboutWhat(input: unknown): number | undefined {
  const { orderNumber, bytes } = input as { orderNumber?: number; bytes?: Uint8Array };
  return orderNumber ?? (bytes && Math.ceil(Math.log2(bytes.length + 1)));
}

/** Threads that plan, and threads that read files: of both as many as there are cores, each doing one thing at a time. */
export function openPool(threads = availableParallelism(), limits = READING_LIMITS): WorkPool {
  const open = (filename: string, memory: number): Piscina =>
    new Piscina({
      filename,
      minThreads: 1,
      maxThreads: threads,
      // a thread takes a second to start: one that was needed is likely to be needed again
      idleTimeout: 300_000,
      resourceLimits: { maxOldGenerationSizeMb: memory },
    });
  const program = builtProgram('server/work/planningTasks.ts');
  const planning = { pool: open(program, PLANNING_MEMORY), turns: takeTurns(threads) };
  const reading = {
    pool: open(builtProgram('server/work/readingTasks.ts'), limits.memory),
    turns: takeTurns(threads),
  };
  const { guess, learn } = rememberSeconds();
  const runNow: WorkPool['run'] = async (name, input, { signal, tell } = {}) => {
    const isReading = name in READING;
    const { pool } = isReading ? reading : planning;
    if (!tell && !isReading) return pool.run(input, { name, signal });
    const tooLong = new AbortController();
    const { port1, port2 } = new MessageChannel();
    let endWatch = (): void => {};
    port1.on('message', (said: number | { thread: string }) => {
      if (typeof said === 'number') tell?.(said);
      else endWatch = watchThread(said.thread, limits.seconds, () => tooLong.abort());
    });
    const ends = AbortSignal.any([tooLong.signal, ...(signal ? [signal] : [])]);
    try {
      return await pool.run(
        { ...(input as object), port: port2 },
        { name, signal: ends, transferList: [port2] },
      );
    } catch (error) {
      if (isReading && (tooLong.signal.aborted || isOutOfMemory(error))) return UNWORKABLE as never;
      throw error;
    } finally {
      endWatch();
      port1.close();
    }
  };
  const runFor =
    (who: number | null): WorkPool['run'] =>
    (name, input, watch = {}) => {
      const { turns } = name in READING ? reading : planning;
      if (turns.waiting() >= MOST_WAITING) return Promise.reject(tooBusy());
      const about = aboutWhat(input);
      return turns.take({ who, seconds: () => guess(name, about) }, watch.signal).then((end) => {
        const began = performance.now();
        return runNow(name, input, watch).finally(() => {
          learn(name, about, (performance.now() - began) / 1000);
          end();
        });
      });
    };
  const poolFor = (who: number | null): WorkPool => ({
    version: basename(dirname(program)),
    run: runFor(who),
    onBehalfOf: poolFor,
    close: async () => void (await Promise.all([planning.pool.destroy(), reading.pool.destroy()])),
  });
  return poolFor(null);
}
