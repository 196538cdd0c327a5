import { describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';

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

describe('every kind of file', () => {
  const out = join(dir, 'kinds');
  const planned = (...args: string[]) => {
    const { status, stderr } = run(...args, '--out', out);
    expect([status, status === 0 ? '' : stderr]).toEqual([0, '']);
    return JSON.parse(readFileSync(join(out, 'plan.json'), 'utf8'));
  };
  const codes = (plan: { findings: { code: string }[] }): string[] => plan.findings.map(({ code }) => code);

  test('DXF: the unit is asked for, and taken', () => {
    const disc = file(
      'disc.dxf',
      '0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n10\n0\n20\n0\n40\n5\n0\nENDSEC\n0\nEOF\n',
    );
    const asked = planned(disc);
    expect(codes(asked)).toContain('no-units');
    expect(asked.size.widthMm).toBeCloseTo(10, 2);
    const inches = planned(disc, '--units', 'in');
    expect(codes(inches)).not.toContain('no-units');
    expect(inches.size.widthMm).toBeCloseTo(254, 1);
    expect(run(disc, '--units', 'yd').stderr).toContain('--units takes one of');
  }, 60_000);

  test('HP-GL, EPS and a page of a PDF', async () => {
    expect(
      planned(file('a.plt', 'IN;SP1;PU0,0;PD4000,0,4000,2000,0,2000,0,0;PU;SP0;')).size.widthMm,
    ).toBeCloseTo(100, 2);
    const eps =
      '%!PS-Adobe-3.0 EPSF-3.0\n%%BoundingBox: 0 0 144 72\n1 0 0 setrgbcolor\n0 0 144 72 rectfill\nshowpage\n';
    expect(planned(file('a.eps', eps)).size).toEqual({ widthMm: 50.8, heightMm: 25.4 });
    const doc = new PDFDocument({ size: [288, 288], margin: 0 });
    const chunks: Buffer[] = [];
    doc.on('data', (chunk: Buffer) => chunks.push(chunk));
    const ended = new Promise((give) => doc.on('end', give));
    doc.rect(0, 0, 72, 72).fill('#1d3f86');
    doc.addPage().rect(0, 0, 144, 144).fill('#1d3f86');
    doc.end();
    await ended;
    const pdf = join(dir, 'a.pdf');
    writeFileSync(pdf, Buffer.concat(chunks));
    expect(planned(pdf).size.widthMm).toBeCloseTo(25.4, 2);
    expect(planned(pdf, '--page', '2').size.widthMm).toBeCloseTo(50.8, 2);
    expect(run(pdf, '--page', 'first').stderr).toContain('--page takes the number');
  }, 60_000);

  test('a picture, traced by what suits it or as asked; findings come as JSON with their fixes', async () => {
    const png = join(dir, 'a.png');
    await sharp(
      Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200"><rect width="300" height="200" fill="#fff"/><circle cx="100" cy="100" r="80" fill="#2e6f7e"/><rect x="190" y="40" width="100" height="3" fill="#b0202f"/></svg>',
      ),
    )
      .png()
      .toFile(png);
    const colours = planned(png);
    expect(colours.films.length).toBe(2);
    expect(planned(png, '--trace', 'brightness').films.length).toBe(1);
    expect(planned(png, '--trace', '2').films.length).toBe(1);
    expect(run(png, '--trace', '13').stderr).toContain('--trace takes');
    const narrow = colours.findings.find(({ code }: { code: string }) => code === 'narrow');
    expect(narrow).toMatchObject({ severity: 'check', limit: 1.5, fixes: [{ kind: 'thicken' }] });
    expect(narrow.measured).toBeLessThan(1.5);
  }, 60_000);
});

test('choices as an order stores them: folds, overlaps, marks, copies', () => {
  const out = join(dir, 'chosen');
  const choices = {
    artwork: {
      width: 600,
      height: null,
      lockAspect: true,
      pieces: [],
      lines: { colour: {}, layer: {}, shape: {}, stroke: {} },
      fixes: [],
      ignored: [],
    },
    films: {
      film: { '#2e6f7e': 'harbour' },
      off: [],
      order: [],
      fold: {},
      overlap: { harbour: { mode: 'full', by: 0 } },
      marks: { shape: 'ring', count: 2, size: 10, at: null },
      copies: { damson: 3 },
    },
    layout: {
      copies: 2,
      spacing: 10,
      turn: 'as-drawn',
      mirror: 'by-film',
      border: true,
      borderDistance: 5,
      place: 'edge',
    },
    cut: { recipes: {} },
    cutter: null,
  };
  const path = file('choices.json', JSON.stringify(choices));
  expect(run('demo/art/marsh-wren.svg', '--choices', path, '--out', out).status).toBe(0);
  const plan = JSON.parse(readFileSync(join(out, 'plan.json'), 'utf8'));
  const byId = Object.fromEntries(plan.films.map((f: { film: string }) => [f.film, f]));
  expect(byId.harbour).toMatchObject({ mode: 'full', copies: 2, colour: '#1d3f86' });
  expect(byId.harbour.deltaE).toBeGreaterThan(5);
  expect(byId.damson).toMatchObject({ mode: 'trap', overlapMm: 0.8, copies: 3 });
  // two marks, each a tab with a ring in it: two pieces a mark beside the wave
  expect(byId.quince.pieces).toBe(1 + 2 * 2);
  const wrong = file('wrong.json', JSON.stringify({ ...choices, layout: { ...choices.layout, copies: 0 } }));
  expect(run('demo/art/marsh-wren.svg', '--choices', wrong).stderr).toContain('layout.copies');
  expect(run('demo/art/marsh-wren.svg', '--choices', file('no.json', '{')).stderr).toContain('is no JSON');
}, 60_000);

test('ends with 1 when there is only what keeps it back, and says what', () => {
  const art =
    '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="50mm"><path d="M5 5h40v20H5z"/></svg>';
  const choices = {
    artwork: { width: null, height: null, lockAspect: true, pieces: [] },
    films: { off: ['#000000'] },
  };
  const off = file('off.json', JSON.stringify(choices));
  const { status, stderr } = run(file('off.svg', art), '--choices', off, '--out', join(dir, 'off'));
  expect(status).toBe(1);
  expect(stderr).toContain('stop: Every colour is switched off or printed, so there is nothing to cut.');
}, 60_000);

describe('larger than the cutter', () => {
  interface Summary {
    readonly panels: readonly { id: string; film: string; width: number; height: number; areaMm2: number }[];
    readonly seams: readonly { axis: string; points: number[]; crossesMm: number; crossings: number }[];
    readonly strips: readonly { id: string; file: string; placements: { part: string }[] }[];
    readonly films: readonly { film: string; areaMm2: number }[];
  }
  const planned = (...args: string[]): Summary => {
    const out = mkdtempSync(join(tmpdir(), 'panels-'));
    expect(run('demo/art/race-hut.svg', '--width', '3280', ...args, '--out', out).status).toBe(0);
    const plan = JSON.parse(readFileSync(join(out, 'plan.json'), 'utf8')) as Summary;
    for (const { file } of plan.strips) expect(readdirSync(out)).toContain(file);
    return plan;
  };

  test.each(['equal', 'media', 'straight', '6x3'])(
    '--panels %s: none over the limit, no art lost',
    (way) => {
      const { panels, seams, strips, films } = planned('--panels', way, '--reserve', '12.7');
      expect(seams.length).toBeGreaterThan(0);
      // 610 mm film, 584.6 reached, less half a millimetre of swing and 5 mm of weed border at both edges, 12.7 in hand
      const limit = 610 - 25.4 - 1 - 10 - 12.7;
      for (const { width, height } of panels)
        expect(Math.min(width, height)).toBeLessThanOrEqual(limit + 0.002);
      for (const { film, areaMm2 } of films) {
        const own = panels.filter((panel) => panel.film === film);
        if (own.length === 0) continue;
        expect(Math.abs(own.reduce((sum, panel) => sum + panel.areaMm2, 0) - areaMm2)).toBeLessThan(60);
      }
      const placed = strips.flatMap(({ placements }) => placements.map(({ part }) => part));
      for (const { id } of panels) expect(placed).toContain(id);
    },
    60_000,
  );

  test('--overlap is shared by neighbours', () => {
    const area = ({ panels }: Summary): number => panels.reduce((sum, panel) => sum + panel.areaMm2, 0);
    const [apart, shared] = [planned('--panels', 'equal'), planned('--panels', 'equal', '--overlap', '20')];
    expect(area(shared)).toBeGreaterThan(area(apart));
  }, 60_000);

  test.each([
    ['--panels', 'sideways'],
    ['--overlap', '-3'],
  ])('%s %s is refused with a sentence', (...args) => {
    const { status, stderr } = run('demo/art/race-hut.svg', ...args);
    expect(status).toBe(2);
    expect(stderr).toContain(args[0]);
  });
});
