/** The least costly way through a grid from its first row to its last. */

import type { Band } from './inkGrid';

/** Costs of a mm in each cell, row by row, and how long a cell's side is, mm. */
export interface CostGrid {
  readonly rows: number;
  readonly columns: number;
  readonly cost: Float32Array;
  /** Only these columns of each row count. */
  readonly band: Band;
  /** Rows in which the way goes straight on. */
  readonly isStraight: (row: number) => boolean;
}

const [STRAIGHT, FROM_LEFT, FROM_RIGHT, ASIDE_LEFT, ASIDE_RIGHT] = [0, 1, 2, 3, 4];

/**
 * Seam carving (Avidan & Shamir, Seam Carving for Content-Aware Image Resizing, SIGGRAPH 2007): row by row the least sum
 * of costs that leads to each cell, from the three cells before it. Beyond that paper the way may go aside within a row,
 * by one pass to the right and one to the left, so that it can walk around what lies across it. It never comes back to
 * a row, so it never crosses itself.
 * @returns cell indices from the first row to the last, with every cell passed
 */
export function leastPath({ rows, columns, cost, band, isStraight }: CostGrid): Int32Array {
  const came = new Uint8Array(rows * columns);
  let before = new Float64Array(columns).fill(Infinity);
  let here = new Float64Array(columns);
  for (let row = 0; row < rows; row++) {
    const at = row * columns;
    const straight = isStraight(row);
    const [first, last] = [band.first[row], band.last[row]];
    here.fill(Infinity);
    for (let k = first; k <= last; k++) {
      if (row === 0) {
        here[k] = cost[k] / 2;
        continue;
      }
      const own = cost[at + k];
      let [least, way] = [before[k] + (cost[at - columns + k] + own) / 2, STRAIGHT];
      if (!straight && k > 0) {
        const sum = before[k - 1] + ((cost[at - columns + k - 1] + own) / 2) * Math.SQRT2;
        if (sum < least) [least, way] = [sum, FROM_LEFT];
      }
      if (!straight && k < columns - 1) {
        const sum = before[k + 1] + ((cost[at - columns + k + 1] + own) / 2) * Math.SQRT2;
        if (sum < least) [least, way] = [sum, FROM_RIGHT];
      }
      here[k] = least;
      came[at + k] = way;
    }
    if (!straight && row > 0) goAside(here, came, cost, at, first, last);
    [before, here] = [here, before];
  }
  return backFrom(before, came, rows, columns);
}

function goAside(
  here: Float64Array,
  came: Uint8Array,
  cost: Float32Array,
  at: number,
  first: number,
  last: number,
): void {
  for (let k = first + 1; k <= last; k++) {
    const sum = here[k - 1] + (cost[at + k - 1] + cost[at + k]) / 2;
    if (sum < here[k]) [here[k], came[at + k]] = [sum, ASIDE_LEFT];
  }
  for (let k = last - 1; k >= first; k--) {
    const sum = here[k + 1] + (cost[at + k + 1] + cost[at + k]) / 2;
    if (sum < here[k]) [here[k], came[at + k]] = [sum, ASIDE_RIGHT];
  }
}

/** Steps back to the cell before, by the way that led to a cell: in rows and in columns. */
const BACK: readonly (readonly [number, number])[] = [
  [-1, 0],
  [-1, -1],
  [-1, 1],
  [0, -1],
  [0, 1],
];

function backFrom(last: Float64Array, came: Uint8Array, rows: number, columns: number): Int32Array {
  let k = 0;
  for (let i = 1; i < columns; i++) if (last[i] < last[k]) k = i;
  const path: number[] = [];
  for (let row = rows - 1; ;) {
    const i = row * columns + k;
    path.push(i);
    if (row === 0) return Int32Array.from(path).reverse();
    const [down, across] = BACK[came[i]];
    row += down;
    k += across;
  }
}
