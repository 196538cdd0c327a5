import { describe, expect, test } from '@jest/globals';
import { CURLEW, DEMO_FILMS } from '../../demo/shop';
import type { Film } from '../films/film';
import { smallest } from '../geometry/lists';
import type { Polyline } from '../geometry/path';
import type { Region } from '../geometry/region';
import { grow, mapRegion, rectangle, regionBounds, ringBounds } from '../geometry/region';
import { layOut } from '../layout/layOut';
import type { LyingChoices, Strip } from '../layout/strip';
import type { WeedLineAt } from '../layout/weedChoices';
import { NO_WEED_LINES } from '../layout/weedChoices';
import type { Part } from '../panels/part';
import { DEFAULT_CHOICES } from '../plan/choices';
import type { StripWeedLines } from './lines';
import { weed } from './weeding';

const FILM: Film = { ...DEMO_FILMS[0], rolls: [{ width: 610, lengthLeft: 20_000 }] };
const box = (x: number, y: number, width: number, height: number): Region =>
  rectangle({ minX: x, minY: y, maxX: x + width, maxY: y + height });
const partOf = (region: Region, more: Partial<Part> = {}): Part => ({
  id: 'f',
  film: FILM,
  label: 'all',
  region,
  marks: [],
  lines: [],
  waste: [],
  bounds: regionBounds(region),
  area: 1,
  ...more,
});
const laid = (parts: readonly Part[], more: Partial<LyingChoices> = {}): Strip =>
  layOut(FILM, parts, { ...DEFAULT_CHOICES.layout, turn: 'as-drawn', ...more }, CURLEW).strips[0];
const weeded = (
  strip: Strip,
  border: LyingChoices['border'],
  weedLines: Partial<StripWeedLines> = {},
  isPacked = false,
) =>
  weed(strip, {
    border,
    borderDistance: 5,
    isPacked,
    weedLines: { ...NO_WEED_LINES, byHand: [], ...weedLines },
  });
const boxes = (lines: readonly Polyline[]) => lines.map(({ points }) => ringBounds(points));
const across = (at: number): WeedLineAt => ({ axis: 'upright', at });

describe('weed borders', () => {
  const two = laid([partOf(box(0, 0, 200, 100))], { copies: 2, border: 'copy' });

  test('none, one around each copy, cut after it, or one around all, cut last', () => {
    expect(weeded(two, 'none').borders.flat()).toEqual([]);
    expect(weeded(two, 'copy').borders.map(boxes)).toEqual(two.placements.map((one) => [one.box]));
    const all = laid([partOf(box(0, 0, 200, 100))], { copies: 2, border: 'box' });
    const [first, last] = weeded(all, 'box').borders;
    expect(first).toEqual([]);
    const [around] = boxes(last);
    const art = regionBounds(all.placements.flatMap(({ part, matrix }) => mapRegion(part.region, matrix)));
    for (const side of ['minX', 'minY'] as const) expect(art[side] - around[side]).toBeCloseTo(5, 9);
    for (const side of ['maxX', 'maxY'] as const) expect(around[side] - art[side]).toBeCloseTo(5, 9);
    // and the knife reaches it
    expect(around.minY).toBeGreaterThanOrEqual(0.5);
    expect(around.maxX).toBeLessThanOrEqual(all.length);
  });

  test('pieces of copies lie among one another: one box goes around them all', () => {
    expect(weeded(two, 'copy', {}, true).borders.map((lines) => lines.length)).toEqual([0, 1]);
  });

  test('one that follows the art is that far from it everywhere, and leaves its counters alone', () => {
    const ring = [...box(0, 0, 200, 100), ...box(50, 30, 60, 40).map((one) => one.toReversed())];
    // a counter wound the other way round
    const hole = Float64Array.of(50, 30, 50, 70, 110, 70, 110, 30);
    const strip = laid([partOf([ring[0], hole])], { border: 'follow' });
    const [lines] = weeded(strip, 'follow').borders;
    expect(lines).toHaveLength(1);
    const { part, matrix } = strip.placements[0];
    const expected = grow(mapRegion([part.region[0]], matrix), 5);
    expect(boxes(lines)).toEqual(expected.map(ringBounds));
  });

  test('one that follows art is broken beside layer marks, so that they stay', () => {
    const mark = box(204, 40, 10, 10);
    const strip = laid([partOf([...box(0, 0, 200, 100), ...mark], { marks: mark })], { border: 'follow' });
    const [lines] = weeded(strip, 'follow').borders;
    const tab = regionBounds(mapRegion(mark, strip.placements[0].matrix));
    const [mid, right] = [(tab.minY + tab.maxY) / 2, tab.maxX];
    for (const { points } of lines)
      for (let i = 0; i < points.length; i += 2)
        expect(points[i] > right && Math.abs(points[i + 1] - mid) < 5).toBe(false);
    expect(lines.every(({ closed }) => !closed)).toBe(true);
  });
});

describe('weed lines', () => {
  const bars = laid([partOf([...box(0, 0, 300, 60), ...box(0, 100, 300, 60)])], { border: 'copy' });
  const [{ box: around }] = bars.placements;
  const ends = ({ points }: Polyline) => [points[1], points[points.length - 1]].sort((a, b) => a - b);

  test('at a step run straight from border to border where nothing is in their way', () => {
    const strip = laid([partOf([...box(0, 0, 20, 60), ...box(280, 0, 20, 60)])], { border: 'copy' });
    const [{ box: rim }] = strip.placements;
    const { lines, findings } = weeded(strip, 'copy', { way: 'step', step: 100 });
    expect(findings).toEqual([]);
    expect(lines.flat().map(({ points }) => [points[0], points[2]])).toEqual(
      [1, 2].map((k) => [rim.minX + 100 * k, rim.minX + 100 * k]),
    );
    for (const line of lines.flat()) {
      expect(ends(line)[0]).toBeCloseTo(rim.minY, 3);
      expect(ends(line)[1]).toBeCloseTo(rim.maxY, 3);
    }
  });

  test('around what is in their way, never nearer than is asked', () => {
    // a bar from above and one from below, and room between them
    const strip = laid([partOf([...box(0, 0, 130, 70), ...box(142, 20, 130, 70)])], { border: 'copy' });
    const { lines } = weeded(strip, 'copy', { way: 'hand', byHand: [across(165)], away: 4 });
    expect(lines.flat()).toHaveLength(1);
    const [{ points }] = lines.flat();
    const xs = points.filter((_, i) => i % 2 === 0);
    const [left] = strip.placements.map(({ matrix }) => matrix[4]);
    expect(smallest(xs)).toBeGreaterThanOrEqual(left + 130 + 4 - 0.01);
  });

  test('across art they find no way, and that is told; with one along the film between, they end on it', () => {
    const none = weeded(bars, 'copy', { way: 'step', step: 100 });
    expect(none.lines.flat()).toEqual([]);
    expect(none.findings).toMatchObject([{ code: 'weed-lines-missing', measured: 2, limit: 2 }]);
    const lift = weeded(bars, 'copy', { way: 'lift', step: 100 }).lines.flat();
    const level = lift.filter(({ axis }) => axis === 'level');
    expect(level).toHaveLength(1);
    const y = level[0].points[1];
    expect(y).toBeGreaterThan(around.minY + 5 + 60);
    expect(y).toBeLessThan(around.maxY - 5 - 60);
  });

  test('end on a line along the film where art lies behind it', () => {
    // letters above, a bar below: strips of the letters' waste end on the line between
    const letters = [0, 60, 120, 180, 240].flatMap((x) => box(x, 0, 40, 60));
    const strip = laid([partOf([...letters, ...box(0, 90, 280, 40)])], { border: 'copy' });
    const lift = weeded(strip, 'copy', { way: 'lift', step: 90 }).lines.flat();
    const [level] = lift.filter(({ axis }) => axis === 'level');
    const upright = lift.filter(({ axis }) => axis === 'upright');
    expect(upright.length).toBeGreaterThanOrEqual(2);
    for (const line of upright) {
      expect(ends(line)[0]).toBeCloseTo(strip.placements[0].box.minY, 2);
      expect(Math.abs(ends(line)[1] - level.points[1])).toBeLessThan(0.05);
    }
  });

  test('no strip of waste is wider than can be lifted, where there is room', () => {
    const strip = laid([partOf([...box(0, 0, 10, 60), ...box(1000, 0, 10, 60)])], { border: 'copy' });
    const { lines } = weeded(strip, 'copy', { way: 'lift', step: 120 });
    const { minX, maxX } = strip.placements[0].box;
    const places = [minX, ...lines.flat().map(({ points }) => points[0]), maxX];
    for (let i = 1; i < places.length; i++) expect(places[i] - places[i - 1]).toBeLessThanOrEqual(120);
  });

  test('copies get the same lines, each cut before the film goes on', () => {
    const strip = laid([partOf(box(0, 0, 400, 60)), partOf(box(0, 0, 300, 500), { id: 'g' })], {
      border: 'copy',
      copies: 2,
      turn: 'as-drawn',
    });
    const lines = weeded(strip, 'none', { way: 'step', step: 150 }).lines;
    lines.forEach((own, i) => {
      const next = strip.placements[i + 1];
      for (const { points } of own)
        if (next && next.box.minX > strip.placements[i].box.minX)
          expect(smallest(points.filter((_, k) => k % 2 === 0))).toBeLessThan(next.box.minX);
    });
    const copies = weeded(strip, 'copy', { way: 'step', step: 150 }).lines;
    const relative = copies.map((own, i) => own.map(({ at }) => at - strip.placements[i].box.minX));
    const of = (id: string) => relative.filter((_, i) => strip.placements[i].part.id === id);
    expect(of('f')[1].map((at) => at.toFixed(6))).toEqual(of('f')[0].map((at) => at.toFixed(6)));
  });
});
