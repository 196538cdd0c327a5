/** A piece as the search sees it: a few points of its outline, and its field. */
import type { Bounds } from '../geometry/bounds';
import { emptyBounds } from '../geometry/bounds';
import { largest } from '../geometry/lists';
import type { Region } from '../geometry/region';
import { mapRegion, regionArea, ringLength } from '../geometry/region';
import { indexOfBoxes } from '../geometry/boxes';
import { segmentEnds } from '../geometry/path';
import type { Matrix } from '../geometry/matrix';
import { multiply, translation } from '../geometry/matrix';
import type { Lying, Pose } from './lying';
import { cosOf, sinOf } from './lying';
import { simplify } from '../geometry/simplify';
import type { Spot } from '../geometry/spot';
import type { Field } from './field';
import { distanceTo, fieldOf } from './field';

/** Around the middle of its box, mm. */
export interface Outline {
  readonly rings: Region;
  readonly middle: readonly [x: number, y: number];
  readonly area: number;
  /** mm that the outline kept here may lie off the true one. */
  readonly slack: number;
  /** How far it reaches from its middle. */
  readonly radius: number;
  /** What its box is made of, whichever way it is turned. */
  readonly rim: Float64Array;
  readonly field: Field;
  /** x, y, direction x, y and length of every edge, and 1 where an outline ends with it. */
  readonly edges: Float64Array;
  /** The most way along an edge from one place that is looked at to the next, and the least, where others are near; mm. */
  readonly step: number;
  readonly fine: number;
  /** x, y and depth of places deep inside, by which pieces that lie on one another exactly are told. */
  readonly deep: Float64Array;
  /** x, y and radius of discs inside that stand for the piece where it only matters about how much it lies in others. */
  readonly discs: Float64Array;
}

/** Numbers of an edge and of a deep place. */
export const EDGE = 6;
export const DEEP = 3;
/** Numbers of a disc. */
export const DISC = 3;

/** mm that outlines may be simplified by; the most places that an outline is looked at in, about; how many deep ones. */
const TOLERANCE = 0.05;
const PLACES = 40;
const DEEP_PLACES = 4;
/** How many discs stand for a piece, and how far apart they lie, in radii. */
const DISCS = 20;
const APART = 1.3;

/**
 * What the search needs of a piece.
 * @param reach mm around it in which others are seen
 */
export function outlineOf(region: Region, box: Bounds, reach: number): Outline {
  const middle = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2] as const;
  const rings = region.map(
    (ring) => simplify({ points: ring.map((v, i) => v - middle[i & 1]), closed: true }, TOLERANCE).points,
  );
  const isWhole = rings.every((ring, i) => ring.length === region[i].length);
  const field = fieldOf(rings, reach + 2 * TOLERANCE);
  const inside = cellsInside(field);
  const step = rings.reduce((sum, ring) => sum + ringLength(ring), 0) / PLACES;
  const all = Float64Array.from(rings.flatMap((ring) => [...ring]));
  return {
    rings,
    middle,
    area: regionArea(region),
    slack: isWhole ? 0 : TOLERANCE,
    radius: Math.sqrt(largest(squares(all))),
    rim: hull(all),
    field,
    edges: edgesOf(rings),
    step,
    fine: step / FINE,
    deep: numbersOf(deepPlaces(inside, DEEP_PLACES, 1)),
    discs: numbersOf(deepPlaces(inside, DISCS, APART)),
  };
}

/** From a piece as drawn to where it lies, and the box that it has there; mm. */
export function placeOf(
  outline: Outline,
  { turn, x, y }: Lying,
): { readonly matrix: Matrix; readonly box: Bounds } {
  const [cos, sin] = [cosOf(turn), sinOf(turn)];
  const [mx, my] = outline.middle;
  const { minX, minY, maxX, maxY } = turnedBox(outline, cos, sin);
  return {
    matrix: multiply([cos, sin, -sin, cos, x, y], translation(-mx, -my)),
    box: { minX: x + minX, minY: y + minY, maxX: x + maxX, maxY: y + maxY },
  };
}

/** The same, looked at more closely. */
export const denser = (outline: Outline): Outline =>
  outline.fine < outline.step / MOST_FINE ? outline : { ...outline, fine: outline.fine / 2 };

/** Shares of the longest way that the least is at first, and at last. */
const FINE = 8;
const MOST_FINE = 64;

function* squares(xy: Float64Array): Generator<number> {
  for (let i = 0; i < xy.length; i += 2) yield xy[i] ** 2 + xy[i + 1] ** 2;
}

const edgesOf = (rings: Region): Float64Array =>
  Float64Array.from(
    rings.flatMap((ring) => {
      const edges = Array.from({ length: ring.length / 2 }, (_, i) => segmentEnds(ring, i));
      const long = edges.filter(([ax, ay, bx, by]) => ax !== bx || ay !== by);
      return long.flatMap(([ax, ay, bx, by], i) => {
        const length = Math.hypot(bx - ax, by - ay);
        return [ax, ay, (bx - ax) / length, (by - ay) / length, length, i === long.length - 1 ? 1 : 0];
      });
    }),
  );

interface Deep {
  readonly depth: number;
  readonly x: number;
  readonly y: number;
}

/** Middles of all cells inside, the deepest first. */
function cellsInside(field: Field): Deep[] {
  const cells: Deep[] = [];
  for (let row = 0; row < field.rows; row++) {
    for (let column = 0; column < field.columns; column++) {
      if ((field.kinds[row * field.columns + column] & 1) === 0) continue;
      const x = field.minX + (column + 0.5) * field.cell;
      const y = field.minY + (row + 0.5) * field.cell;
      cells.push({ depth: -distanceTo(field, x, y, 0), x, y });
    }
  }
  return cells.sort((a, b) => b.depth - a.depth || a.y - b.y || a.x - b.x);
}

/** The deepest place, then the deepest that lies so many radii away from the discs around the ones before. */
function deepPlaces(cells: readonly Deep[], count: number, apart: number): Deep[] {
  const chosen: Deep[] = [];
  for (const cell of cells) {
    if (chosen.length === count) break;
    if (chosen.every(({ x, y, depth }) => Math.hypot(x - cell.x, y - cell.y) > apart * depth))
      chosen.push(cell);
  }
  return chosen;
}

const numbersOf = (places: readonly Deep[]): Float64Array =>
  Float64Array.from(places.flatMap(({ x, y, depth }) => [x, y, depth]));

/** The corners of the least convex outline around points (Andrew 1979). */
function hull(xy: Float64Array): Float64Array {
  const order = Array.from({ length: xy.length / 2 }, (_, i) => 2 * i);
  order.sort((a, b) => xy[a] - xy[b] || xy[a + 1] - xy[b + 1]);
  const half = (along: readonly number[]): number[] => {
    const kept: number[] = [];
    for (const p of along) {
      while (kept.length >= 2 && turn(xy, kept[kept.length - 2], kept[kept.length - 1], p) <= 0) kept.pop();
      kept.push(p);
    }
    return kept.slice(0, -1);
  };
  const corners = [...half(order), ...half([...order].reverse())];
  return Float64Array.from((corners.length > 0 ? corners : order).flatMap((i) => [xy[i], xy[i + 1]]));
}

const turn = (xy: Float64Array, o: number, a: number, b: number): number =>
  (xy[a] - xy[o]) * (xy[b + 1] - xy[o + 1]) - (xy[a + 1] - xy[o + 1]) * (xy[b] - xy[o]);

/** The box of a piece that is turned, around its middle. */
export function turnedBox({ rim }: Outline, cos: number, sin: number): Bounds {
  const box = emptyBounds();
  let { minX, minY, maxX, maxY } = box;
  for (let i = 0; i < rim.length; i += 2) {
    const x = cos * rim[i] - sin * rim[i + 1];
    const y = sin * rim[i] + cos * rim[i + 1];
    if (x < minX) minX = x;
    if (x > maxX) maxX = x;
    if (y < minY) minY = y;
    if (y > maxY) maxY = y;
  }
  return { minX, minY, maxX, maxY };
}

/** Whether two outlines cross where they lie. */
export function cross(a: Outline, p: Pose, b: Outline, q: Pose): boolean {
  const first = lying(a, p);
  const second = lying(b, q);
  const index = indexOfBoxes(second.map(boxOfEdge));
  return first.some((edge) => {
    const { minX, minY, maxX, maxY } = boxOfEdge(edge);
    return index.search(minX, minY, maxX, maxY).some((k) => edgesCross(edge, second[k]));
  });
}

type Edge = readonly [ax: number, ay: number, bx: number, by: number];

const lying = ({ rings }: Outline, { x, y, cos, sin }: Pose): Edge[] =>
  mapRegion(rings, [cos, sin, -sin, cos, x, y]).flatMap((ring) =>
    Array.from({ length: ring.length / 2 }, (_, i) => segmentEnds(ring, i)),
  );

const boxOfEdge = ([ax, ay, bx, by]: Edge): Bounds => ({
  minX: Math.min(ax, bx),
  minY: Math.min(ay, by),
  maxX: Math.max(ax, bx),
  maxY: Math.max(ay, by),
});

/** Ends that lie no further past the other than this only touch it, mm. */
const TOUCH = 0.01;

function edgesCross([ax, ay, bx, by]: Edge, [cx, cy, dx, dy]: Edge): boolean {
  const parted = (px: number, py: number, qx: number, qy: number, first: Spot, second: Spot): boolean => {
    const length = Math.hypot(qx - px, qy - py);
    const off = ([x, y]: Spot): number => ((qx - px) * (y - py) - (qy - py) * (x - px)) / length;
    const [from, to] = [off(first), off(second)];
    return Math.min(from, to) < -TOUCH && Math.max(from, to) > TOUCH;
  };
  return parted(ax, ay, bx, by, [cx, cy], [dx, dy]) && parted(cx, cy, dx, dy, [ax, ay], [bx, by]);
}
