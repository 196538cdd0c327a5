import { describe, expect, test } from '@jest/globals';
import type { PreparedLine, PreparedShape } from './preparePiece';
import { pickAt, snapAt } from './pick';
import { rectangle, regionBounds } from '../geometry/region';

const shape = (ref: string, colour: string, x: number, y: number, w: number, h: number): PreparedShape => {
  const region = rectangle({ minX: x, minY: y, maxX: x + w, maxY: y + h });
  return { ref, colour, region, bounds: regionBounds(region) };
};
const line = (ref: string, ...points: number[]): PreparedLine => ({
  ref,
  colour: '#000000',
  kind: 'pen',
  closed: false,
  points: Float64Array.from(points),
  bounds: regionBounds([Float64Array.from(points)]),
});
const back = shape('p1/0', '#aa0000', 0, 0, 100, 100);
const front = shape('p1/1', '#00aa00', 50, 50, 100, 100);
const frame: PreparedShape = {
  ...shape('p1/2', '#0000aa', 200, 0, 100, 100),
  region: [
    ...rectangle({ minX: 200, minY: 0, maxX: 300, maxY: 100 }),
    Float64Array.of(230, 30, 230, 70, 270, 70, 270, 30),
  ],
};
const stroke = line('p1/3', 0, 200, 100, 200);
const sign = { shapes: [back, front, frame], lines: [stroke] };

describe('what lies at a place', () => {
  test('the frontmost shape, and in its hole what lies there, or the shape itself', () => {
    expect(pickAt(sign, [75, 75], 1)?.ref).toBe('p1/1');
    expect(pickAt(sign, [25, 25], 1)).toEqual({
      ref: 'p1/0',
      colour: '#aa0000',
      bounds: back.bounds,
      isLine: false,
    });
    expect(pickAt(sign, [250, 50], 1)?.ref).toBe('p1/2');
    const island = shape('p1/9', '#123456', 245, 45, 10, 10);
    expect(pickAt({ ...sign, shapes: [island, ...sign.shapes] }, [250, 50], 1)?.ref).toBe('p1/9');
    expect(pickAt(sign, [215, 50], 1)?.ref).toBe('p1/2');
    expect(pickAt(sign, [-5, -5], 1)).toBeUndefined();
  });

  test('a line within reach comes before what lies under it', () => {
    const over = { ...sign, lines: [line('p1/4', 0, 25, 100, 25)] };
    expect(pickAt(over, [50, 26], 2)).toMatchObject({ ref: 'p1/4', isLine: true });
    expect(pickAt(over, [20, 30], 2)?.ref).toBe('p1/0');
    expect(pickAt(sign, [120, 200], 5)).toBeUndefined();
    expect(pickAt(sign, [103, 200], 5)?.ref).toBe('p1/3');
  });
});

describe('what a place is drawn to', () => {
  test('a corner before a middle before an edge, the nearest of each', () => {
    expect(snapAt(sign, [1, 2], 5)).toEqual({ at: [0, 0], to: 'node' });
    expect(snapAt(sign, [52, 48], 5)).toEqual({ at: [50, 50], to: 'node' });
    expect(snapAt({ ...sign, shapes: [back] }, [52, 49], 5)).toEqual({ at: [50, 50], to: 'centre' });
    expect(snapAt({ ...sign, shapes: [back] }, [20, 2], 5)).toEqual({ at: [20, 0], to: 'edge' });
    expect(snapAt(sign, [20, 30], 5)).toBeUndefined();
  });

  test('ends of open lines are nodes; points of a flattened curve are none', () => {
    expect(snapAt(sign, [99, 201], 3)).toEqual({ at: [100, 200], to: 'node' });
    const round = Float64Array.from({ length: 200 }, (_, i) =>
      i % 2 === 0 ? 40 * Math.cos((Math.PI * i) / 100) : 40 * Math.sin((Math.PI * (i - 1)) / 100),
    );
    const disc: PreparedShape = { ...back, region: [round], bounds: regionBounds([round]) };
    expect(snapAt({ shapes: [disc], lines: [] }, [40, 1], 3)?.to).toBe('edge');
    expect(snapAt({ shapes: [disc], lines: [] }, [1, 1], 3)).toEqual({
      at: [expect.closeTo(0, 9), expect.closeTo(0, 9)],
      to: 'centre',
    });
  });
});
