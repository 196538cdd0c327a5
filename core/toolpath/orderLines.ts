import type { Polyline } from '../geometry/path';
import { backwards } from '../geometry/path';
import type { Spot } from '../geometry/spot';
import { NearestNext } from './nearestNext';
import { nearestVertex, rotate, startsOf } from './order';

/**
 * Lines in the order in which they are followed: the nearest next (greedy), open ones from whichever end is nearer,
 * closed ones from their nearest point.
 * @param from where the tool is, mm
 */
export function orderLines(lines: readonly Polyline[], from: Spot): Polyline[] {
  const index = new NearestNext(lines.map(endsOf));
  const out: Polyline[] = [];
  let at: Spot = from;
  for (let found = index.take(at); found; found = index.take(at)) {
    const line = lines[found.item];
    const last = line.points.length - 2;
    const next = startAt(line, line.closed ? nearestVertex(line.points, at) : found.point * last);
    out.push(next);
    const end = next.closed ? 0 : last;
    at = [next.points[end], next.points[end + 1]];
  }
  return out;
}

/** Where a line can be begun: a closed one along its way, an open one at either end. */
const endsOf = ({ points, closed }: Polyline): ArrayLike<number> =>
  closed ? startsOf(points) : [points[0], points[1], points[points.length - 2], points[points.length - 1]];

function startAt({ points, closed }: Polyline, at: number): Polyline {
  if (at === 0) return { points, closed };
  if (closed) return { points: rotate(points, at), closed };
  return { points: backwards(points), closed };
}
