/** Lines that lie on top of one another: cut twice, they ruin the film. */
import RBush from 'rbush';
import type { Fix } from '../findings/finding';
import { isFixed } from './choices';
import type { PreparedLine } from './preparePiece';
import type { Bounds } from '../geometry/bounds';
import { emptyBounds, growBounds, joinBounds, outset } from '../geometry/bounds';
import { segmentEnds as ends, lineLength } from '../geometry/path';

/** How near two lines have to lie to be one line drawn twice, mm. */
export const DOUBLE_WITHIN = 0.05;
/** Shorter runs than this are lines that cross or touch, mm. */
const SHORTEST_RUN = 1;
/** Sine of the angle past which two lines do not run alongside. */
const ALONGSIDE = Math.sin((8 * Math.PI) / 180);

type Line = Pick<PreparedLine, 'points' | 'closed'>;

interface Segment extends Bounds {
  readonly line: number;
  readonly index: number;
}

/** A stretch of one segment, as fractions of it. */
interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** The parts of one line that lie on a line before it, or on an earlier part of itself. */
export interface Double {
  readonly line: number;
  /** mm */
  readonly length: number;
  /** Whether nothing else of the line is left. */
  readonly whole: boolean;
  readonly where: Bounds;
}

/** Finds lines that lie on another within {@link DOUBLE_WITHIN}: whole or in part, either way round, curve on curve. */
export function findDoubles(lines: readonly Line[]): Double[] {
  return coveredStretches(lines).flatMap((segments, line) => {
    const { points } = lines[line];
    let length = 0;
    let all = 0;
    let where = emptyBounds();
    segments.forEach((stretches, index) => {
      const [x0, y0, x1, y1] = ends(points, index);
      const own = Math.hypot(x1 - x0, y1 - y0);
      all += own;
      for (const stretch of stretches) {
        length += own * (stretch.to - stretch.from);
        where = joinBounds(where, growBounds(emptyBounds(), endsOf(stretch, points, index)));
      }
    });
    return length < SHORTEST_RUN ? [] : [{ line, length, whole: length > all - SHORTEST_RUN / 2, where }];
  });
}

/** The lines without what lies on an earlier one, where a fix asks for it. */
export function withoutDoubles(lines: readonly PreparedLine[], fixes: readonly Fix[]): PreparedLine[] {
  if (!fixes.some((fix) => fix.kind === 'double')) return [...lines];
  const covered = coveredStretches(lines);
  return lines.flatMap((line, i) => {
    const doubled = covered[i].some((stretches) => stretches.length > 0);
    if (!doubled || !isFixed(fixes, 'double', line.ref)) return [line];
    return uncovered(line, covered[i]).map((points) => ({
      ...line,
      points,
      closed: false,
      bounds: growBounds(emptyBounds(), points),
    }));
  });
}

/** The stretches of lines that lie on an earlier one, as open lines: what is cut twice. */
export function doubledStretches(lines: readonly Line[]): Float64Array[] {
  return coveredStretches(lines).flatMap((segments, i) => {
    const out: number[][] = [];
    segments.forEach((stretches, index) => {
      for (const stretch of stretches) {
        const [x0, y0, x1, y1] = endsOf(stretch, lines[i].points, index);
        const last = out.at(-1);
        // one that goes on around a point is one
        if (last && Math.hypot(last.at(-2)! - x0, last.at(-1)! - y0) < DOUBLE_WITHIN) last.push(x1, y1);
        else out.push([x0, y0, x1, y1]);
      }
    });
    return out.map((points) => Float64Array.from(points));
  });
}

/** Where a stretch of a segment begins and ends. */
function endsOf(
  { from, to }: Stretch,
  points: Float64Array,
  index: number,
): [number, number, number, number] {
  const [x0, y0, x1, y1] = ends(points, index);
  const [dx, dy] = [x1 - x0, y1 - y0];
  return [x0 + dx * from, y0 + dy * from, x0 + dx * to, y0 + dy * to];
}

/** By line and segment: the stretches that lie on an earlier line. Runs shorter than a crossing are left out. */
function coveredStretches(lines: readonly Line[]): Stretch[][][] {
  const tree = new RBush<Segment>();
  tree.load(lines.flatMap(({ points, closed }, line) => segmentsOf(points, closed, line)));
  return lines.map(({ points, closed }, line) => {
    const found = segmentsOf(points, closed, line).map((segment) =>
      merge(
        tree
          .search(segment)
          .filter((other) => isEarlier(other, segment))
          .flatMap((other) =>
            along(ends(points, segment.index), ends(lines[other.line].points, other.index)),
          ),
      ),
    );
    return dropShortRuns(points, found);
  });
}

const isEarlier = (a: Segment, b: Segment): boolean =>
  a.line < b.line || (a.line === b.line && a.index < b.index);

function segmentsOf(points: Float64Array, closed: boolean, line: number): Segment[] {
  const count = points.length / 2 - (closed ? 0 : 1);
  return Array.from({ length: Math.max(0, count) }, (_, index) => {
    const box = growBounds(emptyBounds(), ends(points, index));
    return { line, index, ...outset(box, DOUBLE_WITHIN) };
  });
}

/** The stretch of segment `s` that runs alongside `t`, none or one. */
function along(s: readonly number[], t: readonly number[]): Stretch[] {
  const [x0, y0, x1, y1] = s;
  const dx = x1 - x0;
  const dy = y1 - y0;
  const length = Math.hypot(dx, dy);
  const other = Math.hypot(t[2] - t[0], t[3] - t[1]);
  if (length === 0 || other === 0) return [];
  if (Math.abs(dx * (t[3] - t[1]) - dy * (t[2] - t[0])) > ALONGSIDE * length * other) return [];
  const at = (x: number, y: number): readonly [number, number] => [
    ((x - x0) * dx + (y - y0) * dy) / (length * length),
    ((y - y0) * dx - (x - x0) * dy) / length,
  ];
  const [a, b] = [at(t[0], t[1]), at(t[2], t[3])].sort((p, q) => p[0] - q[0]);
  let from = Math.max(0, a[0]);
  let to = Math.min(1, b[0]);
  if (to <= from) return [];
  // the distance to the other line runs evenly from one end to the other: keep where it is small
  const slope = (b[1] - a[1]) / Math.max(b[0] - a[0], 1e-12);
  if (Math.abs(slope) > 1e-12) {
    const hits = [(-DOUBLE_WITHIN - a[1]) / slope + a[0], (DOUBLE_WITHIN - a[1]) / slope + a[0]].sort(
      (p, q) => p - q,
    );
    from = Math.max(from, hits[0]);
    to = Math.min(to, hits[1]);
  } else if (Math.abs(a[1]) > DOUBLE_WITHIN) return [];
  return to > from + 1e-9 ? [{ from, to }] : [];
}

function merge(stretches: readonly Stretch[]): Stretch[] {
  const out: Stretch[] = [];
  for (const next of [...stretches].sort((a, b) => a.from - b.from)) {
    const last = out[out.length - 1];
    if (last && next.from <= last.to + 1e-6)
      out[out.length - 1] = { from: last.from, to: Math.max(last.to, next.to) };
    else out.push(next);
  }
  return out;
}

/** Joins stretches across the points of the line and keeps the runs that are longer than a crossing. */
function dropShortRuns(points: Float64Array, found: readonly Stretch[][]): Stretch[][] {
  const kept: Stretch[][] = found.map(() => []);
  let run: { index: number; stretch: Stretch }[] = [];
  let length = 0;
  const close = (): void => {
    if (length >= SHORTEST_RUN) for (const { index, stretch } of run) kept[index].push(stretch);
    run = [];
    length = 0;
  };
  found.forEach((stretches, index) => {
    const [x0, y0, x1, y1] = ends(points, index);
    const own = Math.hypot(x1 - x0, y1 - y0);
    if (stretches.length === 0 || stretches[0].from * own > DOUBLE_WITHIN) close();
    stretches.forEach((stretch, k) => {
      if (k > 0) close();
      run.push({ index, stretch });
      length += own * (stretch.to - stretch.from);
    });
    if (stretches.length > 0 && (1 - stretches[stretches.length - 1].to) * own > DOUBLE_WITHIN) close();
  });
  close();
  return kept;
}

/** What is left of a line, as open lines. */
function uncovered({ points, closed }: Line, covered: readonly Stretch[][]): Float64Array[] {
  const out: Float64Array[] = [];
  let run: number[] = [];
  const put = (x: number, y: number): void => {
    const n = run.length;
    if (n === 0 || Math.hypot(run[n - 2] - x, run[n - 1] - y) > 1e-9) run.push(x, y);
  };
  const finish = (): void => {
    const points = Float64Array.from(run);
    if (lineLength({ points, closed: false }) > DOUBLE_WITHIN) out.push(points);
    run = [];
  };
  covered.forEach((stretches, index) => {
    const [x0, y0, x1, y1] = ends(points, index);
    let at = 0;
    const upTo = (t: number): void => {
      put(x0 + (x1 - x0) * at, y0 + (y1 - y0) * at);
      put(x0 + (x1 - x0) * t, y0 + (y1 - y0) * t);
    };
    for (const { from, to } of stretches) {
      if (from > at) upTo(from);
      finish();
      at = to;
    }
    if (at < 1) upTo(1);
  });
  finish();
  return closed && out.length > 1 ? joinedAtStart(out, points) : out;
}

/** A closed line's last and first rest are one where both reach its start point. */
function joinedAtStart(rests: Float64Array[], points: Float64Array): Float64Array[] {
  const first = rests[0];
  const last = rests[rests.length - 1];
  const meets =
    first[0] === points[0] &&
    first[1] === points[1] &&
    Math.hypot(last[last.length - 2] - points[0], last[last.length - 1] - points[1]) < 1e-9;
  if (!meets) return rests;
  return [Float64Array.from([...last, ...first.slice(2)]), ...rests.slice(1, -1)];
}
