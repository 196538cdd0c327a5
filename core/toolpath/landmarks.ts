/** Places on cut film that a person finds again: sharp corners of what is cut already. */
import type { Spot } from '../geometry/spot';
import type { Bounds } from '../geometry/bounds';
import { indexOfBoxes } from '../geometry/boxes';
import { ringBounds } from '../geometry/region';

/** Degrees that an outline turns by at the least, at a corner that is seen (our own). */
const SHARP = 40;
/** mm that a line's box differs from its outline's, for the holder goes round corners and past the start. */
const SLACK = 3;
/** Corners that are looked at, at the most. */
const MOST = 4000;

/**
 * The two corners of cut outlines that lie furthest apart: what they tell of a turn is told best.
 * @param design outlines, mm on the strip
 * @param cut lines that are cut, mm on the strip
 * @returns none when nothing with two corners is cut yet
 */
export function landmarksOf(
  design: readonly ArrayLike<number>[],
  cut: readonly ArrayLike<number>[],
): readonly [Spot, Spot] | undefined {
  if (cut.length === 0) return undefined;
  const boxes = cut.map((line) => ringBounds(Float64Array.from(line)));
  const index = indexOfBoxes(boxes);
  const isCut = (ring: ArrayLike<number>): boolean => {
    const box = ringBounds(Float64Array.from(ring));
    const near = index.search(box.minX - SLACK, box.minY - SLACK, box.maxX + SLACK, box.maxY + SLACK);
    return near.some((i) => isAlike(box, boxes[i]));
  };
  return furthest(design.filter(isCut).flatMap(cornersOf).slice(0, MOST));
}

const isAlike = (box: Bounds, other: Bounds): boolean =>
  (['minX', 'minY', 'maxX', 'maxY'] as const).every((side) => Math.abs(box[side] - other[side]) <= SLACK);

function cornersOf(ring: ArrayLike<number>): Spot[] {
  const count = ring.length / 2;
  const at = (i: number): Spot => [ring[2 * (i % count)], ring[2 * (i % count) + 1]];
  return Array.from({ length: count }, (_, i) => at(i)).filter(
    (_, i) => turnAt(at(i + count - 1), at(i), at(i + 1)) >= SHARP,
  );
}

function turnAt([ax, ay]: Spot, [bx, by]: Spot, [cx, cy]: Spot): number {
  const [ux, uy, vx, vy] = [bx - ax, by - ay, cx - bx, cy - by];
  return Math.abs((Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy) * 180) / Math.PI);
}

/** Of places, those that lie furthest apart: both are the outermost in some direction, and few directions miss little. */
function furthest(places: readonly Spot[]): readonly [Spot, Spot] | undefined {
  if (places.length < 2) return undefined;
  const outermost = Array.from({ length: DIRECTIONS }, (_, k) => {
    const t = (2 * Math.PI * k) / DIRECTIONS;
    const far = ([x, y]: Spot): number => x * Math.cos(t) + y * Math.sin(t);
    return places.reduce((a, b) => (far(b) > far(a) ? b : a));
  });
  let best: readonly [Spot, Spot] = [outermost[0], outermost[0]];
  for (const a of outermost) for (const b of outermost) if (apart([a, b]) > apart(best)) best = [a, b];
  return apart(best) > 0 ? best : undefined;
}
const DIRECTIONS = 32;
const apart = ([[ax, ay], [bx, by]]: readonly [Spot, Spot]): number => Math.hypot(ax - bx, ay - by);
