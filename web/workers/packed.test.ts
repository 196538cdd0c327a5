import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import { readResolvedSvg } from '../../core/readers/svg/readResolvedSvg';
import { regionArea } from '../../core/geometry/region';
import type { Region } from '../../core/geometry/region';
import { oneFile } from '../../core/plan/oneFile';
import { createPlanner } from '../../core/plan/plan';
import { DEMO_SHOP } from '../../demo/shop';
import { buffersOf, packPlan } from './packed';
import { packRegion } from './packedRegion';

const artwork = readResolvedSvg(
  new Resvg(readFileSync('demo/art/slipway-sign.svg', 'utf8'), {
    font: { loadSystemFonts: false },
  }).toString(),
);
const { artworks, choices } = oneFile(artwork);
const plan = createPlanner().plan(artworks, choices, DEMO_SHOP);

/** Rings out of a packed region again, outermost outline by outermost outline. */
function unpack(region: ReturnType<typeof packRegion>): Region[] {
  let ring = 0;
  let at = 0;
  return Array.from(region.groups, (last) => {
    const rings: Float64Array[] = [];
    for (; ring < last; ring++) {
      rings.push(Float64Array.from(region.xy.slice(at, region.rings[ring])));
      at = region.rings[ring];
    }
    return rings;
  });
}

describe('packed regions', () => {
  test('hold every ring, each hole with the outline around it', () => {
    for (const { region } of plan.separation.colours) {
      const groups = unpack(packRegion(region));
      expect(groups.flat()).toHaveLength(region.length);
      const total = groups.reduce((sum, group) => sum + regionArea(group), 0);
      expect(Math.abs(total / regionArea(region) - 1)).toBeLessThan(1e-5);
      for (const group of groups) expect(regionArea(group)).toBeGreaterThan(0);
    }
  });

  test('an empty region packs to nothing', () => {
    const packed = packRegion([]);
    expect([packed.xy.length, packed.rings.length, packed.groups.length]).toEqual([0, 0, 0]);
  });
});

test('a packed plan says what the plan says, and every large array is handed over', () => {
  const view = packPlan(plan, 12, choices, artworks, 2041);
  expect(view.strips.map((s) => [s.id, s.length])).toEqual(
    plan.cuts.map((c) => [c.strip.id, c.strip.length]),
  );
  expect(view.totals).toEqual(plan.totals);
  expect([view.width, view.height, view.took]).toEqual([plan.prepared.width, plan.prepared.height, 12]);
  const parts = view.strips.reduce((sum, strip) => sum + strip.parts.length, 0);
  expect(buffersOf(view)).toHaveLength(3 * (view.colours.length + parts + view.films.length));
  for (const { parts, placements } of view.strips)
    expect(placements.map(({ part }) => parts[part].id)).toEqual(placements.map(() => parts[0].id));
  expect(new Set(buffersOf(view)).size).toBe(buffersOf(view).length);
});
