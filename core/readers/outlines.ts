/** Loose strokes into outlines: what drawings of plotters and draughtsmen need before a knife can follow them. */
import type { Shape } from './artwork';
import type { Matrix } from '../geometry/matrix';
import { IDENTITY } from '../geometry/matrix';
import { crossingLines } from '../geometry/crossings';
import type { Path, Polyline } from '../geometry/path';
import { flatten, pathBounds } from '../geometry/path';
import { groupNested } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { ringArea } from '../geometry/region';

/** One stroke of a drawing: a single run of lines and curves. */
export interface Stroke {
  readonly path: Path;
  readonly colour: string;
  readonly layer?: string;
}

/** A line that has no width at all: the tool follows it. */
export const NO_WIDTH = {
  width: 0,
  join: 'round',
  cap: 'round',
  miterLimit: 4,
  dashes: [],
  dashStart: 0,
} as const;

/**
 * Joins strokes of one colour and layer whose ends meet, turning them round where needed.
 * @param reach how far apart ends may lie, in the strokes' own units
 */
export function joinStrokes(strokes: readonly Stroke[], reach: number): Stroke[] {
  return byColourAndLayer(strokes).flatMap((group) => joinGroup(group, reach));
}

function joinGroup(strokes: readonly Stroke[], reach: number): Stroke[] {
  const open = strokes.filter(({ path }) => !path.ops.endsWith('Z'));
  const ends = new EndIndex(reach);
  open.forEach(({ path }, i) => ends.add(path, i));
  const used = new Set<number>();
  const joined = open.flatMap((stroke, i) => {
    if (used.has(i)) return [];
    used.add(i);
    let path = stroke.path;
    for (let next = ends.meeting(endOf(path), used); next; next = ends.meeting(endOf(path), used)) {
      used.add(next.index);
      const more = open[next.index].path;
      path = append(path, next.atStart ? more : reversed(more));
    }
    path = reversed(path);
    for (let next = ends.meeting(endOf(path), used); next; next = ends.meeting(endOf(path), used)) {
      used.add(next.index);
      const more = open[next.index].path;
      path = append(path, next.atStart ? more : reversed(more));
    }
    return [{ ...stroke, path: closeIfMeets(path, reach) }];
  });
  return [...strokes.filter(({ path }) => path.ops.endsWith('Z')), ...joined];
}

const startOf = ({ xy }: Path): readonly [number, number] => [xy[0], xy[1]];
const endOf = ({ xy }: Path): readonly [number, number] => [xy[xy.length - 2], xy[xy.length - 1]];

/** Ends of strokes by place, in cells as large as ends may lie apart. */
class EndIndex {
  private readonly cells = new Map<string, { x: number; y: number; index: number; atStart: boolean }[]>();
  private readonly cell: number;

  constructor(private readonly reach: number) {
    this.cell = Math.max(reach, 1e-9);
  }

  add(path: Path, index: number): void {
    for (const [[x, y], atStart] of [
      [startOf(path), true],
      [endOf(path), false],
    ] as const) {
      const key = this.key(x, y, 0, 0);
      const list = this.cells.get(key);
      if (list) list.push({ x, y, index, atStart });
      else this.cells.set(key, [{ x, y, index, atStart }]);
    }
  }

  meeting(
    [x, y]: readonly [number, number],
    used: ReadonlySet<number>,
  ): { index: number; atStart: boolean } | undefined {
    let best: { index: number; atStart: boolean } | undefined;
    let least = this.reach;
    for (let dx = -1; dx <= 1; dx++) {
      for (let dy = -1; dy <= 1; dy++) {
        for (const end of this.cells.get(this.key(x, y, dx, dy)) ?? []) {
          const d = Math.hypot(end.x - x, end.y - y);
          if (d <= least && !used.has(end.index)) [best, least] = [end, d];
        }
      }
    }
    return best;
  }

  private key(x: number, y: number, dx: number, dy: number): string {
    return `${Math.floor(x / this.cell) + dx} ${Math.floor(y / this.cell) + dy}`;
  }
}

function append(a: Path, b: Path): Path {
  return { ops: a.ops + b.ops.slice(1), xy: [...a.xy, ...b.xy.slice(2)] };
}

/** The same run from its end to its start. */
export function reversed({ ops, xy }: Path): Path {
  let out = 'M';
  for (let i = ops.length - 1; i > 0; i--) out += ops[i];
  const back: number[] = new Array(xy.length);
  for (let i = 0; i < xy.length; i += 2) {
    back[i] = xy[xy.length - 2 - i];
    back[i + 1] = xy[xy.length - 1 - i];
  }
  return { ops: out, xy: back };
}

function closeIfMeets(path: Path, reach: number): Path {
  const [x0, y0] = startOf(path);
  const [x1, y1] = endOf(path);
  const meets = path.ops.length > 2 && Math.hypot(x1 - x0, y1 - y0) <= reach;
  return meets ? { ...path, ops: `${path.ops}Z` } : path;
}

/**
 * Closed outlines become filled shapes, each with what lies inside it (even-odd); open ones stay lines without a
 * width. Outlines of one colour that cross are filled each by itself and so welded.
 * @param matrix the strokes' units → mm
 */
export function shapesOf(strokes: readonly Stroke[], matrix: Matrix = IDENTITY): Shape[] {
  return byColourAndLayer(strokes).flatMap((group) => groupShapes(group, matrix));
}

function byColourAndLayer(strokes: readonly Stroke[]): Stroke[][] {
  const groups = new Map<string, Stroke[]>();
  for (const stroke of strokes) {
    const key = `${stroke.colour} ${stroke.layer ?? ''}`;
    const group = groups.get(key);
    if (group) group.push(stroke);
    else groups.set(key, [stroke]);
  }
  return [...groups.values()];
}

function groupShapes(strokes: readonly Stroke[], matrix: Matrix): Shape[] {
  const closed: Stroke[] = [];
  const open: Stroke[] = [];
  for (const stroke of strokes)
    (stroke.path.ops.endsWith('Z') && encloses(stroke.path) ? closed : open).push(stroke);
  const { colour, layer } = strokes[0];
  const common = { colour, layer, matrix, clips: [] };
  const lines = open.map(({ path }): Shape => ({ ...common, path, fill: 'nonzero', stroke: NO_WIDTH }));
  const { first, again } = withoutRepeats(closed);
  // a rough picture is enough to see what lies in what
  const rings = first.map(({ path }) => outlineOf(path));
  const crossing = crossingLines(rings.map((points) => ({ points, closed: true })));
  const apart = [...first.filter((_, i) => crossing.has(i)), ...again];
  const nested = first.filter((_, i) => !crossing.has(i));
  const region: Region = rings.filter((_, i) => !crossing.has(i));
  const filled = groupNested(region).map((group): Shape => {
    const paths = group.rings.map((index) => nested[index].path);
    const path = { ops: paths.map((p) => p.ops).join(''), xy: paths.flatMap((p) => p.xy) };
    return { ...common, path, fill: 'evenodd' };
  });
  return [...filled, ...apart.map(({ path }): Shape => ({ ...common, path, fill: 'nonzero' })), ...lines];
}

/** Outlines that lie exactly on an earlier one are no holes in it: they are told apart before anything is nested. */
function withoutRepeats(strokes: readonly Stroke[]): { first: Stroke[]; again: Stroke[] } {
  const known = new Map<string, Stroke[]>();
  const [first, again]: [Stroke[], Stroke[]] = [[], []];
  for (const stroke of strokes) {
    const { ops, xy } = stroke.path;
    const key = `${xy.length} ${xy[0]} ${xy[1]} ${xy.reduce((sum, value) => sum + value, 0)}`;
    const alike = known.get(key);
    const isRepeat = alike?.some(
      ({ path }) => path.ops === ops && path.xy.every((value, i) => value === xy[i]),
    );
    (isRepeat ? again : first).push(stroke);
    if (!alike) known.set(key, [stroke]);
    else if (!isRepeat) alike.push(stroke);
  }
  return { first, again };
}

function encloses(path: Path): boolean {
  const ring = outlineOf(path);
  return ring.length >= 6 && Math.abs(ringArea(ring)) > 0;
}

function outlineOf(path: Path): Float64Array {
  const { minX, minY, maxX, maxY } = pathBounds(path, IDENTITY);
  const tolerance = Math.max(maxX - minX, maxY - minY, 1e-9) / 500;
  const [line]: Polyline[] = flatten(path, IDENTITY, tolerance);
  return line?.points ?? new Float64Array();
}
