/** Art taken apart along straight seams: pure geometry, no kerf. */
import type { Bounds } from '../geometry/bounds';
import { isEmptyBounds, outset, sharedBounds } from '../geometry/bounds';
import type { Region } from '../geometry/region';
import { cutToBox, GRID_PER_MM, intersection, rectangle, regionBounds } from '../geometry/region';
import type { PanelChoices } from './choices';
import type { Seams } from './seams';

/** One panel's place on the sign. */
export interface PanelCell {
  /** From 1, row by row from the upper left. */
  readonly number: number;
  readonly row: number;
  readonly column: number;
  /** Seam to seam: what is seen of it. */
  readonly seen: Bounds;
  /** What is cut: where a neighbour lies on top, on beneath it by the overlap. */
  readonly cut: Bounds;
}

/** Outermost panels reach as far as there is art. */
const BEYOND = 1e6;
const onGrid = (mm: number): number => Math.round(mm * GRID_PER_MM) / GRID_PER_MM;

/** All panels that seams make, row by row. */
export function cellsOf(
  { upright, level }: Seams,
  { overlap, onTop }: Pick<PanelChoices, 'overlap' | 'onTop'>,
): PanelCell[] {
  const xs = [-BEYOND, ...upright.map(onGrid), BEYOND];
  const ys = [-BEYOND, ...level.map(onGrid), BEYOND];
  // the lower one reaches under the one on top of it
  const [back, on] = onTop === 'next' ? [0, overlap] : [overlap, 0];
  const columns = xs.length - 1;
  return ys.slice(1).flatMap((maxY, row) =>
    xs.slice(1).map((maxX, column): PanelCell => {
      const seen = { minX: xs[column], minY: ys[row], maxX, maxY };
      const cut = {
        minX: seen.minX - back,
        minY: seen.minY - back,
        maxX: seen.maxX + on,
        maxY: seen.maxY + on,
      };
      return { number: row * columns + column + 1, row, column, seen, cut };
    }),
  );
}

/** Room around the art that a panel's outermost edges are drawn in to, mm. */
const ROOM = 10;

/** The part of a panel's box that art can lie in: its outermost edges have no place otherwise. */
export const framed = (cell: Bounds, art: Bounds): Bounds => sharedBounds(cell, outset(art, ROOM));

/** What of a region lies in a box. */
export function within(region: Region, box: Bounds): Region {
  const frame = framed(box, regionBounds(region));
  if (isEmptyBounds(frame)) return [];
  const near = cutToBox(region, outset(frame, 1));
  return near.length === 0 ? [] : intersection(near, rectangle(frame));
}
