import { describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';
import { run as plan } from './run';

const dir = mkdtempSync(join(tmpdir(), 'plan-'));
/** As from a shell, without a process of its own. */
const run = async (...args: string[]) => {
  const [out, err]: [string[], string[]] = [[], []];
  const status = await plan(args, { log: (text) => out.push(text), error: (text) => err.push(text) });
  return { status, stderr: err.join('\n'), stdout: out.join('\n') };
};
const file = (name: string, content: string): string => {
  const path = join(dir, name);
  writeFileSync(path, content);
  return path;
};

describe('npm run plan', () => {
  test('writes the plan and both files of every film', async () => {
    const out = join(dir, 'out');
    const { status } = await run(
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
    async (_, args, says) => {
      const { status, stderr } = await run(...args());
      expect(status).toBe(2);
      expect(stderr).toContain(says);
      expect(stderr).not.toMatch(/\n\s+at /);
    },
    30_000,
  );
});

describe('every kind of file', () => {
  const out = join(dir, 'kinds');
  const planned = async (...args: string[]) => {
    const { status, stderr } = await run(...args, '--out', out);
    expect([status, status === 0 ? '' : stderr]).toEqual([0, '']);
    return JSON.parse(readFileSync(join(out, 'plan.json'), 'utf8'));
  };
  const codes = (plan: { findings: { code: string }[] }): string[] => plan.findings.map(({ code }) => code);

  test('DXF: the unit is asked for, and taken', async () => {
    const disc = file(
      'disc.dxf',
      '0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n10\n0\n20\n0\n40\n5\n0\nENDSEC\n0\nEOF\n',
    );
    const asked = await planned(disc);
    expect(codes(asked)).toContain('no-units');
    expect(asked.size.widthMm).toBeCloseTo(10, 2);
    const inches = await planned(disc, '--units', 'in');
    expect(codes(inches)).not.toContain('no-units');
    expect(inches.size.widthMm).toBeCloseTo(254, 1);
    expect((await run(disc, '--units', 'yd')).stderr).toContain('--units takes one of');
  }, 60_000);

  test('HP-GL, EPS and a page of a PDF', async () => {
    expect(
      (await planned(file('a.plt', 'IN;SP1;PU0,0;PD4000,0,4000,2000,0,2000,0,0;PU;SP0;'))).size.widthMm,
    ).toBeCloseTo(100, 2);
    const eps =
      '%!PS-Adobe-3.0 EPSF-3.0\n%%BoundingBox: 0 0 144 72\n1 0 0 setrgbcolor\n0 0 144 72 rectfill\nshowpage\n';
    expect((await planned(file('a.eps', eps))).size).toEqual({ widthMm: 50.8, heightMm: 25.4 });
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
    expect((await planned(pdf)).size.widthMm).toBeCloseTo(25.4, 2);
    expect((await planned(pdf, '--page', '2')).size.widthMm).toBeCloseTo(50.8, 2);
    expect((await run(pdf, '--page', 'first')).stderr).toContain('--page takes the number');
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
    const colours = await planned(png);
    expect(colours.films.length).toBe(2);
    expect((await planned(png, '--trace', 'brightness')).films.length).toBe(1);
    expect((await planned(png, '--trace', '2')).films.length).toBe(1);
    expect((await run(png, '--trace', '13')).stderr).toContain('--trace takes');
    const narrow = colours.findings.find(({ code }: { code: string }) => code === 'narrow');
    expect(narrow).toMatchObject({ severity: 'check', limit: 1.5, fixes: [{ kind: 'thicken' }] });
    expect(narrow.measured).toBeLessThan(1.5);
  }, 60_000);
});

test('choices as an order stores them: folds, overlaps, marks, copies', async () => {
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
      border: 'copy',
      borderDistance: 5,
      place: 'edge',
    },
    cut: { recipes: {} },
    cutter: null,
  };
  const path = file('choices.json', JSON.stringify(choices));
  expect((await run('demo/art/marsh-wren.svg', '--choices', path, '--out', out)).status).toBe(0);
  const plan = JSON.parse(readFileSync(join(out, 'plan.json'), 'utf8'));
  const byId = Object.fromEntries(plan.films.map((f: { film: string }) => [f.film, f]));
  expect(byId.harbour).toMatchObject({ mode: 'full', copies: 2, colour: '#1d3f86' });
  expect(byId.harbour.deltaE).toBeGreaterThan(5);
  expect(byId.damson).toMatchObject({ mode: 'trap', overlapMm: 0.8, copies: 3 });
  // two marks, each a tab with a ring in it: two pieces a mark beside the wave
  expect(byId.quince.pieces).toBe(1 + 2 * 2);
  const wrong = file('wrong.json', JSON.stringify({ ...choices, layout: { ...choices.layout, copies: 0 } }));
  expect((await run('demo/art/marsh-wren.svg', '--choices', wrong)).stderr).toContain('layout.copies');
  expect((await run('demo/art/marsh-wren.svg', '--choices', file('no.json', '{'))).stderr).toContain(
    'is no JSON',
  );
}, 60_000);

test('ends with 1 when there is only what keeps it back, and says what', async () => {
  const art =
    '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="50mm"><path d="M5 5h40v20H5z"/></svg>';
  const choices = {
    artwork: { width: null, height: null, lockAspect: true, pieces: [] },
    films: { off: ['#000000'] },
  };
  const off = file('off.json', JSON.stringify(choices));
  const { status, stderr } = await run(file('off.svg', art), '--choices', off, '--out', join(dir, 'off'));
  expect(status).toBe(1);
  expect(stderr).toContain('stop: Every colour is switched off, so there is nothing to cut.');
}, 60_000);

describe('larger than the cutter', () => {
  interface Summary {
    readonly panels: readonly {
      id: string;
      film: string;
      row: number;
      width: number;
      height: number;
      areaMm2: number;
    }[];
    readonly seams: readonly { axis: string; points: number[]; crossesMm: number; crossings: number }[];
    readonly strips: readonly { id: string; file: string; placements: { part: string }[] }[];
    readonly films: readonly { film: string; areaMm2: number }[];
    readonly waste: Readonly<Record<'keys' | 'numbers', { count: number; lengthMm: number }>>;
    readonly findings: readonly { code: string }[];
  }
  const planned = async (...args: string[]): Promise<Summary> => {
    const out = mkdtempSync(join(tmpdir(), 'panels-'));
    expect((await run('demo/art/race-hut.svg', '--width', '3280', ...args, '--out', out)).status).toBe(0);
    const plan = JSON.parse(readFileSync(join(out, 'plan.json'), 'utf8')) as Summary;
    for (const { file } of plan.strips) expect(readdirSync(out)).toContain(file);
    return plan;
  };

  test.each(['equal', 'media', 'straight', 'wandering', '6x3'])(
    '--panels %s: none over the limit, no art lost',
    async (way) => {
      const { panels, seams, strips, films } = await planned('--panels', way, '--reserve', '12.7');
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

  test('--panels pieces leaves whole what fits: birds, words and waves; only the hut is taken apart', async () => {
    const { panels, seams, films, waste } = await planned('--panels', 'pieces');
    expect(seams).toHaveLength(1);
    const pieces = panels.filter(({ row }) => row === 0);
    expect(pieces.length).toBeGreaterThanOrEqual(10);
    expect(panels.length - pieces.length).toBe(2);
    for (const { film, areaMm2 } of films) {
      const own = panels.filter((panel) => panel.film === film);
      expect(Math.abs(own.reduce((sum, panel) => sum + panel.areaMm2, 0) - areaMm2)).toBeLessThan(20);
    }
    // a key on both panels at each of two places, and a name on both
    expect(waste.keys.count).toBe(4);
    expect(waste.numbers.count).toBeGreaterThan(10);
    expect(waste.keys.lengthMm).toBeCloseTo(4 * 4 * Math.hypot(4, 6), 2);
  });

  test('--keep-whole spares birds, by the id of their group', async () => {
    const kept = await planned('--panels', 'straight', '--keep-whole', 'birds');
    expect(kept.findings.filter(({ code }) => code === 'kept-crossed')).toEqual([]);
    const unknown = await run('demo/art/race-hut.svg', '--keep-whole', 'nobody');
    expect(unknown.status).toBe(2);
    expect(unknown.stderr).toContain('nothing with the id nobody');
  });

  test('--overlap is shared by neighbours', async () => {
    const area = ({ panels }: Summary): number => panels.reduce((sum, panel) => sum + panel.areaMm2, 0);
    const [apart, shared] = [
      await planned('--panels', 'equal'),
      await planned('--panels', 'equal', '--overlap', '20'),
    ];
    expect(area(shared)).toBeGreaterThan(area(apart));
  }, 60_000);

  test.each([
    ['--panels', 'sideways'],
    ['--overlap', '-3'],
  ])('%s %s is refused with a sentence', async (...args) => {
    const { status, stderr } = await run('demo/art/race-hut.svg', ...args);
    expect(status).toBe(2);
    expect(stderr).toContain(args[0]);
  });

  test('--pack takes art apart to save film: the same bytes every time, and each way says what it took', async () => {
    const out = (name: string) => join(dir, name);
    const length = (name: string): number =>
      JSON.parse(readFileSync(join(out(name), 'plan.json'), 'utf8')).totals.filmLengthMm;
    const how = ['demo/art/marsh-wren.svg', '--width', '1240'];
    const search = ['--rounds', '25', '--seed', '7', '--spacing', '3', '--turns', 'quarter'];
    for (const [name, ...more] of [
      ['pack-one', '--pack', 'one'],
      ['pack-word', '--pack', 'word', ...search],
      ['pack-piece', '--pack', 'piece', ...search],
      ['pack-again', '--pack', 'piece', ...search],
    ])
      expect((await run(...how, ...more, '--out', out(name))).status).toBe(0);
    expect(length('pack-piece')).toBeLessThan(length('pack-word'));
    expect(length('pack-word')).toBeLessThan(length('pack-one'));
    for (const name of ['damson.plt', 'damson.svg', 'tide-blue.plt'])
      expect(readFileSync(join(out('pack-again'), name))).toEqual(
        readFileSync(join(out('pack-piece'), name)),
      );
    const { strips } = JSON.parse(readFileSync(join(out('pack-piece'), 'plan.json'), 'utf8'));
    expect(strips[0].placements).toHaveLength(10);
    expect(strips[0].usedShare).toBeGreaterThan(0.4);
    const turns = strips[0].placements.map(({ turnDegrees }: { turnDegrees: number }) => turnDegrees);
    expect(turns.every((turn: number) => [0, 90, 180, 270].includes(turn))).toBe(true);
  });

  test('weed lines are cut, drawn and listed; borders of each kind', async () => {
    const how = ['demo/art/marsh-wren.svg', '--width', '1240', '--weed-lines', '15 cm'];
    const read = (name: string) => JSON.parse(readFileSync(join(dir, name, 'plan.json'), 'utf8')).strips[0];
    const drawn = (name: string, id: string) =>
      readFileSync(join(dir, name, 'damson.svg'), 'utf8')
        .split('<g ')
        .filter((group) => group.startsWith(`id="${id}"`))
        .flatMap((group) => group.match(/<path/g)).length;
    for (const border of ['box', 'copy', 'follow', 'none'])
      expect((await run(...how, '--border', border, '--out', join(dir, border))).status).toBe(0);
    const { weedLines } = read('box');
    expect(weedLines.length).toBeGreaterThan(3);
    for (const points of weedLines) expect(points.length).toBeGreaterThanOrEqual(4);
    expect(drawn('box', 'weed-line')).toBe(weedLines.length);
    expect(drawn('box', 'weed-border')).toBe(1);
    expect(drawn('follow', 'weed-border')).toBeGreaterThan(1);
    expect(drawn('none', 'weed-border')).toBe(0);
    expect(read('none').lengthMm).toBeCloseTo(read('box').lengthMm - 10, 6);
  });

  test('what packing is asked for is checked', async () => {
    for (const [option, value, says] of [
      ['--pack', 'letters', '--pack takes one of one, word, piece.'],
      ['--turns', 'half', '--turns takes one of none, quarter, free.'],
      ['--rounds', '-3', '--rounds takes a whole number'],
      ['--seed', 'x', '--seed takes a whole number'],
      ['--spacing', 'wide', '--spacing: '],
      ['--weed-lines', '3', '--weed-lines takes 10 mm to 5000 mm.'],
      ['--border', 'round', '--border takes one of none, box, order, copy, follow.'],
    ]) {
      const { status, stderr } = await run('demo/art/marsh-wren.svg', `${option}=${value}`);
      expect([status, stderr]).toEqual([2, expect.stringContaining(says)]);
    }
  });
});

test('from a shell: its sentences and its status', () => {
  const { status, stderr } = spawnSync(
    process.execPath,
    ['scripts/program.mjs', 'cli/plan.ts', 'nowhere.svg'],
    {
      encoding: 'utf8',
    },
  );
  expect(status).toBe(2);
  expect(stderr).toContain('There is no file nowhere.svg');
});
