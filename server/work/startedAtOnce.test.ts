import { expect, test } from '@jest/globals';
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const PROCESSES = 6;
const PROGRAMS = 25;
const BEFORE = 400;
const scripts = JSON.stringify(join(process.cwd(), 'scripts'));

test('servers that start at once write their programs beside one another, and none fails', async () => {
  const room = mkdtempSync(join(tmpdir(), 'at-once-'));
  for (let k = 0; k < PROGRAMS; k++) writeFileSync(join(room, `p.${k}.ts`), `export const k: number = ${k};`);
  // many to look through: meanwhile others write theirs
  const programs = join(room, '.data/cache/programs');
  mkdirSync(programs, { recursive: true });
  for (let k = 0; k < BEFORE; k++) mkdirSync(join(programs, `p-${String(k).padStart(16, '0')}`));
  const program = `
    import { builtProgram } from ${scripts.slice(0, -1)}/builtProgram.mjs";
    import { renameSync, copyFileSync } from 'node:fs';
    for (let k = 0; k < ${PROGRAMS}; k++) {
      // the same name, with something else in it each time
      copyFileSync('p.' + k + '.ts', process.pid + '.tmp');
      renameSync(process.pid + '.tmp', 'p.ts');
      if ((await import(builtProgram('p.ts'))).k === undefined) throw new Error('half a file');
    }`;
  const started = Array.from({ length: PROCESSES }, () => {
    const child = spawn(process.execPath, ['--input-type=module', '-e', program], { cwd: room });
    let said = '';
    child.stderr.on('data', (text: Buffer) => (said += text.toString()));
    return new Promise<string>((done) => child.on('exit', (status) => done(`${status} ${said}`)));
  });
  for (const end of await Promise.all(started)) expect(end).toBe('0 ');
  const written = readdirSync(programs).filter((name) => name !== 'p.ts.json');
  expect(written.every((name) => /^p-[0-9a-f]{16}$/.test(name))).toBe(true);
  // one that all of them were overtaken in is written by none
  expect(written.length).toBeGreaterThan(BEFORE + PROGRAMS / 2);
  expect(written.length).toBeLessThanOrEqual(BEFORE + PROGRAMS);
});

test('what goes wrong is told by the lines that people wrote; a start that was killed half-way is in nobody’s way', async () => {
  const room = mkdtempSync(join(tmpdir(), 'goes-wrong-'));
  writeFileSync(join(room, 'p.ts'), `\nconst late = (): Promise<never> => import('./late').then(({ fail }) => fail());\nvoid late();\n`); // prettier-ignore
  writeFileSync(
    join(room, 'late.ts'),
    `\n\nexport function fail(): never {\n  throw new Error('wrong');\n}\n`,
  );
  const program = `
    import { mkdirSync, renameSync } from 'node:fs';
    import { dirname } from 'node:path';
    import { builtProgram } from ${scripts.slice(0, -1)}/builtProgram.mjs";
    const folder = dirname(builtProgram('p.ts'));
    renameSync(folder, folder + '.' + process.pid);
    await import(${scripts.slice(0, -1)}/program.mjs");`;
  const child = spawn(process.execPath, ['--input-type=module', '-e', program, 'x', 'p.ts'], { cwd: room });
  let said = '';
  child.stderr.on('data', (text: Buffer) => (said += text.toString()));
  await new Promise((done) => child.on('exit', done));
  expect(said).toContain('Error: wrong');
  expect(said).toContain(`${join(room, 'late.ts')}:4:`);
});

test('a program is built once, and again when a file of it, or one that is found before it, is another', () => {
  const room = mkdtempSync(join(tmpdir(), 'built-once-'));
  mkdirSync(join(room, 'deep'));
  writeFileSync(join(room, 'p.ts'), `export { k } from './deep/k';\n`);
  mkdirSync(join(room, 'deep/k'));
  writeFileSync(join(room, 'deep/k/index.ts'), 'export const k: number = 1;\n');
  // another one of the same name
  writeFileSync(join(room, 'deep/p.ts'), 'export const k: number = 5;\n');
  const k = (canBuild = true, entry = 'p.ts'): string => {
    const program = `
      import { builtProgram } from ${scripts.slice(0, -1)}/builtProgram.mjs";
      console.log((await import(builtProgram('${entry}'))).k);`;
    // nothing is noted of what was written a moment ago
    spawnSync('sleep', ['0.2']);
    const env = { ...process.env, ...(!canBuild && { ESBUILD_BINARY_PATH: '/bin/false' }) };
    const args = ['--input-type=module', '-e', program];
    return spawnSync(process.execPath, args, { cwd: room, env, encoding: 'utf8' }).stdout.trim();
  };
  expect([k(), k(true, 'deep/p.ts')]).toEqual(['1', '5']);
  expect([k(false), k(false, 'deep/p.ts')]).toEqual(['1', '5']);
  writeFileSync(join(room, 'deep/k/index.ts'), 'export const k: number = 2;\n');
  expect(k(false)).toBe('');
  expect([k(), k(false)]).toEqual(['2', '2']);
  // as old as the one before it, and as long
  const { atime, mtime } = statSync(join(room, 'deep/k/index.ts'));
  writeFileSync(join(room, 'deep/k/index.ts'), 'export const k: number = 3;\n');
  utimesSync(join(room, 'deep/k/index.ts'), atime, mtime);
  expect([k(), k(false)]).toEqual(['3', '3']);
  writeFileSync(join(room, 'deep/k.ts'), 'export const k: number = 4;\n');
  expect([k(), k(false)]).toEqual(['4', '4']);
  rmSync(join(room, '.data'), { recursive: true });
  expect([k(false), k()]).toEqual(['', '4']);
});
