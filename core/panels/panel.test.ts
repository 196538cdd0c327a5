import { DEMO_FILMS } from '../../demo/shop';
import { expect, test } from '@jest/globals';
import { difference, rectangle, regionArea } from '../geometry/region';
import type { Region } from '../geometry/region';
import { shapeAt } from '../films/again';
import { liesOn } from '../geometry/nesting';
import type { FilmLayer } from '../films/separate';
import { plainLayer } from './plainLayer.testing';
import { panel } from './panel';
import type { Part } from './part';

const square = (x: number, y: number, side: number): Region =>
  rectangle({ minX: x, minY: y, maxX: x + side, maxY: y + side });
/** A ring of film with an island in its hole, and a square beside it. */
const region = [
  ...difference(square(0, 0, 60), square(10, 10, 40)),
  ...square(25, 25, 10),
  ...square(100, 0, 20),
];
const layer: FilmLayer = { ...plainLayer(region, DEMO_FILMS[0]), copies: 3 };
const again = (...at: readonly (readonly [number, number])[]): readonly Part[] =>
  panel(layer, undefined, { film: 'damson', at: at.map(([x, y]) => ({ x, y })) }).parts;

test('the shape that a place lies on is cut again, once, with its holes and without what lies in them', () => {
  const [ring] = again([5, 30]);
  expect(ring.area).toBeCloseTo(3600 - 1600, 6);
  expect(ring.copies).toBe(1);
  expect(ring.bounds).toEqual({ minX: 0, minY: 0, maxX: 60, maxY: 60 });
  expect(again([30, 30])[0].area).toBeCloseTo(100, 6);
  // every shape is a part of its own, known by where it lies
  const two = again([30, 30], [110, 10], [112, 11]);
  expect(two.map(({ id, area }) => [id, Math.round(area)])).toEqual([
    ['damson@25.0,25.0', 100],
    ['damson@100.0,0.0', 400],
  ]);
});

test('a place in a hole, beside the film or on a film that is not there names nothing', () => {
  expect(again([15, 15])).toEqual([]);
  expect(again([90, 90])).toEqual([]);
  expect(panel(layer, undefined, { film: 'tar', at: [{ x: 5, y: 30 }] }).parts).toEqual([]);
  // a tap in its hole selects it too
  expect(liesOn(shapeAt(region, [15, 15])!, [5, 5])).toBe(true);
  expect(shapeAt(region, [500, 500])).toBeUndefined();
  expect(regionArea(shapeAt(region, [110, 10])!)).toBeCloseTo(400, 6);
});

test('a film is one part, with its marks, lines and copies', () => {
  const [part, ...more] = panel(layer, undefined).parts;
  expect(more).toEqual([]);
  expect(part).toMatchObject({ id: 'damson', label: 'Damson', copies: 3, bounds: layer.bounds });
  expect(part.region).toBe(layer.region);
});
