import { expect, test } from '@jest/globals';
import { DEMO_FILMS } from '../../demo/shop';
import { rectangle, regionArea } from '../geometry/region';
import { piecesOf } from './pieces';
import { plainLayer } from './plainLayer.testing';

/** Two words of three letters, one of them with a hole. */
const letters = [0, 70, 140, 300, 370, 440].map((x) =>
  rectangle({ minX: x, minY: 0, maxX: x + 60, maxY: 100 }),
);
const hole = Float64Array.of(20, 20, 20, 80, 40, 80, 40, 20);
const layer = plainLayer([...letters.flat(), hole], DEMO_FILMS[0]);

test('words, or letters with their holes, in reading order; nothing is lost', () => {
  const words = piecesOf(layer, 'word', []);
  expect(words.map(({ id, bounds }) => [id, bounds.minX, bounds.maxX])).toEqual([
    ['damson~1', 0, 200],
    ['damson~2', 300, 500],
  ]);
  const pieces = piecesOf(layer, 'piece', []);
  expect(pieces.map(({ number, bounds }) => [number, bounds.minX])).toEqual([
    [1, 0],
    [2, 70],
    [3, 140],
    [4, 300],
    [5, 370],
    [6, 440],
  ]);
  expect(pieces[0].area).toBeCloseTo(6000 - 1200, 6);
  for (const all of [words, pieces])
    expect(all.reduce((sum, { area }) => sum + area, 0)).toBeCloseTo(regionArea(layer.region), 6);
});
