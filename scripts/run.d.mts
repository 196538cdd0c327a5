import type { ChildProcess } from 'node:child_process';

/** Starts a program that prints `ready …` once it can be used. @returns what followed that word, and the process */
export function startUntilReady(
  command: string,
  args: readonly string[],
  env?: Readonly<Record<string, string>>,
): Promise<{ readonly said: string; readonly text: string; readonly child: ChildProcess }>;
