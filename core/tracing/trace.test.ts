import { describe, expect, test } from '@jest/globals';
import { DEFAULT_TRACE } from '../artwork/choices';
import { preparePiece } from '../artwork/preparePiece';
import { IDENTITY } from '../geometry/matrix';
import { flatten } from '../geometry/path';
import type { Picture } from './picture';
import { suggestTrace } from './suggest';
import { artworkOfTrace, trace, TraceStopped } from './trace';

/** A picture of a function of places that gives RGBA, each pixel the mean of 6 × 6 places in it. */
function picture(
  width: number,
  height: number,
  paint: (x: number, y: number) => readonly number[],
  soft = 6,
): Picture {
  const data = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const sum = [0, 0, 0, 0];
      for (let i = 0; i < soft; i++) {
        for (let j = 0; j < soft; j++) {
          paint(x + (i + 0.5) / soft, y + (j + 0.5) / soft).forEach((v, c) => (sum[c] += v));
        }
      }
      data.set(
        sum.map((v) => v / soft / soft),
        4 * (y * width + x),
      );
    }
  }
  return { width, height, data };
}

const WHITE = [255, 255, 255, 255];
const BLACK = [0, 0, 0, 255];
const disc =
  (r: number, cx = 100, cy = 100) =>
  (x: number, y: number): readonly number[] =>
    Math.hypot(x - cx, y - cy) < r ? BLACK : WHITE;
const outlines = (traced: ReturnType<typeof trace>) =>
  traced.colours.flatMap(({ paths }) => paths.flatMap((path) => flatten(path, IDENTITY, 0.01)));

describe('tracing', () => {
  test.each([
    ['soft edges, as scanned', 6],
    ['hard edges, pixel by pixel', 1],
  ])('a circle with %s comes back as a circle within 0.5 px, of few curves', (_, soft) => {
    const traced = trace(picture(200, 200, disc(70), soft), DEFAULT_TRACE);
    const [ring, ...more] = outlines(traced);
    expect(more).toEqual([]);
    for (let i = 0; i < ring.points.length; i += 2) {
      expect(Math.abs(Math.hypot(ring.points[i] - 100, ring.points[i + 1] - 100) - 70)).toBeLessThan(0.5);
    }
    expect(traced.nodes).toBeLessThan(40);
    expect(traced.colours[0].paths[0].ops).not.toContain('L');
    expect(traced.differing).toBeLessThan(0.005);
  });

  test('what is left out as specks is counted with its size, and kept when that is asked for', () => {
    // 120 squares of 1 to 3 px beside a disc
    const dots = (x: number, y: number): readonly number[] => {
      const [u, v] = [x - 4, y - 4];
      const [i, j] = [Math.floor(u / 12), Math.floor(v / 12)];
      const size = 1 + ((i + j) % 3);
      return i >= 0 && j >= 0 && i < 12 && j < 10 && u - 12 * i < size && v - 12 * j < size
        ? BLACK
        : disc(40, 200, 180)(x, y);
    };
    const drawn = picture(260, 240, dots, 1);
    for (const by of ['brightness', 'colours'] as const) {
      const { specks, colours } = trace(drawn, { ...DEFAULT_TRACE, by, colours: 2, despeckle: 12 });
      expect([by, specks.count]).toEqual([by, 120]);
      expect(specks.largest).toBeGreaterThan(2.5);
      expect(specks.largest).toBeLessThan(4);
      expect(colours.flatMap(({ paths }) => paths)).toHaveLength(1);
    }
    const kept = trace(drawn, { ...DEFAULT_TRACE, by: 'brightness', despeckle: 0 });
    expect(kept.specks.count).toBeLessThan(60);
    expect(outlines(kept).length).toBeGreaterThan(60);
  });

  test('how large specks are is told at final size', () => {
    const dot = (x: number, y: number): readonly number[] => (x < 2 && y < 2 ? BLACK : disc(40)(x, y));
    const artwork = artworkOfTrace(trace(picture(200, 200, dot, 1), DEFAULT_TRACE), 0.25);
    const found = (width: number | null) =>
      preparePiece(artwork, { width, height: null, lockAspect: true }).findings.find(
        ({ code }) => code === 'specks',
      );
    expect(found(null)).toMatchObject({ severity: 'note' });
    // the disc is 80 px across, at 600 mm a pixel is 7.5 mm
    expect(found(600)).toMatchObject({
      severity: 'check',
      message: expect.stringMatching(/^1 speck of up to 1[0-9]\.\d mm is left out/),
    });
  });

  test('a square keeps its four corners and straight sides', () => {
    const square = (x: number, y: number): readonly number[] =>
      x > 40 && x < 160 && y > 30 && y < 170 ? BLACK : WHITE;
    const traced = trace(picture(200, 200, square), { ...DEFAULT_TRACE, smooth: 0 });
    const [{ points }] = outlines(traced);
    for (const [x, y] of [
      [40, 30],
      [160, 30],
      [160, 170],
      [40, 170],
    ]) {
      let least = Infinity;
      for (let i = 0; i < points.length; i += 2)
        least = Math.min(least, Math.hypot(points[i] - x, points[i + 1] - y));
      expect(least).toBeLessThan(1);
    }
    expect(traced.nodes).toBeLessThan(14);
  });

  test('a ring keeps its hole; a turned picture traces the same', () => {
    const ring = (x: number, y: number): readonly number[] => {
      const r = Math.hypot(x - 100, y - 100);
      return r < 80 && r > 50 ? BLACK : WHITE;
    };
    const [{ paths }] = trace(picture(200, 200, ring), DEFAULT_TRACE).colours;
    expect(paths).toHaveLength(1);
    expect(paths[0].ops.match(/M/g)).toHaveLength(2);
  });

  test('specks are left out by size', () => {
    const spots = (x: number, y: number): readonly number[] =>
      Math.hypot(x - 50, y - 50) < 30 || Math.hypot(x - 150, y - 150) < 3 ? BLACK : WHITE;
    const seen = (despeckle: number): number =>
      trace(picture(200, 200, spots), { ...DEFAULT_TRACE, despeckle }).colours[0].paths.length;
    expect([seen(8), seen(60)]).toEqual([2, 1]);
  });

  test('opacity is traced whatever the colour', () => {
    const ghost = (x: number, y: number): readonly number[] => [
      240,
      240,
      240,
      Math.hypot(x - 100, y - 100) < 60 ? 255 : 0,
    ];
    const traced = trace(picture(200, 200, ghost), { ...DEFAULT_TRACE, by: 'alpha' });
    expect(traced.colours.map(({ colour }) => colour)).toEqual(['#f0f0f0']);
    expect(suggestTrace(picture(200, 200, ghost), DEFAULT_TRACE).by).toBe('alpha');
  });

  test('colours are found in Lab, the ground left out, and no gap shows between two of them', () => {
    const flag = (x: number, y: number): readonly number[] => {
      if (x < 20 || x > 180 || y < 20 || y > 180) return WHITE;
      if (Math.hypot(x - 100, y - 100) < 40) return [226, 162, 27, 255];
      return x < 100 ? [46, 111, 126, 255] : [75, 31, 74, 255];
    };
    const image = picture(200, 200, flag);
    const traced = trace(image, { ...DEFAULT_TRACE, by: 'colours', colours: 4 });
    expect(traced.colours.map(({ colour }) => colour).sort()).toEqual(['#2e6f7e', '#4b1f4a', '#e2a21b']);
    // 90 000 px are compared: the two-pixel rim of soft edges may go either way, nothing more
    expect(traced.differing).toBeLessThan(0.012);
    expect(suggestTrace(image, DEFAULT_TRACE).by).toBe('colours');
  });

  test('brighter can be inside; nothing found is said; giving up stops it', () => {
    const traced = trace(picture(200, 200, disc(70)), { ...DEFAULT_TRACE, invert: true });
    expect(traced.colours[0].paths[0].ops.match(/M/g)).toHaveLength(2);
    const none = artworkOfTrace(
      trace(
        picture(50, 50, () => WHITE),
        DEFAULT_TRACE,
      ),
      0.1,
    );
    expect(none.findings.map(({ code }) => code)).toEqual(['nothing-traced']);
    expect(() => trace(picture(50, 50, disc(10)), DEFAULT_TRACE, (share) => share < 0.2)).toThrow(
      TraceStopped,
    );
  });
});
