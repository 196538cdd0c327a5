/** A first answer: pieces from the largest on, each as near to the strip's beginning as it goes, in a grid of squares. */
import type { Bounds } from '../geometry/bounds';
import { distanceTo } from './field';
import type { Lying } from './lying';
import { cosOf, sinOf } from './lying';
import type { Outline } from './outline';
import { turnedBox } from './outline';
import type { Body, Room } from './body';

/** Squares across the strip: for a first answer, and where there is time. */
const COARSE = 180;
const FINE = 840;

/** Side of a square, mm: pieces are seen so much further around. */
export const squareOf = (across: number): number => across / COARSE;

/** Turns that are tried where any is allowed. */
const SOME_TURNS: readonly number[] = [0, 90, 180, 270];

/**
 * Lays pieces one after the other.
 * @param longest mm of strip there is
 * @param fixed those that lie already, by their place in the list
 * @returns undefined: there is no room for it on this strip
 */
export function fill(
  bodies: readonly Body[],
  room: Room,
  longest: number,
  fixed: readonly (Lying | undefined)[] = [],
): (Lying | undefined)[] {
  const laying = filling(bodies, room, longest, fixed, COARSE);
  for (;;) {
    const { done, value } = laying.next();
    if (done) return value;
  }
}

/** The same in smaller squares, piece by piece: closer, and it takes several times as long. */
export const fillFinely = (
  bodies: readonly Body[],
  room: Room,
  longest: number,
  fixed: readonly (Lying | undefined)[],
): Generator<void, (Lying | undefined)[], void> => filling(bodies, room, longest, fixed, FINE);

function* filling(
  bodies: readonly Body[],
  { across, spacing }: Room,
  longest: number,
  fixed: readonly (Lying | undefined)[],
  squares: number,
): Generator<void, (Lying | undefined)[], void> {
  const grid = createGrid(across, longest, squares);
  const out = bodies.map((_, i) => fixed[i]);
  const need = (i: number): number => spacing + 2 * bodies[i].outline.slack + SLACK;
  out.forEach((lying, i) => lying && grid.take(bodies[i].outline, lying, need(i)));
  const order = bodies.flatMap((_, i) => (out[i] ? [] : [i]));
  order.sort((a, b) => sizeOf(bodies[b]) - sizeOf(bodies[a]) || a - b);
  // what is alike begins to look where the one before it lay
  const from = new Map<Outline, Map<number, number>>();
  for (const i of order) {
    const { outline, turns } = bodies[i];
    const begun = from.get(outline) ?? new Map<number, number>();
    from.set(outline, begun);
    let best: { lying: Lying; end: number } | undefined;
    for (const turn of turns.length > 0 ? turns : SOME_TURNS) {
      const found = grid.room(outline, turn, begun.get(turn) ?? 0, best?.end ?? Infinity);
      if (!found) continue;
      begun.set(turn, found.column);
      if (!best || found.end < best.end) best = found;
    }
    yield;
    if (!best) continue;
    out[i] = best.lying;
    grid.take(outline, best.lying, need(i));
  }
  return out;
}

/** What the other of a pair may be off by. */
const SLACK = 0.06;

const sizeOf = ({ outline }: Body): number => outline.area + outline.radius * outline.radius;

interface Found {
  readonly lying: Lying;
  readonly column: number;
  /** mm along the strip where the piece ends. */
  readonly end: number;
}

interface Grid {
  /** Marks what lies closer to a piece than `need`. */
  readonly take: (outline: Outline, lying: Lying, need: number) => void;
  /** The first room for a piece that is turned so, from a column on, ending before `most`. */
  readonly room: (outline: Outline, turn: number, from: number, most: number) => Found | undefined;
}

/** Before the first row. */
const NONE = -1;

/** Squares of a column that a piece may lie in, from one up to another. */
type Run = readonly [column: number, from: number, to: number];

/** @param rows squares across the strip */
function createGrid(across: number, longest: number, rows: number): Grid {
  const side = across / rows;
  const half = side / Math.SQRT2;
  /** Of each column, the last row up to each that is taken; none: before the first. */
  const columns: Int16Array[] = [];
  const column = (k: number): Int16Array => {
    while (columns.length <= k) columns.push(new Int16Array(rows).fill(NONE));
    return columns[k];
  };

  function take(outline: Outline, { x, y, turn }: Lying, need: number): void {
    const [cos, sin] = [cosOf(turn), sinOf(turn)];
    const box = turnedBox(outline, cos, sin);
    const reach = need + half;
    const [fromX, toX] = [
      Math.floor((x + box.minX - reach) / side),
      Math.floor((x + box.maxX + reach) / side),
    ];
    const [fromY, toY] = [
      Math.floor((y + box.minY - reach) / side),
      Math.floor((y + box.maxY + reach) / side),
    ];
    for (let k = Math.max(0, fromX); k <= toX; k++) {
      const taken = column(k);
      let last = NONE;
      for (let row = 0; row < rows; row++) {
        if (taken[row] === row) last = row;
        else if (row >= fromY && row <= toY) {
          const [dx, dy] = [(k + 0.5) * side - x, (row + 0.5) * side - y];
          if (distanceTo(outline.field, cos * dx + sin * dy, cos * dy - sin * dx, reach) <= reach) last = row;
        }
        taken[row] = last;
      }
    }
  }

  function room(outline: Outline, turn: number, from: number, most: number): Found | undefined {
    const [cos, sin] = [cosOf(turn), sinOf(turn)];
    const box = turnedBox(outline, cos, sin);
    const width = box.maxX - box.minX;
    const height = box.maxY - box.minY;
    if (height > across + 1e-9) return undefined;
    const runs = runsOf(outline, cos, sin, box);
    // the last row may lie nearer to the edge than a whole square
    const tops = Math.max(1, Math.floor((across - height) / side + 1e-9) + 1);
    for (let k = from; ; k++) {
      const end = k * side + width;
      if (end > longest + 1e-9 || end >= most - 1e-9) return undefined;
      const top = firstFree(runs, k, tops);
      if (top < tops) {
        const lying = { turn, x: k * side - box.minX, y: top * side - box.minY };
        return { lying, column: k, end };
      }
    }
  }

  /** The first row in which a piece may begin in a column: whatever is in the way is passed in one step. */
  function firstFree(runs: Run[], k: number, tops: number): number {
    let top = 0;
    for (let r = 0; r < runs.length && top < tops;) {
      const [at, from, to] = runs[r];
      const taken = columns[k + at];
      const last = taken === undefined ? NONE : taken[Math.min(rows, top + to) - 1];
      if (last < top + from) r++;
      else {
        top = last + 1 - from;
        // what was in the way is likely to be in the way of the next place too
        if (r > 0) [runs[r], runs[0]] = [runs[0], runs[r]];
        r = 0;
      }
    }
    return top;
  }

  /** Squares that a piece touches when its box begins at one's corner. */
  function runsOf(outline: Outline, cos: number, sin: number, box: Bounds): Run[] {
    const runs: Run[] = [];
    const [wide, high] = [box.maxX - box.minX, box.maxY - box.minY].map((v) => Math.ceil(v / side + 1e-9));
    for (let k = 0; k < wide; k++) {
      let start = -1;
      for (let row = 0; row <= high; row++) {
        const [dx, dy] = [(k + 0.5) * side + box.minX, (row + 0.5) * side + box.minY];
        const isIn =
          row < high && distanceTo(outline.field, cos * dx + sin * dy, cos * dy - sin * dx, half) <= half;
        if (isIn && start < 0) start = row;
        if (!isIn && start >= 0) {
          runs.push([k, start, row]);
          start = -1;
        }
      }
    }
    return runs;
  }
  return { take, room };
}
