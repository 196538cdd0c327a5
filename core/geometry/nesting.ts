/** Which outlines lie inside which. */
import type Flatbush from 'flatbush';
import { emptyBounds, growBounds } from './bounds';
import { boxesOf } from './boxes';
import type { Spot } from './spot';
import type { Region, Ring } from './region';
import { ringArea } from './region';

/** An outermost outline and all that lies in it: ring indices and how many outlines lie around each. */
export interface NestedGroup {
  readonly rings: readonly number[];
  readonly depth: readonly number[];
}

/** Takes a region's rings apart into outermost outlines with what lies inside them. Rings must not cross. */
export function groupNested(region: Region): NestedGroup[] {
  if (region.length === 0) return [];
  const boxes = boxesOf(region);
  const parents = region.map((ring) => ringsAround(region, ring, boxes));
  const groups = new Map<number, { rings: number[]; depth: number[] }>();
  parents.forEach((around, i) => {
    const root = around.length === 0 ? i : largest(region, around);
    const group = groups.get(root) ?? { rings: [], depth: [] };
    group.rings.push(i);
    group.depth.push(around.length);
    groups.set(root, group);
  });
  return [...groups.values()];
}

/** One connected component: its outer ring first, then its holes. */
export type Component = readonly Ring[];

/** Takes a region apart into connected components; an island inside a hole is one of its own. */
export function componentsOf(region: Region): Component[] {
  if (region.length < 2) return region.length === 0 ? [] : [region];
  const outer = region.filter((ring) => ringArea(ring) > 0);
  const holes = region.filter((ring) => ringArea(ring) < 0);
  const components = outer.map((ring) => [ring]);
  if (holes.length === 0 || outer.length === 0) return components;
  const boxes = boxesOf(outer);
  const areas = outer.map(ringArea);
  for (const hole of holes) {
    const around = ringsAround(outer, hole, boxes);
    if (around.length > 0)
      components[around.reduce((best, k) => (areas[k] < areas[best] ? k : best))].push(hole);
  }
  return components;
}

const largest = (region: Region, rings: readonly number[]): number =>
  rings.reduce((best, i) => (Math.abs(ringArea(region[i])) > Math.abs(ringArea(region[best])) ? i : best));

/** The rings around one. Rings of a region never cross, so one point of it decides. */
function ringsAround(rings: Region, ring: Ring, boxes: Flatbush): number[] {
  const middle: Spot = [(ring[0] + ring[2]) / 2, (ring[1] + ring[3]) / 2];
  return boxes
    .search(middle[0], middle[1], middle[0], middle[1])
    .filter((other) => rings[other] !== ring && isInside(rings[other], middle));
}

/** Whether a place lies on a region and not in a hole of it. */
export const liesOn = (region: Region, at: Spot): boolean =>
  region.filter((ring) => isInside(ring, at)).length % 2 === 1;

/** A place well on a region: half way between the first two crossings of a level line through its first ring's middle. */
export function placeOn(region: Region): { readonly x: number; readonly y: number } {
  const { minY, maxY } = growBounds(emptyBounds(), region[0]);
  // off the middle by a little: no point of a plain shape lies there
  const y = minY + (maxY - minY) * 0.4987;
  const at: number[] = [];
  for (const ring of region) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      if (ring[i + 1] > y === ring[j + 1] > y) continue;
      at.push(ring[i] + ((ring[j] - ring[i]) * (y - ring[i + 1])) / (ring[j + 1] - ring[i + 1]));
    }
  }
  const [a, b] = at.sort((p, q) => p - q);
  return { x: (a + b) / 2, y };
}

/** Whether a place lies inside a ring: even-odd ray crossing. */
export function isInside(ring: ArrayLike<number>, [x, y]: Spot): boolean {
  let inside = false;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    if (ring[i + 1] > y === ring[j + 1] > y) continue;
    if (x < ((ring[j] - ring[i]) * (y - ring[i + 1])) / (ring[j + 1] - ring[i + 1]) + ring[i])
      inside = !inside;
  }
  return inside;
}
