/** Art taken apart along seams: pure geometry, no kerf. */
import type { Bounds } from '../geometry/bounds';
import { isEmptyBounds, outset, sharedBounds } from '../geometry/bounds';
import { backwards, joinedPoints } from '../geometry/path';
import type { Region } from '../geometry/region';
import {
  cutToBox,
  GRID_PER_MM,
  grow,
  intersection,
  rectangle,
  regionBounds,
  ringArea,
  ringBounds,
} from '../geometry/region';
import type { Axis, Span } from './axis';
import { boxOfSpans, spanOf } from './axis';
import type { PanelChoices } from './choices';
import { overlapAt } from './choices';
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
  /** The outline of what is cut, where a seam wanders; undefined: the box. */
  readonly outline?: Region;
}

/** Outermost panels reach as far as there is art. */
const BEYOND = 1e6;
const onGrid = (mm: number): number => Math.round(mm * GRID_PER_MM) / GRID_PER_MM;

/** What lies between two seams of one axis, or beyond the outermost. */
interface Band {
  readonly seen: Span;
  readonly cut: Span;
  readonly outline?: Region;
}

type Choices = Pick<PanelChoices, 'overlap' | 'overlaps' | 'onTop'>;

/** All panels that seams make, row by row. */
export function cellsOf(seams: Seams, choices: Choices): PanelCell[] {
  const columns = bandsOf(seams, 'upright', choices);
  return bandsOf(seams, 'level', choices).flatMap((level, row) =>
    columns.map((upright, column): PanelCell => {
      const cut = boxOfSpans('upright', upright.cut, level.cut);
      const outline = sharedOutline(upright, level, cut);
      return {
        number: row * columns.length + column + 1,
        row,
        column,
        seen: boxOfSpans('upright', upright.seen, level.seen),
        cut,
        ...(outline && { outline }),
      };
    }),
  );
}

/** Where two bands of which one wanders meet. */
function sharedOutline(upright: Band, level: Band, box: Bounds): Region | undefined {
  if (upright.outline && level.outline) return intersection(upright.outline, level.outline);
  const one = upright.outline ?? level.outline;
  return one && intersection(one, rectangle(box));
}

function bandsOf({ ways, ...seams }: Seams, axis: Axis, choices: Choices): Band[] {
  const at = seams[axis].map(onGrid);
  const wander = at.map((_, i) => ways?.[axis][i]);
  return Array.from({ length: at.length + 1 }, (_, i): Band => {
    const [from, to] = [at[i - 1] ?? -BEYOND, at[i] ?? BEYOND];
    // the lower one reaches under the one on top of it
    const back = i > 0 && choices.onTop === 'before' ? overlapAt(choices, axis, i - 1) : 0;
    const on = i < at.length && choices.onTop === 'next' ? overlapAt(choices, axis, i) : 0;
    const [left, right] = [wander[i - 1], wander[i]];
    if (!left && !right) return { seen: [from, to], cut: [from - back, to + on] };
    const sides = [left ?? straight(from, axis), right ?? straight(to, axis)] as const;
    const [reachFrom, reachTo] = [
      left ? spanOf(ringBounds(left), axis)[0] : from,
      right ? spanOf(ringBounds(right), axis)[1] : to,
    ];
    return {
      seen: [reachFrom, reachTo],
      cut: [reachFrom - back, reachTo + on],
      outline: outlineOf(sides, axis, back, on),
    };
  });
}

/** A straight seam as a line, as wandering ones are. */
const straight = (at: number, axis: Axis): Float64Array =>
  axis === 'upright' ? Float64Array.of(at, -BEYOND, at, BEYOND) : Float64Array.of(-BEYOND, at, BEYOND, at);

/** All between two lines, and on beyond one of them by the overlap. */
function outlineOf(
  [left, right]: readonly [Float64Array, Float64Array],
  axis: Axis,
  back: number,
  on: number,
): Region {
  const band = betweenLines(left, right, axis);
  if (back === 0 && on === 0) return band;
  // grown by the overlap, and cut off again on the side where nothing lies beneath
  if (on > 0) return intersection(grow(band, on), betweenLines(left, straight(BEYOND, axis), axis));
  return intersection(grow(band, back), betweenLines(straight(-BEYOND, axis), right, axis));
}

/** The ring along one line and back along the other, both led on straight to the far ends. */
function betweenLines(left: Float64Array, right: Float64Array, axis: Axis): Region {
  const ring = joinedPoints(ends(left, axis), backwards(ends(right, axis)));
  return [ringArea(ring) > 0 ? ring : backwards(ring)];
}

/** A line led on straight to the far ends. */
function ends(line: Float64Array, axis: Axis): Float64Array {
  const [x0, y0, x1, y1] = [line[0], line[1], line[line.length - 2], line[line.length - 1]];
  return axis === 'upright'
    ? joinedPoints([x0, -BEYOND], line, [x1, BEYOND])
    : joinedPoints([-BEYOND, y0], line, [BEYOND, y1]);
}

/** Room around the art that a panel's outermost edges are drawn in to, mm. */
const ROOM = 10;

/** The part of a panel's box that art can lie in: its outermost edges have no place otherwise. */
export const framed = (cell: Bounds, art: Bounds, room = ROOM): Bounds =>
  sharedBounds(cell, outset(art, room));

/** What of a region lies in a panel. */
export function within(region: Region, { cut, outline }: Pick<PanelCell, 'cut' | 'outline'>): Region {
  const frame = framed(cut, regionBounds(region));
  if (isEmptyBounds(frame)) return [];
  const near = cutToBox(region, outset(frame, 1));
  if (near.length === 0) return [];
  return intersection(near, outline ? cutToBox(outline, outset(frame, 1)) : rectangle(frame));
}

/** The panel's outline where art can lie. */
export const outlineWithin = ({ cut, outline }: Pick<PanelCell, 'cut' | 'outline'>, art: Bounds): Region => {
  const frame = framed(cut, art);
  return outline ? cutToBox(outline, frame) : rectangle(frame);
};
