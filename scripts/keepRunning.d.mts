import type { ChildProcess } from 'node:child_process';

/** Starts a program, and starts it again with growing delays (ms: the first, and the longest) whenever it ends. */
export function keepRunning<Started extends { readonly child: ChildProcess }>(
  name: string,
  start: () => Promise<Started>,
  log: (text: string) => void,
  delays?: readonly [number, number],
): Promise<{ readonly now: () => Started; readonly end: () => Promise<unknown>; readonly kill: () => void }>;
