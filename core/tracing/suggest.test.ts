import { describe, expect, test } from '@jest/globals';
import { gaussian, random } from '../random';
import { DEFAULT_TRACE } from '../artwork/choices';
import { findPalette } from './palette';
import type { Picture } from './picture';
import { hasGradients, isPhotograph, suggestTrace } from './suggest';
import { trace } from './trace';
import { sample } from '../sample.testing';

type Paint = (x: number, y: number) => readonly number[];

function picture(width: number, height: number, paint: Paint, noise?: number): Picture {
  const data = new Uint8ClampedArray(4 * width * height);
  for (let i = 0; i < width * height; i++) {
    const colour = paint(i % width, Math.floor(i / width));
    data.set([...colour.slice(0, 3), colour[3] ?? 255], 4 * i);
  }
  return { width, height, data, noise };
}

/** Noise in octaves, as clouds, water and leaves have it (Perlin 1985: value noise): 0 … 1. */
function clouds(seed: number, width: number, height: number): Paint {
  const next = random(seed);
  const octaves = [256, 128, 64, 32, 16, 8].map((cell, k) => {
    const across = Math.ceil(width / cell) + 2;
    const grid = Float64Array.from({ length: across * (Math.ceil(height / cell) + 2) }, next);
    return { cell, across, grid, weight: 0.6 ** k };
  });
  return (x, y) => {
    let sum = 0;
    for (const { cell, across, grid, weight } of octaves) {
      const [u, v] = [x / cell, y / cell];
      const p = Math.floor(v) * across + Math.floor(u);
      const [a, b] = [u % 1, v % 1];
      const upper = grid[p] * (1 - a) + grid[p + 1] * a;
      sum += weight * (upper * (1 - b) + (grid[p + across] * (1 - a) + grid[p + across + 1] * a) * b);
    }
    const light = 255 * Math.min(1, Math.max(0, (sum - 0.7) / 1));
    return [light, 0.8 * light + 20, 255 - light];
  };
}

const inDisc = (x: number, y: number): boolean => Math.hypot(x - 200, y - 150) < 90;
const on =
  (ground: readonly number[], ink: readonly number[]): Paint =>
  (x, y) =>
    inDisc(x, y) ? ink : ground;
const by = (paint: Paint, noise?: number) => suggestTrace(picture(400, 300, paint, noise), DEFAULT_TRACE);

describe('how a picture is traced to begin with', () => {
  const rough = gaussian(3, 9);
  test.each<[string, Paint, number]>([
    ['black on white', on([255, 255, 255], [0, 0, 0]), 0],
    ['blue on white', on([255, 255, 255], [33, 63, 134]), 0],
    ['red on grey', on([190, 190, 186], [178, 32, 47]), 0],
    [
      'black on paper lit from one side',
      (x, y) => (inDisc(x, y) ? [25, 25, 25] : Array(3).fill(255 - x / 6)),
      0,
    ],
    ['black on paper under grain', (x, y) => Array(3).fill((inDisc(x, y) ? 40 : 215) + rough()), 9],
  ])('%s: by brightness', (_, paint, noise) => {
    expect(by(paint, noise).by).toBe('brightness');
  });

  test.each<[string, Paint, number]>([
    [
      'three colours',
      (x, y) => (inDisc(x, y) ? [200, 30, 40] : x < 120 ? [20, 60, 130] : [255, 255, 255]),
      3,
    ],
    [
      'black and a flat grey on white',
      (x, y) => (inDisc(x, y) ? [0, 0, 0] : Array(3).fill(x < 120 ? 128 : 255)),
      3,
    ],
  ])('%s: by colours, as many as there are', (_, paint, colours) => {
    expect(by(paint)).toMatchObject({ by: 'colours', colours });
  });

  test('one colour on nothing: by opacity; two on nothing: by colours', () => {
    const nothing = [0, 0, 0, 0];
    expect(by(on(nothing, [226, 162, 27])).by).toBe('alpha');
    expect(by((x, y) => (inDisc(x, y) ? (x < 200 ? [20, 60, 130] : [226, 162, 27]) : nothing)).by).toBe(
      'colours',
    );
  });
});

test('colours that differ by less than the grain are one colour; without grain they stay apart', () => {
  const paint: Paint = (x, y) => (inDisc(x, y) ? [60, 60, 60] : x < 120 ? [70, 70, 70] : [230, 230, 230]);
  expect(findPalette(picture(400, 300, paint), 4).colours).toHaveLength(3);
  expect(findPalette(picture(400, 300, paint, 4), 4).colours).toHaveLength(2);
});

describe('pictures that are no drawings', () => {
  test('shades everywhere are a photograph; flat colours, soft light and grain are none', () => {
    expect(isPhotograph(picture(800, 600, clouds(5, 800, 600)))).toBe(true);
    expect(isPhotograph(picture(400, 300, on([255, 255, 255], [33, 63, 134])))).toBe(false);
    expect(isPhotograph(picture(400, 300, (x) => Array(3).fill(255 - x / 6)))).toBe(false);
    const rough = gaussian(8, 5);
    expect(
      isPhotograph(picture(400, 300, (x, y) => Array(3).fill((inDisc(x, y) ? 60 : 200) + rough()), 5)),
    ).toBe(false);
  });

  const rough = gaussian(11, 14);
  const mixed = (share: number): number[] => [220 - 180 * share, 90 + 60 * share, 40 + 160 * share];
  test.each<[string, Paint, number, boolean]>([
    ['from left to right', (x) => mixed(x / 400), 0, true],
    ['from above, light alone', (_, y) => Array(3).fill(30 + (200 * y) / 300), 0, true],
    ['from a middle outwards', (x, y) => mixed(Math.min(1, Math.hypot(x - 200, y - 150) / 220)), 0, true],
    ['a grainy sunset', (_, y) => mixed(y / 300).map((v) => v + rough()), 14, true],
    [
      'in one disc of a drawing',
      (x, y) => (inDisc(x, y) ? mixed((x - 110) / 180) : [255, 255, 255]),
      0,
      true,
    ],
    [
      'flat colours',
      (x, y) => (inDisc(x, y) ? [200, 30, 40] : x < 120 ? [20, 60, 130] : [255, 255, 255]),
      0,
      false,
    ],
    [
      'flat colours that are nearly alike',
      (x, y) => (inDisc(x, y) ? [60, 60, 90] : x < 120 ? [70, 80, 90] : [110, 90, 90]),
      0,
      false,
    ],
    [
      'paper lit from one side',
      (x, y) => (inDisc(x, y) ? [25, 25, 25] : Array(3).fill(255 - x / 6)),
      0,
      false,
    ],
    ['grain on flat colours', (x, y) => Array(3).fill((inDisc(x, y) ? 60 : 200) + rough()), 14, false],
  ])('gradients are seen: %s', (_, paint, noise, has) => {
    expect(hasGradients(picture(400, 300, paint, noise))).toBe(has);
  });

  test('what has more outlines than a knife can follow is made smaller first, and keeps its size and place', () => {
    const next = random(4);
    const static_ = picture(1200, 900, (x, y) => {
      const light = Math.hypot(x - 600, y - 450) < 300 ? 0.25 : 0.95;
      return Array(3).fill(255 * Math.min(1, light * (0.55 + 0.9 * next())));
    });
    const ways = [DEFAULT_TRACE, { ...DEFAULT_TRACE, by: 'colours' as const, despeckle: 400 }];
    for (const choices of sample(ways, 1)) {
      const traced = trace(static_, { ...choices, threshold: 0.45 });
      expect(traced).toMatchObject({ width: 1200, height: 900 });
      const points = traced.colours.flatMap(({ paths }) => paths.flatMap(({ xy }) => xy));
      expect(Math.max(...points.slice(0, 50_000))).toBeGreaterThan(800);
      expect(traced.nodes).toBeLessThan(60_000);
    }
    expect(trace(static_, { ...DEFAULT_TRACE, by: 'colours' }).times).toBeGreaterThan(1);
  });
});
