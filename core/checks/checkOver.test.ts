import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Artwork, Shape } from '../readers/artwork';
import type { Fix } from '../findings/finding';
import type { LineRules } from '../artwork/choices';
import { NO_LINE_RULES } from '../artwork/choices';
import { NO_WIDTH } from '../readers/outlines';
import { IDENTITY } from '../geometry/matrix';
import { regionArea } from '../geometry/region';
import { NO_FILM_CHOICES } from '../films/separate';
import { oneFile } from '../plan/oneFile';
import { createPlanner, planAndCheck } from '../plan/plan';
import { atOnce } from './checkOver';
import { DEMO_SHOP } from '../../demo/shop';
import { writeHpgl } from '../devicelang/writeHpgl';

const BLUE = '#1d3f86';
const fill = (xy: readonly number[], more: Partial<Shape> = {}): Shape => ({
  path: { ops: `M${'L'.repeat(xy.length / 2 - 1)}Z`, xy: [...xy] },
  matrix: IDENTITY,
  colour: BLUE,
  fill: 'nonzero',
  clips: [],
  ...more,
});
const box = (x: number, y: number, w: number, h: number, more: Partial<Shape> = {}): Shape =>
  fill([x, y, x + w, y, x + w, y + h, x, y + h], more);
const line = (xy: readonly number[], close = false, more: Partial<Shape> = {}): Shape => ({
  ...fill(xy, more),
  path: { ops: `M${'L'.repeat(xy.length / 2 - 1)}${close ? 'Z' : ''}`, xy: [...xy] },
  stroke: NO_WIDTH,
});
const art = (...shapes: Shape[]): Artwork => ({
  page: { width: 300, height: 300 },
  shapes,
  clips: [],
  findings: [],
});

const edge = { mode: 'butt', by: 0 } as const;
const BUTT = { ...NO_FILM_CHOICES, overlap: { currant: edge, harbour: edge } };

function planOf(
  artwork: Artwork,
  fixes: readonly Fix[] = [],
  lines: Partial<LineRules> = {},
  films = NO_FILM_CHOICES,
) {
  const { artworks, choices } = oneFile(artwork, {
    films,
    artwork: { fixes, lines: { ...NO_LINE_RULES, ...lines } },
  });
  return planAndCheck(createPlanner(), artworks, choices, DEMO_SHOP);
}
const codes = (...args: Parameters<typeof planOf>): string[] =>
  planOf(...args).findings.map(({ code }) => code);

test('a check-over goes in steps that only rise, and can be left off between two', () => {
  const planner = createPlanner();
  const { artworks, choices } = oneFile(art(box(0, 0, 40, 9)), {});
  planner.check(artworks, choices, DEMO_SHOP).next();
  const shares = [...planner.check(artworks, choices, DEMO_SHOP)];
  expect(shares.length).toBeGreaterThan(4);
  expect(shares).toEqual([...shares].sort((a, b) => a - b));
  expect(shares.at(-1)).toBe(1);
  expect(planner.runs.check).toBe(2);
  const runs = { ...planner.runs };
  atOnce(planner.check(artworks, choices, DEMO_SHOP));
  expect(planner.runs).toEqual(runs);
});

test('nothing is found in what is not cut', () => {
  const RED = '#b0202f';
  const bad = [
    box(70, 0, 60, 0.9, { colour: RED }),
    line([0, 0, 50, 0, 50, 50, 0, 50, 0, 3], false, { colour: RED }),
    line([0, 80, 90, 80], false, { colour: RED }),
    box(0, 90, 40, 40, { colour: RED, look: 'gradient' }),
  ];
  const artwork = art(box(0, 0, 60, 60), ...bad);
  const found = (films: typeof NO_FILM_CHOICES) =>
    new Set(codes(artwork, [], {}, films).filter((code) => code !== 'several-strips'));
  expect(found(NO_FILM_CHOICES)).toEqual(new Set(['gradient', 'open-line', 'hairline', 'narrow']));
  expect(found({ ...NO_FILM_CHOICES, off: [RED] })).toEqual(new Set());
  expect(found({ ...NO_FILM_CHOICES, print: [RED] })).toEqual(new Set(['to-print']));
});

test('a line whose ends are far apart was meant to be open', () => {
  // three sides of a square: a third of its length apart, and the same with a gap of 6 mm
  const sides = (gap: number) => art(box(0, 0, 90, 90), line([100, 0, 150, 0, 150, 50, 100, 50, 100, gap]));
  expect(codes(sides(50))).not.toContain('open-line');
  expect(codes(sides(6))).toContain('open-line');
});

describe('each finding goes with its own fix', () => {
  test.each([
    ['narrow', art(box(0, 0, 60, 60), box(70, 0, 60, 0.9)), 0.9, 1.5],
    ['island', art(box(0, 0, 60, 60), box(70, 0, 1.6, 1.6)), 2.56, 3],
    ['open-line', art(line([0, 0, 50, 0, 50, 50, 0, 50, 0, 3])), 3, 0.1],
    ['double', art(line([0, 0, 90, 0]), line([90, 0, 0, 0])), 90, 0.05],
    [
      'not-welded',
      art(line([0, 0, 40, 0, 40, 40, 0, 40], true), line([20, 10, 60, 10, 60, 50, 20, 50], true)),
      undefined,
      undefined,
    ],
    ['self-crossing', art(line([0, 0, 40, 40, 40, 0, 0, 40], true)), undefined, undefined],
    ['hairline', art(line([0, 0, 40, 0, 40, 40], true)), undefined, undefined],
    ['gradient', art(box(0, 0, 40, 40, { look: 'gradient' })), undefined, undefined],
    ['translucent', art(box(0, 0, 40, 40, { look: 'translucent' })), undefined, undefined],
  ])('%s', (code, artwork, measured, limit) => {
    const finding = planOf(artwork).findings.find((f) => f.code === code)!;
    expect(finding.where).toBeDefined();
    if (measured !== undefined) {
      expect(Math.abs(finding.measured! - measured)).toBeLessThan(0.05);
      expect(finding.limit).toBe(limit);
    }
    expect(codes(artwork, finding.fixes)).not.toContain(code);
  });

  test('all of a kind at once', () => {
    const many = art(
      box(0, 0, 60, 60),
      ...Array.from({ length: 90 }, (_, i) => box(70 + 8 * (i % 9), 8 * Math.floor(i / 9), 1.2, 1.2)),
    );
    const found = planOf(many).findings.filter(({ code }) => code === 'island');
    // sixty by themselves, one for the rest
    expect(found).toHaveLength(61);
    expect(found[60].message).toBe('30 more loose shapes of Harbour blue are too small to hold.');
    expect(codes(many, [{ kind: 'island', at: '*' }])).toEqual([]);
  });

  test('what is sent to print is not cut', () => {
    const artwork = art(box(0, 0, 40, 40), box(60, 0, 40, 40, { look: 'gradient', colour: '#b0202f' }));
    const plan = planOf(artwork, [{ kind: 'print', at: '*' }]);
    expect(plan.separation.films.map(({ area }) => area)).toEqual([1600]);
    expect(plan.prepared.lines.map(({ kind }) => kind)).toEqual(['print']);
  });
});

test('a thickened stem is as wide as the limit, and no other film is cut where it grew', () => {
  const artwork = art(box(0, 0, 100, 60, { colour: '#b0202f' }), box(10, 30, 80, 0.8), box(10, 10, 20, 10));
  // edge to edge, so that what one film gains another gives
  const before = planOf(artwork, [], {}, BUTT).separation;
  const after = planOf(artwork, [{ kind: 'thicken', at: '*' }], {}, BUTT).separation;
  const area = (s: typeof before, film: string): number => s.films.find((f) => f.film.id === film)!.area;
  const grown = area(after, 'harbour') - area(before, 'harbour');
  // from 0.8 to 1.53 mm over 80 mm and a little at both ends
  expect(grown).toBeGreaterThan(80 * 0.7);
  expect(grown).toBeLessThan(80 * 0.76 + 4);
  expect(area(before, 'currant') - area(after, 'currant')).toBeCloseTo(grown, 0);
});

test('a left finding tells its reason and asks for nothing; a place stays the same place at another size', () => {
  const artwork = art(box(0, 0, 60, 60), box(70, 0, 60, 0.9));
  const { key } = planOf(artwork).findings.find(({ code }) => code === 'narrow')!;
  for (const width of [null, 140]) {
    const { artworks, choices } = oneFile(artwork, {
      artwork: { width, ignored: [{ key: key!, reason: 'seen' }] },
    });
    const found = planAndCheck(createPlanner(), artworks, choices, DEMO_SHOP).findings.find(
      ({ code }) => code === 'narrow',
    );
    expect(found).toMatchObject({ severity: 'note', ignored: 'seen' });
  }
});

test('plain shapes raise no alarm, wherever they lie', () => {
  const side = fc.double({ min: 4, max: 80, noNaN: true });
  fc.assert(
    fc.property(fc.array(fc.tuple(side, side), { minLength: 1, maxLength: 6 }), (sides) => {
      const shapes = sides.map(([w, h], i) => box(i * 100, 0, w, h));
      expect(codes(art(...shapes)).filter((code) => code !== 'too-wide')).toEqual([]);
    }),
    { numRuns: 40 },
  );
});

describe('line kinds', () => {
  const artwork = art(
    box(0, 0, 100, 60),
    line([0, 30, 100, 30], false, { colour: '#b0202f', layer: 'Fold' }),
  );

  test('by colour, by layer, by shape: the narrower rule counts', () => {
    const kinds = (lines: Partial<LineRules>): (string | undefined)[] =>
      planOf(artwork, [], lines).prepared.lines.map(({ kind }) => kind);
    expect(kinds({})).toEqual(['kiss']);
    expect(kinds({ colour: { '#b0202f': 'through' } })).toEqual(['through']);
    expect(kinds({ colour: { '#b0202f': 'through' }, layer: { Fold: 'crease' } })).toEqual(['crease']);
    expect(kinds({ layer: { Fold: 'crease' }, shape: { 'p1/1': 'perforated' } })).toEqual(['perforated']);
  });

  test('lines that only divide go into the base film; dashes are whole and keep their gaps', () => {
    const plan = planOf(artwork, [], { layer: { Fold: 'perforated' } });
    expect(plan.cuts).toHaveLength(1);
    const [{ program, strip, recipe }] = plan.cuts;
    const dashes = program.lines.filter(({ kind }) => kind === 'perforated');
    // 100 mm of 3 mm cut and 0.4 mm left (common practice, no source), ending on a cut
    expect(dashes).toHaveLength(Math.round((100 + 0.4) / 3.4));
    const head = Buffer.from(
      writeHpgl(program, plan.cutter!.device, strip.cuttable).lines.at(-1)!,
    ).toString();
    expect(head).toContain(`FS${Math.round(recipe.force! * 2.5)};`);
    // kiss before what goes through the backing, the weed border between
    const order = program.lines.map(({ kind, part }) => `${kind} ${part}`);
    expect(order.indexOf('kiss border')).toBeLessThan(order.indexOf('perforated art'));
  });

  test('a crease wants a second tool: on a cutter with one it is left out and told', () => {
    const plan = planOf(artwork, [], { layer: { Fold: 'crease' } });
    expect(plan.findings.map(({ code }) => code)).toContain('no-second-tool');
    expect(plan.cuts[0].program.lines.some(({ kind }) => kind === 'crease')).toBe(false);
  });

  test('a stroke with a width is cut around, a hairline along, and either by choice', () => {
    const wide = { ...NO_WIDTH, width: 4 };
    const strokes = art({ ...line([0, 0, 100, 0]), stroke: wide }, line([0, 50, 100, 50]));
    const [followed, around] = [planOf(strokes).prepared.lines, planOf(strokes).prepared.shapes];
    expect([followed.length, around.length]).toEqual([1, 1]);
    expect(planOf(strokes, [], { stroke: { '*': 'line' } }).prepared.lines).toHaveLength(2);
    const both = planOf(strokes, [{ kind: 'outline', at: 'p1/1' }]).prepared.shapes;
    expect(both).toHaveLength(2);
    expect(regionArea(both[1].region)).toBeGreaterThan(100);
  });
});
