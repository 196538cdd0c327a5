import { describe, expect, test } from '@jest/globals';
import { random } from '../random';
import type { Picture } from '../tracing/picture';
import { grownPicture, reachOf } from './grownPicture';

/** Each pixel a colour of its own; opaque as `alpha` says. */
function picture(width: number, height: number, alpha: (x: number, y: number) => number): Picture {
  const data = new Uint8Array(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) data.set([x + 1, y + 1, 77, alpha(x, y)], 4 * (y * width + x));
  return { width, height, data };
}

describe('a picture with its edges drawn out', () => {
  test('every pixel takes the colour of an opaque one that is nearest, as looking at all of them tells', () => {
    const next = random(5);
    for (let run = 0; run < 20; run++) {
      const [w, h, reach] = [
        1 + Math.floor(14 * next()),
        1 + Math.floor(14 * next()),
        Math.floor(6 * next()),
      ];
      const share = next();
      const clear = Array.from({ length: w * h }, () => next() < share);
      clear[Math.floor(next() * w * h)] = false;
      const { width, height, data, at } = grownPicture(
        picture(w, h, (x, y) => (clear[y * w + x] ? Math.floor(100 * next()) : 255)),
        reach,
      );
      expect([width, height, at]).toEqual([
        w + 2 * reach,
        h + 2 * reach,
        { x: reach, y: reach, width: w, height: h },
      ]);
      for (let y = 0; y < height; y++) {
        for (let x = 0; x < width; x++) {
          const [red, green, , alpha] = data.subarray(4 * (y * width + x));
          const off = (px: number, py: number): number => Math.hypot(px + reach - x, py + reach - y);
          let nearest = Infinity;
          clear.forEach((isClear, i) => {
            if (!isClear) nearest = Math.min(nearest, off(i % w, Math.floor(i / w)));
          });
          expect(alpha).toBe(255);
          expect(clear[(green - 1) * w + red - 1]).toBe(false);
          expect(off(red - 1, green - 1)).toBeCloseTo(nearest, 9);
        }
      }
    }
  });

  test('where nothing is quite opaque, what is half so counts; where nothing is, all stays clear', () => {
    const half = grownPicture(
      picture(4, 4, (x) => (x === 1 ? 140 : 20)),
      1,
    );
    expect(half.data[0]).toBe(2);
    const none = grownPicture(
      picture(4, 4, () => 20),
      1,
    );
    expect(none.data.every((value) => value === 0)).toBe(true);
  });

  test('a picture of more pixels than bleed needs is made smaller, and keeps its place', () => {
    const { width, at } = grownPicture(
      picture(4096, 1024, () => 255),
      8,
    );
    expect([width, at.x, at.width]).toEqual([2048 + 8, 4, 2048]);
  });

  test('how far it has to grow is measured in its own pixels, however it is turned', () => {
    const region = [Float64Array.of(-2, -1, 12, -1, 12, 21, -2, 21)];
    const part = { page: null, box: null, font: null };
    const quarter = { file: 'f', part, width: 40, height: 20, matrix: [0, 0.5, -0.5, 0, 10, 0] as const };
    // upright it is 10 × 20 mm at two pixels a mm: 1 mm above and below, 2 mm on either side
    expect(reachOf(region, quarter)).toBeCloseTo(4, 9);
  });
});
