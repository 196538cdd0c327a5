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
  for (let k = 0; k < BEFORE; k++) writeFileSync(join(programs, `p-${String(k).padStart(16, '0')}.mjs`), '');
  const program = `
    import { oneFileOf } from ${JSON.stringify(join(process.cwd(), 'scripts/oneFile.mjs'))};
    import { renameSync, copyFileSync } from 'node:fs';
    for (let k = 0; k < ${PROGRAMS}; k++) {
      // the same name, with something else in it each time
      copyFileSync('p.' + k + '.ts', process.pid + '.tmp');
      renameSync(process.pid + '.tmp', 'p.ts');
      if ((await import(oneFileOf('p.ts'))).k === undefined) throw new Error('half a file');
    }`;
  const started = Array.from({ length: PROCESSES }, () => {
    const child = spawn(process.execPath, ['--input-type=module', '-e', program], { cwd: room });
    let said = '';
    child.stderr.on('data', (text: Buffer) => (said += text.toString()));
    return new Promise<string>((done) => child.on('exit', (status) => done(`${status} ${said}`)));
  });
  for (const end of await Promise.all(started)) expect(end).toBe('0 ');
  const written = readdirSync(programs);
  expect(written.every((name) => /^p-[0-9a-f]{16}\.mjs$/.test(name))).toBe(true);
  expect(written).toHaveLength(BEFORE + PROGRAMS);
});
