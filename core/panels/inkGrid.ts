/** The art around a seam on a fine grid: how many films lie in each cell, and how far its outlines are away. */
import type { Region } from '../geometry/region';
import type { Axis } from './axis';

/** Cells in rows along the seam; v runs across it. */
export interface InkGrid {
  readonly rows: number;
  readonly columns: number;
  /** mm a cell */
  readonly step: number;
  /** Of the first cell's middle, along and across the seam, mm. */
  readonly u0: number;
  readonly v0: number;
  /** Films with art in each cell, row by row. */
  readonly films: Uint8Array;
}

/** A stretch along a seam and a corridor across it, mm. */
export interface Corridor {
  readonly from: number;
  readonly to: number;
  readonly low: number;
  readonly high: number;
}

/**
 * Draws regions on a grid. Every edge that passes a row changes the winding number of what lies behind it, so one pass
 * over the edges and one running sum a row do, whatever the shapes. Cost: rows that edges pass, and cells.
 */
export function inkGrid(regions: readonly Region[], axis: Axis, corridor: Corridor, step: number): InkGrid {
  const { from, to, low, high } = corridor;
  const rows = Math.max(1, Math.ceil((to - from) / step));
  const columns = Math.max(1, Math.floor((high - low) / step));
  const [u0, v0] = [from + step / 2, low + (high - low - (columns - 1) * step) / 2];
  const films = new Uint8Array(rows * columns);
  const winding = new Int16Array(rows * (columns + 1));
  const along = axis === 'upright' ? 1 : 0;
  for (const region of regions) {
    winding.fill(0);
    for (const ring of region) {
      for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
        mark(ring[j + along], ring[j + 1 - along], ring[i + along], ring[i + 1 - along]);
    }
    for (let row = 0; row < rows; row++) {
      let around = 0;
      for (let column = 0; column < columns; column++) {
        around += winding[row * (columns + 1) + column];
        if (around !== 0) films[row * columns + column]++;
      }
    }
  }
  return { rows, columns, step, u0, v0, films };

  function mark(ua: number, va: number, ub: number, vb: number): void {
    const [first, last] = ua < ub ? [ua, ub] : [ub, ua];
    const start = Math.max(0, Math.ceil((first - u0) / step));
    const end = Math.min(rows - 1, Math.ceil((last - u0) / step) - 1);
    const sign = ua < ub ? 1 : -1;
    for (let row = start; row <= end; row++) {
      const v = va + ((vb - va) * (u0 + row * step - ua)) / (ub - ua);
      const column = Math.max(0, Math.ceil((v - v0) / step));
      if (column < columns) winding[row * (columns + 1) + column] += sign;
    }
  }
}

/** Of each row the first and the last column that count. */
export interface Band {
  readonly first: Int32Array;
  readonly last: Int32Array;
}

/** Fewer, larger cells: each with the mean of what it is made of, drawn half way to its emptiest: a gap counts. */
export function coarser(
  { rows, columns, films }: InkGrid,
  by: number,
): { rows: number; columns: number; films: Float32Array } {
  const [tall, wide] = [Math.ceil(rows / by), Math.ceil(columns / by)];
  const sum = new Float32Array(tall * wide);
  const least = new Float32Array(tall * wide).fill(Infinity);
  const count = new Uint32Array(tall * wide);
  const into = Int32Array.from({ length: columns }, (_, column) => Math.floor(column / by));
  for (let row = 0; row < rows; row++) {
    const at = Math.floor(row / by) * wide;
    for (let column = 0; column < columns; column++) {
      const i = at + into[column];
      const own = films[row * columns + column];
      sum[i] += own;
      count[i]++;
      if (own < least[i]) least[i] = own;
    }
  }
  return { rows: tall, columns: wide, films: sum.map((all, i) => (all / count[i] + least[i]) / 2) };
}

/** Chamfer steps of 3 and 4 (Borgefors 1986): distances in thirds of a cell, a few per cent off. */
const [SIDE, CORNER] = [3, 4];

/** Distance of the cells of a band to the nearest one on the other side of an outline, mm, no further than `most`. */
export function clearance(
  { rows, columns, step, films }: InkGrid,
  { first, last }: Band,
  most: number,
): Float32Array {
  const far = Math.min(65_000, Math.ceil((most * SIDE) / step));
  const d = new Uint16Array(rows * columns).fill(far);
  const isEdge = (i: number, k: number): boolean => films[i] !== films[k];
  for (let row = 0; row < rows; row++) {
    for (let column = first[row]; column <= last[row]; column++) {
      const i = row * columns + column;
      if (column > 0 && isEdge(i, i - 1)) d[i] = d[i - 1] = 1;
      if (row > 0 && isEdge(i, i - columns)) d[i] = d[i - columns] = 1;
    }
  }
  const lower = (i: number, k: number, by: number): void => {
    if (d[k] + by < d[i]) d[i] = d[k] + by;
  };
  for (let row = 0; row < rows; row++) {
    for (let column = first[row]; column <= last[row]; column++) {
      const i = row * columns + column;
      if (column > 0) lower(i, i - 1, SIDE);
      if (row === 0) continue;
      lower(i, i - columns, SIDE);
      if (column > 0) lower(i, i - columns - 1, CORNER);
      if (column < columns - 1) lower(i, i - columns + 1, CORNER);
    }
  }
  for (let row = rows - 1; row >= 0; row--) {
    for (let column = last[row]; column >= first[row]; column--) {
      const i = row * columns + column;
      if (column < columns - 1) lower(i, i + 1, SIDE);
      if (row === rows - 1) continue;
      lower(i, i + columns, SIDE);
      if (column < columns - 1) lower(i, i + columns + 1, CORNER);
      if (column > 0) lower(i, i + columns - 1, CORNER);
    }
  }
  const mm = new Float32Array(d.length);
  for (let row = 0; row < rows; row++)
    for (let i = row * columns + first[row]; i <= row * columns + last[row]; i++)
      mm[i] = (d[i] * step) / SIDE;
  return mm;
}
