/** Which of some regions is nearest, everywhere: a Voronoi diagram of places along their outlines. */
import Delaunator from 'delaunator';
import type { Region } from '../geometry/region';
import { regionBounds } from '../geometry/region';
import type { Bounds } from '../geometry/bounds';
import { heightOf, joinBounds, outset, widthOf } from '../geometry/bounds';

/** Places along an outline lie no further apart than this, mm: a border lies within about half of it. */
const APART = 0.25;
/** More places than this only take longer: of a large sign they lie further apart. */
const MOST_PLACES = 60_000;

interface Places {
  readonly xy: Float64Array;
  /** Whose each place is; -1: nobody's. */
  readonly owner: Int32Array;
}

/**
 * Where each region is the nearest one. The borders are edges of the Voronoi diagram of places along the outlines (dual of
 * Delaunay's triangulation; see Aurenhammer, ACM Computing Surveys 23, 1991) between places of two regions.
 * @param regions none overlaps another
 * @param within what is of interest, mm; further out a border may be missing
 * @returns for each region outlines that wind around where it is nearest
 */
export function nearestCells(regions: readonly Region[], within: Bounds): Region[] {
  const { xy, owner } = placesAlong(regions, within);
  const { triangles, halfedges } = new Delaunator(xy);
  const centres = circumcentres(xy, triangles);
  // from one centre to the next along each region's border, the region on one and the same side
  const next = regions.map(() => new Map<number, number>());
  for (let e = 0; e < triangles.length; e++) {
    const twin = halfedges[e];
    const whose = owner[triangles[e]];
    if (twin < 0 || whose < 0 || whose === owner[triangles[e % 3 === 2 ? e - 2 : e + 1]]) continue;
    next[whose].set(Math.floor(e / 3), Math.floor(twin / 3));
  }
  return next.map((steps) => loopsOf(steps, centres));
}

function loopsOf(steps: Map<number, number>, centres: Float64Array): Region {
  const loops: Float64Array[] = [];
  for (const [start] of steps) {
    const loop: number[] = [];
    for (let at: number | undefined = start; at !== undefined;) {
      const to: number | undefined = steps.get(at);
      if (to === undefined) break;
      loop.push(centres[2 * at], centres[2 * at + 1]);
      steps.delete(at);
      at = to;
    }
    if (loop.length >= 6) loops.push(Float64Array.from(loop));
  }
  return loops;
}

function placesAlong(regions: readonly Region[], within: Bounds): Places {
  const length = regions.flat().reduce((sum, ring) => sum + lengthOf(ring), 0);
  const apart = Math.max(APART, length / MOST_PLACES);
  const xy: number[] = [];
  const owner: number[] = [];
  regions.forEach((region, i) => {
    for (const ring of region) {
      for (let k = 0; k < ring.length; k += 2) {
        const to = (k + 2) % ring.length;
        const [dx, dy] = [ring[to] - ring[k], ring[to + 1] - ring[k + 1]];
        const parts = Math.max(1, Math.ceil(Math.hypot(dx, dy) / apart));
        for (let part = 0; part < parts; part++) {
          xy.push(ring[k] + (dx * part) / parts, ring[k + 1] + (dy * part) / parts);
          owner.push(i);
        }
      }
    }
  });
  // nobody's, so far out that everything of interest is nearer to somebody
  const all = regions.map(regionBounds).reduce(joinBounds, within);
  const { minX, minY, maxX, maxY } = outset(all, 4 * Math.max(widthOf(all), heightOf(all), 1));
  for (const x of [minX, (minX + maxX) / 2, maxX])
    for (const y of [minY, (minY + maxY) / 2, maxY]) {
      if (x === (minX + maxX) / 2 && y === (minY + maxY) / 2) continue;
      xy.push(x, y);
      owner.push(-1);
    }
  return { xy: Float64Array.from(xy), owner: Int32Array.from(owner) };
}

function lengthOf(ring: Float64Array): number {
  let sum = 0;
  for (let k = 0; k < ring.length; k += 2) {
    const to = (k + 2) % ring.length;
    sum += Math.hypot(ring[to] - ring[k], ring[to + 1] - ring[k + 1]);
  }
  return sum;
}

function circumcentres(xy: Float64Array, triangles: Uint32Array): Float64Array {
  const centres = new Float64Array((2 * triangles.length) / 3);
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [2 * triangles[t], 2 * triangles[t + 1], 2 * triangles[t + 2]];
    const [ax, ay] = [xy[a], xy[a + 1]];
    const [bx, by] = [xy[b] - ax, xy[b + 1] - ay];
    const [cx, cy] = [xy[c] - ax, xy[c + 1] - ay];
    const twice = 2 * (bx * cy - by * cx);
    const [b2, c2] = [bx * bx + by * by, cx * cx + cy * cy];
    centres[(2 * t) / 3] = ax + (twice === 0 ? (bx + cx) / 3 : (cy * b2 - by * c2) / twice);
    centres[(2 * t) / 3 + 1] = ay + (twice === 0 ? (by + cy) / 3 : (bx * c2 - cx * b2) / twice);
  }
  return centres;
}
