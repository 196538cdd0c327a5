/**
 * The one way to run a parser that is not ours: in a process of its own, held by limits of the operating system, that
 * dies with whoever waits for it. How many run at once is up to the reading threads: each runs one at a time.
 */
import { spawn } from 'node:child_process';
import { tooComplicated } from './tooComplicated';

const MB = 1024 * 1024;

export interface Limits {
  /** Memory that it can write to, MB; address space that is only set aside does not count. */
  readonly memory: number;
  /** On one core, and by the clock twice as long, s. */
  readonly seconds: number;
  /** Of any file it writes, MB. */
  readonly fileSize: number;
}

/** What our own children take for a file of 40 MB, several times over. */
const OWN: Limits = { memory: 3000, seconds: 40, fileSize: 0 };
/** An engine that is fed must not be cut short by what it says about itself. */
const LARGEST_ANSWER = 600 * MB;

export interface Launch {
  readonly command: string;
  readonly args: readonly string[];
  readonly input: Uint8Array | string;
  readonly limits: Limits;
  /** Its whole environment besides the search path. */
  readonly env?: Readonly<Record<string, string>>;
  readonly cwd?: string;
}

/**
 * Runs a parser.
 * @returns what it wrote; empty when it was killed or crashed
 * @throws Error with code ENOENT when there is no such program
 */
export function launch({ command, args, input, limits, env = {}, cwd }: Launch): Promise<Buffer> {
  const { memory, seconds, fileSize } = limits;
  const held = [
    // the parent's thread is the one that waits: when it ends, by an abort or with the server, the child is killed
    ...['--pdeathsig', 'KILL', 'prlimit'],
    ...[`--data=${memory * MB}`, `--cpu=${seconds}`, `--fsize=${fileSize * MB}`, '--core=0', '--'],
    ...[command, ...args],
  ];
  return new Promise((done, fail) => {
    const child = spawn('setpriv', held, {
      stdio: ['pipe', 'pipe', 'pipe'],
      detached: true, // a process group of its own, to be killed as a whole
      env: { PATH: process.env.PATH, ...env },
      cwd,
    });
    const out: Buffer[] = [];
    let size = 0;
    let said = '';
    const kill = (): void => {
      try {
        process.kill(-child.pid!, 'SIGKILL');
      } catch {
        // gone already
      }
    };
    const timer = setTimeout(kill, seconds * 2000);
    child.stdout.on('data', (chunk: Buffer) => {
      size += chunk.length;
      if (size > LARGEST_ANSWER) return kill();
      out.push(chunk);
    });
    child.stderr.on('data', (chunk: Buffer) => (said = (said + chunk.toString()).slice(-500)));
    child.on('error', (error) => (clearTimeout(timer), fail(error)));
    child.stdin.on('error', () => {}); // the child may die before it has read everything; `close` tells
    child.on('close', (code) => {
      clearTimeout(timer);
      kill(); // whatever it has started
      const missing = code !== 0 && /failed to execute|No such file/.test(said) && said.includes(command);
      if (missing) return fail(Object.assign(new Error(`${command} is not here`), { code: 'ENOENT' }));
      done(size > LARGEST_ANSWER ? Buffer.alloc(0) : Buffer.concat(out));
    });
    child.stdin.end(input);
  });
}

/** One of our own children, a script of ours around a parser of others. @returns its bytes; empty when it was killed */
export const launchOwn = (
  script: string,
  args: readonly string[],
  input: Uint8Array | string,
): Promise<Buffer> =>
  launch({
    command: process.execPath,
    args: ['--max-old-space-size=1500', script, ...args],
    input,
    limits: OWN,
  });

/** One of our own children that answers in JSON. @throws FileProblem when there is no answer */
export async function askChild<T>(
  script: string,
  args: readonly string[],
  input: Uint8Array | string,
): Promise<T> {
  const output = await launchOwn(script, args, input);
  try {
    return JSON.parse(output.toString('utf8')) as T;
  } catch {
    throw tooComplicated('drawing');
  }
}

/** What a child of ours tells and gives: four bytes of length, so much JSON, and bytes (answer.mjs). */
export interface HeadedAnswer<Head> {
  readonly head: Head;
  readonly data: Buffer;
}

/** One of our own children that answers with bytes. @param what is read, for a person; @throws FileProblem when there is no answer */
export async function askForBytes<Head>(
  script: string,
  asked: object,
  input: Uint8Array | string,
  what: string,
): Promise<HeadedAnswer<Head>> {
  const answer = await launchOwn(script, [JSON.stringify(asked)], input);
  if (answer.length < 4) throw tooComplicated(what);
  const end = 4 + answer.readUInt32LE(0);
  return { head: JSON.parse(answer.subarray(4, end).toString()) as Head, data: answer.subarray(end) };
}
