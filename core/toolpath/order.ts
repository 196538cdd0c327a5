/**
 * In which order outlines are cut: what lies inside before what lies around it, so that nothing is cut from film
 * that has already come loose, and otherwise by a short way with the knife up, every outline begun where that is shortest.
 */
import { emptyBounds, growBounds } from '../geometry/bounds';
import { append, largest } from '../geometry/lists';
import type { NestedGroup } from '../geometry/nesting';
import { groupNested } from '../geometry/nesting';
import type { Region, Ring } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import { NearestNext } from './nearestNext';
import { shortestStarts } from './starts';
import { shortened } from './tour';

/** Points offered as a start, at the most, for each outline. */
const STARTS = 24;
/** Times that groups are put into another order by where their outlines begin then. */
const ROUNDS = 2;

/**
 * Orders and rotates the outlines of a region for cutting. Groups of nested outlines are taken nearest first, that order is
 * shortened by exchanges, and starts are chosen anew for it.
 * @param from where the knife is, mm
 * @returns the rings in cutting order, each rotated to begin at its start point
 */
export function orderRings(region: Region, from: Spot): Ring[] {
  const groups = groupNested(region).map((group) => innerFirst(region, group));
  let best = begun(region, nearestFirst(region, groups, from), from);
  for (let round = 0; round < ROUNDS && groups.length > 2; round++) {
    const next = begun(region, shorter(region, best, from, round === 0), from);
    if (next.travel >= best.travel) break;
    best = next;
  }
  return best.groups.flat().map((ring, i) => rotate(region[ring], 2 * best.starts[i]));
}

/** Groups in an order, with the point at which each of their rings begins. */
interface Begun {
  readonly groups: readonly (readonly number[])[];
  readonly starts: Int32Array;
  /** mm with the knife up */
  readonly travel: number;
}

const begun = (region: Region, groups: Begun['groups'], from: Spot): Begun => ({
  groups,
  ...shortestStarts(
    groups.flat().map((ring) => region[ring]),
    from,
    STARTS,
  ),
});

/** The group that begins nearest to where the one before began, and so on. */
function nearestFirst(
  region: Region,
  groups: readonly (readonly number[])[],
  from: Spot,
): (readonly number[])[] {
  const index = new NearestNext(groups.map(([first]) => startsOf(region[first])));
  const out: (readonly number[])[] = [];
  let at: Spot = from;
  for (let next = index.take(at); next; next = index.take(at)) {
    const group = groups[next.item];
    const last = region[group[group.length - 1]];
    out.push(group);
    const end = nearestVertex(last, at);
    at = [last[end], last[end + 1]];
  }
  return out;
}

/** Another order of groups, by the middle of where each begins and ends. */
function shorter(
  region: Region,
  { groups, starts }: Begun,
  from: Spot,
  isKicked: boolean,
): (readonly number[])[] {
  const xy = new Float64Array(2 * groups.length + 2);
  xy.set(from);
  let ring = 0;
  groups.forEach((group, i) => {
    const [first, last] = [ring, (ring += group.length) - 1];
    for (const axis of [0, 1])
      xy[2 * i + 2 + axis] =
        (region[group[0]][2 * starts[first] + axis] +
          region[group[group.length - 1]][2 * starts[last] + axis]) /
        2;
  });
  const order = shortened(
    xy,
    Int32Array.from({ length: groups.length + 1 }, (_, i) => i),
    { isKicked },
  );
  return Array.from(order.subarray(1), (i) => groups[i - 1]);
}

/** Rings of a group from the deepest level outwards; those of one level on a short way through their middles. */
function innerFirst(region: Region, { rings, depth }: NestedGroup): number[] {
  if (rings.length === 1) return [...rings];
  const out: number[] = [];
  for (let level = largest(depth); level >= 0; level--) {
    const own = rings.filter((_, i) => depth[i] === level);
    append(out, own.length > 2 ? throughMiddles(region, own) : own);
  }
  return out;
}

function throughMiddles(region: Region, rings: readonly number[]): number[] {
  const middles = rings.map((ring) => {
    const { minX, minY, maxX, maxY } = growBounds(emptyBounds(), region[ring]);
    return [(minX + maxX) / 2, (minY + maxY) / 2];
  });
  const index = new NearestNext(middles);
  const order: number[] = [];
  let at = middles[0] as unknown as Spot;
  for (let next = index.take(at); next; next = index.take(at)) {
    order.push(next.item);
    at = middles[next.item] as unknown as Spot;
  }
  return Array.from(shortened(Float64Array.from(middles.flat()), Int32Array.from(order)), (i) => rings[i]);
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
