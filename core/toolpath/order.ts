/**
 * In which order outlines are cut: what lies inside before what lies around it, so that nothing is cut from film
 * that has already come loose, and otherwise the nearest next, with the start point free.
 */
import { largest } from '../geometry/lists';
import type { NestedGroup } from '../geometry/nesting';
import { groupNested } from '../geometry/nesting';
import type { Region, Ring } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import { NearestNext } from './nearestNext';

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
  const index = new NearestNext(groups.map((group) => innermostStarts(region, group)));
  const out: Ring[] = [];
  let at: Spot = from;
  for (let next = index.take(at); next; next = index.take(at)) {
    for (const ring of innerFirst(region, groups[next.item], at)) {
      out.push(ring);
      at = [ring[0], ring[1]];
    }
  }
  return out;
}

/** Rings of a group from the deepest level outwards; those of one level each nearest to the one before. */
function innerFirst(region: Region, group: NestedGroup, from: Spot): Ring[] {
  const out: Ring[] = [];
  let at: Spot = from;
  for (let depth = largest(group.depth); depth >= 0; depth--) {
    const level = group.rings.filter((_, i) => group.depth[i] === depth).map((ring) => region[ring]);
    const index = new NearestNext(level.map(startsOf));
    for (let next = index.take(at); next; next = index.take(at)) {
      const ring = level[next.item];
      const start = rotate(ring, nearestVertex(ring, at));
      out.push(start);
      at = [start[0], start[1]];
    }
  }
  return out;
}

/** Index of the coordinate of a ring's point nearest to a place. */
export function nearestVertex(ring: Ring, at: Spot): number {
  let vertex = 0;
  let distance = Infinity;
  for (let i = 0; i < ring.length; i += 2) {
    const d = (ring[i] - at[0]) ** 2 + (ring[i + 1] - at[1]) ** 2;
    if (d < distance) [vertex, distance] = [i, d];
  }
  return vertex;
}

/** The ring from another of its points on. */
export function rotate(ring: Ring, start: number): Ring {
  if (start === 0) return ring;
  const out = new Float64Array(ring.length);
  out.set(ring.subarray(start));
  out.set(ring.subarray(0, start), ring.length - start);
  return out;
}

/** Some of a ring's points, spread evenly along it: near enough to find which ring is nearest. */
export function startsOf(ring: ArrayLike<number>): number[] {
  const every = Math.max(1, Math.ceil(ring.length / 2 / STARTS)) * 2;
  const out: number[] = [];
  for (let i = 0; i < ring.length; i += every) out.push(ring[i], ring[i + 1]);
  return out;
}

/** A group begins with one of its innermost rings. */
function innermostStarts(region: Region, group: NestedGroup): number[] {
  const deepest = largest(group.depth);
  return group.rings
    .filter((_, i) => group.depth[i] === deepest)
    .slice(0, STARTS)
    .flatMap((ring) => startsOf(region[ring]));
}
