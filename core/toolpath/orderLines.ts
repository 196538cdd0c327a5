import type { Polyline } from '../geometry/path';
import { backwards } from '../geometry/path';
import type { Spot } from '../geometry/spot';

/**
 * Lines in the order in which they are followed: the nearest next (greedy), open ones from whichever end is nearer,
 * closed ones from their nearest point.
 * @param from where the tool is, mm
 */
export function orderLines(lines: readonly Polyline[], from: Spot): Polyline[] {
  const left = [...lines];
  const out: Polyline[] = [];
  let [x, y] = from;
  while (left.length > 0) {
    let best = 0;
    let bestStart = 0;
    let least = Infinity;
    left.forEach((line, i) => {
      const { points, closed } = line;
      const step = closed ? 2 : Math.max(2, points.length - 2);
      for (let k = 0; k < points.length; k += step) {
        const d = Math.hypot(points[k] - x, points[k + 1] - y);
        if (d < least) [least, best, bestStart] = [d, i, k];
      }
    });
    const next = startAt(left[best], bestStart);
    left[best] = left[left.length - 1];
    left.pop();
    out.push(next);
    const end = next.closed ? 0 : next.points.length - 2;
    [x, y] = [next.points[end], next.points[end + 1]];
  }
  return out;
}

function startAt({ points, closed }: Polyline, at: number): Polyline {
  if (at === 0) return { points, closed };
  if (closed) return { points: Float64Array.from([...points.slice(at), ...points.slice(0, at)]), closed };
  return { points: backwards(points), closed };
}
