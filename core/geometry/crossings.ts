import RBush from 'rbush';
import type { Polyline } from './path';
import { segmentEnds } from './path';
import type { Spot } from './spot';

interface Segment {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
  readonly line: number;
  readonly index: number;
}

/** A place where one line crosses itself or another. */
export interface Crossing {
  readonly a: number;
  readonly b: number;
  readonly at: Spot;
}

/** The first crossing of every pair of lines, and of every line with itself. Lines that only touch do not cross. */
export function findCrossings(lines: readonly Polyline[]): Crossing[] {
  const tree = new RBush<Segment>();
  const all = lines.map(segmentsOf);
  tree.load(all.flat());
  const seen = new Set<string>();
  const out: Crossing[] = [];
  for (const segment of all.flat()) {
    for (const other of tree.search(segment)) {
      const pair = `${segment.line} ${other.line}`;
      if (isAfter(other, segment) || seen.has(pair)) continue;
      const at = crossing(
        segmentEnds(lines[segment.line].points, segment.index),
        segmentEnds(lines[other.line].points, other.index),
      );
      if (!at) continue;
      seen.add(pair);
      out.push({ a: other.line, b: segment.line, at });
    }
  }
  return out;
}

const isAfter = (a: Segment, b: Segment): boolean =>
  a.line > b.line || (a.line === b.line && a.index >= b.index);

function segmentsOf(line: Polyline, index: number): Segment[] {
  const count = line.points.length / 2 - (line.closed ? 0 : 1);
  return Array.from({ length: Math.max(0, count) }, (_, i) => {
    const [x0, y0, x1, y1] = segmentEnds(line.points, i);
    return {
      minX: Math.min(x0, x1),
      minY: Math.min(y0, y1),
      maxX: Math.max(x0, x1),
      maxY: Math.max(y0, y1),
      line: index,
      index: i,
    };
  });
}

/** Where two segments pass through one another, ends left out; parallel ones never do. */
function crossing(s: readonly number[], t: readonly number[]): Spot | undefined {
  const dx = s[2] - s[0];
  const dy = s[3] - s[1];
  const ex = t[2] - t[0];
  const ey = t[3] - t[1];
  const det = dx * ey - dy * ex;
  if (Math.abs(det) < 1e-12) return undefined;
  const u = ((t[0] - s[0]) * ey - (t[1] - s[1]) * ex) / det;
  const v = ((t[0] - s[0]) * dy - (t[1] - s[1]) * dx) / det;
  const inside = (w: number): boolean => w > 1e-6 && w < 1 - 1e-6;
  return inside(u) && inside(v) ? [s[0] + u * dx, s[1] + u * dy] : undefined;
}
