/** Lines with no more points than a head needs: many short moves make it chatter. */
import type { Polyline } from '../geometry/path';

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
  for (let i = 1; i < n; i++) {
    const isEnd = !closed && i === n - 1;
    const dx = points[2 * i] - points[2 * last];
    const dy = points[2 * i + 1] - points[2 * last + 1];
    if (!isEnd && dx * dx + dy * dy < least * least && isBeside(points, last, i)) continue;
    out.set(points.subarray(2 * i, 2 * i + 2), 2 * kept++);
    last = i;
  }
  return { points: out.subarray(0, 2 * kept), closed };
}

/** Whether all points after one, up to another, lie beside the line from it to the one behind that. */
function isBeside(points: Float64Array, from: number, to: number): boolean {
  const [ax, ay] = [points[2 * from], points[2 * from + 1]];
  const end = 2 * (to + 1) === points.length ? 0 : 2 * (to + 1);
  const [dx, dy] = [points[end] - ax, points[end + 1] - ay];
  const length2 = dx * dx + dy * dy;
  for (let i = from + 1; i <= to; i++) {
    const [px, py] = [points[2 * i] - ax, points[2 * i + 1] - ay];
    const t = length2 > 0 ? Math.max(0, Math.min(1, (px * dx + py * dy) / length2)) : 0;
    if ((px - t * dx) ** 2 + (py - t * dy) ** 2 > ASIDE * ASIDE) return false;
  }
  return true;
}
