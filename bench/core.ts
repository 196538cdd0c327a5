/** How fast the computation is. Figures of one run; compare ratios, the machine may be noisy. */
import { readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import { DEFAULT_TRACE } from '../core/artwork/choices';
import { prepare } from '../core/artwork/prepare';
import { readResolvedSvg } from '../core/readers/svg/readResolvedSvg';
import { trace } from '../core/tracing/trace';
import { atOnce, checkOver } from '../core/checks/checkOver';
import type { Artwork } from '../core/readers/artwork';
import type { FilmChoices } from '../core/films/separate';
import { separate } from '../core/films/separate';
import { tidySvg } from '../server/files/svg/tidySvg';
import { readSvg } from '../server/files/readSvg';
import * as many from './manyPieces';
import { largePicture, pictureOfStatic } from './largePicture';
import { oneFile } from '../core/plan/oneFile';
import { hpglBytes, writeHpgl } from '../core/devicelang/writeHpgl';
import { preparePiece } from '../core/artwork/preparePiece';
import { seenColours } from '../core/films/seen';
import type { Region } from '../core/geometry/region';
import { regionBounds, weld } from '../core/geometry/region';
import { random } from '../core/random';
import { orderRings } from '../core/toolpath/order';
import { NO_PANEL_CHOICES } from '../core/panels/choices';
import { withInk } from '../core/panels/ground';
import { placeSeams } from '../core/panels/placeSeams';
import { createPlanner } from '../core/plan/plan';
import { DEFAULT_CHOICES } from '../core/plan/choices';
import type { Choices } from '../core/plan/choices';
import { CURLEW, DEMO_SHOP } from '../demo/shop';
import { bareBooleans, gridPaths } from './bareBooleans';
import { largeDrawing } from './largeDrawing';
import { packSet } from './packing';
import { byHand } from './byHand';
import { printAndCut } from './print';
import { row } from './row';
import { ofSize } from './size';

const RUNS = ofSize(5, 1);

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[values.length >> 1];
}

/** Median ms of a few runs, after one that warms up. */
function time(work: () => unknown): number {
  work();
  return median(
    Array.from({ length: RUNS }, () => {
      const started = performance.now();
      work();
      return performance.now() - started;
    }),
  );
}

/** ms of one plan, with nothing remembered. */
function planned(artwork: Artwork, overlap: FilmChoices['overlap'] = {}): number {
  const { artworks, choices } = oneFile(artwork);
  const begun = performance.now();
  createPlanner().plan(artworks, { ...choices, films: { ...choices.films, overlap } }, DEMO_SHOP);
  return performance.now() - begun;
}

const large = Buffer.from(largeDrawing(ofSize(500, 12), ofSize(200, 20)));
let started = performance.now();
const artwork = await readSvg(large);
const { artworks, choices } = oneFile(artwork);
row(
  'read a 100 000-vertex SVG, resolver process included',
  `${(performance.now() - started).toFixed(0)} ms`,
  '',
);
started = performance.now();
const cold = createPlanner().plan(artworks, choices, DEMO_SHOP);
row(
  'plan it, 6 films with overlaps, first time',
  `${(performance.now() - started).toFixed(0)} ms`,
  '≤ 3000 ms',
);
const warm = time(() => createPlanner().plan(artworks, choices, DEMO_SHOP));
row('plan it, 6 films with overlaps, warm', `${warm.toFixed(0)} ms`, '≤ 2000 ms');

const { shapes } = preparePiece(artwork, DEFAULT_CHOICES.artwork);
const separation = time(() => seenColours(shapes));
const paths = gridPaths(shapes);
const bare = time(() => bareBooleans(shapes, paths));
row('  the bare booleans in it', `${bare.toFixed(0)} ms, ${((100 * bare) / warm).toFixed(0)} %`, '');
row('what is seen of each colour, 100 000 vertices', `${separation.toFixed(0)} ms`, '');
row('  against the bare booleans it needs', `${(separation / bare).toFixed(2)} ×`, '≤ 1.5 ×');

const points = cold.cuts.reduce(
  (sum, cut) => sum + cut.program.lines.reduce((n, line) => n + line.points.length / 2, 0),
  0,
);
const writing = time(() =>
  cold.cuts.forEach(({ program, strip }) => hpglBytes(writeHpgl(program, CURLEW.device, strip.cuttable))),
);
row('HP-GL written', `${(points / writing / 1000).toFixed(1)} M points/s`, '≥ 2 M points/s');

// outlines strewn over a wall: ordered, against half as many, and how far the pen travels against the strip of
// Beardwood, Halton & Hammersley 1959: a shortest tour through n random places of an area A is near 0.7124 · √(n · A)
{
  const OUTLINES = ofSize(10_000, 100);
  const strewn = (n: number): Region => {
    const next = random(n);
    return Array.from({ length: n }, () => {
      const [x, y] = [next() * 3000, next() * 3000];
      return Float64Array.of(x, y, x + 4, y, x + 4, y + 4, x, y + 4);
    });
  };
  const travel = (rings: readonly Float64Array[]): number =>
    rings.reduce((sum, ring, i) => {
      const from = rings[i - 1] ?? [0, 0];
      return sum + Math.hypot(ring[0] - from[0], ring[1] - from[1]);
    }, 0);
  const [all, half] = [strewn(OUTLINES), strewn(OUTLINES / 2)];
  const took = [all, half].map((rings) => time(() => orderRings(rings, [0, 0])));
  const shortest = 0.7124 * Math.sqrt(OUTLINES * 3000 * 3000);
  row(
    'order 10 000 outlines, against half as many',
    `${took[0].toFixed(0)} ms, ${(took[0] / took[1]).toFixed(2)} ×`,
    '≤ 2000 ms, ≤ 2.5 ×',
  );
  row(
    '  travel, against the shortest tour to be expected',
    `${(travel(orderRings(all, [0, 0])) / shortest).toFixed(2)} ×`,
    '',
  );
}

// 10 MB, 5 000 shapes, 500 000 points: against what the resolver itself takes to parse and resolve it
const huge = Buffer.from(largeDrawing(ofSize(5000, 30), ofSize(100, 10)));
const resolve = time(() => new Resvg(huge.toString(), { font: { loadSystemFonts: false } }).toString());
const resolved = new Resvg(huge.toString(), { font: { loadSystemFonts: false } }).toString();
const reading = time(() => {
  tidySvg(huge);
  readResolvedSvg(resolved);
});
row(
  `read a ${(huge.length / 1e6).toFixed(0)} MB SVG, 5 000 shapes: inspect and read`,
  `${reading.toFixed(0)} ms`,
  '',
);
row(
  '  with the resolver, against the resolver alone',
  `${((resolve + reading) / resolve).toFixed(2)} ×`,
  '≤ 3 ×',
);
const heavy = oneFile(readResolvedSvg(resolved));
const sized = prepare(heavy.artworks, heavy.choices.artwork);
const films = separate(seenColours(sized.shapes), heavy.choices.films, DEMO_SHOP.films);
const checking = time(() => atOnce(checkOver(heavy.artworks, heavy.choices.artwork, sized, films, 0.025)));
row('all checks on it', `${checking.toFixed(0)} ms`, '≤ 3000 ms');

// drawings of many small parts, and of half as many: what doubles the parts should hardly more than double the time
for (const [name, make, n] of [
  ['rectangles', many.rectangles, ofSize(49_000, 40)],
  ['colours', many.colours, ofSize(20_000, 40)],
  ['points of an even-odd scribble', many.scribble, ofSize(1000, 20)],
  ['holes in one outline', many.holes, ofSize(4000, 20)],
  ['closed lines', many.closedLines, ofSize(4000, 20)],
  ['piled discs of 200 points, eight films', many.discs, ofSize(1000, 6)],
] as const) {
  const half = planned(make(n / 2));
  const whole = planned(make(n));
  row(
    `plan ${n} ${name}, against half as many`,
    `${whole.toFixed(0)} ms, ${(whole / half).toFixed(2)} ×`,
    // twice the points of a scribble cross four times as often
    make === many.scribble ? '≤ 5000 ms' : '≤ 5000 ms, ≤ 2.5 ×',
  );
}

// what films that lie a little under one another cost, against edge to edge
const BUTT = Object.fromEntries(DEMO_SHOP.films.map(({ id }) => [id, { mode: 'butt', by: 0 } as const]));
for (const n of [250, 500, 1000].map((all) => ofSize(all, all / 125))) {
  const pile = many.discs(n);
  // in pairs, one after the other: single plans differ by half from one to the next on a busy machine
  const pairs = Array.from({ length: RUNS }, () => [planned(pile, BUTT), planned(pile)] as const);
  row(
    `plan ${n} piled discs with overlaps, against edge to edge`,
    `${median(pairs.map(([, trap]) => trap)).toFixed(0)} ms, ${median(pairs.map(([butt, trap]) => trap / butt)).toFixed(2)} ×`,
    '≤ 2 ×',
  );
}

for (const [what, picture] of [
  ['waves', largePicture(ofSize(4000, 80), ofSize(3000, 60))],
  ['static', pictureOfStatic(ofSize(4000, 40), ofSize(3000, 30))],
] as const) {
  for (const choices of [DEFAULT_TRACE, { ...DEFAULT_TRACE, by: 'colours' as const, colours: 4 }]) {
    started = performance.now();
    const { nodes } = trace(picture, choices);
    const took = performance.now() - started;
    row(
      `trace 12 megapixels of ${what} by ${choices.by}, ${nodes} nodes`,
      `${took.toFixed(0)} ms`,
      '≤ 4000 ms',
    );
  }
}

{
  // ten metres of wall, 100 000 points, in panels of film 1 220 mm wide
  const wall = readResolvedSvg(largeDrawing(ofSize(500, 12), ofSize(200, 20)));
  const scaled = preparePiece(wall, { ...DEFAULT_CHOICES.artwork, width: 10_000 });
  const regions = [weld(scaled.shapes.flatMap(({ region }) => region))];
  const box = regionBounds(regions[0]);
  const room = { across: 1180, along: 12_000, reserve: 0, turn: 'turned' } as const;
  const wide = { box, regions, kept: [], narrowest: 1.5, spread: 0 };
  const least = time(() => placeSeams(withInk(wide), room, NO_PANEL_CHOICES));
  row('seams of the least cut, 10 m, 100 000 points', `${least.toFixed(0)} ms`, '≤ 300 ms');
  const wandering = time(() => placeSeams(withInk(wide), room, { ...NO_PANEL_CHOICES, way: 'wandering' }));
  row('wandering seams, the same', `${wandering.toFixed(0)} ms`, '≤ 2000 ms');
}
{
  const own = await readSvg(readFileSync('demo/art/race-hut.svg'));
  const { artworks: art, choices: usual } = oneFile(own);
  const planner = createPlanner();
  const wall = { ...usual, artwork: { ...usual.artwork, width: 3300 } };
  planner.plan(art, wall, DEMO_SHOP);
  let at = 400;
  const byHand = time(() =>
    planner.plan(
      art,
      { ...wall, panels: { ...wall.panels, way: 'by-hand', level: [at++, 820, 1250] } },
      DEMO_SHOP,
    ),
  );
  row('re-plan the race-hut wall: a seam moved', `${byHand.toFixed(0)} ms`, '≤ 100 ms');
}

for (const name of ['marsh-wren', 'slipway-sign', 'crew-shirt', 'sail-numbers']) {
  const own = await readSvg(readFileSync(`demo/art/${name}.svg`));
  const order = oneFile(own);
  const planner = createPlanner();
  planner.plan(order.artworks, order.choices, DEMO_SHOP);
  let copies = 1;
  const change = (more: Partial<Choices>): unknown =>
    planner.plan(order.artworks, { ...order.choices, ...more }, DEMO_SHOP);
  const byCopies = time(() => change({ layout: { ...DEFAULT_CHOICES.layout, copies: ++copies } }));
  let turn = 0;
  const [colour] = own.shapes.map((shape) => shape.colour);
  const byFilm = time(() =>
    change({ films: { ...order.choices.films, film: { [colour]: DEMO_SHOP.films[turn++ % 15].id } } }),
  );
  row(
    `re-plan ${name}: other copies, other film`,
    `${byCopies.toFixed(0)}, ${byFilm.toFixed(0)} ms`,
    '≤ 100 ms',
  );
}

{
  const { free, onto, weeded } = await byHand(time);
  row('re-plan: a piece put by hand, onto others', `${free.toFixed(0)}, ${onto.toFixed(0)} ms`, '≤ 100 ms');
  row('re-plan: weed lines for easy lifting, 3 films', `${weeded.toFixed(0)} ms`, '');
}

{
  for (const [set, count, first] of [
    ['letters', 60, ''],
    ['letters', 200, '≤ 1000 ms'],
    ['birds', 60, ''],
    ['icons', 60, ''],
  ] as const) {
    const made = await packSet(set, ofSize(count, 4), ofSize(10, 0.1));
    const less = (mm: number): string => `${(100 * (1 - mm / made.boxes)).toFixed(1)} % less film than boxes`;
    row(`pack ${count} ${set}, first answer`, `${made.first.toFixed(0)} ms, ${less(made.atOnce)}`, first);
    row(`  after 10 s, ${made.rounds} rounds`, less(made.packed), '≥ 15 %');
  }
}

{
  const { contour, around, line, marks, bleed, pdf, copies } = await printAndCut(time);
  row('cut line around a picture of 12 megapixels', `${contour.toFixed(0)} ms`, '≤ 2000 ms');
  row('cut line around 5 000 shapes', `${around.toFixed(0)} ms`, '≤ 1000 ms');
  row('bleed of a banner of 3 × 1 m in two colours', `${bleed.toFixed(0)} ms`, '≤ 100 ms');
  row('stickers planned again, their line moved', `${line.toFixed(0)} ms`, '≤ 100 ms');
  row('stickers planned again, their marks moved', `${marks.toFixed(0)} ms`, '≤ 100 ms');
  row(`a sheet of ${copies} as PDF`, `${pdf.toFixed(0)} ms`, '≤ 2000 ms');
}
