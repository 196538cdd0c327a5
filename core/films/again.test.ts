import { expect, test } from '@jest/globals';
import { difference, rectangle, regionArea } from '../geometry/region';
import type { Region } from '../geometry/region';
import { DEMO_FILMS } from '../../demo/shop';
import { onlyAgain, pieceAt } from './again';
import type { FilmLayer } from './separate';

const square = (x: number, y: number, side: number): Region =>
  rectangle({ minX: x, minY: y, maxX: x + side, maxY: y + side });
/** A ring of film with an island in its hole, and a square beside it. */
const region = [
  ...difference(square(0, 0, 60), square(10, 10, 40)),
  ...square(25, 25, 10),
  ...square(100, 0, 20),
];
const layer: FilmLayer = {
  film: DEMO_FILMS[0],
  colours: ['#4b1f4a'],
  region,
  seen: region,
  marks: [],
  hidden: [],
  overlap: { mode: 'butt', by: 0 },
  copies: 3,
  lines: [],
  bounds: { minX: 0, minY: 0, maxX: 120, maxY: 60 },
  area: regionArea(region),
  outline: 0,
};
const again = (...at: readonly (readonly [number, number])[]): FilmLayer[] =>
  onlyAgain([layer], { film: 'damson', at: at.map(([x, y]) => ({ x, y })) });

test('the piece that a place lies on is cut again, once, with its holes and without what lies in them', () => {
  const [ring] = again([5, 30]);
  expect(ring.area).toBeCloseTo(3600 - 1600, 6);
  expect(ring.copies).toBe(1);
  expect(ring.bounds).toEqual({ minX: 0, minY: 0, maxX: 60, maxY: 60 });
  expect(again([30, 30])[0].area).toBeCloseTo(100, 6);
  expect(again([30, 30], [110, 10], [112, 11])[0].area).toBeCloseTo(500, 6);
});

test('a place in a hole, beside the film or on a film that is not there names nothing', () => {
  expect(again([15, 15])).toEqual([]);
  expect(again([90, 90])).toEqual([]);
  expect(onlyAgain([layer], { film: 'tar', at: [{ x: 5, y: 30 }] })).toEqual([]);
  expect(pieceAt(region, [15, 15])).toBeUndefined();
  expect(regionArea(pieceAt(region, [110, 10])!)).toBeCloseTo(400, 6);
});
