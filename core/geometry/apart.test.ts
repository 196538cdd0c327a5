import { describe, expect, test } from '@jest/globals';
import { groupsApart } from './apart';
import { rectangle } from './region';

const box = (x: number, y: number, size = 10): Float64Array =>
  rectangle({ minX: x, minY: y, maxX: x + size, maxY: y + size })[0];

describe('outlines that lie apart', () => {
  test('those whose boxes meet, directly or by way of others, are one group, in their order', () => {
    const [a, b, c, d, e] = [box(0, 0), box(50, 0), box(18, 0), box(9, 5), box(56, 9)];
    expect(groupsApart([a, b, c, d, e])).toEqual([
      [a, c, d],
      [b, e],
    ]);
  });

  test('none and one', () => {
    expect(groupsApart([])).toEqual([]);
    const one = box(0, 0);
    expect(groupsApart([one])).toEqual([[one]]);
  });
});
