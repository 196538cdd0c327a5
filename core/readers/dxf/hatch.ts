import { arcPath } from '../../geometry/arc';
import type { Path } from '../../geometry/path';
import type { Vertex } from './curves';
import { polylinePath, splinePath } from './curves';
import type { Group, Item } from './groups';
import { finite } from './groups';

/** Reads groups one by one, as a hatch's boundary has to be read: codes mean something else at each place. */
class Cursor {
  private at = 0;
  constructor(private readonly groups: readonly Group[]) {}

  /** Goes on to the next group of a code. */
  seek(code: number): boolean {
    const found = this.groups.findIndex((group, i) => i >= this.at && group.code === code);
    if (found >= 0) this.at = found;
    return found >= 0;
  }

  number(code: number): number {
    const group = this.groups[this.at];
    if (group?.code !== code) throw new Error(`a hatch without group ${code}`);
    this.at++;
    return finite(group.value);
  }

  maybe(code: number, missing: number): number {
    return this.groups[this.at]?.code === code ? this.number(code) : missing;
  }
}

const RAD = Math.PI / 180;

/** The outlines of a hatch (DXF Reference, HATCH, boundary path data), each closed. */
export function hatchOutlines(item: Item): Path[] {
  const cursor = new Cursor(item.groups);
  if (!cursor.seek(91)) return [];
  const count = cursor.number(91);
  const out: Path[] = [];
  for (let i = 0; i < Math.min(count, 20_000); i++) {
    const flags = cursor.number(92);
    const path = flags & 2 ? polylineBoundary(cursor) : edgeBoundary(cursor);
    for (let sources = cursor.maybe(97, 0); sources > 0; sources--) cursor.maybe(330, 0);
    if (path) out.push(path);
  }
  return out;
}

function polylineBoundary(cursor: Cursor): Path | undefined {
  const bulged = cursor.number(72) === 1;
  cursor.number(73);
  const count = cursor.number(93);
  const vertices: Vertex[] = [];
  for (let i = 0; i < count; i++) {
    const x = cursor.number(10);
    const y = cursor.number(20);
    vertices.push({ x, y, bulge: bulged ? cursor.maybe(42, 0) : 0 });
  }
  return polylinePath(vertices, true);
}

function edgeBoundary(cursor: Cursor): Path | undefined {
  let path: Path | undefined;
  for (let left = cursor.number(93); left > 0; left--) {
    const edge = edgePath(cursor);
    if (!edge) continue;
    // edges follow one another; only the first brings its own start
    const ops = edge.ops.replace('Z', '').slice(1);
    path = path
      ? { ops: path.ops + ops, xy: [...path.xy, ...edge.xy.slice(2)] }
      : { ops: `M${ops}`, xy: edge.xy };
  }
  return path && { ...path, ops: `${path.ops}Z` };
}

function edgePath(cursor: Cursor): Path | undefined {
  const type = cursor.number(72);
  if (type === 1) {
    return { ops: 'ML', xy: [cursor.number(10), cursor.number(20), cursor.number(11), cursor.number(21)] };
  }
  if (type === 2 || type === 3) return roundEdge(cursor, type === 3);
  if (type === 4) return splineEdge(cursor);
  return undefined;
}

function roundEdge(cursor: Cursor, ellipse: boolean): Path {
  const centre = [cursor.number(10), cursor.number(20)] as const;
  const major = ellipse ? ([cursor.number(11), cursor.number(21)] as const) : undefined;
  const size = cursor.number(40);
  const from = cursor.number(50) * RAD;
  const to = cursor.number(51) * RAD;
  const counter = cursor.number(73) === 1;
  const u = major ?? ([size, 0] as const);
  const ratio = major ? size : 1;
  const v = [-u[1] * ratio, u[0] * ratio] as const;
  // clockwise edges are given as angles counted the other way round
  return counter ? arcPath(centre, u, v, from, to) : arcPath(centre, u, v, -from, -to);
}

function splineEdge(cursor: Cursor): Path | undefined {
  const degree = cursor.number(94);
  const rational = cursor.number(73) === 1;
  cursor.number(74);
  const knotCount = cursor.number(95);
  const controlCount = cursor.number(96);
  const knots = Array.from({ length: knotCount }, () => cursor.number(40));
  const control = Array.from({ length: controlCount }, (): [number, number, number] => [
    cursor.number(10),
    cursor.number(20),
    rational ? cursor.maybe(42, 1) : 1,
  ]);
  for (let fit = cursor.maybe(97, 0); fit > 0; fit--) {
    cursor.maybe(11, 0);
    cursor.maybe(21, 0);
  }
  return splinePath({ degree, knots, control, fit: [], closed: false });
}
