/** Which of some regions is nearest, everywhere: a Voronoi diagram of places along their outlines. */
import Delaunator from 'delaunator';
import type { Bounds } from '../geometry/bounds';
import { heightOf, outset, widthOf } from '../geometry/bounds';
import { indexOfBoxes } from '../geometry/boxes';
import type { Region } from '../geometry/region';
import { regionBounds } from '../geometry/region';

/** Places along an outline lie no nearer together than this, mm: a border lies within about half of it. */
const APART = 0.25;
/** Else they lie apart by such a share of how far the nearest of another region is, and no further than so many mm. */
const SHARE = 1 / 16;
const FARTHEST = 50;
/** mm: an outline that lies nearer than this is the region's own. */
const TOUCH = 0.01;

interface Places {
  readonly xy: Float64Array;
  /** Whose each place is; -1: nobody's. */
  readonly owner: Int32Array;
}

/**
 * Where each region is the nearest one. The borders are edges of the Voronoi diagram of places along the outlines (dual of
 * Delaunay's triangulation; see Aurenhammer, ACM Computing Surveys 23, 1991) between places of two regions.
 * @param regions none overlaps another
 * @param free what is to be shared out between them: only outlines that it meets count
 * @returns for each region outlines that wind around where it is nearest
 */
export function nearestCells(regions: readonly Region[], free: Region): Region[] {
  const { xy, owner } = placesAlong(edgesOf(regions), free);
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

/** Edges of all regions, by where they lie. */
interface Edges {
  /** Whose edge passes a place; undefined: none does. */
  readonly ownerAt: (x: number, y: number) => number | undefined;
  /** mm at the least to the nearest edge of another one. */
  readonly others: (x: number, y: number, own: number) => number;
}

function edgesOf(regions: readonly Region[]): Edges {
  const owner: number[] = [];
  const ends: number[] = [];
  regions.forEach((region, i) => {
    for (const ring of region)
      for (let k = 0; k < ring.length; k += 2) {
        const to = (k + 2) % ring.length;
        owner.push(i);
        ends.push(ring[k], ring[k + 1], ring[to], ring[to + 1]);
      }
  });
  const boxes = owner.map((_, e): Bounds => {
    const [ax, ay, bx, by] = ends.slice(4 * e, 4 * e + 4);
    return { minX: Math.min(ax, bx), minY: Math.min(ay, by), maxX: Math.max(ax, bx), maxY: Math.max(ay, by) };
  });
  const index = indexOfBoxes(boxes);
  const offOf = (e: number, x: number, y: number): number => {
    const [ax, ay] = [ends[4 * e], ends[4 * e + 1]];
    const [dx, dy] = [ends[4 * e + 2] - ax, ends[4 * e + 3] - ay];
    const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
    return Math.hypot(x - ax - t * dx, y - ay - t * dy);
  };
  return {
    ownerAt: (x, y) => {
      const near = index.search(x - TOUCH, y - TOUCH, x + TOUCH, y + TOUCH);
      const own = near.find((e) => offOf(e, x, y) <= TOUCH);
      return own === undefined ? undefined : owner[own];
    },
    others: (x, y, own) => {
      const [e] = index.neighbors(x, y, 1, Infinity, (one) => owner[one] !== own);
      if (e === undefined) return Infinity;
      const { minX, minY, maxX, maxY } = boxes[e];
      return Math.hypot(Math.max(minX - x, 0, x - maxX), Math.max(minY - y, 0, y - maxY));
    },
  };
}

/** Close together where another region is near, and far apart elsewhere: long outlines by themselves need few. */
function placesAlong({ ownerAt, others }: Edges, free: Region): Places {
  const xy: number[] = [];
  const owner: number[] = [];
  for (const ring of free) {
    for (let k = 0; k < ring.length; k += 2) {
      const to = (k + 2) % ring.length;
      const [dx, dy] = [ring[to] - ring[k], ring[to + 1] - ring[k + 1]];
      const length = Math.hypot(dx, dy);
      for (let along = 0; along < length;) {
        const [x, y] = [ring[k] + (dx * along) / length, ring[k + 1] + (dy * along) / length];
        const own = ownerAt(x, y);
        if (own === undefined) {
          // a corner may be the end of one that does: what begins here is looked at a little further on
          if (along > 0) break;
          along = Math.min(APART, length / 2);
          continue;
        }
        xy.push(x, y);
        owner.push(own);
        along += Math.min(FARTHEST, Math.max(APART, SHARE * others(x, y, own)));
      }
    }
  }
  // nobody's, so far out that everything of interest is nearer to somebody
  const all = regionBounds(free);
  const { minX, minY, maxX, maxY } = outset(all, 4 * Math.max(widthOf(all), heightOf(all), 1));
  for (const x of [minX, (minX + maxX) / 2, maxX])
    for (const y of [minY, (minY + maxY) / 2, maxY]) {
      if (x === (minX + maxX) / 2 && y === (minY + maxY) / 2) continue;
      xy.push(x, y);
      owner.push(-1);
    }
  return { xy: Float64Array.from(xy), owner: Int32Array.from(owner) };
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
