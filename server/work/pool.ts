import { join } from 'node:path';
import { Piscina } from 'piscina';
import type * as tasks from './tasks';

type Tasks = typeof tasks;
export type TaskName = {
  [K in keyof Tasks]: Tasks[K] extends (...args: never[]) => unknown ? K : never;
}[keyof Tasks];

export interface WorkPool {
  readonly run: <K extends TaskName>(
    name: K,
    input: Parameters<Tasks[K]>[0],
    /** Gives the work up: its thread ends and another takes its place. */
    signal?: AbortSignal,
  ) => Promise<Awaited<ReturnType<Tasks[K]>>>;
  readonly close: () => Promise<void>;
}

/** Threads that plan and read files, as many as there are cores to spare. */
export function openPool(threads = 2): WorkPool {
  const pool = new Piscina({
    filename: join(process.cwd(), 'server/work/worker.mjs'),
    minThreads: 1,
    maxThreads: threads,
    maxQueue: 200,
    resourceLimits: { maxOldGenerationSizeMb: 1500 },
  });
  return { run: (name, input, signal) => pool.run(input, { name, signal }), close: () => pool.destroy() };
}
