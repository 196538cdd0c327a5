/** Outlines of any length: nothing here may depend on how many arguments a call takes. */
import { expect, test } from '@jest/globals';
import { seenColours } from '../films/seen';
import { regionArea } from '../geometry/region';
import type { Region } from '../geometry/region';
import { narrowPlaces } from '../geometry/narrow';

test('a ribbon of 16 m, 1 mm wide, is one narrow place after the other', () => {
  const steps = 80_000;
  const points = new Float64Array(4 * (steps + 1));
  for (let i = 0; i <= steps; i++) {
    const [x, y] = [i * 0.2, Math.sin(i * 0.05) * 50];
    points.set([x, y], 2 * i);
    points.set([x, y + 1], 4 * (steps + 1) - 2 - 2 * i);
  }
  const places = narrowPlaces([points], 1.5);
  expect(places.length).toBeGreaterThan(0);
}, 60_000);

test('150 000 dots of one path are one colour', () => {
  const region: Region = Array.from({ length: 150_000 }, (_, i) => {
    const [x, y] = [(i % 400) * 2, Math.floor(i / 400) * 2];
    return Float64Array.of(x, y, x + 1, y, x + 1, y + 1, x, y + 1);
  });
  const bounds = { minX: 0, minY: 0, maxX: 800, maxY: 750 };
  const [seen] = seenColours([{ colour: '#000000', region, bounds, ref: 'p1/0', area: 150_000 } as never]);
  expect(regionArea(seen.region)).toBeCloseTo(150_000, 0);
}, 60_000);
