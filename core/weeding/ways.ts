/** Ways of weed lines through the waste: straight where nothing is in the way, else around what is. */
import type { Bounds } from '../geometry/bounds';
import { boundsTouch, emptyBounds, growBounds } from '../geometry/bounds';
import type { Polyline } from '../geometry/path';
import { backwards, joinedPoints, lineLength } from '../geometry/path';
import type { Region } from '../geometry/region';
import { difference, linesInside, PLAIN_STROKE, regionBounds, strokeOutline } from '../geometry/region';
import type { Axis, Span } from '../panels/axis';
import { boxOfSpans, otherAxis, spanOf } from '../panels/axis';
import type { Corridor } from '../panels/inkGrid';
import { costOfLine, wander } from '../panels/wander';

/** What no weed line may touch: what is cut, let out by the distance kept, and the same a little larger to look for a way by. */
export interface Obstacle {
  readonly box: Bounds;
  readonly kept: Region;
  readonly wide: Region;
}

/** How much wider than the distance kept a way is looked for, mm: a grid is not exact. */
export const WIDER = 0.4;

export const obstacleOf = (kept: Region, wide: Region): Obstacle => ({
  box: regionBounds(wide),
  kept,
  wide,
});

/** Cells that a way is looked for on. */
const CELLS = 120_000;
/** Less than this of what is kept clear is rounding, mm. */
const ROUNDING = 2e-3;
/** mm of ink where a line crosses others: once, and not to and fro. */
const CROSSED = 1;
/** Lines end on others within half of this, mm. */
const HAIR = 0.02;

/** A stretch of waste with what lies in it. */
export interface Ground {
  readonly box: Bounds;
  /** Where lines may lie: from its outline to its outline. */
  readonly inside: Region;
  readonly obstacles: readonly Obstacle[];
}

/** Where a line is wanted, and how far to both sides it may be led, mm. */
export interface Wanted {
  readonly at: number;
  readonly reach: Span;
}

/** Stretches of a line that keep clear of everything, and mm of those that do not. */
export interface Way {
  readonly clear: readonly Polyline[];
  readonly blocked: number;
}

/** No way is looked for in less than this, mm. */
const LEAST_CORRIDOR = 2;

/**
 * A weed line as near as can be to where it is wanted: straight, or led around what is in its way.
 * @param others lines of the other way: it may cross them, or end on them
 * @returns stretches that each begin and end on a border or on another line
 */
export function wayNear(
  ground: Ground,
  axis: Axis,
  { at, reach: [low, high] }: Wanted,
  others: readonly Polyline[],
): Way {
  const along = spanOf(ground.box, otherAxis(axis));
  const narrow = Math.min(at - low, high - at) / 3;
  const within =
    ([from, to]: Span) =>
    (): Polyline =>
      ledAround(ground, axis, { from: along[0], to: along[1], low: from, high: to }, others);
  const reaches: readonly Span[] = [
    [at - narrow, at + narrow],
    [low, high],
  ];
  const tries = [
    () => straightAt(axis, at, along),
    ...reaches.filter(([from, to]) => to - from >= LEAST_CORRIDOR).map(within),
  ];
  let best: Way = { clear: [], blocked: Infinity };
  for (const line of tries) {
    const found = stretchesOf(ground, axis, line(), others);
    if (found.blocked < best.blocked) best = found;
    if (best.blocked === 0) break;
  }
  return best;
}

/** What of a straight line lies between things that are in its way: from the end of one to the begin of the next, mm. */
export function gapsAlong({ box, obstacles }: Ground, axis: Axis, at: number): Span[] {
  const line = straightAt(axis, at, spanOf(box, otherAxis(axis)));
  const reached = growBounds(emptyBounds(), line.points);
  const covered = obstacles
    .filter((one) => boundsTouch(one.box, reached))
    .flatMap(({ wide }) => linesInside([line], wide))
    .map(({ points }) => spanOf(growBounds(emptyBounds(), points), otherAxis(axis)))
    .sort(([a], [b]) => a - b);
  let end = Infinity;
  return covered.flatMap(([from, to]): Span[] => {
    const gap: Span[] = from > end ? [[end, from]] : [];
    end = end === Infinity ? to : Math.max(end, to);
    return gap;
  });
}

function straightAt(axis: Axis, at: number, [from, to]: Span): Polyline {
  const points = axis === 'upright' ? [at, from - 1, at, to + 1] : [from - 1, at, to + 1, at];
  return { points: Float64Array.from(points), closed: false };
}

function ledAround(
  { obstacles }: Ground,
  axis: Axis,
  corridor: Corridor,
  others: readonly Polyline[],
): Polyline {
  const room = boxOfSpans(axis, [corridor.low, corridor.high], [corridor.from, corridor.to]);
  const wide = obstacles.filter(({ box }) => boundsTouch(box, room)).map((one) => one.wide);
  const crossed = others.length === 0 ? [] : [strokeOutline(others, CROSSED, PLAIN_STROKE)];
  const rules = { narrowest: 1, radius: 0, kept: [], straight: [] };
  return { points: wander([...wide, ...crossed], axis, corridor, rules, CELLS), closed: false };
}

function stretchesOf(
  { inside, obstacles }: Ground,
  axis: Axis,
  line: Polyline,
  others: readonly Polyline[],
): Way {
  const isClear = ({ points }: Polyline): boolean => {
    const box = growBounds(emptyBounds(), points);
    const near = obstacles.filter((one) => boundsTouch(one.box, box)).map(({ kept }) => kept);
    return near.length === 0 || costOfLine(near, points).ink <= ROUNDING;
  };
  const whole = linesInside([line], inside);
  const clear = whole.filter(isClear);
  const rest = whole.filter((stretch) => !clear.includes(stretch));
  if (rest.length === 0 || others.length === 0) return { clear, blocked: lengthOf(rest) };
  const parted = linesInside(rest, difference(inside, strokeOutline(others, HAIR, PLAIN_STROKE)));
  const free = parted.filter(isClear);
  return { clear: [...clear, ...joined(free, axis)], blocked: lengthOf(rest) - lengthOf(free) };
}

const lengthOf = (lines: readonly Polyline[]): number =>
  lines.reduce((sum, line) => sum + lineLength(line), 0);

/** Stretches of one line that meet, as one. */
function joined(stretches: readonly Polyline[], axis: Axis): Polyline[] {
  const u = axis === 'upright' ? 1 : 0;
  const forward = stretches
    .map(({ points }) => (points[u] <= points[points.length - 2 + u] ? points : backwards(points)))
    .sort((a, b) => a[u] - b[u]);
  const out: Float64Array[] = [];
  for (const points of forward) {
    const last = out.at(-1);
    if (last && points[u] - last[last.length - 2 + u] < 2 * HAIR)
      out[out.length - 1] = joinedPoints(last, points);
    else out.push(points);
  }
  return out.map((points) => ({ points, closed: false }));
}
