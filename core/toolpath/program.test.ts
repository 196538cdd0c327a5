import { describe, expect, test } from '@jest/globals';
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Resvg } from '@resvg/resvg-js';
import { CURLEW, DEMO_SHOP } from '../../demo/shop';
import { readResolvedSvg } from '../readers/svg/readResolvedSvg';
import { createHpglReader } from '../hpgl/readHpgl';
import { hpglBytes, writeHpgl } from '../devicelang/writeHpgl';
import { lineToPathData, ringToPathData } from '../geometry/pathText';
import { oneFile } from '../plan/oneFile';
import { createPlanner } from '../plan/plan';
import { DEFAULT_CHOICES } from '../plan/choices';
import type { Choices } from '../plan/choices';
import { orderRings } from './order';
import { lineSeconds, moveSeconds } from './time';

const artwork = readResolvedSvg(
  new Resvg(readFileSync('demo/art/marsh-wren.svg', 'utf8'), { font: { loadSystemFonts: false } }).toString(),
);
const plan = (choices: Parameters<typeof oneFile>[1] = {}) => {
  const order = oneFile(artwork, choices);
  return createPlanner().plan(order.artworks, order.choices, DEMO_SHOP);
};

describe('order', () => {
  const square = (x: number, y: number, s: number, hole = false): Float64Array =>
    hole
      ? Float64Array.of(x, y, x, y + s, x + s, y + s, x + s, y)
      : Float64Array.of(x, y, x + s, y, x + s, y + s, x, y + s);

  test('inside before outside, nearest next, start free', () => {
    const region = [square(0, 0, 100), square(20, 20, 60, true), square(40, 40, 10), square(300, 0, 10)];
    const order = orderRings(region, [310, 12]).map((ring) =>
      region.findIndex((r) => Math.max(...r) === Math.max(...ring) && r.length === ring.length),
    );
    expect(order).toEqual([3, 2, 1, 0]);
    const [first] = orderRings(region, [310, 12]);
    // a longer way to it, and a shorter one from it
    expect(Array.from(first.slice(0, 2))).toEqual([300, 10]);
  });

  test('every outline is cut once, whatever the region', () => {
    const many = Array.from({ length: 400 }, (_, i) => square((i % 20) * 12, Math.floor(i / 20) * 12, 8));
    const ordered = orderRings(many, [0, 0]);
    expect(
      new Set(
        ordered.map(
          (ring) => `${Math.min(ring[0], ring[2], ring[4])} ${Math.min(ring[1], ring[3], ring[5])}`,
        ),
      ).size,
    ).toBe(400);
    const travel = ordered
      .slice(1)
      .reduce((sum, ring, i) => sum + Math.hypot(ring[0] - ordered[i][0], ring[1] - ordered[i][1]), 0);
    // cutting them row by row travels 12 mm a square
    expect(travel).toBeLessThan(400 * 12 * 1.25);
  });
});

describe('time against closed forms', () => {
  test('a long move: s/v + v/a; a short one: 2·√(s/a)', () => {
    expect(moveSeconds(1000, 400, 8000)).toBeCloseTo(2.5 + 0.05, 12);
    expect(moveSeconds(2, 400, 8000)).toBeCloseTo(2 * Math.sqrt(2 / 8000), 12);
    expect(lineSeconds([0, 0, 1000, 0], 400, 8000, 0.03)).toBeCloseTo(2.55, 9);
    expect(lineSeconds([0, 0, 1, 0, 2, 0], 400, 8000, 0.03)).toBeCloseTo(2 * Math.sqrt(2 / 8000), 9);
  });

  test('a straight line in pieces takes as long as in one; a turn back takes a stop', () => {
    const pieces = Array.from({ length: 101 }, (_, i) => [i * 10, 0]).flat();
    expect(lineSeconds(pieces, 400, 8000, 0.03)).toBeCloseTo(2.55, 6);
    expect(lineSeconds([0, 0, 500, 0, 0, 0], 400, 8000, 0.03)).toBeCloseTo(
      2 * moveSeconds(500, 400, 8000),
      9,
    );
  });
});

test('copies that lie the same way are cut in the same order, each where it lies', () => {
  const { layout } = DEFAULT_CHOICES;
  const [{ program, strip }] = plan({ layout: { ...layout, copies: 4, turn: 'as-drawn' } }).cuts;
  const ends = (copy: number): number[][] =>
    program.lines
      .filter((line) => line.part === 'art' && line.copy === copy)
      .map(({ points }) => Array.from(points.slice(-2)));
  const [first, ...others] = strip.placements;
  expect(others).toHaveLength(3);
  for (const { copy, matrix } of others) {
    const [dx, dy] = [matrix[4] - first.matrix[4], matrix[5] - first.matrix[5]];
    const [here, there] = [ends(copy), ends(first.copy)];
    expect(here).toHaveLength(there.length);
    // in whole machine steps each point is one of the four places round it
    here.forEach(([x, y], i) => {
      expect(Math.abs(x - there[i][0] - dx)).toBeLessThanOrEqual(0.0501);
      expect(Math.abs(y - there[i][1] - dy)).toBeLessThanOrEqual(0.0501);
    });
  }
});

test('a wheel that does not trail leaves the knife as it lay', () => {
  const cut = (fold: string): number[][] => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="120mm" viewBox="0 0 120 120"><path fill="#ead9b4" d="M10 10H110V110H10Z"/><path d="M10 10H110V110H10Z" fill="none" stroke="#b0202f"/><path d="${fold}" fill="none" stroke="#1f5a3c"/></svg>`;
    const drawn = readResolvedSvg(new Resvg(svg).toString());
    const { artworks, choices } = oneFile(drawn, {
      cutter: { order: 'saltpan', film: {} },
      layout: { ...DEFAULT_CHOICES.layout, border: 'none' },
    });
    const lines = {
      ...choices.artwork.lines,
      colour: { '#1f5a3c': 'crease', '#b0202f': 'through' },
    } as const;
    const films = { ...choices.films, film: { '#ead9b4': 'dial-card' } };
    const own = { ...choices, films, artwork: { ...choices.artwork, lines } };
    const { program } = createPlanner().plan(artworks, own, DEMO_SHOP).cuts[0];
    expect(program.lines.map(({ kind }) => kind)).toContain('crease');
    return program.lines.filter(({ kind }) => kind !== 'crease').map(({ points }) => [...points]);
  };
  // both folds end where the other does, one along the sheet and one across it
  expect(cut('M20 60H100')).toEqual(cut('M20 60H40V30H100V60'));
});

test('passes: every line is gone over as often as its recipe says', () => {
  const passes = (film: string) => ({ cut: { recipes: { curlew: { [film]: { passes: 2 } } } } });
  const [once] = plan().cuts;
  const [twice, other] = plan(passes(once.strip.film.id)).cuts;
  const art = ({ program }: typeof once): number => program.lines.filter(({ part }) => part === 'art').length;
  // round and round without being lifted: as many strokes, twice as long but for the overcut
  expect(art(twice)).toBe(art(once));
  expect(twice.program.cutLength / once.program.cutLength).toBeGreaterThan(1.8);
  expect(twice.program.cutLength / once.program.cutLength).toBeLessThan(2);
  expect(other.recipe.passes).toBeUndefined();
});

describe('HP-GL', () => {
  const { cuts } = plan({ artwork: { width: 800, height: null, lockAspect: true } });
  const files = cuts.map(({ program, strip }) => ({
    program,
    strip,
    bytes: hpglBytes(writeHpgl(program, CURLEW.device, strip.cuttable)),
  }));

  test('units of 0.025 mm, known mnemonics only, force and speed, pen up at the end (HP 7475A manual)', () => {
    for (const { bytes } of files) {
      const text = Buffer.from(bytes).toString('latin1');
      expect(text).toMatch(/^IN;PA;SP1;VS40;FS80;PU/);
      expect(text).toMatch(/PU;PU\d+,0;SP0;$/);
      expect(text).toMatch(/^[A-Z0-9,;-]+$/);
      expect(new Set(text.match(/[A-Z]{2}/g))).toEqual(new Set(['IN', 'PA', 'SP', 'VS', 'FS', 'PU', 'PD']));
    }
  });

  test('read back, every point is where the program has it: rounding does not add up', () => {
    for (const { program, strip, bytes } of files) {
      const pairs = createHpglReader()
        .push(Buffer.from(bytes).toString('latin1'))
        .filter(({ code, values }) => (code === 'PU' || code === 'PD') && values.length > 0)
        .flatMap(({ values }) => values);
      const points = program.lines.flatMap((line) => Array.from(line.points));
      expect(pairs.length).toBe(points.length + 2);
      points.forEach((v, i) => {
        const back = i % 2 === 0 ? pairs[i] * 0.025 : strip.cuttable - pairs[i] * 0.025;
        if (Math.abs(back - v) > 0.0126) throw new Error(`point ${i}: ${back} for ${v}`);
      });
    }
  });

  test('the reader takes instructions apart by any bytes, and passes over what is none', () => {
    const reader = createHpglReader();
    expect([...'IN;PD10,20, 30 40;?!;OA;PU'].flatMap((c) => reader.push(c))).toEqual([
      { code: 'IN', values: [] },
      { code: 'PD', values: [10, 20, 30, 40] },
      { code: 'OA', values: [] },
    ]);
    expect(reader.pending()).toBe(2);
  });

  // hp2xx is GNU's independent HP-GL converter; Debian's package, installed by the test script
  test('hp2xx draws our HP-GL where resvg draws the art', () => {
    expect(spawnSync('which', ['hp2xx']).status).toBe(0);
    const dir = mkdtempSync(join(tmpdir(), 'hp2xx-'));
    for (const { strip, program, bytes } of files) {
      writeFileSync(join(dir, 'a.plt'), bytes);
      execFileSync('hp2xx', ['-q', '-m', 'svg', '-t', '-f', join(dir, 'a.svg'), join(dir, 'a.plt')], {
        stdio: 'ignore',
      });
      const drawn = pointsOfSvg(readFileSync(join(dir, 'a.svg'), 'utf8'));
      const wanted = program.lines.flatMap((line) => Array.from(line.points));
      const size = (v: number[], k: number): number => {
        const own = v.filter((_, i) => i % 2 === k);
        return Math.max(...own) - Math.min(...own);
      };
      // the same figure, to hp2xx's own two decimals; it moves the drawing to its page's corner
      const [scale] = [size(drawn, 0) / size(wanted, 0)];
      expect(size(drawn, 1) / size(wanted, 1)).toBeCloseTo(scale, 1);
      const picture = (paths: string): Buffer =>
        new Resvg(
          `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${strip.length} ${strip.cuttable}" width="900"><rect width="100%" height="100%" fill="#fff"/><g fill="none" stroke="#000" stroke-width="3">${paths}</g></svg>`,
        ).render().pixels;
      const shift = (k: number): number =>
        Math.min(...wanted.filter((_, i) => i % 2 === k)) -
        Math.min(...drawn.filter((_, i) => i % 2 === k)) / scale;
      const theirs = picture(
        `<g transform="translate(${shift(0)} ${shift(1)}) scale(${1 / scale})" stroke-width="${3 * scale}">${pathsOfSvg(readFileSync(join(dir, 'a.svg'), 'utf8'))}</g>`,
      );
      const art = strip.placements.flatMap((p) =>
        p.part.region.map(
          (r) => `<path transform="matrix(${p.matrix.join(' ')})" d="${ringToPathData(r)}"/>`,
        ),
      );
      const border = strip.weeding.borders.flat().map((line) => `<path d="${lineToPathData(line)}"/>`);
      const ours = picture([...art, ...border].join(''));
      expect(inkOutside(ours, theirs)).toBeLessThan(0.003);
      // and the other way round: hp2xx draws nothing of any size where there is no art
      expect(inkOutside(theirs, ours)).toBeLessThan(0.003);
    }
  });
});

function pointsOfSvg(svg: string): number[] {
  return [...pathsOfSvg(svg).matchAll(/-?\d+(?:\.\d+)?/g)]
    .map((m) => Number(m[0]))
    .filter((_, i, all) => i < all.length - (all.length % 2));
}

/** hp2xx writes polylines and paths: only their coordinates matter here. */
function pathsOfSvg(svg: string): string {
  const lists = [...svg.matchAll(/(?:points|d)\s*=\s*"([^"]+)"/g)].map(([, list]) =>
    list
      .replace(/[A-Za-z]/g, ' ')
      .trim()
      .split(/[\s,]+/),
  );
  return lists
    .map(
      (v) =>
        `<path d="M${v
          .map((n, i) => `${n}${i % 2 ? ' ' : ','}`)
          .join('')
          .trim()
          .replace(/ /, 'L')
          .replace(/ /g, 'L')}"/>`,
    )
    .join('');
}

/** Share of pixels that are dark in one picture and nowhere near dark in the other. */
function inkOutside(a: Buffer, b: Buffer): number {
  const width = 900;
  const dark = (p: Buffer, i: number): boolean => p[4 * i] < 128;
  let off = 0;
  const count = a.length / 4;
  for (let i = 2 * width + 2; i < count - 2 * width - 2; i++) {
    if (!dark(a, i)) continue;
    let near = false;
    for (let dy = -2; dy <= 2 && !near; dy++)
      for (let dx = -2; dx <= 2 && !near; dx++) near = dark(b, i + dy * width + dx);
    if (!near) off++;
  }
  return off / count;
}

describe('plan', () => {
  test('the same choices give the same bytes, and a change re-runs only what comes after it', () => {
    const planner = createPlanner();
    const { artworks, choices: own } = oneFile(artwork);
    const bytesOf = (choices: Choices): string =>
      planner
        .plan(artworks, choices, DEMO_SHOP)
        .cuts.map(({ program, strip }) =>
          Buffer.from(hpglBytes(writeHpgl(program, CURLEW.device, strip.cuttable))).toString('latin1'),
        )
        .join();
    const first = bytesOf(own);
    const films = planner.runs.layOut;
    const once = { piece: 1, prepare: 1, seen: 1, assign: 1, check: 0, layOut: films, toolpath: films };
    expect(planner.runs).toMatchObject(once);
    expect(bytesOf({ ...own, layout: { ...own.layout, copies: 3 } })).not.toBe(first);
    expect(planner.runs).toMatchObject({ ...once, layOut: 2 * films, toolpath: 2 * films });
    bytesOf({ ...own, films: { ...own.films, film: { '#4b1f4a': 'tar' } } });
    expect(planner.runs).toMatchObject({
      ...once,
      assign: 2,
      layOut: 2 * films + 1,
      toolpath: 2 * films + 1,
    });
    expect(bytesOf(own)).toBe(first);
    expect(planner.runs.toolpath).toBe(2 * films + 1);
    expect(plan().cuts[0].program.lines.length).toBeGreaterThan(5);
  });

  test('the alignment stroke comes first and lies in the waste', () => {
    for (const { program, strip } of plan().cuts) {
      expect(program.lines[0].part).toBe('align');
      const art = Math.min(...strip.placements.map((p) => p.box.minX));
      expect(Math.max(...Array.from(program.lines[0].points).filter((_, i) => i % 2 === 0))).toBeLessThan(
        art,
      );
      expect(program.lines.at(-1)?.part).toBe('border');
    }
  });

  test('no cutter is a finding, not a crash', () => {
    const { artworks, choices } = oneFile(artwork);
    const none = createPlanner().plan(artworks, choices, { ...DEMO_SHOP, cutters: [] });
    expect(none.findings.map((f) => f.code)).toContain('no-cutter');
  });
});
