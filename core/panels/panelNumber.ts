/** A panel's number, its film, its order and which way is up, written into the waste. */
import type { Bounds } from '../geometry/bounds';
import { heightOf, outset, widthOf } from '../geometry/bounds';
import type { Region } from '../geometry/region';
import { cutToBox, regionArea } from '../geometry/region';
import type { InkGrid } from './inkGrid';
import { inkGrid } from './inkGrid';
import { figures, figuresWidth, inFigures } from './strokeFigures';

/** Heights of figures that are tried, mm: what a hand reads without looking for it. */
const HEIGHTS = [8, 5];
/** Film around figures, mm. */
const CLEAR = 2;
/** Places looked for: more cells say no more. */
const MOST_CELLS = 20_000;
const FINEST = 2;
/** Places that are looked at closely. */
const MOST_TRIED = 15;

export interface PanelName {
  readonly number: number;
  readonly film: string;
  /** The order's number; missing: it has none. */
  readonly order?: number;
}

/**
 * The strokes of a panel's name where they lie on no art: all of it, else its number and arrow alone; in the waste inside,
 * else below, where the panel has room to grow.
 * @param art of this panel, its keys with it
 * @param grows whether the panel may become so wide and high, mm
 * @returns none where there is no place
 */
export function panelNumber(
  { number, film, order }: PanelName,
  art: Region,
  bounds: Bounds,
  grows: (width: number, height: number) => boolean,
): Float64Array[] {
  const short = `^${number}`;
  const long = inFigures(`${short} ${film}${order === undefined ? '' : ` #${order}`}`);
  const tries = [long, short].flatMap((text) => HEIGHTS.map((height) => ({ text, height })));
  const waste = wasteOf(art, bounds);
  for (const { text, height } of tries) {
    const place = placeFor(figuresWidth(text, height), height, waste);
    if (place) return figures(text, ...place, height);
  }
  for (const { text, height } of tries) {
    const width = figuresWidth(text, height);
    if (width > widthOf(bounds) || !grows(widthOf(bounds), heightOf(bounds) + height + CLEAR)) continue;
    return figures(text, bounds.minX, bounds.maxY + CLEAR, height);
  }
  return [];
}

/** Where a panel has art, in cells and in sums of them. */
interface Waste {
  readonly art: Region;
  readonly grid: InkGrid;
  readonly sums: Uint32Array;
}

function wasteOf(art: Region, bounds: Bounds): Waste {
  const step = Math.max(FINEST, Math.sqrt((widthOf(bounds) * heightOf(bounds)) / MOST_CELLS));
  const grid = inkGrid(
    [art],
    'upright',
    { from: bounds.minY, to: bounds.maxY, low: bounds.minX, high: bounds.maxX },
    step,
  );
  return { art, grid, sums: summed(grid) };
}

/** The place nearest to the upper edge, and then to the left one, where nothing lies in a box of that size. */
function placeFor(
  width: number,
  height: number,
  { art, grid, sums }: Waste,
): readonly [number, number] | undefined {
  const { rows, columns, step, u0, v0 } = grid;
  const [wide, tall] = [width, height].map((mm) => Math.ceil((mm + 2 * CLEAR) / step));
  let tried = 0;
  for (let row = 0; row + tall <= rows; row++) {
    for (let column = 0; column + wide <= columns; column++) {
      if (inBox(sums, columns, row, column, tall, wide) > 0) continue;
      const place = [v0 - step / 2 + column * step + CLEAR, u0 - step / 2 + row * step + CLEAR] as const;
      const box = outset(
        { minX: place[0], minY: place[1], maxX: place[0] + width, maxY: place[1] + height },
        CLEAR / 2,
      );
      // cells know only their middles; what lies in a hole is free
      if (Math.abs(regionArea(cutToBox(art, box))) < 1e-6) return place;
      if (++tried >= MOST_TRIED) return undefined;
      column += wide - 1;
    }
  }
  return undefined;
}

/** Sums of all cells above and to the left (Crow 1984, summed-area tables). */
function summed({ films, rows, columns }: InkGrid): Uint32Array {
  const across = columns + 1;
  const sums = new Uint32Array((rows + 1) * across);
  for (let row = 0; row < rows; row++) {
    let sum = 0;
    for (let column = 0; column < columns; column++) {
      sum += films[row * columns + column];
      sums[(row + 1) * across + column + 1] = sums[row * across + column + 1] + sum;
    }
  }
  return sums;
}

function inBox(
  sums: Uint32Array,
  columns: number,
  row: number,
  column: number,
  tall: number,
  wide: number,
): number {
  const across = columns + 1;
  const [upper, lower] = [row * across + column, (row + tall) * across + column];
  return sums[lower + wide] - sums[upper + wide] - sums[lower] + sums[upper];
}
