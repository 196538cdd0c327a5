import { describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const dir = mkdtempSync(join(tmpdir(), 'plan-'));
const run = (...args: string[]) => {
  const { status, stderr, stdout } = spawnSync(
    process.execPath,
    ['--import', 'tsx', 'cli/plan.ts', ...args],
    { encoding: 'utf8' },
  );
  return { status, stderr, stdout };
};
const file = (name: string, content: string): string => {
  const path = join(dir, name);
  writeFileSync(path, content);
  return path;
};

describe('npm run plan', () => {
  test('writes the plan and both files of every film', () => {
    const out = join(dir, 'out');
    const { status } = run(
      'demo/art/marsh-wren.svg',
      '--width',
      '2ft',
      '--roll',
      '610',
      '--copies',
      '2',
      '--out',
      out,
    );
    expect(status).toBe(0);
    const plan = JSON.parse(readFileSync(join(out, 'plan.json'), 'utf8'));
    expect(plan.size.widthMm).toBeCloseTo(609.6, 3);
    expect(plan.films.map((f: { film: string }) => f.film)).toEqual(['damson', 'tide-blue', 'quince']);
    expect(plan.films[0]).toMatchObject({
      copies: 2,
      mirrored: false,
      strip: { rollMm: 610, cuttableMm: 584.6 },
    });
    expect(plan.totals.swaps).toBe(2);
    expect(readdirSync(out).sort()).toEqual([
      'damson.plt',
      'damson.svg',
      'plan.json',
      'quince.plt',
      'quince.svg',
      'tide-blue.plt',
      'tide-blue.svg',
    ]);
    expect(readFileSync(join(out, 'damson.plt'), 'latin1')).toMatch(/^IN;PA;SP1;/);
  }, 30_000);

  test.each([
    ['a file that is not there', () => ['nowhere.svg'], 'no file nowhere.svg'],
    ['no SVG at all', () => [file('a.svg', 'hello')], 'no drawing that can be read'],
    [
      'a cut-off file',
      () => [file('b.svg', '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0')],
      'stops in the middle',
    ],
    ['no size to speak of', () => ['demo/art/marsh-wren.svg', '--width', 'wide'], 'Not a length'],
    ['an unknown option', () => ['demo/art/marsh-wren.svg', '--wide', '3'], 'Usage'],
    ['half a copy', () => ['demo/art/marsh-wren.svg', '--copies', '0.5'], '--copies takes'],
  ])(
    '%s: status 2 and a sentence',
    (_, args, says) => {
      const { status, stderr } = run(...args());
      expect(status).toBe(2);
      expect(stderr).toContain(says);
      expect(stderr).not.toMatch(/\n\s+at /);
    },
    30_000,
  );
});
