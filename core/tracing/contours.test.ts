import { describe, expect, test } from '@jest/globals';
import { ringArea } from '../geometry/region';
import { random } from '../random';
import { contours } from './contours';
import { edgeZone } from './edges';
import { labelMap, maskOf } from './labels';

/** Blots of three colours: noise, each pixel taking the colour of the one before it four times in five. */
function blots(width: number, height: number, seed: number): Uint8Array {
  const next = random(seed);
  const out = new Uint8Array(width * height);
  for (let i = 0; i < out.length; i++) {
    const from = next() < 0.5 ? i - 1 : i - width;
    out[i] = from >= 0 && next() < 0.8 ? out[from] : Math.floor(3 * next());
  }
  return out;
}

describe('contours', () => {
  test.each([0, 0.6, 1.2, 2])('every outline of noise comes back to its start, blurred by %s px', (sigma) => {
    for (let seed = 1; seed < 12; seed++) {
      const map = labelMap(blots(70, 50, seed), 70, 50);
      for (let k = 0; k < 3; k++) {
        for (const ring of contours(edgeZone(maskOf(map, k, 2), sigma))) {
          const n = ring.length;
          expect(Math.hypot(ring[0] - ring[n - 2], ring[1] - ring[n - 1])).toBeLessThanOrEqual(Math.SQRT2);
        }
      }
    }
  });

  test('outlines of pixels that are not blurred hold as much as there are pixels, less their corners', () => {
    for (let seed = 20; seed < 30; seed++) {
      const map = labelMap(blots(70, 50, seed), 70, 50);
      const mask = maskOf(map, 1, 0);
      const pixels = Array.from(mask.values).reduce((sum, v) => sum + v, 0);
      const rings = contours(edgeZone(mask, 0));
      const area = rings.reduce((sum, ring) => sum + ringArea(ring), 0);
      // each corner of 90° is cut off by an eighth of a pixel, and each inner one filled by as much
      expect(Math.abs(area - pixels)).toBeLessThan(0.06 * pixels);
    }
  });

  test('memory that is taken over leaves nothing behind', () => {
    const first = labelMap(blots(40, 40, 3), 40, 40);
    const second = labelMap(blots(40, 40, 4), 40, 40);
    const spent = edgeZone(maskOf(first, 1, 2), 0.6);
    const again = contours(edgeZone(maskOf(second, 2, 2), 0.6, spent));
    expect(again).toEqual(contours(edgeZone(maskOf(second, 2, 2), 0.6)));
  });
});
