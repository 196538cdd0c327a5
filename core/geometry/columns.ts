/**
 * A sweep over many outlines, done column by column. A sweep looks at every edge that crosses its line at each stop, so
 * the work grows faster than the drawing; a column as narrow as its share of the points keeps the line short. Outlines
 * are cut at the columns' borders, each column is swept by itself, and what comes out is sewn together again.
 */
import { append } from './lists';

export interface GridPoint {
  readonly x: number;
  readonly y: number;
}
export type GridPath = GridPoint[];

export type Sweep = (subject: GridPath[], clip: GridPath[]) => GridPath[];

/** Below so many points one sweep is quicker. */
const FEW = 3000;
/** Points of a column times the number of columns: both grow alike. */
const PER_COLUMN_AND_COLUMN = 150;
const MOST_COLUMNS = 128;
/** Points looked at for each column to place its border. */
const LOOKS = 60;
/** What rounding may do to one end of a border between two columns, in grid steps. More is a sweep gone astray. */
const ROUNDING = 8;

/**
 * What `sweep` makes of the paths, the points of both on an integer grid.
 * Two columns that do not agree about their border (an edge that lies on it, or a sweep gone astray) are made anew
 * with other borders; in the end one sweep goes over everything.
 */
export function inColumns(subject: GridPath[], clip: GridPath[], sweep: Sweep): GridPath[] {
  for (const shift of [0, 0.37]) {
    const borders = bordersFor([subject, clip], shift);
    if (borders.length === 0) break;
    const subjects = cutAll(subject, borders);
    const clips = cutAll(clip, borders);
    const swept = subjects.map((paths, i) => (paths.length === 0 ? [] : sweep(paths, clips[i])));
    const sewn = sew(swept, borders);
    if (sewn) return sewn;
  }
  return sweep(subject, clip);
}

/** Where to cut, rising: with about as many points in each column, and hardly ever through a point. */
function bordersFor(all: readonly (readonly GridPath[])[], shift: number): number[] {
  const count = all.reduce((sum, paths) => sum + paths.reduce((n, path) => n + path.length, 0), 0);
  if (count < FEW || !all.every(isInReach)) return [];
  const columns = Math.min(MOST_COLUMNS, Math.ceil(Math.sqrt(count / PER_COLUMN_AND_COLUMN)));
  const every = Math.ceil(count / (columns * LOOKS));
  const xs: number[] = [];
  let next = 0;
  for (const path of all.flat()) {
    for (; next < path.length; next += every) xs.push(path[next].x);
    next -= path.length;
  }
  const sorted = Int32Array.from(xs).sort();
  const borders: number[] = [];
  for (let k = 1; k < columns; k++) {
    const border = freeOf(sorted, Math.floor((sorted.length * (k + shift)) / columns));
    if (border > (borders.at(-1) ?? sorted[0]) && border < sorted[sorted.length - 1]) borders.push(border);
  }
  return borders;
}

/** Whether all points are numbers of 32 bits, two kilometres in all: {@link crossing} counts on it. */
const isInReach = (paths: readonly GridPath[]): boolean =>
  paths.every((path) => path.every(({ x, y }) => x === (x | 0) && y === (y | 0)));

/** The first whole number past the i-th that none of the sorted numbers is. */
function freeOf(sorted: Int32Array, i: number): number {
  let border = sorted[i] + 1;
  for (let k = i; k < sorted.length && sorted[k] <= border; k++) if (sorted[k] === border) border++;
  return border;
}

/** The part of the paths in each column. */
function cutAll(paths: GridPath[], borders: readonly number[]): GridPath[][] {
  if (borders.length === 0) return [paths];
  const middle = borders.length >> 1;
  const left: GridPath[] = [];
  const right: GridPath[] = [];
  for (const path of paths) cutAt(borders[middle], path, left, right);
  return [...cutAll(left, borders.slice(0, middle)), ...cutAll(right, borders.slice(middle + 1))];
}

/** Both parts of a closed path, each closed along the border so that nothing is wound around more or less often. */
function cutAt(x: number, path: GridPath, left: GridPath[], right: GridPath[]): void {
  const first = path.findIndex((point, i) => point.x <= x !== path[(i + 1) % path.length].x <= x);
  if (first < 0) {
    if (path.length > 0) (path[0].x <= x ? left : right).push(path);
    return;
  }
  const chains: { readonly left: GridPath[]; readonly right: GridPath[] } = { left: [], right: [] };
  let chain: GridPath = [crossing(x, path[first], path[(first + 1) % path.length])];
  for (let k = 1; k <= path.length; k++) {
    const here = path[(first + k) % path.length];
    const next = path[(first + k + 1) % path.length];
    chain.push(here);
    if (here.x <= x === next.x <= x) continue;
    const across = crossing(x, here, next);
    chain.push(across);
    (here.x <= x ? chains.left : chains.right).push(chain);
    chain = [across];
  }
  append(left, link([...chains.left, ...flow(x, chains.left)]));
  append(right, link([...chains.right, ...flow(x, chains.right)]));
}

/**
 * Where an edge crosses a border, on the grid: the same from either end. `| 0`, since one point that is not stored as
 * a small integer slows every sweep after it down.
 */
function crossing(x: number, a: GridPoint, b: GridPoint): GridPoint {
  const [from, to] = a.x < b.x ? [a, b] : [b, a];
  return { x, y: (from.y + Math.round(((x - from.x) * (to.y - from.y)) / (to.x - from.x))) | 0 };
}

/** What has to run along the border so that as much arrives at each of its places as leaves it. */
function flow(x: number, chains: readonly GridPath[]): GridPath[] {
  const surplus = new Map<number, number>();
  const add = (end: GridPoint, by: number): void => {
    if (end.x === x) surplus.set(end.y, (surplus.get(end.y) ?? 0) + by);
  };
  for (const chain of chains) {
    add(chain[0], -1);
    add(chain[chain.length - 1], 1);
  }
  const places = [...surplus].sort((a, b) => a[0] - b[0]);
  const out: GridPath[] = [];
  let upward = 0;
  places.forEach(([y, more], i) => {
    upward += more;
    const next = places[i + 1]?.[0];
    for (let k = 0; k < Math.abs(upward); k++) {
      const along = [
        { x, y },
        { x, y: next },
      ];
      out.push(upward > 0 ? along : along.reverse());
    }
  });
  return out;
}

/** Rings from chains that begin where others end. Where several meet, each goes on with the one furthest to its left. */
function link(chains: readonly GridPath[]): GridPath[] {
  const leaving = new Map<string, GridPath[]>();
  for (const chain of chains) {
    const at = placeOf(chain[0]);
    const there = leaving.get(at);
    if (there) there.push(chain);
    else leaving.set(at, [chain]);
  }
  const taken = new Set<GridPath>();
  const rings: GridPath[] = [];
  for (const start of chains) {
    if (taken.has(start)) continue;
    const ring: GridPath = [];
    for (let chain: GridPath | undefined = start; chain && !taken.has(chain);) {
      taken.add(chain);
      for (let i = 0; i < chain.length - 1; i++) ring.push(chain[i]);
      chain = takeNext(leaving, chain);
    }
    rings.push(ring);
  }
  return rings;
}

const placeOf = ({ x, y }: GridPoint): string => `${x} ${y}`;

/** Takes the chain that goes on furthest to the left of where this one arrives. */
function takeNext(leaving: ReadonlyMap<string, GridPath[]>, chain: GridPath): GridPath | undefined {
  const end = chain[chain.length - 1];
  const choice = leaving.get(placeOf(end));
  if (!choice || choice.length < 2) return choice?.pop();
  const before = chain[chain.length - 2];
  const heading = Math.atan2(end.y - before.y, end.x - before.x);
  let best = 0;
  let most = -Infinity;
  choice.forEach((next, i) => {
    const turn = Math.atan2(next[1].y - end.y, next[1].x - end.x) - heading;
    const left = turn > Math.PI ? turn - 2 * Math.PI : turn <= -Math.PI ? turn + 2 * Math.PI : turn;
    if (left > most) [most, best] = [left, i];
  });
  return choice.splice(best, 1)[0];
}

/** The columns' outlines as one; undefined when they do not fit together. */
function sew(columns: readonly (readonly GridPath[])[], borders: readonly number[]): GridPath[] | undefined {
  const whole: GridPath[] = [];
  const chains: GridPath[] = [];
  columns.forEach((paths, i) => {
    for (const path of paths) open(path, borders[i - 1], borders[i], whole, chains);
  });
  const seams = borders.flatMap((x) => flow(x, chains));
  if (seams.some(([from, to]) => Math.abs(to.y - from.y) > ROUNDING)) return undefined;
  const ends = new Set<GridPoint>();
  for (const chain of chains) ends.add(chain[0]);
  for (const seam of seams) ends.add(seam[0]);
  for (const ring of link([...chains, ...seams])) {
    const healed = heal(ring, ends);
    if (healed.length > 2) whole.push(healed);
  }
  return whole;
}

/** Takes what runs along a border out of a path; a path with nothing there is whole already. */
function open(
  path: GridPath,
  left: number | undefined,
  right: number | undefined,
  whole: GridPath[],
  chains: GridPath[],
): void {
  const n = path.length;
  const isBorder = (i: number): boolean => {
    const { x } = path[i % n];
    return x === path[(i + 1) % n].x && (x === left || x === right);
  };
  let first = 0;
  while (first < n && !isBorder(first)) first++;
  if (first === n) {
    whole.push(path);
    return;
  }
  let chain: GridPath = [];
  for (let k = 1; k <= n; k++) {
    const i = first + k;
    if (isBorder(i)) {
      if (chain.length > 0) chains.push([...chain, path[i % n]]);
      chain = [];
    } else chain.push(path[i % n]);
  }
}

/** Leaves out the places where a straight edge was cut and sewn together again. */
function heal(ring: GridPath, ends: ReadonlySet<GridPoint>): GridPath {
  const out: GridPath = [];
  ring.forEach((point, i) => {
    const before = out.at(-1) ?? ring[ring.length - 1];
    if (ends.has(point) && isStraight(before, point, ring[(i + 1) % ring.length])) return;
    out.push(point);
  });
  return out;
}

/** Whether a point lies between two others but for rounding. */
function isStraight(a: GridPoint, point: GridPoint, b: GridPoint): boolean {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const length = Math.hypot(dx, dy);
  if (length === 0) return true;
  const along = (point.x - a.x) * dx + (point.y - a.y) * dy;
  if (along < 0 || along > length * length) return false;
  return Math.abs((point.x - a.x) * dy - (point.y - a.y) * dx) <= length * 0.75;
}
