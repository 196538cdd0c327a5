import { describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import { preparePiece } from '../artwork/preparePiece';
import { seenColours } from '../films/seen';
import { readResolvedSvg } from '../readers/svg/readResolvedSvg';
import { boundsTouch, outset } from './bounds';
import { smallest } from './lists';
import { componentsOf } from './nesting';
import { flatten } from './path';
import { IDENTITY } from './matrix';
import { difference, grow, outlineLength, rectangle, regionArea, regionBounds, weld } from './region';
import type { Region } from './region';
import { narrowPlaces } from './narrow';

const box = (x: number, y: number, w: number, h: number): Region =>
  rectangle({ minX: x, minY: y, maxX: x + w, maxY: y + h });
const disc = (x: number, y: number, r: number): Region => {
  const k = r * 0.5522847498;
  const xy = [x + r, y, x + r, y + k, x + k, y + r, x, y + r, x - k, y + r, x - r, y + k, x - r, y];
  xy.push(x - r, y - k, x - k, y - r, x, y - r, x + k, y - r, x + r, y - k, x + r, y);
  return weld(flatten({ ops: 'MCCCCZ', xy }, IDENTITY).map((line) => line.points));
};
const LIMIT = 1.5;

describe('narrow places', () => {
  test.each([
    ['a square', box(0, 0, 40, 40)],
    ['a disc', disc(0, 0, 20)],
    ['a small disc, twice the limit across', disc(0, 0, 1.6)],
    ['an L with square corners', weld([...box(0, 0, 5, 40), ...box(0, 35, 30, 5)])],
    ['a triangle with even sides', [Float64Array.of(0, 0, 40, 0, 20, 34.641)]],
    ['a ring that is thick enough', difference(disc(0, 0, 20), disc(0, 0, 18.3))],
  ])('%s has none', (_, region) => expect(narrowPlaces(region, LIMIT)).toEqual([]));

  test.each([0.3, 0.6, 0.9, 1.2, 1.45])('a bar %d mm thick is as thick as it is', (thick) => {
    const [place, ...more] = narrowPlaces(box(3, 4, 60, thick), LIMIT);
    expect(more).toEqual([]);
    expect(Math.abs(place.width - thick)).toBeLessThan(0.05);
    expect(place.length).toBeGreaterThan(50);
  });

  test.each([0.4, 0.8, 1.3])('a ring %d mm thick, holes and all', (thick) => {
    const places = narrowPlaces(difference(disc(0, 0, 25), disc(0, 0, 25 - thick)), LIMIT);
    expect(places).toHaveLength(1);
    expect(Math.abs(places[0].width - thick)).toBeLessThan(0.05);
  });

  test('a blunt wedge is as wide as its narrow end', () => {
    // 4 mm at one end, 0.7 at the other, over 60 mm; the disc that fits at the end is a little wider than it
    const wedge: Region = [Float64Array.of(0, -2, 60, -0.35, 60, 0.35, 0, 2)];
    const [place] = narrowPlaces(wedge, LIMIT);
    expect(Math.abs(place.width - 0.7)).toBeLessThan(0.05);
    // by similar triangles the limit is reached where the wedge is 1.5 mm wide
    expect(Math.abs(place.where.minX - (60 * (4 - LIMIT)) / 3.3)).toBeLessThan(1);
  });

  test('a stem between two blocks is found, the blocks are not', () => {
    const bell = weld([...box(0, 0, 20, 20), ...box(20, 9.5, 15, 1), ...box(35, 0, 20, 20)]);
    const [place, ...more] = narrowPlaces(bell, LIMIT);
    expect(more).toEqual([]);
    expect(Math.abs(place.width - 1)).toBeLessThan(0.05);
    expect(place.where.minX).toBeGreaterThan(19.5);
    expect(place.where.maxX).toBeLessThan(35.5);
  });

  test('a letter H drawn with 0.9 mm strokes: all five arms are one place', () => {
    const h = weld([...box(0, 0, 0.9, 20), ...box(10, 0, 0.9, 20), ...box(0, 9, 10.9, 0.9)]);
    const places = narrowPlaces(h, LIMIT);
    expect(places.length).toBeGreaterThan(0);
    for (const place of places) expect(Math.abs(place.width - 0.9)).toBeLessThan(0.05);
  });

  test('a gap of 0.2 mm between two blocks is narrow outside, not inside', () => {
    const two = [...box(0, 0, 20, 20), ...box(20.2, 0, 20, 20)];
    expect(narrowPlaces(two, LIMIT)).toEqual([]);
    const [gap, ...more] = narrowPlaces(two, 0.5, 'outside');
    expect(more).toEqual([]);
    expect(Math.abs(gap.width - 0.2)).toBeLessThan(0.02);
  });

  test('a jog of less than the grid in an edge is no stem, wherever it lies', () => {
    for (let at = 10; at < 11; at += 0.037) {
      const band: Region = [Float64Array.of(0, 0, at, 0, at, 0.0001, 40, 0.0001, 40, 12, 0, 12)];
      expect(narrowPlaces(band, LIMIT)).toEqual([]);
      const thin: Region = [Float64Array.of(0, 0, at, 0, at, 0.0001, 40, 0.0001, 40, 1, 0, 1)];
      expect(narrowPlaces(thin, LIMIT).map(({ width }) => width)).toEqual([expect.closeTo(1, 1)]);
    }
  });

  test('what ends in a point is one place, as wide as it is in the mean', () => {
    // a spike of 20 mm on a block, 1.2 mm wide at its foot
    const spike = weld([...box(0, 0, 20, 20), Float64Array.of(20, 9.4, 40, 10, 20, 10.6)]);
    const [place, ...more] = narrowPlaces(spike, LIMIT);
    expect(more).toEqual([]);
    expect(place.width).toBeGreaterThan(0.5);
    expect(place.width).toBeLessThan(0.7);
  });
});

/** Area over length of what an opening by a disc takes away (Serra 1982), and where: stems by other means. */
function stemsByOpening(region: Region, limit: number) {
  const open = grow(grow(region, -limit / 2), limit / 2 + 0.004);
  return componentsOf(difference(region, open)).map((part) => ({
    width: (2 * regionArea(part)) / outlineLength(part),
    where: outset(regionBounds(part), 0.05),
  }));
}

test('in drawings by others: each is taken away by an opening, and what is thin by one measure is so by the other', () => {
  const folder = 'node_modules/@twemoji/svg';
  const names = readdirSync(folder).filter((_, i) => i % 97 === 0);
  let places = 0;
  for (const name of names) {
    const svg = new Resvg(readFileSync(`${folder}/${name}`, 'utf8'), { font: { loadSystemFonts: false } });
    const { shapes } = preparePiece(readResolvedSvg(svg.toString()), {
      width: 300,
      height: null,
      lockAspect: true,
    });
    for (const { region } of seenColours(shapes)) {
      const stems = stemsByOpening(region, 0.8);
      for (const { width, where } of narrowPlaces(region, 0.8)) {
        const here = stems.filter((stem) => boundsTouch(stem.where, where));
        expect(here.length).toBeGreaterThan(0);
        places++;
        if (width >= 0.05) continue;
        expect(smallest(here.map((stem) => stem.width))).toBeLessThan(0.1);
      }
    }
  }
  expect(places).toBeGreaterThan(60);
});
