import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fitTo, freeAround, zoomAt } from './viewport';

const box = { minX: 100, minY: 50, maxX: 1340, maxY: 395 };

describe('fit', () => {
  test('shows the whole box with room around it, in the middle', () => {
    const view = { scale: 1, x: 0, y: 0 };
    fitTo(view, box, 900, 420, freeAround(60));
    const [left, right] = [box.minX, box.maxX].map((x) => x * view.scale + view.x);
    const [top, bottom] = [box.minY, box.maxY].map((y) => y * view.scale + view.y);
    expect(left).toBeCloseTo(900 - right, 6);
    expect(top).toBeCloseTo(420 - bottom, 6);
    expect(Math.min(left, top)).toBeCloseTo(60, 6);
  });

  test('a point has no size, but can be shown', () => {
    const view = { scale: 1, x: 0, y: 0 };
    fitTo(view, { minX: 5, minY: 5, maxX: 5, maxY: 5 }, 300, 200, freeAround(20));
    expect(5 * view.scale + view.x).toBeCloseTo(150, 6);
    expect(Number.isFinite(view.scale)).toBe(true);
  });
});

test('zooming keeps what is under the pointer where it is, however often', () => {
  const steps = fc.array(
    fc.tuple(fc.double({ min: 0.2, max: 5, noNaN: true }), fc.integer({ min: 0, max: 900 })),
    { maxLength: 20 },
  );
  fc.assert(
    fc.property(steps, (zooms) => {
      const view = { scale: 0.6, x: 30, y: -12 };
      for (const [factor, at] of zooms) {
        const before = (at - view.x) / view.scale;
        zoomAt(view, factor, at, at / 2);
        expect((at - view.x) / view.scale).toBeCloseTo(before, 3);
      }
    }),
  );
});
