/**
 * In which order outlines are cut: what lies inside before what lies around it, so that nothing is cut from film
 * that has already come loose, and otherwise the nearest next, with the start point free.
 */
import RBush from 'rbush';
import type { Bounds } from '../geometry/bounds';
import type { NestedGroup } from '../geometry/nesting';
import { groupNested } from '../geometry/nesting';
import type { Region, Ring } from '../geometry/region';
import type { Spot } from '../geometry/spot';

/** Points offered as a start, at the most, for each outline. */
const STARTS = 24;

/**
 * Orders and rotates the outlines of a region for cutting. Greedy nearest neighbour over groups of nested
 * outlines; the outline after that starts at the point nearest to where the knife was lifted.
 * @param from where the knife is, mm
 * @returns the rings in cutting order, each rotated to begin at its start point
 */
export function orderRings(region: Region, from: Spot): Ring[] {
  const groups = groupNested(region);
  const index = new NearestGroups(region, groups);
  const out: Ring[] = [];
  let at: Spot = from;
  for (let group = index.take(at); group; group = index.take(at)) {
    for (const ring of innerFirst(region, group, at)) {
      out.push(ring);
      at = [ring[0], ring[1]];
    }
  }
  return out;
}

function innerFirst(region: Region, group: NestedGroup, from: Spot): Ring[] {
  const left = group.rings.map((ring, i) => ({ ring: region[ring], depth: group.depth[i] }));
  const out: Ring[] = [];
  let at: Spot = from;
  while (left.length > 0) {
    const deepest = Math.max(...left.map((l) => l.depth));
    let best = -1;
    let bestStart = { vertex: 0, distance: Infinity };
    left.forEach(({ ring, depth }, i) => {
      if (depth !== deepest) return;
      const start = nearestVertex(ring, at);
      if (start.distance < bestStart.distance) [best, bestStart] = [i, start];
    });
    const ring = rotate(left[best].ring, bestStart.vertex);
    out.push(ring);
    at = [ring[0], ring[1]];
    left.splice(best, 1);
  }
  return out;
}

function nearestVertex(ring: Ring, at: Spot): { vertex: number; distance: number } {
  let vertex = 0;
  let distance = Infinity;
  for (let i = 0; i < ring.length; i += 2) {
    const d = (ring[i] - at[0]) ** 2 + (ring[i + 1] - at[1]) ** 2;
    if (d < distance) [vertex, distance] = [i, d];
  }
  return { vertex, distance };
}

function rotate(ring: Ring, start: number): Ring {
  if (start === 0) return ring;
  const out = new Float64Array(ring.length);
  out.set(ring.subarray(start));
  out.set(ring.subarray(0, start), ring.length - start);
  return out;
}

interface StartPoint extends Bounds {
  readonly group: number;
}

/** Finds the group with a start point nearest to a place and takes it out. */
class NearestGroups {
  private readonly tree = new RBush<StartPoint>();
  private readonly points: StartPoint[][];
  private readonly size: number;
  private left: number;

  constructor(
    region: Region,
    private readonly groups: readonly NestedGroup[],
  ) {
    this.points = groups.map((group, i) => startPoints(region, group, i));
    this.tree.load(this.points.flat());
    this.left = groups.length;
    const all = this.tree.toJSON() as unknown as Bounds;
    this.size = groups.length === 0 ? 0 : Math.max(all.maxX - all.minX, all.maxY - all.minY, 1);
  }

  take(at: Spot): NestedGroup | undefined {
    if (this.left === 0) return undefined;
    // expected spacing of what is left; the search box doubles until it holds something
    let reach = this.size / Math.sqrt(this.left);
    for (;;) {
      const box = { minX: at[0] - reach, minY: at[1] - reach, maxX: at[0] + reach, maxY: at[1] + reach };
      const best = nearestOf(this.tree.search(box), at);
      // a corner of the box is farther than its sides: only what lies within the circle is surely nearest
      if (best && best.distance <= reach) return this.remove(best.point.group);
      reach *= 2;
    }
  }

  private remove(group: number): NestedGroup {
    for (const point of this.points[group]) this.tree.remove(point);
    this.left--;
    return this.groups[group];
  }
}

function nearestOf(
  points: readonly StartPoint[],
  at: Spot,
): { point: StartPoint; distance: number } | undefined {
  let best: { point: StartPoint; distance: number } | undefined;
  for (const point of points) {
    const distance = Math.hypot(point.minX - at[0], point.minY - at[1]);
    if (!best || distance < best.distance) best = { point, distance };
  }
  return best;
}

function startPoints(region: Region, group: NestedGroup, index: number): StartPoint[] {
  const deepest = Math.max(...group.depth);
  return group.rings
    .filter((_, i) => group.depth[i] === deepest)
    .slice(0, STARTS)
    .flatMap((ring) => {
      const points = region[ring];
      const every = Math.max(1, Math.ceil(points.length / 2 / STARTS)) * 2;
      const out: StartPoint[] = [];
      for (let i = 0; i < points.length; i += every) {
        const [x, y] = [points[i], points[i + 1]];
        out.push({ minX: x, minY: y, maxX: x, maxY: y, group: index });
      }
      return out;
    });
}
