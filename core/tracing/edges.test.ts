import { expect, test } from '@jest/globals';
import { edgeZone } from './edges';

test('pixels that are near several edges are looked at once', () => {
  const [width, height] = [40, 30];
  const values = Float32Array.from({ length: width * height }, (_, i) => (i % width < 20 ? 0 : 1));
  const edges = Array.from({ length: height }, (_, y) => y * width + 19);
  const { pixels } = edgeZone({ width, height, values, edges }, 1.5);
  expect(new Set(pixels).size).toBe(pixels.length);
  expect(pixels.length).toBe(height * 6);
});
