/** Foreign parsers are held by the operating system: memory, time, files, and their parent's life. */
import { afterAll, describe, expect, test } from '@jest/globals';
import { execFileSync, spawn } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { launch } from './launch';
import { ownFolder } from './ownFolder';
import { readFile } from './readFile';

const LIMITS = { memory: 4000, seconds: 2, fileSize: 1 };
const node = (script: string, limits = LIMITS, cwd?: string) =>
  launch({ command: process.execPath, args: ['-e', script], input: '', limits, cwd });
const scratch = mkdtempSync(join(tmpdir(), 'launch-'));
afterAll(() => rmSync(scratch, { recursive: true, force: true }));

const isAlive = (pid: number): boolean => {
  try {
    // a zombie is as good as dead
    return !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'));
  } catch {
    return false;
  }
};
const gone = async (pid: number): Promise<boolean> => {
  for (let i = 0; i < 100 && isAlive(pid); i++) await new Promise((done) => setTimeout(done, 50));
  return !isAlive(pid);
};

describe('limits', () => {
  test('what it writes comes back, its environment is empty', async () => {
    expect((await node('process.stdout.write("tern")')).toString()).toBe('tern');
    process.env.HARBOUR_SECRET = 'kept';
    const env = JSON.parse((await node('process.stdout.write(JSON.stringify(process.env))')).toString());
    expect(Object.keys(env)).toEqual(['PATH']);
  });

  test('one that eats memory outside the heap, computes without end or only waits is ended', async () => {
    const hungry = `const all = []; for (;;) all.push(Buffer.alloc(1e8, 1));`;
    const endless = ['for (;;);', 'setTimeout(() => process.stdout.write("late"), 9e3)'];
    for (const said of await Promise.all([hungry, ...endless].map((script) => node(script))))
      expect(said).toHaveLength(0);
  }, 30_000);

  test('files stay small', async () => {
    const script = `process.on('SIGXFSZ', () => {}); require('fs').writeFileSync('big', Buffer.alloc(5e6))`;
    await node(script, LIMITS, scratch);
    expect(statSync(join(scratch, 'big')).size).toBeLessThanOrEqual(1024 * 1024);
  });

  test('what it has started ends with it', async () => {
    const script = `const c = require('child_process').spawn('sleep', ['600']); process.stdout.write(String(c.pid)); process.exit(0)`;
    expect(await gone(Number((await node(script)).toString()))).toBe(true);
  });

  test('a program that is not there is told as such', async () => {
    const nobody = launch({ command: 'no-such-program', args: [], input: '', limits: LIMITS });
    await expect(nobody).rejects.toMatchObject({ code: 'ENOENT' });
  });

  test('it dies with its parent, killed or not', async () => {
    const parent = `
      import { builtProgram } from './scripts/builtProgram.mjs';
      const { launch } = await import(builtProgram('server/files/launch.ts'));
      launch({ command: 'sleep', args: ['123'], input: '', limits: { memory: 500, seconds: 60, fileSize: 0 } });
      setTimeout(() => console.log('ready'), 300);`;
    const child = spawn(process.execPath, ['--input-type=module', '-e', parent], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await new Promise((done) => child.stdout.once('data', done));
    const pid = Number(execFileSync('pgrep', ['-n', '-f', '^sleep 123$']).toString());
    expect(isAlive(pid)).toBe(true);
    child.kill('SIGKILL');
    expect(await gone(pid)).toBe(true);
  }, 30_000);
});

describe('EPS is a program', () => {
  const eps = (body: string): Buffer =>
    Buffer.from(
      `%!PS-Adobe-3.0 EPSF-3.0\n%%BoundingBox: 0 0 100 100\n${body}\n10 10 50 50 rectfill\nshowpage\n%%EOF\n`,
    );
  const victim = join(tmpdir(), 'jam-pan-victim');

  test.each([
    ['writes in the shared folder', `{ (${victim}.new) (w) file (x) writestring closefile } stopped pop`],
    ['writes over what is there', `{ (${victim}) (w) file dup (spoilt) writestring closefile } stopped pop`],
    ['deletes what is there', `{ (${victim}) deletefile } stopped pop`],
    ['renames what is there', `{ (${victim}) (${victim}.new) renamefile } stopped pop`],
    ['starts a program', `{ (%pipe%touch ${victim}.new) (w) file closefile } stopped pop`],
  ])(
    'one that %s does not, and its drawing is read',
    async (_, attack) => {
      writeFileSync(victim, 'whole');
      const { shapes } = await readFile(eps(attack));
      expect(shapes).toHaveLength(1);
      expect(readFileSync(victim, 'utf8')).toBe('whole');
      expect(existsSync(`${victim}.new`)).toBe(false);
    },
    30_000,
  );

  test('one that looks at other files sees none, and leaves nothing behind', async () => {
    writeFileSync(victim, '40 0 0 rectfill');
    const look = `{ (${victim}) (r) file cvx exec } stopped pop  { (/etc/hostname) (r) file pop 70 70 20 20 rectfill } stopped pop`;
    expect((await readFile(eps(look))).shapes).toHaveLength(1);
    expect(readdirSync(await ownFolder('eps'))).toEqual([]);
  }, 30_000);

  test('one that never ends is ended', async () => {
    await expect(readFile(eps('{ } loop'))).rejects.toMatchObject({ name: 'FileProblem' });
  }, 120_000);
});

test('the folders of the app are for nobody else', async () => {
  const folder = await ownFolder('tried');
  expect(statSync(folder).mode & 0o777).toBe(0o700);
  rmSync(folder, { recursive: true });
  mkdirSync(folder, { mode: 0o777 });
  expect(statSync(await ownFolder('tried')).mode & 0o777).toBe(0o700);
});
