/** Seam keys: the same small shape across a seam on both its panels, to line them up by hand. */
import type { Bounds } from '../geometry/bounds';
import type { Region } from '../geometry/region';
import { largest, smallest } from '../geometry/lists';
import { cutToBox, intersection, rectangle, ringArea, ringBounds } from '../geometry/region';
import type { Axis, Span } from './axis';
import { boxOfSpans, AXES, otherAxis, spanOf } from './axis';
import type { Seams } from './seams';

/** Across the seam and along it, mm: large enough for a hand to see, small enough for the waste. */
export const KEY_WIDTH = 8;
const KEY_LENGTH = 12;
/** Film around a key, mm. */
const CLEAR = 2;
/** Seams shorter than this have one key, longer than that three, mm. */
const [TWO_FROM, THREE_FROM] = [80, 1800];
/** Room along a seam that one key takes, mm. */
export const KEY_NEEDS = KEY_LENGTH + 2 * CLEAR;

/** One key: a diamond whose length lies on the seam. */
export interface SeamKey {
  readonly axis: Axis;
  /** Which seam, from 0. */
  readonly seam: number;
  readonly x: number;
  readonly y: number;
}

/** The outline of a key, closed. */
export function keyOutline({ axis, x, y }: SeamKey): Float64Array {
  const [w, h] = axis === 'upright' ? [KEY_WIDTH / 2, KEY_LENGTH / 2] : [KEY_LENGTH / 2, KEY_WIDTH / 2];
  return Float64Array.of(x, y - h, x + w, y, x, y + h, x - w, y);
}

/**
 * Keys of all seams: outside the art where panels have room for them at both ends, else in the waste inside, as far
 * apart as there is waste.
 * @param art of all films that are taken apart: no key lies on any of it
 * @param isOutside whether panels may grow at both ends of upright and of level seams by what a key needs
 */
export function seamKeys(
  seams: Seams,
  art: readonly Region[],
  box: Bounds,
  isOutside: Readonly<Record<Axis, boolean>>,
): SeamKey[] {
  return AXES.flatMap((axis) =>
    seams[axis].flatMap((at, seam) => {
      const crossing = seams[otherAxis(axis)];
      const [from, to] = spanOf(box, otherAxis(axis));
      const ends = isOutside[axis] ? [from - KEY_NEEDS / 2, to + KEY_NEEDS / 2] : [];
      const way = seams.ways?.[axis][seam];
      const edges = [from, ...crossing, to];
      return edges.slice(1).flatMap((end, i): SeamKey[] => {
        const start = edges[i];
        const isEnd = (u: number): boolean => u > start - KEY_NEEDS && u < end + KEY_NEEDS;
        const wanted = wantedKeys(end - start);
        const free = freeStretches(art, axis, at, way, [start, end]);
        const own = spread(free, [start, end], wanted, ends.filter(isEnd));
        return own.map((u) => onSeam(u, at, way, axis, seam));
      });
    }),
  );
}

const wantedKeys = (length: number): number => (length < TWO_FROM ? 1 : length < THREE_FROM ? 2 : 3);

/** Where a seam runs at a place along it. */
function onSeam(u: number, at: number, way: Float64Array | undefined, axis: Axis, seam: number): SeamKey {
  const v = way ? acrossAt(way, axis, u) : at;
  return axis === 'upright' ? { axis, seam, x: v, y: u } : { axis, seam, x: u, y: v };
}

/** How far across a wandering seam lies at a place along it: where it comes there first. */
function acrossAt(way: Float64Array, axis: Axis, u: number): number {
  const [along, across] = axis === 'upright' ? [1, 0] : [0, 1];
  for (let i = 2; i < way.length; i += 2) {
    const [a, b] = [way[i - 2 + along], way[i + along]];
    if (a <= u && b >= u && b > a)
      return way[i - 2 + across] + ((way[i + across] - way[i - 2 + across]) * (u - a)) / (b - a);
  }
  return way[u <= way[along] ? across : way.length - 2 + across];
}

/** Stretches along a seam on which a key touches no art; of a wandering one only where it runs nearly straight. */
function freeStretches(
  art: readonly Region[],
  axis: Axis,
  at: number,
  way: Float64Array | undefined,
  [from, to]: Span,
): Span[] {
  const half = KEY_WIDTH / 2 + CLEAR;
  const other = otherAxis(axis);
  const taken: Span[] = [];
  const [least, most] = way ? spanOf(ringBounds(way), axis) : [at, at];
  const beside = art.map((region) =>
    cutToBox(region, boxOfSpans(axis, [least - half, most + half], [from, to])),
  );
  const take = (across: Span, ends: Span): void => {
    const box = boxOfSpans(axis, across, ends);
    for (const region of beside) {
      const near = cutToBox(region, box);
      // welded again: what lies in a hole is free
      const inside = near.length === 0 ? [] : intersection(near, rectangle(box));
      for (const ring of inside) if (ringArea(ring) > 0) taken.push(spanOf(ringBounds(ring), other));
    }
  };
  if (!way) take([at - half, at + half], [from, to]);
  else {
    for (let u = from; u < to; u += KEY_LENGTH) {
      const ends = [u, Math.min(to, u + KEY_LENGTH)] as const;
      const across = [0, 0.5, 1].map((t) => acrossAt(way, axis, ends[0] + t * (ends[1] - ends[0])));
      const [low, high] = [smallest(across), largest(across)];
      // a key lies straight: where the seam leans it would not lie on it
      if (high - low > 1) taken.push(ends);
      else take([low - half, high + half], ends);
    }
  }
  return gapsBetween(taken, from, to);
}

function gapsBetween(taken: readonly Span[], from: number, to: number): Span[] {
  const gaps: Span[] = [];
  let at = from;
  for (const [start, end] of [...taken].sort((a, b) => a[0] - b[0])) {
    if (start - at >= KEY_NEEDS) gaps.push([at, start]);
    at = Math.max(at, end);
  }
  if (to - at >= KEY_NEEDS) gaps.push([at, to]);
  return gaps;
}

/** Middles of so many keys in free stretches, each as near as can be to where it would best be: far apart. */
function spread(free: readonly Span[], [from, to]: Span, wanted: number, ends: readonly number[]): number[] {
  const chosen = [...ends];
  const best =
    wanted === 1
      ? [(from + to) / 2]
      : Array.from({ length: wanted }, (_, i) => from + ((to - from) * i) / (wanted - 1));
  for (const u of best) {
    if (chosen.length >= wanted) break;
    // an end that has its key outside needs none inside
    if (ends.some((end) => Math.abs(end - u) < KEY_NEEDS)) continue;
    const places = free
      .map(([a, b]) => Math.min(Math.max(u, a + KEY_NEEDS / 2), b - KEY_NEEDS / 2))
      .filter((place) => chosen.every((other) => Math.abs(other - place) >= KEY_NEEDS))
      .sort((a, b) => Math.abs(a - u) - Math.abs(b - u));
    if (places.length > 0) chosen.push(places[0]);
  }
  return chosen;
}
