import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { PreparedShape } from '../artwork/preparePiece';
import type { Region } from '../geometry/region';
import {
  difference,
  intersection,
  mapRegion,
  outlineLength,
  rectangle,
  regionArea,
  regionBounds,
  strokeOutline,
  weld,
} from '../geometry/region';
import { translation } from '../geometry/matrix';
import type { Film } from './film';
import { folded, nearEqual } from './fold';
import { markPlaces, markRegion } from './marks';
import type { Overlap } from './overlap';
import { pileAt } from './overlap';
import { seenColours } from './seen';
import { createMemory } from '../stages/remember';
import { NO_FILM_CHOICES, separate, separating } from './separate';
import type { FilmChoices } from './separate';

const COLOURS = ['#b0202f', '#1d3f86', '#5b8a3a', '#f5cf1b'];
const FILMS: Film[] = COLOURS.map((colour, i) => ({
  id: `film${i}`,
  name: `Film ${i}`,
  code: `F${i}`,
  colour,
  rolls: [{ width: 610, lengthLeft: 20_000 }],
  cutFromBack: false,
  kind: 'sign',
}));
const shape = (colour: string, region: Region): PreparedShape => ({
  colour,
  region,
  bounds: regionBounds(region),
  ref: 'p1/0',
});
const box = (colour: string, x: number, y: number, w: number, h: number): PreparedShape =>
  shape(colour, rectangle({ minX: x, minY: y, maxX: x + w, maxY: y + h }));
const all = (overlap: Overlap): FilmChoices => ({
  ...NO_FILM_CHOICES,
  film: Object.fromEntries(FILMS.map(({ id, colour }) => [colour, id])),
  overlap: Object.fromEntries(FILMS.map(({ id }) => [id, overlap])),
});
const layersOf = (shapes: PreparedShape[], choices: FilmChoices) =>
  separate(seenColours(shapes, [], choices.fold), choices, FILMS, [], { width: 100, height: 100, shapes });

describe('one film under another', () => {
  // a disc of another colour in the middle of a plate, as a square
  const plate = [box(COLOURS[0], 0, 0, 100, 100), box(COLOURS[1], 30, 30, 40, 40)];
  test.each([
    ['butt', { mode: 'butt', by: 0 }, 10_000 - 1600],
    ['full', { mode: 'full', by: 0 }, 10_000],
    // a frame 2 mm wide inside a square of 40
    ['trap', { mode: 'trap', by: 2 }, 10_000 - 36 * 36],
  ] as const)('%s: its area in closed form', (_, overlap, area) => {
    const [lower, upper] = layersOf(plate, all(overlap)).films;
    expect(lower.area).toBeCloseTo(area, 1);
    expect(upper.area).toBeCloseTo(1600, 3);
    // 2 µm past the edge that the two share, so that they weld
    expect(Math.abs(regionArea(lower.hidden) - (area - 8400))).toBeLessThan(0.0025 * 160);
  });

  test('another film on the same outlines is trapped as before; another trap or another upper outline is not', () => {
    const seen = seenColours(plate);
    const sign = { width: 100, height: 100, shapes: plate };
    const remembering = separating(createMemory().stage);
    const cutOf = (choices: FilmChoices, colours = seen) =>
      remembering(colours, choices, FILMS, [], sign).films.map(({ region }) => region);
    const by = (mm: number): FilmChoices => all({ mode: 'trap', by: mm });
    const first = cutOf(by(2));
    const other = cutOf({ ...by(2), film: { [COLOURS[0]]: 'film2', [COLOURS[1]]: 'film1' } });
    // the very same outlines: nothing was worked out again
    expect(other[0][1]).toBe(first[0][1]);
    expect(regionArea(cutOf(by(3))[0])).toBeCloseTo(10_000 - 34 * 34, 1);
    const smaller = [plate[0], box(COLOURS[1], 40, 40, 20, 20)];
    const others = [seen[0], seenColours(smaller)[1]];
    expect(regionArea(cutOf(by(2), others)[0])).not.toBeCloseTo(regionArea(first[0]), 0);
    expect(regionArea(cutOf(by(2))[0])).toBeCloseTo(10_000 - 36 * 36, 1);
  });

  test('a hole in the artwork stays open, whatever lies under what', () => {
    const ring = [
      box(COLOURS[0], 0, 0, 100, 100),
      shape(COLOURS[1], difference(plate[1].region, rectangle({ minX: 40, minY: 40, maxX: 60, maxY: 60 }))),
    ];
    const off = { ...all({ mode: 'full', by: 0 }), off: [COLOURS[1]] };
    // the inner colour is not cut: the surface shows through, so nothing goes under it
    expect(layersOf(ring, off).films[0].area).toBeCloseTo(10_000 - 1200, 2);
  });

  test('see-through film under another is told, and three whole films on metallic', () => {
    const clear = FILMS.map((film, i) => (i === 0 ? { ...film, build: 'translucent' as const } : film));
    const choices = all({ mode: 'full', by: 0 });
    const sign = { width: 100, height: 100, shapes: plate };
    const codes = (films: Film[], shapes: PreparedShape[]): string[] =>
      separate(seenColours(shapes), choices, films, [], { ...sign, shapes }).findings.map(({ code }) => code);
    expect(codes(clear, plate)).toContain('overlap-shows');
    const pile = [...plate, box(COLOURS[2], 40, 40, 20, 20)];
    const metallic = FILMS.map((film, i) => (i === 0 ? { ...film, build: 'metallic' as const } : film));
    expect(codes(metallic, pile)).toContain('stacked');
    expect(codes(FILMS, pile)).not.toContain('stacked');
  });

  test('how many films lie on one is counted at each place, against the limit of that very film', () => {
    const pile = [...plate, box(COLOURS[2], 40, 40, 20, 20), box(COLOURS[3], 75, 75, 10, 10)];
    const stack = (limits: Record<number, number>) => {
      const films = FILMS.map((film, i) => ({ ...film, limits: { stack: limits[i] ?? 20 } }));
      const choices = all({ mode: 'full', by: 0 });
      return separate(seenColours(pile), choices, films, [], { width: 100, height: 100, shapes: pile });
    };
    // on the plate: two at (35, 35), three at (50, 50), two at (80, 80); four colours, but never four films
    const { films, findings } = stack({ 0: 2 });
    expect(findings.filter(({ code }) => code === 'stacked')).toMatchObject([
      { measured: 3, limit: 2, key: 'stacked film0', where: { minX: 40, minY: 40, maxX: 60, maxY: 60 } },
    ]);
    expect(stack({ 0: 3 }).findings).toEqual([]);
    expect(stack({ 1: 1 }).findings).toMatchObject([{ measured: 2, limit: 1, key: 'stacked film1' }]);
    const names = (x: number, y: number): string[] => pileAt(films, [x, y]).map(({ film }) => film.id);
    expect(names(10, 10)).toEqual(['film0']);
    expect(names(50, 50)).toEqual(['film0', 'film1', 'film2']);
    expect(names(80, 80)).toEqual(['film0', 'film3']);
    expect(names(200, 80)).toEqual([]);
  });
});

const at = fc.integer({ min: 0, max: 80 });
const side = fc.integer({ min: 8, max: 60 });
const piles = fc.array(
  fc
    .tuple(fc.constantFrom(...COLOURS), at, at, side, side)
    .map(([colour, x, y, w, h]) => box(colour, x, y, w, h)),
  { minLength: 2, maxLength: 8 },
);
const shift = fc.double({ min: -1, max: 1, noNaN: true });

describe('properties of any pile', () => {
  test('butt films are disjoint and their union is the silhouette; trap never passes what covers it', () => {
    fc.assert(
      fc.property(piles, (pile) => {
        const butt = layersOf(pile, all({ mode: 'butt', by: 0 })).films;
        const silhouette = weld(pile.flatMap(({ region }) => region));
        const slack = 0.001 * butt.reduce((sum, { region }) => sum + outlineLength(region), 10);
        expect(Math.abs(butt.reduce((sum, { area }) => sum + area, 0) - regionArea(silhouette))).toBeLessThan(
          slack,
        );
        const trapped = layersOf(pile, all({ mode: 'trap', by: 1.5 })).films;
        trapped.forEach(({ region, hidden }, i) => {
          expect(regionArea(difference(region, silhouette))).toBeLessThan(slack);
          const above = weld(
            trapped.slice(i + 1).flatMap((film) => butt.find((b) => b.film.id === film.film.id)!.region),
          );
          expect(regionArea(difference(hidden, above))).toBeLessThan(slack);
        });
      }),
      { numRuns: 60, seed: 7 },
    );
  });

  test('trap never shows: each film shifted by up to half of it leaves no bare surface where there was none', () => {
    const TRAP = 2;
    fc.assert(
      fc.property(piles, fc.array(fc.tuple(shift, shift), { minLength: 4, maxLength: 4 }), (pile, moves) => {
        const { films } = layersOf(pile, all({ mode: 'trap', by: TRAP }));
        const shifted = films.flatMap(({ region }, i) => {
          const [x, y] = moves[i % 4];
          const far = Math.max(1, Math.hypot(x, y));
          return mapRegion(region, translation((x / far) * (TRAP / 2), (y / far) * (TRAP / 2)));
        });
        const silhouette = weld(films.flatMap(({ region }) => region));
        // the outer edge moves with its film: only what lies further in than half the trap must stay covered
        const rim = strokeOutline(
          silhouette.map((points) => ({ points, closed: true })),
          TRAP + 0.02,
          { join: 'round', cap: 'round', miterLimit: 4 },
        );
        const bare = difference(difference(silhouette, rim), weld(shifted));
        expect(regionArea(bare)).toBeLessThan(0.02);
      }),
      { numRuns: 60, seed: 7 },
    );
  });
});

describe('folding', () => {
  const colour = (hex: string, area: number) => ({ colour: hex, area });
  test('near-equal colours go to the largest of them, others stay', () => {
    const groups = nearEqual(
      [colour('#1d3f86', 500), colour('#1d4088', 20), colour('#1c3e85', 30), colour('#b0202f', 90)],
      2,
    );
    expect(groups).toEqual([{ into: '#1d3f86', from: ['#1c3e85', '#1d4088'] }]);
    expect(nearEqual([colour('#1d3f86', 500), colour('#b0202f', 90)], 2)).toEqual([]);
  });
  test('folded colours are one film and one outline', () => {
    const pile = [box('#1d3f86', 0, 0, 50, 50), box('#1d4088', 50, 0, 50, 50)];
    const [seen, ...more] = seenColours(pile, [], { '#1d4088': '#1d3f86' });
    expect(more).toEqual([]);
    expect(seen.region).toHaveLength(1);
    expect(Math.abs(seen.area - 5000)).toBeLessThan(0.5);
    expect(folded('#000001', { '#000001': '#000002', '#000002': '#000001' })).toMatch(/^#00000[12]$/);
  });
});

describe('layer marks', () => {
  const sign = { minX: 0, minY: 0, maxX: 300, maxY: 200 };
  test.each(['triangle', 'square', 'cross', 'ring'] as const)(
    '%s: outside the art, held by its tab',
    (shapeName) => {
      for (const count of [2, 3, 4] as const) {
        const choices = { shape: shapeName, count, size: null, at: null };
        const region = markRegion(sign, choices);
        expect(regionArea(intersection(region, rectangle(sign)))).toBe(0);
        expect(markPlaces(sign, choices)).toHaveLength(count);
        // each tab has its mark as a hole
        expect(region.filter((ring) => regionArea([ring]) < 0).length).toBeGreaterThanOrEqual(count);
      }
    },
  );
  test('marks that were moved stay, on every film; on the art they keep the order back', () => {
    const pile = [box(COLOURS[0], 0, 0, 100, 100), box(COLOURS[1], 10, 10, 20, 20)];
    const at = (x: number) =>
      ({
        shape: 'ring',
        count: 2,
        size: 8,
        at: [
          { x, y: 50 },
          { x: 130, y: 50 },
        ],
      }) as const;
    const moved = layersOf(pile, { ...NO_FILM_CHOICES, marks: at(-30) });
    expect(moved.markPlaces).toEqual([
      [-30, 50],
      [130, 50],
    ]);
    expect(moved.findings).toEqual([]);
    for (const { bounds, marks } of moved.films) {
      expect(bounds.minX).toBeCloseTo(-30 - 8 * 0.9, 6);
      expect(marks.length).toBeGreaterThanOrEqual(4);
    }
    expect(layersOf(pile, { ...NO_FILM_CHOICES, marks: at(97) }).findings).toMatchObject([
      { code: 'mark-on-art', severity: 'stop' },
    ]);
  });

  test('the same places on every film, and none for a single film', () => {
    const marks = { shape: 'triangle', count: 3, size: 8, at: null } as const;
    const pile = [box(COLOURS[0], 0, 0, 100, 100), box(COLOURS[1], 10, 10, 20, 20)];
    const { films } = layersOf(pile, { ...NO_FILM_CHOICES, marks });
    const boxes = films.map(({ bounds }) => [bounds.minX, bounds.maxX]);
    expect(boxes[0]).toEqual(boxes[1]);
    expect(layersOf(pile.slice(0, 1), { ...NO_FILM_CHOICES, marks }).films[0].area).toBeCloseTo(10_000, 3);
  });
});
