import { describe, expect, test } from '@jest/globals';
import { flatten } from './path';
import { IDENTITY } from './matrix';
import { difference, rectangle, weld } from './region';
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
});
