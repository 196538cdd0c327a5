/** Seams that walk through the gaps instead of across the art. */
import type { Bounds } from '../geometry/bounds';
import { emptyBounds, growBounds, outset } from '../geometry/bounds';
import { backwards, joinedPoints, lineLength } from '../geometry/path';
import type { Region, Ring } from '../geometry/region';
import { cutToBox, grow, linesInside, ringArea } from '../geometry/region';
import { simplify } from '../geometry/simplify';
import type { Axis, Span } from './axis';
import { boxOfSpans, otherAxis, spanOf } from './axis';
import type { SeamCost } from './ink';
import type { Band, Corridor, InkGrid } from './inkGrid';
import { clearance, coarser, inkGrid } from './inkGrid';
import { leastPath } from './leastPath';

/** What a wandering seam has to keep to, mm. */
export interface WanderRules {
  /** Narrowest film that weeds: no thinner sliver is left along an outline. */
  readonly narrowest: number;
  /** Smallest radius that it bends by; 0: it may have corners. */
  readonly radius: number;
  /** Boxes that it goes around wherever that can be. */
  readonly kept: readonly Bounds[];
  /** Stretches along it in which it goes straight: where seams of the other axis wander. */
  readonly straight: readonly Span[];
}

/** Cost of a mm: in the open, near an outline, through art, along an outline inside it, through what is kept whole. */
const OPEN = 0.01;
const NEAR = 0.12;
const SLIVER = 2;
const KEPT = 50;
/** Cells that a rough look takes. */
const ROUGH_CELLS = 60_000;
/** Coarse cells to both sides of a rough way that are looked at closely. */
const BESIDE = 2;
/** Finest grid, mm: gaps narrower than two cells are no way through. */
const FINEST = 1;
/** How far a seam runs on past the art at both ends, mm. */
export const RUN_ON = 20;

/** A corridor drawn on a grid, and the way that a rough look finds through it. */
interface Rough {
  readonly grid: InkGrid;
  /** Cells a coarse cell is wide and high. */
  readonly by: number;
  readonly columns: number;
  readonly path: Int32Array;
  /** mm of art that it would cut */
  readonly ink: number;
}

const runOn = (corridor: Corridor): Corridor => ({
  ...corridor,
  from: corridor.from - RUN_ON,
  to: corridor.to + RUN_ON,
});

/** Rows in which a seam goes straight: where the art is over, and where seams of the other axis wander. */
function straightRows({ from, to }: Corridor, { straight }: WanderRules, u0: number, step: number) {
  return (row: number): boolean => {
    const u = u0 + row * step;
    return u < from - RUN_ON / 2 || u > to + RUN_ON / 2 || straight.some(([a, b]) => u > a && u < b);
  };
}

function roughly(
  regions: readonly Region[],
  axis: Axis,
  corridor: Corridor,
  rules: WanderRules,
  cells: number,
): Rough {
  const long = runOn(corridor);
  const step = Math.max(FINEST, Math.sqrt(((long.to - long.from) * (long.high - long.low)) / cells));
  const near = regions.map((region) =>
    cutToBox(region, boxOfSpans(axis, [long.low, long.high], [long.from, long.to])),
  );
  const grid = inkGrid(near, axis, long, step);
  const by = Math.max(1, Math.ceil(Math.sqrt((grid.rows * grid.columns) / ROUGH_CELLS)));
  const { rows, columns, films } = coarser(grid, by);
  const path = leastPath({
    rows,
    columns,
    cost: films.map((own) => own + OPEN),
    band: { first: new Int32Array(rows), last: new Int32Array(rows).fill(columns - 1) },
    isStraight: straightRows(corridor, rules, grid.u0 + ((by - 1) * step) / 2, by * step),
  });
  const ink = path.reduce((sum, cell) => sum + films[cell], 0) * by * step;
  return { grid, by, columns, path, ink };
}

/**
 * About how much art the least costly seam in a corridor would cut, mm.
 * @param cells of its grid at most: a larger corridor gets a coarser one
 */
export const wanderGuess = (
  regions: readonly Region[],
  axis: Axis,
  corridor: Corridor,
  rules: WanderRules,
  cells: number,
): number => roughly(regions, axis, corridor, rules, cells).ink;

/** Fine cells beside a rough way. */
function bandAlong({ grid: { rows, columns }, by, columns: wide, path }: Rough): Band {
  const first = new Int32Array(rows).fill(columns);
  const last = new Int32Array(rows).fill(-1);
  const reach = BESIDE * by;
  for (const cell of path) {
    const [row, column] = [Math.floor(cell / wide) * by, (cell % wide) * by];
    for (let r = Math.max(0, row - reach); r < Math.min(rows, row + by + reach); r++) {
      first[r] = Math.min(first[r], Math.max(0, column - reach));
      last[r] = Math.max(last[r], Math.min(columns - 1, column + by + reach));
    }
  }
  return { first, last };
}

/**
 * The least costly seam in a corridor: through the gaps, at a distance from outlines, not longer than it has to be;
 * looked for on a coarse grid first and then closely beside the way found there; pulled tight, and bent by no less than
 * the smallest radius.
 * @param cells of its grid at most: a larger corridor gets a coarser one
 * @returns x0, y0, x1, y1 … from above, or from the left
 */
export function wander(
  regions: readonly Region[],
  axis: Axis,
  corridor: Corridor,
  rules: WanderRules,
  cells: number,
): Float64Array {
  const rough = roughly(regions, axis, corridor, rules, cells);
  const { grid } = rough;
  const { rows, columns, u0, step } = grid;
  const band = bandAlong(rough);
  const cost = costsOf(grid, band, axis, rules);
  const path = leastPath({ rows, columns, cost, band, isStraight: straightRows(corridor, rules, u0, step) });
  const tight = pulledTight(path, grid, cost, rules.straight);
  return placed(rules.radius > 0 ? rounded(tight, runOn(corridor), rules.radius) : tight, axis);
}

function costsOf(
  grid: InkGrid,
  band: Band,
  axis: Axis,
  { narrowest, radius, kept }: WanderRules,
): Float32Array {
  const reach = Math.max(narrowest, radius);
  const clear = clearance(grid, band, reach);
  const { rows, columns, step, u0, v0, films } = grid;
  // cells beside the band are no way
  const cost = new Float32Array(films.length).fill(Infinity);
  for (let row = 0; row < rows; row++) {
    for (let i = row * columns + band.first[row]; i <= row * columns + band.last[row]; i++) {
      const off = 1 - clear[i] / reach;
      const sliver = clear[i] < narrowest ? SLIVER * (1 - clear[i] / narrowest) : 0;
      cost[i] = OPEN + (films[i] === 0 ? NEAR * off * off : films[i] * (1 + sliver));
    }
  }
  for (const box of kept) {
    const [[va, vb], [ua, ub]] = [spanOf(box, axis), spanOf(box, otherAxis(axis))];
    for (let row = Math.max(0, Math.ceil((ua - u0) / step)); row < rows && u0 + row * step <= ub; row++) {
      for (let k = Math.max(0, Math.ceil((va - v0) / step)); k < columns && v0 + k * step <= vb; k++) {
        const i = row * columns + k;
        if (films[i] > 0) cost[i] += KEPT;
      }
    }
  }
  return cost;
}

/** Corners of a way through cells, u and v by turns; straight runs have none. */
function cornersOf(path: Int32Array, { columns, step, u0, v0 }: InkGrid): Float64Array {
  const out: number[] = [];
  const add = (i: number): void => {
    out.push(u0 + Math.floor(i / columns) * step, v0 + (i % columns) * step);
  };
  path.forEach((cell, k) => {
    if (k > 0 && k < path.length - 1 && cell - path[k - 1] === path[k + 1] - cell) return;
    add(cell);
  });
  return Float64Array.from(out);
}

/** Corners looked ahead for a shorter way. */
const AHEAD = 40;

/** Shorter where a straight line costs no more than the way between its ends. */
function pulledTight(
  path: Int32Array,
  grid: InkGrid,
  cost: Float32Array,
  straight: WanderRules['straight'],
): Float64Array {
  const leans = (ua: number, ub: number, va: number, vb: number): boolean =>
    va !== vb && straight.some(([a, b]) => ua < b && ub > a);
  const points = cornersOf(path, grid);
  const n = points.length / 2;
  const sums = new Float64Array(n);
  const costTo = (i: number, k: number, most: number): number =>
    lineCost(points[2 * i], points[2 * i + 1], points[2 * k], points[2 * k + 1], grid, cost, most);
  for (let i = 1; i < n; i++) sums[i] = sums[i - 1] + costTo(i - 1, i, Infinity);
  const out: number[] = [points[0], points[1]];
  for (let i = 0; i < n - 1;) {
    let best = i + 1;
    for (let ahead = AHEAD; ahead > 1; ahead = Math.floor(ahead * 0.7)) {
      const k = Math.min(n - 1, i + ahead);
      // never back: its ends run straight on
      if (points[2 * k] <= points[2 * i]) continue;
      if (leans(points[2 * i], points[2 * k], points[2 * i + 1], points[2 * k + 1])) continue;
      const most = sums[k] - sums[i] + 1e-9;
      if (costTo(i, k, most) > most) continue;
      best = k;
      break;
    }
    out.push(points[2 * best], points[2 * best + 1]);
    i = best;
  }
  return Float64Array.from(out);
}

/** Cost of a straight line, by cells half a step apart; given up where it comes to more than it may. */
function lineCost(
  ua: number,
  va: number,
  ub: number,
  vb: number,
  { rows, columns, step, u0, v0 }: InkGrid,
  cost: Float32Array,
  most: number,
): number {
  const length = Math.hypot(ub - ua, vb - va);
  const count = Math.max(1, Math.ceil((2 * length) / step));
  const limit = (most * count) / length;
  let sum = 0;
  for (let k = 0; k <= count; k++) {
    const [u, v] = [ua + ((ub - ua) * k) / count, va + ((vb - va) * k) / count];
    const row = Math.min(rows - 1, Math.max(0, Math.round((u - u0) / step)));
    const column = Math.min(columns - 1, Math.max(0, Math.round((v - v0) / step)));
    if (sum > limit) return Infinity;
    sum += cost[row * columns + column] * (k === 0 || k === count ? 0.5 : 1);
  }
  return (sum * length) / count;
}

/**
 * The line bent by no less than a radius: all that lies before it is opened and closed by a disc (Serra 1982), which
 * leaves no sharper bend on either side, and stays in the corridor since that has straight sides.
 * @param line u and v by turns
 */
function rounded(line: Float64Array, { from, to, low, high }: Corridor, radius: number): Float64Array {
  const far = 20 * radius + (high - low);
  const [first, last] = [line[1], line[line.length - 1]];
  const [begin, end] = [from - far, to + far];
  const ring = joinedPoints([begin, low - far, begin, first], line, [end, last, end, low - far]);
  const before = ringArea(ring) > 0 ? ring : backwards(ring);
  // closing may bring a sharp point about where it bridges a gap, so that both are done twice; what is nipped off, and
  // holes of rounding that the disc would widen, are no part of the seam
  let smooth = before;
  for (const by of [-radius, radius, radius, -radius, -radius, radius, radius, -radius])
    smooth = largestRing(grow([smooth], by));
  const seam = seamOf(smooth, low - far / 2, from - far / 2, to + far / 2);
  if (!seam) return line;
  // its ends run straight on to where the art is over
  const whole = joinedPoints([from, seam[1]], seam, [to, seam[seam.length - 1]]);
  return simplify({ points: whole, closed: false }, 0.01).points;
}

const largestRing = (region: Region): Ring =>
  region.reduce(
    (best, ring) => (ringArea(ring) > ringArea(best) ? ring : best),
    region[0] ?? new Float64Array(),
  );

/** The stretch of a ring that lies off the frame, in rising u at its ends. */
function seamOf(ring: Float64Array, least: number, from: number, to: number): Float64Array | undefined {
  const n = ring.length / 2;
  const isSeam = (i: number): boolean => ring[2 * i + 1] > least && ring[2 * i] > from && ring[2 * i] < to;
  const start = Array.from({ length: n }, (_, i) => i).find((i) => isSeam(i) && !isSeam((i + n - 1) % n));
  if (start === undefined) return undefined;
  const out: number[] = [];
  for (let k = 0; k < n && isSeam((start + k) % n); k++)
    out.push(ring[2 * ((start + k) % n)], ring[2 * ((start + k) % n) + 1]);
  const points = Float64Array.from(out);
  return points[0] <= points[points.length - 2] ? points : backwards(points);
}

/** u and v by turns → x and y. */
const placed = (line: Float64Array, axis: Axis): Float64Array =>
  axis === 'level' ? line : line.map((_, i) => line[i % 2 === 0 ? i + 1 : i - 1]);

/** What a line cuts, measured on the true outlines. */
export function costOfLine(regions: readonly Region[], points: Float64Array): SeamCost {
  // a line on the box's own edge would lie on no side of what is cut to it
  const box = outset(growBounds(emptyBounds(), points), 1);
  let [ink, crossings] = [0, 0];
  for (const region of regions) {
    const near = cutToBox(region, box);
    if (near.length === 0) continue;
    for (const inside of linesInside([{ points, closed: false }], near)) {
      ink += lineLength(inside);
      crossings += 2;
    }
  }
  return { ink, crossings };
}
