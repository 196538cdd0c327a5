/** What is written into the waste: keys across seams, and panels' numbers. */
import { describe, expect, test } from '@jest/globals';
import { DEMO_FILMS } from '../../demo/shop';
import type { FilmLayer } from '../films/separate';
import { heightOf, widthOf } from '../geometry/bounds';
import { lineLength } from '../geometry/path';
import { linesInside, rectangle, regionArea, regionBounds, weld } from '../geometry/region';
import type { Region } from '../geometry/region';
import { random } from '../random';
import type { PanelChoices } from './choices';
import { NO_PANEL_CHOICES } from './choices';
import type { PanelPart } from './panel';
import { panel } from './panel';
import { panelNumber } from './panelNumber';
import { panelling } from './panelling';
import { plainLayer } from './plainLayer.testing';
import type { PanelRoom } from './room';
import { fitsIn } from './room';
import { KEY_WIDTH, keyOutline, seamKeys } from './seamKeys';
import { figures, figuresWidth, inFigures } from './strokeFigures';
import { times } from '../sample.testing';

const box = (x: number, y: number, w: number, h: number): Region =>
  rectangle({ minX: x, minY: y, maxX: x + w, maxY: y + h });
const disc = (x: number, y: number, r: number): Float64Array =>
  Float64Array.from({ length: 120 }, (_, i) => {
    const a = (Math.PI * (i >> 1)) / 30;
    return i % 2 === 0 ? x + r * Math.cos(a) : y + r * Math.sin(a);
  });
const ROOM: PanelRoom = { across: 580, along: 4000, reserve: 0, turn: 'shorter' };
const strewn = (seed: number, width = 2600, height = 1100): Region => {
  const next = random(seed * 101 + 9);
  return weld(Array.from({ length: 40 }, () => disc(next() * width, next() * height, 20 + next() * 110)));
};

/** All panels of some films, as one would cut them. */
function panelsOf(layers: readonly FilmLayer[], more: Partial<PanelChoices>, room = ROOM): PanelPart[] {
  const choices = { ...NO_PANEL_CHOICES, ...more };
  const made = panelling(
    layers,
    layers.map(() => room),
    [],
    choices,
  );
  expect(made.findings.filter(({ severity }) => severity === 'stop')).toEqual([]);
  return layers.flatMap((layer) => {
    return panel(layer, { panelling: made, choices, room, order: 2046 }).panels;
  });
}
const touches = (points: Float64Array, closed: boolean, art: Region): boolean =>
  linesInside([{ points, closed }], art).some((line) => lineLength(line) > 0.01);

describe('seam keys', () => {
  test('outside the art where panels have room for them, the same shape on both panels', () => {
    const layer = plainLayer(box(0, 0, 1000, 400), DEMO_FILMS[0]);
    const panels = panelsOf([layer], { way: 'by-hand', upright: [500], numbers: 'none' });
    const keys = panels.map(({ waste }) => waste.map(({ points }) => [...points].join()));
    expect(keys[0]).toHaveLength(2);
    expect(keys[1]).toEqual(keys[0]);
    for (const { waste } of panels)
      for (const { points } of waste) {
        const { minX, maxX, minY, maxY } = regionBounds([points]);
        expect([(minX + maxX) / 2, maxX - minX]).toEqual([500, KEY_WIDTH]);
        expect(maxY <= 0 || minY >= 400).toBe(true);
      }
  });

  test('in the waste inside where there is no room outside; at least two on a long seam, none on art', () => {
    const holes = [0, 1, 2, 3].map((i) => disc(500, 80 + i * 130, 50));
    const art = [...box(0, 0, 1000, 560), ...holes.map((hole) => backwardsOf(hole))];
    const layer = plainLayer(art, DEMO_FILMS[0]);
    const tight: PanelRoom = { across: 565, along: 4000, reserve: 0, turn: 'as-drawn' };
    const [first, second] = panelsOf([layer], { way: 'by-hand', upright: [500], numbers: 'none' }, tight);
    expect(first.waste.length).toBeGreaterThanOrEqual(2);
    expect(second.waste).toEqual(first.waste);
    for (const { points } of first.waste) expect(touches(points, true, art)).toBe(false);
    // the farthest of the four holes
    const ys = first.waste.map(({ points }) => points[1]).sort((a, b) => a - b);
    expect(ys[0]).toBeLessThan(140);
    expect(ys.at(-1)).toBeGreaterThan(400);
  });

  const backwardsOf = (ring: Float64Array): Float64Array =>
    ring.map((_, i, all) => all[all.length - 2 - (i & ~1) + (i & 1)]);

  test('on any wall: never on art, always alike on both sides, panels never over the limit with them', () => {
    for (let seed = 0; seed < times(10, 4); seed++) {
      const layers = [plainLayer(strewn(seed), DEMO_FILMS[0]), plainLayer(strewn(seed + 100), DEMO_FILMS[1])];
      const way = (['when-needed', 'wandering', 'equal', 'media'] as const)[seed % 4];
      const panels = panelsOf(layers, {
        way,
        overlap: seed % 3 === 0 ? 8 : 0,
        stagger: seed % 5 === 0 ? 15 : 0,
      });
      const sides = new Map<string, number>();
      for (const { film, waste, bounds, cell } of panels) {
        expect([cell.number, fitsIn(widthOf(bounds), heightOf(bounds), ROOM)]).toEqual([cell.number, true]);
        for (const { points, what, closed } of waste) {
          const box = regionBounds([points]);
          expect([box.minX >= bounds.minX - 1e-6, box.maxX <= bounds.maxX + 1e-6]).toEqual([true, true]);
          if (what !== 'key') continue;
          for (const { region } of layers) expect(touches(points, closed, region)).toBe(false);
          const name = `${film.id} ${[...points].join()}`;
          sides.set(name, (sides.get(name) ?? 0) + 1);
        }
      }
      for (const [, count] of sides) expect(count).toBe(2);
      expect(sides.size).toBeGreaterThan(0);
    }
  });

  test('lines that a tool follows are art too: neither keys nor numbers lie on them', () => {
    const ways = [60, 150, 240, 330].map((y) => Float64Array.of(10, y, 990, y));
    const lines = ways.map((points) => ({
      points,
      closed: false,
      kind: 'pen',
      bounds: regionBounds([points]),
    }));
    const layer = {
      ...plainLayer([...box(0, 0, 1000, 5), ...box(0, 395, 1000, 5)], DEMO_FILMS[0]),
      lines: lines as unknown as FilmLayer['lines'],
    };
    const tight: PanelRoom = { across: 402, along: 4000, reserve: 0, turn: 'as-drawn' };
    const panels = panelsOf([layer], { way: 'by-hand', upright: [500] }, tight);
    const waste = panels.flatMap((part) => part.waste);
    expect(waste.filter(({ what }) => what === 'key').length).toBeGreaterThanOrEqual(4);
    expect(waste.some(({ what }) => what === 'number')).toBe(true);
    for (const { points, closed } of waste)
      for (const y of [60, 150, 240, 330])
        expect(touches(points, closed, box(10, y - 0.2, 980, 0.4))).toBe(false);
  });

  test('one for a short seam, two for a long one, three for a very long one', () => {
    const count = (length: number): number =>
      seamKeys(
        { upright: [100], level: [] },
        [],
        { minX: 0, minY: 0, maxX: 200, maxY: length },
        { upright: false, level: false },
      ).length;
    expect([60, 400, 2500].map(count)).toEqual([1, 2, 3]);
    expect(regionArea([keyOutline({ axis: 'upright', seam: 0, x: 0, y: 0 })])).toBeCloseTo((8 * 12) / 2, 9);
  });
});

describe('numbers', () => {
  test('say the panel, its film, its order and which way is up; on no art, inside the panel', () => {
    for (let seed = 0; seed < 12; seed++) {
      const layer = plainLayer(strewn(seed), DEMO_FILMS[0]);
      for (const { waste, region, bounds } of panelsOf([layer], { way: 'equal', keys: false })) {
        expect(waste.length).toBeGreaterThan(0);
        for (const { points, closed, what } of waste) {
          expect(what).toBe('number');
          expect(touches(points, closed, region)).toBe(false);
          const own = regionBounds([points]);
          expect(own.minX >= bounds.minX && own.maxX <= bounds.maxX && own.maxY <= bounds.maxY).toBe(true);
        }
      }
    }
  });

  test('shorter and smaller where there is little waste, below where there is none, else not at all', () => {
    const name = { number: 7, film: 'Tide blue', order: 2046 };
    const never = (): boolean => false;
    const full = box(0, 0, 400, 300);
    const at = { minX: 0, minY: 0, maxX: 400, maxY: 300 };
    expect(panelNumber(name, full, at, never)).toEqual([]);
    const below = panelNumber(name, full, at, () => true);
    expect(below.every((line) => regionBounds([line]).minY >= 300)).toBe(true);
    const roomy = { ...at, maxX: 900 };
    const long = panelNumber(name, full, roomy, never);
    const tight = panelNumber(name, full, { ...at, maxX: 430 }, never);
    expect(long.length).toBeGreaterThan(tight.length);
    expect(tight.length).toBeGreaterThan(0);
    // a counter is waste too
    const frame = weld([...full]).concat(
      box(100, 100, 200, 60).map((ring) =>
        Float64Array.of(...ring)
          .reverse()
          .map((_, i, all) => all[i ^ 1]),
      ),
    );
    expect(panelNumber(name, frame, at, never).length).toBe(long.length);
  });

  test('figures keep to what they know, and to their height', () => {
    expect(inFigures('Crème, 12°')).toBe('CREME 12');
    const lines = figures('^7 DAMSON #2046', 10, 20, 6);
    const { minX, minY, maxX, maxY } = regionBounds(lines);
    expect([minX, minY, maxY]).toEqual([10, 20, 26]);
    expect(maxX - minX).toBeCloseTo(figuresWidth('^7 DAMSON #2046', 6), 9);
    // no two figures are the same strokes
    const drawn = [...'0123456789ABCDEFGHIJKLMNPQRSTUVWXYZ-/.+#^'].map((one) =>
      String(figures(one, 0, 0, 6)),
    );
    expect(new Set(drawn).size).toBe(drawn.length);
  });
});
