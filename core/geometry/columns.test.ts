import { describe, expect, test } from '@jest/globals';
import { random } from '../random';
import type { GridPath } from './columns';
import { inColumns } from './columns';
import type { Fill, Region } from './region';
import { nearestOnLine } from './nearestOnLine';
import { difference, intersection, regionArea, weld } from './region';
import { sample } from '../sample.testing';

/** How often the rings wind around a place: the definition, edge by edge, without any boolean (Sunday 2001). */
function winding(rings: Region, x: number, y: number): number {
  let times = 0;
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const side = (ring[i] - ring[j]) * (y - ring[j + 1]) - (x - ring[j]) * (ring[i + 1] - ring[j + 1]);
      if (ring[j + 1] <= y && ring[i + 1] > y && side > 0) times++;
      if (ring[j + 1] > y && ring[i + 1] <= y && side < 0) times--;
    }
  }
  return times;
}

const fills = (rings: Region, rule: Fill, x: number, y: number): boolean =>
  rule === 'nonzero' ? winding(rings, x, y) !== 0 : winding(rings, x, y) % 2 !== 0;

/** Wavy rings of 60 to 300 points at random, some turned round; enough of them for several columns. */
function wavy(seed: number, points: number): Region {
  const next = random(seed);
  const rings: Float64Array[] = [];
  for (let made = 0; made < points;) {
    const n = 60 + Math.floor(next() * 240);
    const [cx, cy, r, waves] = [next() * 400, next() * 300, 4 + next() * 90, 2 + Math.floor(next() * 9)];
    const way = next() < 0.3 ? -1 : 1;
    rings.push(
      Float64Array.from({ length: 2 * n }, (_, i) => {
        const t = (way * 2 * Math.PI * (i >> 1)) / n;
        const wave = r * (1 + 0.4 * Math.sin(waves * t));
        return i % 2 === 0 ? cx + wave * Math.cos(t) : cy + wave * Math.sin(t);
      }),
    );
    made += n;
  }
  return rings;
}

/** Places at random that lie clear of every outline, so that rounding to the grid cannot decide. */
function* places(rings: Region, seed: number, count: number): Generator<readonly [number, number]> {
  const next = random(seed);
  for (let given = 0; given < count;) {
    const [x, y] = [next() * 600 - 100, next() * 500 - 100];
    if (rings.some((ring) => nearestOnLine(ring, true, [x, y]).distance < 0.01)) continue;
    given++;
    yield [x, y];
  }
}

describe.each(sample([1, 2, 3], 1))(
  'many outlines, seed %d: every place is in or out as its winding number says',
  (seed) => {
    const a = wavy(seed, 9000);
    const b = wavy(seed + 100, 7000);

    test.each(['nonzero', 'evenodd'] as const)('welded, %s', (rule) => {
      const made = weld(a, rule);
      for (const [x, y] of places(a, seed, 400)) {
        expect(winding(made, x, y)).toBe(fills(a, rule, x, y) ? 1 : 0);
      }
    });

    test('what lies in one and not in the other, and in both', () => {
      const [one, other] = [weld(a), weld(b, 'evenodd')];
      const less = difference(one, other);
      const both = intersection(one, other);
      for (const [x, y] of places([...a, ...b], seed, 400)) {
        const [inOne, inOther] = [fills(a, 'nonzero', x, y), fills(b, 'evenodd', x, y)];
        expect([winding(less, x, y), winding(both, x, y)]).toEqual([
          inOne && !inOther ? 1 : 0,
          inOne && inOther ? 1 : 0,
        ]);
      }
      expect(regionArea(less) + regionArea(both)).toBeCloseTo(regionArea(one), 0);
    });
  },
);

/** A long comb: straight edges that cross every column. */
function comb(teeth: number): Float64Array {
  const xy: number[] = [0, 0];
  for (let i = 0; i < teeth; i++)
    xy.push(1000 - (i % 7), i * 2 + 0.3, 1000 - (i % 7), i * 2 + 1, 3, i * 2 + 1.1, 3, i * 2 + 1.9);
  return Float64Array.from([...xy, 0, teeth * 2]);
}

test('a straight edge that was cut at many borders is one edge again', () => {
  const ring = comb(2000);
  const made = weld([ring], 'evenodd');
  expect(made.reduce((sum, r) => sum + r.length, 0)).toBeLessThanOrEqual(ring.length);
  expect(regionArea(made)).toBeCloseTo(regionArea([ring]), 0);
});

test('edges that lie on top of each other, upright ones too, stay one outline', () => {
  const cells = Array.from({ length: 60 * 60 }, (_, i) => {
    const [x, y] = [(i % 60) * 5, Math.floor(i / 60) * 5];
    return Float64Array.of(x, y, x + 5, y, x + 5, y + 5, x, y + 5);
  });
  const made = weld(cells);
  expect(made).toHaveLength(1);
  expect(made[0]).toHaveLength(8);
  expect(regionArea(made)).toBe(90000);
});

test('a column that does not fit its neighbour is made again; what never fits is swept at once', () => {
  const path = Array.from({ length: 8000 }, (_, i) => {
    const t = (2 * Math.PI * i) / 8000;
    return { x: Math.round(90000 * Math.cos(t)), y: Math.round(90000 * Math.sin(t)) };
  });
  const whole: GridPath[] = [path];
  const astray = (times: number) => {
    let calls = 0;
    let left = times;
    const sweep = (subject: GridPath[]): GridPath[] => {
      calls++;
      // what a column lost, at its second call of each round
      if (subject !== whole && calls % 2 === 0 && left-- > 0) return [];
      return subject;
    };
    return inColumns(whole, [], sweep);
  };
  const area = (paths: GridPath[]): number =>
    regionArea(paths.map((points) => Float64Array.from(points.flatMap(({ x, y }) => [x, y]))));
  expect(area(astray(0))).toBeCloseTo(area(whole), -4);
  expect(area(astray(1))).toBeCloseTo(area(whole), -4);
  expect(astray(Infinity)).toBe(whole);
});
