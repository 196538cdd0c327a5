import { expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const PROCESSES = 6;
const PROGRAMS = 25;
const BEFORE = 400;

test('servers that start at once write their programs beside one another, and none fails', async () => {
  const room = mkdtempSync(join(tmpdir(), 'at-once-'));
  for (let k = 0; k < PROGRAMS; k++) writeFileSync(join(room, `p.${k}.ts`), `export const k: number = ${k};`);
  // many to look through: meanwhile others write theirs
  const programs = join(room, '.data/cache/programs');
  mkdirSync(programs, { recursive: true });
  for (let k = 0; k < BEFORE; k++) mkdirSync(join(programs, `p-${String(k).padStart(16, '0')}`));
  const program = `
    import { builtProgram } from ${JSON.stringify(join(process.cwd(), 'scripts/builtProgram.mjs'))};
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
  const written = readdirSync(programs);
  expect(written.every((name) => /^p-[0-9a-f]{16}$/.test(name))).toBe(true);
  expect(written).toHaveLength(BEFORE + PROGRAMS);
});

test('what goes wrong is told by the lines that people wrote; a start that was killed half-way is in nobody’s way', async () => {
  const room = mkdtempSync(join(tmpdir(), 'goes-wrong-'));
  writeFileSync(join(room, 'p.ts'), `\nconst late = (): Promise<never> => import('./late').then(({ fail }) => fail());\nvoid late();\n`); // prettier-ignore
  writeFileSync(
    join(room, 'late.ts'),
    `\n\nexport function fail(): never {\n  throw new Error('wrong');\n}\n`,
  );
  const scripts = JSON.stringify(join(process.cwd(), 'scripts'));
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
