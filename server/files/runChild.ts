import { spawn } from 'node:child_process';
import { FileProblem } from './fileProblem';

const PATIENCE_MS = 60_000;

/**
 * Runs a parser in a process of its own, with a limit on time and memory.
 * @returns what it wrote; empty when it was killed or crashed
 */
export function runChild(
  command: string,
  args: readonly string[],
  input: Uint8Array | string,
): Promise<Buffer> {
  return new Promise((done, fail) => {
    const child = spawn(command, args, { stdio: ['pipe', 'pipe', 'ignore'] });
    const out: Buffer[] = [];
    const timer = setTimeout(() => child.kill('SIGKILL'), PATIENCE_MS);
    child.stdout.on('data', (chunk: Buffer) => out.push(chunk));
    child.on('error', fail);
    child.stdin.on('error', () => {}); // the child may die before it has read everything; `close` tells
    child.on('close', () => {
      clearTimeout(timer);
      done(Buffer.concat(out));
    });
    child.stdin.end(input);
  });
}

/** One of our own children, which answer in JSON. @throws FileProblem when there is no answer */
export async function askChild<T>(
  script: string,
  args: readonly string[],
  input: Uint8Array | string,
): Promise<T> {
  const output = await runChild(process.execPath, ['--max-old-space-size=1200', script, ...args], input);
  try {
    return JSON.parse(output.toString('utf8')) as T;
  } catch {
    throw new FileProblem(
      'unworkable',
      'The drawing is too complicated to read: it took longer than a minute or more memory than there is. Simplify it and bring it in again.',
    );
  }
}
