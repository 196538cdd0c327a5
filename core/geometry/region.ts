/**
 * Regions: closed, straight-edged areas with holes. The only file that knows the polygon library.
 * Outer rings have positive area, holes negative (see {@link ringArea}), so a region's area is the plain sum.
 */
import type { Path64, Paths64 } from 'clipper2-ts';
import { Clipper64, ClipType, FillRule } from 'clipper2-ts';
import { groupsApart } from './apart';
import type { Bounds } from './bounds';
import { inColumns } from './columns';
import type { Rule } from './scanCheck';
import { errorOf } from './scanCheck';
import { emptyBounds, growBounds, isEmptyBounds } from './bounds';
import type { Matrix } from './matrix';
import { determinant, mapped } from './matrix';
import type { Cap, Join } from './offset';
import { offsetLine, offsetRing } from './offset';
import type { Polyline } from './path';
import { backwards, lineLength } from './path';

/** x0, y0, x1, y1 … in mm; closed, the first point not repeated. */
export type Ring = Float64Array;
export type Region = readonly Ring[];

export type Fill = 'nonzero' | 'evenodd';
export type { Cap, Join };

/** Grid steps per mm: 1 µm. 12 m is then 1.2e7 steps, so products of two lengths stay exact in doubles. */
export const GRID_PER_MM = 1000;

/** How far an offset's round corner may lie from the true arc, mm. */
const ARC_TOLERANCE = 0.005;

const RULE: Readonly<Record<Fill, FillRule>> = { nonzero: FillRule.NonZero, evenodd: FillRule.EvenOdd };
function toGrid(ring: Float64Array): Path64 {
  const path: Path64 = new Array(ring.length >> 1);
  for (let i = 0, k = 0; i < ring.length; i += 2, k++) {
    // + 0: -0 is no small integer, and one such point slows every boolean after it down
    path[k] = { x: Math.round(ring[i] * GRID_PER_MM) + 0, y: Math.round(ring[i + 1] * GRID_PER_MM) + 0 };
  }
  return path;
}

function fromGrid(path: Path64): Ring {
  const ring = new Float64Array(path.length * 2);
  for (let i = 0; i < path.length; i++) {
    ring[2 * i] = path[i].x / GRID_PER_MM;
    ring[2 * i + 1] = path[i].y / GRID_PER_MM;
  }
  return ring;
}

const gridAll = (rings: readonly Float64Array[]): Paths64 => rings.map(toGrid);

function run(type: ClipType, subject: Paths64, clip: Paths64, fill: FillRule): Region {
  return inColumns(subject, clip, (a, b) => sureSweep(type, a, b, fill)).map(fromGrid);
}

/**
 * The library's sweep goes astray now and then where many outlines nearly coincide (about one in two thousand piles of
 * random needles). Every result is looked at along a few lines; one that is wrong is swept along the other axis, and the
 * better of the two is kept.
 */
function sureSweep(type: ClipType, subject: Paths64, clip: Paths64, fill: FillRule): Paths64 {
  const error = (result: Paths64): number => errorOf(subject, clip, result, ruleOf(type, fill));
  const first = sweep(type, subject, clip, fill);
  const wrong = error(first);
  if (wrong === 0) return first;
  const second = turned(sweep(type, turned(subject), turned(clip), fill));
  return error(second) < wrong ? second : first;
}

function sweep(type: ClipType, subject: Paths64, clip: Paths64, fill: FillRule): Paths64 {
  const clipper = new Clipper64();
  clipper.preserveCollinear = false;
  clipper.addSubject(subject);
  if (clip.length > 0) clipper.addClip(clip);
  const solution: Paths64 = [];
  clipper.execute(type, fill, solution);
  return solution;
}

/** x and y swapped; each path turned round so that outer ones stay positive. */
const turned = (paths: Paths64): Paths64 =>
  paths.map((path) => path.map(({ x, y }) => ({ x: y, y: x })).reverse());

function ruleOf(type: ClipType, fill: FillRule): Rule {
  const isIn = fill === FillRule.EvenOdd ? (w: number) => (w & 1) !== 0 : (w: number) => w !== 0;
  if (type === ClipType.Union) return (s) => isIn(s);
  if (type === ClipType.Difference) return (s, c) => isIn(s) && !isIn(c);
  return (s, c) => isIn(s) && isIn(c);
}

/** Welds rings into one region under a fill rule. Also the way from raw outlines to a region. */
export function weld(rings: readonly Float64Array[], fill: Fill = 'nonzero'): Region {
  return rings.length === 0 ? [] : run(ClipType.Union, gridAll(rings), [], RULE[fill]);
}

/**
 * {@link weld} for rings that overlap by rounding only, so that the result's area is known beforehand: the sum. Where it
 * is not, the sweep is made again along the other axis and the better of the two is kept.
 */
export function weldDisjoint(rings: readonly Float64Array[]): Region {
  const expected = regionArea(rings);
  const slack = (outlineLength(rings) * 5) / GRID_PER_MM;
  const off = (region: Region): number => Math.abs(regionArea(region) - expected);
  const first = weld(rings);
  if (off(first) <= slack) return first;
  const second = transpose(weld(transpose(rings)));
  return off(second) < off(first) ? second : first;
}

/** x and y swapped; each ring turned round so that outer rings stay positive. */
const transpose = (region: Region): Region => mapRegion(region, [0, 1, 1, 0, 0, 0]);

/** What lies in `a` and not in `b`. */
export function difference(a: Region, b: Region): Region {
  if (a.length === 0 || b.length === 0) return a;
  return run(ClipType.Difference, gridAll(a), gridAll(b), FillRule.NonZero);
}

/** What lies in both. */
export function intersection(a: Region, b: Region): Region {
  if (a.length === 0 || b.length === 0) return [];
  return run(ClipType.Intersection, gridAll(a), gridAll(b), FillRule.NonZero);
}

/** The parts of lines that lie in a region; a closed line that is wholly inside stays closed. */
export function linesInside(lines: readonly Polyline[], region: Region): Polyline[] {
  const clip = gridAll(region);
  return lines.flatMap((line) => {
    const clipper = new Clipper64();
    const path = toGrid(line.points);
    clipper.addOpenSubject([line.closed ? [...path, path[0]] : path]);
    clipper.addClip(clip);
    const closed: Paths64 = [];
    const open: Paths64 = [];
    clipper.execute(ClipType.Intersection, FillRule.NonZero, closed, open);
    const inside = open.map((points) => ({ points: fromGrid(points), closed: false }));
    const kept = inside.reduce((sum, part) => sum + lineLength(part), 0);
    const whole = lineLength(line);
    return Math.abs(kept - whole) < 2e-3 * (1 + line.points.length) ? [line] : inside;
  });
}

/** The area a pen of `width` mm leaves along the lines. */
export function strokeOutline(
  lines: readonly Polyline[],
  width: number,
  style: { readonly join: Join; readonly cap: Cap; readonly miterLimit: number },
): Region {
  const { join, cap, miterLimit } = style;
  const corners = { join, miterLimit, tolerance: ARC_TOLERANCE };
  const rings = lines.flatMap(({ points, closed }) => {
    if (!closed || points.length < 6) return [offsetLine(points, width / 2, corners, cap)];
    return [offsetRing(points, width / 2, corners), offsetRing(backwards(points), width / 2, corners)];
  });
  return woundPositive(rings);
}

/** Open lines end flat, corners are round. */
export const PLAIN_STROKE = { join: 'round', cap: 'butt', miterLimit: 2 } as const;

/** What raw offset rings wind around more often than not. */
function woundPositive(rings: readonly Ring[]): Region {
  // a sweep over everything looks at all that lies side by side again and again
  return groupsApart(rings.filter((ring) => ring.length > 0)).flatMap((group) =>
    run(ClipType.Union, gridAll(group), [], FillRule.Positive),
  );
}

/**
 * The region with everything within `distance` mm of it; negative: without what is that near its edge.
 * @param corners round, unless otherwise said; pointed ones reach so many distances at the most
 */
export function grow(
  region: Region,
  distance: number,
  { join, miterLimit }: { readonly join: Join; readonly miterLimit: number } = ROUND,
): Region {
  const corners = { join, miterLimit, tolerance: ARC_TOLERANCE };
  // a hole that only rounding made would be as wide as the next offset
  return dropSlivers(woundPositive(region.map((ring) => offsetRing(ring, distance, corners))));
}

const ROUND = { join: 'round', miterLimit: 2 } as const;

/** Signed area of one ring in mm²: positive for outer rings, negative for holes. */
export function ringArea(ring: ArrayLike<number>): number {
  let twice = 0;
  const n = ring.length;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) twice += ring[j] * ring[i + 1] - ring[i] * ring[j + 1];
  return twice / 2;
}

export const regionArea = (region: Region): number => region.reduce((sum, ring) => sum + ringArea(ring), 0);

/** Length of one ring's outline, mm. */
export const ringLength = (ring: Float64Array): number => lineLength({ points: ring, closed: true });

/** Length of all outlines of a region, holes too, mm: what the knife travels. */
export const outlineLength = (region: Region): number =>
  region.reduce((sum, ring) => sum + ringLength(ring), 0);

export const ringBounds = (ring: Ring): Bounds => growBounds(emptyBounds(), ring);

export const regionBounds = (region: Region): Bounds => region.reduce(growBounds, emptyBounds());

/** The region mapped; a mirroring map also turns each ring round so that outer rings stay positive. */
export function mapRegion(region: Region, m: Matrix): Region {
  const mirrors = determinant(m) < 0;
  return region.map((ring) => {
    const moved = mapped(ring, m);
    return mirrors ? backwards(moved) : moved;
  });
}

/** An upright rectangle. */
export function rectangle(b: Bounds): Region {
  if (isEmptyBounds(b)) return [];
  return [Float64Array.of(b.minX, b.minY, b.maxX, b.minY, b.maxX, b.maxY, b.minX, b.maxY)];
}

/**
 * Moves every edge out by a few grid steps, without the booleans of an offset: rings may come to overlap
 * one another, so weld the result.
 */
export const letOut = (region: Region, distance: number): Region =>
  region.map((ring) => letOutRing(ring, distance));

function letOutRing(ring: Ring, distance: number): Ring {
  const n = ring.length;
  const out = new Float64Array(n);
  for (let i = 0; i < n; i += 2) {
    const before = (i + n - 2) % n;
    const after = (i + 2) % n;
    const [ux, uy] = unit(ring[i] - ring[before], ring[i + 1] - ring[before + 1]);
    const [vx, vy] = unit(ring[after] - ring[i], ring[after + 1] - ring[i + 1]);
    // both edges move out along their normals; at spikes the corner goes no further than twice the distance
    const reach = distance / Math.max(0.5, 1 + ux * vx + uy * vy);
    out[i] = ring[i] + (uy + vy) * reach;
    out[i + 1] = ring[i + 1] - (ux + vx) * reach;
  }
  return out;
}

function unit(x: number, y: number): readonly [number, number] {
  const length = Math.hypot(x, y);
  return length > 0 ? [x / length, y / length] : [0, 0];
}

/**
 * The part of the rings inside an upright box, ring by ring (Sutherland & Hodgman 1974): pieces that the box cuts
 * apart stay joined along its edge, which no fill rule minds inside the box. One look a point.
 */
export function cutToBox(region: Region, b: Bounds): Region {
  return region.flatMap((ring) => {
    let points: number[] | Ring = ring;
    points = cutHalf(points, 0, b.minX, 1);
    points = cutHalf(points, 0, b.maxX, -1);
    points = cutHalf(points, 1, b.minY, 1);
    points = cutHalf(points, 1, b.maxY, -1);
    return points.length < 6 ? [] : [Float64Array.from(points)];
  });
}

/** Keeps what lies on the side of `limit` that `sign` points to, along one axis (0: x, 1: y). */
function cutHalf(points: ArrayLike<number>, axis: 0 | 1, limit: number, sign: 1 | -1): number[] {
  const out: number[] = [];
  const n = points.length;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
    const from = (points[j + axis] - limit) * sign;
    const to = (points[i + axis] - limit) * sign;
    if (from >= 0 !== to >= 0) {
      const t = from / (from - to);
      const across = points[j + 1 - axis] + t * (points[i + 1 - axis] - points[j + 1 - axis]);
      if (axis === 0) out.push(limit, across);
      else out.push(across, limit);
    }
    if (to >= 0) out.push(points[i], points[i + 1]);
  }
  return out;
}

/** Leaves out rings that enclose less than rounding to the grid can make: area ≤ outline × 1.5 grid steps. */
export function dropSlivers(region: Region): Region {
  return region.filter((ring) => Math.abs(ringArea(ring)) > (ringLength(ring) * 1.5) / GRID_PER_MM);
}
