import RBush from 'rbush';
import { orient2d } from 'robust-predicates';
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

/** Pairs of segments that are looked at: more of them lie on one another than any drawing has, and take some seconds. */
const MOST_PAIRS = 6_000_000;

/**
 * Which lines cross another one; a line that is known to is not looked at again.
 * @throws RangeError when too many lines lie on one another
 */
export function crossingLines(lines: readonly Polyline[]): ReadonlySet<number> {
  const tree = new RBush<Segment>();
  const all = lines.map(segmentsOf);
  tree.load(all.flat());
  const found = new Set<number>();
  let pairs = 0;
  const crosses = (segment: Segment): number | undefined => {
    const ends = segmentEnds(lines[segment.line].points, segment.index);
    const near = tree.search(segment);
    pairs += near.length;
    if (pairs > MOST_PAIRS) throw new RangeError('too many lines on one another');
    return near.find(
      (other) =>
        other.line !== segment.line &&
        crossing(ends, segmentEnds(lines[other.line].points, other.index)) !== undefined,
    )?.line;
  };
  all.forEach((segments, line) => {
    if (found.has(line)) return;
    for (const segment of segments) {
      const other = crosses(segment);
      if (other === undefined) continue;
      found.add(line).add(other);
      return;
    }
  });
  return found;
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

/** How far both ends must lie off the other line for two to cross, mm: less is the rounding of where they touch. */
const TOUCHES = 1e-6;

/** Where two segments pass through one another, by predicates that are exact (Shewchuk 1997). */
function crossing(s: readonly number[], t: readonly number[]): Spot | undefined {
  const [from, to] = [offLine(s, t[0], t[1]), offLine(s, t[2], t[3])];
  if (!areApart(from, to) || !areApart(offLine(t, s[0], s[1]), offLine(t, s[2], s[3]))) return undefined;
  const share = from / (from - to);
  return [t[0] + share * (t[2] - t[0]), t[1] + share * (t[3] - t[1])];
}

/** mm that a point lies off the line through a segment, its sign the side. */
const offLine = ([x0, y0, x1, y1]: readonly number[], x: number, y: number): number =>
  orient2d(x0, y0, x1, y1, x, y) / Math.hypot(x1 - x0, y1 - y0);

const areApart = (a: number, b: number): boolean =>
  Math.abs(a) > TOUCHES && Math.abs(b) > TOUCHES && a > 0 !== b > 0;
