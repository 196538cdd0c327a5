/** How far any place is from a shape's outline: exact near it, as it is asked hundreds of thousands of times. */
import { emptyBounds, growBounds, heightOf, outset, widthOf } from '../geometry/bounds';
import type { Region } from '../geometry/region';

/**
 * Signed distances in cells: each keeps the edges that can be nearest to a place in it, and the distance at its middle with
 * its slope. Cells further from the outline than the field reaches keep no edges: there the slope is good enough.
 */
export interface Field {
  readonly minX: number;
  readonly minY: number;
  /** mm */
  readonly cell: number;
  readonly columns: number;
  readonly rows: number;
  /** Edges of cell k: `edges[starts[k]]` up to `edges[starts[k + 1]]`. */
  readonly starts: Int32Array;
  readonly edges: Int32Array;
  /** x, y, dx, dy of each edge, and one over its length squared. */
  readonly segments: Float64Array;
  /** 0: the middle lies outside, 1: inside; 2 more: an edge may run through the cell. */
  readonly kinds: Uint8Array;
  /** Of each cell's middle: its distance, and the direction in which it grows, x and y. */
  readonly middles: Float64Array;
}

/** Cells along a shape's longer side, and the least that is worth it, mm. */
const CELLS = 32;
const LEAST_CELL = 0.5;
/** Numbers of one edge. */
const EDGE = 5;

/**
 * The field of a shape.
 * @param region outlines that do not cross
 * @param reach mm from the outline up to which distances are exact
 */
export function fieldOf(region: Region, reach: number): Field {
  const box = region.reduce(growBounds, emptyBounds());
  const cell = Math.max(LEAST_CELL, Math.max(widthOf(box), heightOf(box)) / CELLS);
  const around = outset(box, reach + cell);
  const columns = Math.ceil(widthOf(around) / cell);
  const rows = Math.ceil(heightOf(around) / cell);
  const segments = segmentsOf(region);
  const kinds = insides(region, around.minX, around.minY, cell, columns, rows);
  const middles = new Float64Array(3 * columns * rows);
  const cells = { minX: around.minX, minY: around.minY, cell, columns, rows, segments, kinds, middles };
  const lists = nearestLists(cells, reach);
  const starts = new Int32Array(columns * rows + 1);
  lists.forEach((list, k) => (starts[k + 1] = starts[k] + list.length));
  const edges = new Int32Array(starts[columns * rows]);
  lists.forEach((list, k) => edges.set(list, starts[k]));
  return { ...cells, starts, edges };
}

function segmentsOf(region: Region): Float64Array {
  const out: number[] = [];
  for (const ring of region) {
    for (let i = 0, n = ring.length; i < n; i += 2) {
      const [dx, dy] = [ring[(i + 2) % n] - ring[i], ring[(i + 3) % n] - ring[i + 1]];
      const length2 = dx * dx + dy * dy;
      if (length2 > 0) out.push(ring[i], ring[i + 1], dx, dy, 1 / length2);
    }
  }
  return Float64Array.from(out);
}

/** Which cells' middles lie inside, row by row along a line through them. */
function insides(
  region: Region,
  minX: number,
  minY: number,
  cell: number,
  columns: number,
  rows: number,
): Uint8Array {
  const inside = new Uint8Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    const y = minY + (row + 0.5) * cell;
    const crossings: number[] = [];
    for (const ring of region) {
      for (let i = 0, n = ring.length; i < n; i += 2) {
        const [y0, y1] = [ring[i + 1], ring[(i + 3) % n]];
        if (y0 <= y === y1 <= y) continue;
        crossings.push(ring[i] + ((y - y0) / (y1 - y0)) * (ring[(i + 2) % n] - ring[i]));
      }
    }
    crossings.sort((a, b) => a - b);
    let passed = 0;
    for (let column = 0; column < columns; column++) {
      const x = minX + (column + 0.5) * cell;
      while (passed < crossings.length && crossings[passed] < x) passed++;
      inside[row * columns + column] = passed & 1;
    }
  }
  return inside;
}

/** Those of a list that are no further off than `most`. */
function within(among: Int32Array, off: Float64Array, most: number): Int32Array {
  let count = 0;
  for (let i = 0; i < among.length; i++) if (off[i] <= most) count++;
  const near = new Int32Array(count);
  for (let i = 0, k = 0; k < count; i++) if (off[i] <= most) near[k++] = among[i];
  return near;
}

type Cells = Omit<Field, 'starts' | 'edges'>;

/**
 * The edges of each cell, found by halving: what is too far from a block is too far from its quarters. Fills in the
 * middles, and which cells an edge may run through.
 */
function nearestLists(cells: Cells, reach: number): readonly Int32Array[] {
  const { minX, minY, cell, columns, rows, segments, kinds, middles } = cells;
  const lists: Int32Array[] = Array.from({ length: columns * rows }, () => NONE);
  const all = Int32Array.from({ length: segments.length / EDGE }, (_, i) => i * EDGE);
  const off = new Float64Array(all.length);
  const visit = (column: number, row: number, size: number, among: Int32Array): void => {
    if (column >= columns || row >= rows) return;
    const x = minX + (column + size / 2) * cell;
    const y = minY + (row + size / 2) * cell;
    const half = (size * cell) / Math.SQRT2;
    let least = Infinity;
    for (let i = 0; i < among.length; i++) {
      off[i] = Math.sqrt(distance2(segments, among[i], x, y));
      if (off[i] < least) least = off[i];
    }
    if (size > 1) {
      const near = within(among, off, least + 2 * half);
      const next = size / 2;
      for (const [dx, dy] of QUARTERS) visit(column + dx * next, row + dy * next, next, near);
      return;
    }
    const k = row * columns + column;
    const sign = kinds[k] === 1 ? -1 : 1;
    middles[3 * k] = sign * least;
    distance2(segments, among[off.indexOf(least)], x, y);
    middles[3 * k + 1] = (sign * way[0]) / (least || 1);
    middles[3 * k + 2] = (sign * way[1]) / (least || 1);
    if (least <= half) kinds[k] += 2;
    // further out and deep inside, the slope at the middle is good enough
    if (least <= reach + 2 * half) lists[k] = within(among, off, least + 2 * half);
  };
  let size = 1;
  while (size < Math.max(columns, rows)) size *= 2;
  visit(0, 0, size, all);
  return lists;
}

const NONE = new Int32Array(0);
const QUARTERS: readonly (readonly [number, number])[] = [
  [0, 0],
  [1, 0],
  [0, 1],
  [1, 1],
];

/** Where the last {@link distance2} led: the way from the nearest place of the edge. Shared, so that nothing is made. */
const way = new Float64Array(2);

/** Squared distance of a place from an edge; leaves the way in {@link way}. */
function distance2(segments: Float64Array, e: number, x: number, y: number): number {
  const ax = x - segments[e];
  const ay = y - segments[e + 1];
  const dx = segments[e + 2];
  const dy = segments[e + 3];
  const along = (ax * dx + ay * dy) * segments[e + 4];
  const t = along <= 0 ? 0 : along >= 1 ? 1 : along;
  way[0] = ax - t * dx;
  way[1] = ay - t * dy;
  return way[0] * way[0] + way[1] * way[1];
}

/** Where the last {@link distanceTo} led: one way out of the outline, of length 1. Shared, so that nothing is made. */
export const away = { alongX: 0, alongY: 0 };

/**
 * mm from a place to a field's outline, below 0 inside; Infinity outside of its cells. Leaves the direction in which the
 * distance grows in {@link away}.
 * @param around exact where it lies within a cell of this distance, elsewhere by the slope at the cell's middle
 */
export function distanceTo(field: Field, x: number, y: number, around: number): number {
  const { cell, middles } = field;
  const fx = (x - field.minX) / cell;
  const fy = (y - field.minY) / cell;
  const column = Math.floor(fx);
  const row = Math.floor(fy);
  if (column < 0 || row < 0 || column >= field.columns || row >= field.rows) return Infinity;
  const k = row * field.columns + column;
  const middle = middles[3 * k];
  if (middle - around <= cell && around - middle <= cell) return exactly(field, k, x, y);
  away.alongX = middles[3 * k + 1];
  away.alongY = middles[3 * k + 2];
  return middle + cell * (away.alongX * (fx - column - 0.5) + away.alongY * (fy - row - 0.5));
}

/** About as far, by the slope at the cell's middle alone; Infinity outside of its cells. */
export function aboutDistance(
  { cell, middles, minX, minY, columns, rows }: Field,
  x: number,
  y: number,
): number {
  const fx = (x - minX) / cell;
  const fy = (y - minY) / cell;
  const column = Math.floor(fx);
  const row = Math.floor(fy);
  if (column < 0 || row < 0 || column >= columns || row >= rows) return Infinity;
  const k = 3 * (row * columns + column);
  return middles[k] + cell * (middles[k + 1] * (fx - column - 0.5) + middles[k + 2] * (fy - row - 0.5));
}

/** The same in a cell, exactly. */
function exactly(field: Field, k: number, x: number, y: number): number {
  const from = field.starts[k];
  const to = field.starts[k + 1];
  const { segments, edges } = field;
  const kind = field.kinds[k];
  let isInside = kind & 1;
  let best = Infinity;
  let bestX = 0;
  let bestY = 0;
  for (let i = from; i < to; i++) {
    const d2 = distance2(segments, edges[i], x, y);
    if (d2 < best) {
      best = d2;
      bestX = way[0];
      bestY = way[1];
    }
  }
  if (kind > 1) {
    const row = Math.floor(k / field.columns);
    const mx = field.minX + (k - row * field.columns + 0.5) * field.cell;
    const my = field.minY + (row + 0.5) * field.cell;
    for (let i = from; i < to; i++) if (isBetween(segments, edges[i], mx, my, x, y)) isInside ^= 1;
  }
  const d = Math.sqrt(best);
  const sign = isInside === 1 ? -1 : 1;
  const scale = d > 1e-9 ? sign / d : 0;
  away.alongX = bestX * scale;
  away.alongY = bestY * scale;
  return sign * d;
}

/** Whether an edge runs between two places. Ends count at one end only, so that none counts twice or not at all. */
function isBetween(s: Float64Array, e: number, px: number, py: number, qx: number, qy: number): boolean {
  const ax = s[e];
  const ay = s[e + 1];
  const bx = ax + s[e + 2];
  const by = ay + s[e + 3];
  const wx = qx - px;
  const wy = qy - py;
  const sideA = wx * (ay - py) - wy * (ax - px) > 0;
  const sideB = wx * (by - py) - wy * (bx - px) > 0;
  if (sideA === sideB) return false;
  const sideP = s[e + 2] * (py - ay) - s[e + 3] * (px - ax) > 0;
  const sideQ = s[e + 2] * (qy - ay) - s[e + 3] * (qx - ax) > 0;
  return sideP !== sideQ;
}
