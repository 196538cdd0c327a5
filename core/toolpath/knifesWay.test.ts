/** The whole way of a knife along letters, circles, stars and teeth: where the tip goes, and how a head feels it. */
import { expect, test } from '@jest/globals';
import { readdirSync } from 'node:fs';
import * as fontkit from 'fontkit';
import { flatten } from '../geometry/path';
import type { Ring } from '../geometry/region';
import { weld } from '../geometry/region';
import { parsePathData } from '../readers/svg/pathData';
import { deviationOf } from '../swivel/deviation';
import { tipPath } from '../swivel/tractrix';
import { compensateRing } from './compensate';
import { trailedOntoGrid } from './machineSteps';
import { thinned } from './thinned';

const [STEP, OVERCUT] = [0.025, 0.6];

/** An outline cut by a blade that comes in along x, as the aligning stroke leaves it. */
function cut(ring: Ring, offset: number) {
  const { points } = thinned({ points: ring, closed: true }, 4 * STEP);
  const holder = trailedOntoGrid(
    compensateRing(points, offset, OVERCUT, [1, 0]),
    offset,
    [1, 0],
    [STEP, STEP],
  ).points;
  // followed by the tractrix of core/swivel, which knows nothing of how the way was made
  const tip = tipPath(holder, offset, 0, 0.02).points;
  return { holder, off: deviationOf([tip], [ring]).largest };
}

const K = 0.5522847498;
const circle = (r: number): Ring =>
  flatten(
    {
      ops: 'MCCCCZ',
      xy: [
        ...[r, 0],
        ...[r, K * r, K * r, r, 0, r],
        ...[-K * r, r, -r, K * r, -r, 0],
        ...[-r, -K * r, -K * r, -r, 0, -r],
        ...[K * r, -r, r, -K * r, r, 0],
      ],
    },
    [1, 0, 0, 1, 140, 140],
  )[0].points;

/** Points of a star that are so sharp, degrees. */
function star(points: number, sharp: number): Ring {
  const half = (sharp * Math.PI) / 360;
  const outer = 20;
  const turn = Math.PI / points;
  // the inner corner lies where the edge at half the angle meets the ray half way to the next point
  const inner = (outer * Math.sin(half)) / Math.sin(Math.PI - half - turn);
  return Float64Array.from({ length: 4 * points }, (_, i) => {
    const [k, a] = [i >> 1, ((i >> 1) * Math.PI) / points];
    return 30 + (k % 2 ? inner : outer) * (i % 2 ? Math.sin(a) : Math.cos(a));
  });
}

const teeth: Ring = Float64Array.of(
  ...Array.from({ length: 41 }, (_, i) => [0.25 * i, 5 + 0.5 * (i % 2)]).flat(),
  ...[10, 15, 0, 15],
);

test.each([0.25, 0.5])(
  'circles from 2 mm radius, stars of 20° and teeth of 0.5 mm: the tip within 0.03 mm (blade offset %p mm)',
  (offset) => {
    for (const radius of [2, 3, 5, 8, 15, 40, 100])
      expect(cut(circle(radius), offset).off).toBeLessThanOrEqual(0.03);
    expect(cut(star(9, 20), offset).off).toBeLessThanOrEqual(0.03);
    expect(cut(teeth, offset).off).toBeLessThanOrEqual(0.03);
  },
);

test('a curve takes one point for each of its own, and no move that a head chatters at', () => {
  for (const radius of [2, 5, 15, 40, 100]) {
    const ring = circle(radius);
    const { holder } = cut(ring, 0.25);
    // beside the curve's: the blade's first turn into its way, and what is cut twice at the end
    const first = holder.findIndex(
      (_, i) => i % 2 === 0 && Math.hypot(holder[i + 2] - holder[i], holder[i + 3] - holder[i + 1]) > 0.2,
    );
    const again = Math.ceil(OVERCUT / Math.hypot(ring[2] - ring[0], ring[3] - ring[1])) + 1;
    expect((holder.length - first) / 2 - again).toBeLessThanOrEqual((1.05 * ring.length) / 2);
    for (let i = first + 2; i + 6 < holder.length; i += 2)
      expect(Math.hypot(holder[i + 2] - holder[i], holder[i + 3] - holder[i + 1])).toBeGreaterThanOrEqual(
        4 * STEP,
      );
  }
});

/** Faces of the shop, and letters with curves, corners and both. */
const faces = readdirSync('node_modules/@fontsource').map((name) =>
  readdirSync(`node_modules/@fontsource/${name}/files`)
    .map((file) => `node_modules/@fontsource/${name}/files/${file}`)
    .find((file) => /-latin-(400|600)-normal\.woff2$/.test(file))!,
);

test('text of 5 mm, every face: the tip within 0.03 mm of each letter, and few points more than it has', () => {
  let [sent, drawn] = [0, 0];
  for (const file of faces) {
    const face = fontkit.openSync(file) as fontkit.Font;
    const scale = 5 / face.capHeight;
    for (const char of 'RSagk28&') {
      const { path } = face.glyphForCodePoint(char.codePointAt(0)!);
      const d = path.scale(scale, -scale).translate(20, 20).toSVG();
      for (const ring of weld(flatten(parsePathData(d), [1, 0, 0, 1, 0, 0]).map(({ points }) => points))) {
        if (ring.length < 8) continue;
        const { holder, off } = cut(ring, 0.25);
        expect([file, char, off <= 0.03]).toEqual([file, char, true]);
        sent += holder.length / 2;
        drawn += ring.length / 2;
      }
    }
  }
  expect(drawn).toBeGreaterThan(1000);
  // letters of that size are half corners, at each of which the blade swings
  expect(sent / drawn).toBeLessThan(1.9);
});
