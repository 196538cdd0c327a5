import { describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { Resvg } from '@resvg/resvg-js';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readPlt } from '../core/readers/plt/readPlt';
import { flatten, pathBounds } from '../core/geometry/path';
import { regionBounds, weld } from '../core/geometry/region';
import { run } from './run';

const dir = mkdtempSync(join(tmpdir(), 'sheets-'));
async function print(...args: string[]) {
  const out = mkdtempSync(join(dir, 'out-'));
  const [log, err]: [string[], string[]] = [[], []];
  const says = { log: (text: string) => log.push(text), error: (text: string) => err.push(text) };
  const status = await run([...args, '--print', '--out', out], says);
  const plan = status === 2 ? undefined : JSON.parse(readFileSync(join(out, 'plan.json'), 'utf8'));
  return { status, out, plan, says: err.join('\n') };
}
const BIRD = 'demo/art/marsh-wren.svg';

describe('npm run plan -- art.svg --print', () => {
  test('writes a PDF and a cut for every sheet that the copies need, and where everything is', async () => {
    const { status, out, plan } = await print(BIRD, '--width', '75', '--sheet', 'A4', '--contour', '2', '--bleed', '1', '--copies', '9', '--marks', 'out'); // prettier-ignore
    expect(status).toBe(0);
    const { sheets } = plan as {
      sheets: { placements: { copy: number }[]; marks: object[]; lines: object[] }[];
    };
    expect(readdirSync(out).sort()).toEqual(
      ['plan.json', ...sheets.flatMap((_, i) => [`sheet-${i + 1}.pdf`, `sheet-${i + 1}.plt`])].sort(),
    );
    expect(sheets.flatMap(({ placements }) => placements.map(({ copy }) => copy))).toEqual(
      Array.from({ length: 9 }, (_, i) => i + 1),
    );
    expect(sheets[0]).toMatchObject({
      width: 297,
      height: 210,
      marks: { length: 5 },
      lines: [{ kind: 'kiss' }],
    });
    const { stdout } = spawnSync('pdfinfo', [join(out, 'sheet-1.pdf')], { encoding: 'utf8' });
    expect(stdout).toMatch(/Page size:\s+841\.89 x 595\.27\d? pts/);
  }, 60_000);

  test('cuts where it prints: the cut, read back, lies around every copy as far off as asked', async () => {
    const art = join(dir, 'box.svg');
    writeFileSync(art, '<svg xmlns="http://www.w3.org/2000/svg" width="50mm" height="30mm" viewBox="0 0 50 30"><path fill="#b0202f" d="M0 0H50V30H0Z"/></svg>'); // prettier-ignore
    const { out, plan } = await print(art, '--sheet', '420x320', '--contour', '3', '--copies', '4');
    const { shapes } = readPlt(readFileSync(join(out, 'sheet-1.plt'), 'latin1'));
    const boxes = shapes.map(({ path, matrix }) => pathBounds(path, matrix));
    const rings = shapes.flatMap(({ path, matrix }) => flatten(path, matrix).map(({ points }) => points));
    const cut = regionBounds(weld(rings));
    const [first, last] = [plan.sheets[0].placements[0], plan.sheets[0].placements[3]];
    expect(Math.max(first.widthMm, first.heightMm)).toBeCloseTo(56, 2);
    expect(boxes.length).toBeGreaterThanOrEqual(4);
    // overcut and the stroke that turns the blade go past the line a little
    expect(cut.maxX - cut.minX).toBeGreaterThan(last.x + last.widthMm - first.x - 0.5);
  }, 60_000);

  test.each([
    [['--sheet', 'A9'], '--sheet takes'],
    [['--sheet', '20x20'], '--sheet takes'],
    [['--marks', 'stars'], '--marks takes one of in, out, dots'],
    [['--contour', 'wide'], '--contour'],
    [['--bleed', '-1'], '--bleed'],
  ])('%j is told', async (args, says) => {
    const { status, says: said } = await print(BIRD, ...args);
    expect(status).toBe(2);
    expect(said).toContain(says);
  });

  test('art that no sheet takes, and a line so far inside that nothing is left, keep it back', async () => {
    const large = await print(BIRD, '--width', '900', '--panels', 'never');
    expect([large.status, large.plan.sheets]).toEqual([1, []]);
    expect(large.says).toMatch(/stop: .* 9\d\d\.\d mm ×/);
    const apart = await print(BIRD, '--width', '900');
    const panels = (apart.plan.sheets as { panel: number }[]).map(({ panel }) => panel);
    expect([apart.status, panels]).toEqual([0, panels.map((_, i) => i + 1)]);
    expect(panels.length).toBeGreaterThan(3);
    const gone = await print(BIRD, '--width', '60', '--contour=-20');
    expect(gone.status).toBe(1);
    expect(gone.says).toContain('Nothing is left');
  }, 60_000);

  test('a picture is printed as it is, unless it is to be traced', async () => {
    const png = join(dir, 'badge.png');
    const svg = '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><linearGradient id="g"><stop stop-color="#2e6f7e"/><stop offset="1" stop-color="#b0202f"/></linearGradient><ellipse cx="200" cy="150" rx="180" ry="130" fill="url(#g)"/></svg>'; // prettier-ignore
    writeFileSync(png, new Resvg(svg).render().asPng());
    const { status, out } = await print(png, '--width', '60', '--bleed', '2');
    expect(status).toBe(0);
    expect(readFileSync(join(out, 'sheet-1.pdf'), 'latin1')).toContain('/Subtype /Image');
    const traced = await print(png, '--width', '60', '--trace', 'alpha');
    expect(readFileSync(join(traced.out, 'sheet-1.pdf'), 'latin1')).not.toContain('/Subtype /Image');
  }, 60_000);
});
