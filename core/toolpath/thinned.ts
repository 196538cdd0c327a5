/** Lines with no more points than a head needs: many short moves make it chatter. */
import type { Polyline } from '../geometry/path';
import { farthestBetween } from '../geometry/simplify';

/** How far what is left out may lie beside the line without it, mm. */
const ASIDE = 0.01;

/**
 * Leaves out points that lie nearer than `least` to the one before, where the line hardly changes by that: corners stay.
 * @param least mm
 */
export function thinned({ points, closed }: Polyline, least: number): Polyline {
  const n = points.length / 2;
  if (n < 4) return { points, closed };
  const out = new Float64Array(points.length);
  out.set(points.subarray(0, 2));
  let kept = 1;
  let last = 0;
  const isBeside = (from: number, to: number): boolean => farthestBetween(points, from, to + 1, ASIDE) < 0;
  for (let i = 1; i < n; i++) {
    const isEnd = !closed && i === n - 1;
    const dx = points[2 * i] - points[2 * last];
    const dy = points[2 * i + 1] - points[2 * last + 1];
    if (!isEnd && dx * dx + dy * dy < least * least && isBeside(last, i)) continue;
    out.set(points.subarray(2 * i, 2 * i + 2), 2 * kept++);
    last = i;
  }
  return { points: out.subarray(0, 2 * kept), closed };
}
