import { describe, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Spot } from '../core/geometry/spot';
import { distorted, marksOf } from '../core/registration/noise.testing';
import { runFit } from './runFit';

const dir = mkdtempSync(join(tmpdir(), 'fit-'));
async function fit(content: unknown) {
  const path = join(dir, 'marks.json');
  writeFileSync(path, typeof content === 'string' ? content : JSON.stringify(content));
  const [out, err]: [string[], string[]] = [[], []];
  const status = await runFit([path], { log: (text) => out.push(text), error: (text) => err.push(text) });
  return { status, said: out.length > 0 ? JSON.parse(out[0]) : undefined, problem: err.join('\n') };
}
const marks = (map: (at: Spot) => Spot) =>
  marksOf(384, 250, 1).map((designed) => ({ designed, measured: map(designed) }));

describe('npm run fit', () => {
  test('says how the sheet lies, what each mark is off, and where places of it are', async () => {
    const map = distorted(384, { rotation: 1.31, scaleX: 1.0012, bow: 0.41 });
    const { status, said } = await fit({ marks: marks(map), at: [[100, 50]] });
    expect(status).toBe(0);
    expect(said).toMatchObject({
      lies: 'as-designed',
      model: 'bow',
      parameters: { bowMm: 0.41, scaleX: 1.0012, scaleY: 1, mirrored: false },
      refused: false,
      isExplained: true,
    });
    expect(said.parameters.rotationDeg).toBeCloseTo(1.31, 4);
    expect(said.tried.map(({ model }: { model: string }) => model)).toEqual(
      expect.arrayContaining(['similarity', 'affine', 'bow']),
    );
    const [x, y] = map([100, 50]);
    expect(said.at[0].lies[0]).toBeCloseTo(x, 5);
    expect(said.at[0].lies[1]).toBeCloseTo(y, 5);
    expect(said.at[0].expectedMm).toBeGreaterThan(0);
    expect(said.residualsMm).toHaveLength(6);
  });

  test('refuses what may not be cut, with words; limits can be set', async () => {
    const small = { marks: marks(distorted(384, { scaleX: 0.98, scaleY: 0.98 })) };
    const { status, said } = await fit(small);
    expect([status, said.refused, said.findings[0].code]).toEqual([1, true, 'sheet-rescaled']);
    expect((await fit({ ...small, limits: { scale: 0.05 } })).status).toBe(0);
  });

  test.each([
    ['no file of marks', '{ "marks": [] }', 'marks'],
    ['no JSON', 'marks: 1, 2', 'marks.json'],
    ['half a mark', '{ "marks": [{ "designed": [1, 2] }, { "designed": [1, 2] }] }', 'measured'],
    [
      'places that are no numbers',
      '{ "marks": [{"designed":[1,null],"measured":[1,2]},{"designed":[1,2],"measured":[1,2]}] }',
      'designed',
    ],
  ])('%s is told', async (_, content, says) => {
    const { status, problem } = await fit(content);
    expect(status).toBe(2);
    expect(problem).toContain(says);
  });

  test('a question that is none is told', async () => {
    const err: string[] = [];
    const console = { log: () => {}, error: (text: string) => void err.push(text) };
    expect(await runFit([], console)).toBe(2);
    expect(await runFit([join(dir, 'nowhere.json')], console)).toBe(2);
    expect(err[0]).toContain('Usage');
    expect(err[1]).toContain('nowhere.json');
  });

  test('marks at one place tell nothing, and that is a refusal', async () => {
    const one = { designed: [5, 5], measured: [9, 9] };
    const { status, said } = await fit({ marks: [one, one, one] });
    expect([status, said.findings[0].code]).toEqual([1, 'another-sheet']);
  });
});
