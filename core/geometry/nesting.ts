/** Which outlines lie inside which. */
import RBush from 'rbush';
import type { Bounds } from './bounds';
import type { Spot } from './spot';
import type { Region, Ring } from './region';
import { ringArea, ringBounds } from './region';

interface BoxedRing extends Bounds {
  readonly index: number;
}

/** An outermost outline and all that lies in it: ring indices and how many outlines lie around each. */
export interface NestedGroup {
  readonly rings: readonly number[];
  readonly depth: readonly number[];
}

/** Takes a region's rings apart into outermost outlines with what lies inside them. Rings must not cross. */
export function groupNested(region: Region): NestedGroup[] {
  const boxes = region.map((ring, index): BoxedRing => ({ ...ringBounds(ring), index }));
  const tree = new RBush<BoxedRing>().load(boxes);
  const parents = region.map((ring, i) => parentsOf(region, ring, boxes[i], tree));
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

const largest = (region: Region, rings: readonly number[]): number =>
  rings.reduce((best, i) => (Math.abs(ringArea(region[i])) > Math.abs(ringArea(region[best])) ? i : best));

/** Every ring around this one. Rings of a region never cross, so one point of the ring decides. */
function parentsOf(region: Region, ring: Ring, box: BoxedRing, tree: RBush<BoxedRing>): number[] {
  const middle: Spot = [(ring[0] + ring[2]) / 2, (ring[1] + ring[3]) / 2];
  return tree
    .search(box)
    .filter(
      (other) =>
        other.index !== box.index &&
        other.minX <= box.minX &&
        other.minY <= box.minY &&
        other.maxX >= box.maxX &&
        other.maxY >= box.maxY &&
        isInside(region[other.index], middle),
    )
    .map((other) => other.index);
}

/** Whether a place lies on a region and not in a hole of it. */
export const liesOn = (region: Region, at: Spot): boolean =>
  region.filter((ring) => isInside(ring, at)).length % 2 === 1;

/** Whether a place lies inside a ring: even-odd ray crossing. */
export function isInside(ring: Ring, [x, y]: Spot): boolean {
  let inside = false;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    if (ring[i + 1] > y === ring[j + 1] > y) continue;
    if (x < ((ring[j] - ring[i]) * (y - ring[i + 1])) / (ring[j + 1] - ring[i + 1]) + ring[i])
      inside = !inside;
  }
  return inside;
}
