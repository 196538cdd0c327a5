/** Letters of every shipped face, drawn by an independent renderer (resvg) and traced: how near the outline comes. */
import { expect, test } from '@jest/globals';
import { readdirSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import * as fontkit from 'fontkit';
import { smallest } from '../geometry/lists';
import { IDENTITY } from '../geometry/matrix';
import { nearestOnLine } from '../geometry/nearestOnLine';
import { flatten } from '../geometry/path';
import type { Region } from '../geometry/region';
import { weld } from '../geometry/region';
import { DEFAULT_TRACE } from '../artwork/choices';
import { parsePathData } from '../readers/svg/pathData';
import { trace } from './trace';
import { IS_LONG, sample } from '../sample.testing';

const SIZE = 360;
const PAD = 20;
const LETTERS = 'AEGKMRSWaegkrxy2578&';

const faces = ['@fontsource', '@fontsource-variable'].flatMap((scope) =>
  readdirSync(`node_modules/${scope}`).flatMap((name) => {
    const folder = `node_modules/${scope}/${name}/files`;
    const file = readdirSync(folder).find((one) => /-latin-(400|wght)-normal\.woff2$/.test(one));
    return file ? [`${folder}/${file}`] : [];
  }),
);

/** A letter's own outline in pixels, as path data, and the picture's size. */
function letter(face: fontkit.Font, char: string) {
  const { path } = face.glyphForCodePoint(char.codePointAt(0)!);
  const scale = SIZE / face.unitsPerEm;
  const { minX, minY, maxX, maxY } = path.bbox;
  // off the grid, so that no edge falls on a row of pixels
  const placed = path.scale(scale, -scale).translate(PAD + 0.37 - minX * scale, PAD + 0.21 + maxY * scale);
  return {
    d: placed.toSVG(),
    width: Math.ceil((maxX - minX) * scale) + 2 * PAD,
    height: Math.ceil((maxY - minY) * scale) + 2 * PAD,
  };
}

const distance = (rings: Region, x: number, y: number): number =>
  smallest(rings.map((ring) => nearestOnLine(ring, true, [x, y]).distance));

/** Corners that are no needles: turns of 50° to 120°. */
function cornersOf(ring: Float64Array): (readonly [number, number])[] {
  const out: (readonly [number, number])[] = [];
  const n = ring.length;
  for (let i = 0; i < n; i += 2) {
    const [ax, ay] = [ring[i] - ring[(i + n - 2) % n], ring[i + 1] - ring[(i + n - 1) % n]];
    const [bx, by] = [ring[(i + 2) % n] - ring[i], ring[(i + 3) % n] - ring[i + 1]];
    const turn = Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
    if (turn > 0.87 && turn < 2.1) out.push([ring[i], ring[i + 1]]);
  }
  return out;
}

/** What few letters may have of what is so many on average: three deviations of a count (Poisson). */
const most = (mean: number): number => (IS_LONG ? mean : mean + 3 * Math.sqrt(mean));

test('the traced outline lies within a pixel of the letter, and so do its corners', () => {
  let places = 0;
  let far = 0;
  let corners = 0;
  let lost = 0;
  const some = sample(faces, 4);
  for (const file of some) {
    const face = fontkit.openSync(file) as fontkit.Font;
    for (const char of LETTERS) {
      const { d, width, height } = letter(face, char);
      const drawn = new Resvg(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#fff"/><path d="${d}"/></svg>`,
      ).render();
      const traced = trace({ width, height, data: drawn.pixels }, DEFAULT_TRACE);
      const rings = traced.colours.flatMap(({ paths }) =>
        paths.flatMap((path) => flatten(path, IDENTITY, 0.05).map(({ points }) => points)),
      );
      // faces of varying weight are drawn of strokes that lie over one another
      const own = weld(flatten(parsePathData(d), IDENTITY, 0.02).map(({ points }) => points));
      for (const ring of rings) {
        for (let i = 0; i < ring.length; i += 4, places++) if (distance(own, ring[i], ring[i + 1]) > 1) far++;
      }
      for (const [x, y] of own.flatMap(cornersOf)) {
        corners++;
        if (distance(rings, x, y) > 1) lost++;
      }
    }
  }
  expect(faces.length).toBeGreaterThanOrEqual(12);
  expect(places).toBeGreaterThan(1000 * some.length);
  expect(corners).toBeGreaterThan(90 * some.length);
  expect(far).toBeLessThanOrEqual(most(places / 5000));
  // two corners nearer to each other than a pixel's blur are one in the picture
  expect(lost).toBeLessThanOrEqual(most(corners / 100));
});
