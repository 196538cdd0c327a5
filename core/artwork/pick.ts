/** Finding things of the prepared sign by place. */
import type { PreparedArtwork } from './prepare';
import type { Bounds } from '../geometry/bounds';
import { aroundCounter } from '../geometry/counter';
import { isInside } from '../geometry/nesting';
import { nearestOnLine } from '../geometry/nearestOnLine';
import type { Spot } from '../geometry/spot';

/** A shape or line under a place. */
export interface Picked {
  readonly ref: string;
  readonly colour: string;
  readonly bounds: Bounds;
  /** A line that is followed, rather than an area. */
  readonly isLine: boolean;
}

const within = (b: Bounds, [x, y]: Spot, reach: number): boolean =>
  x >= b.minX - reach && x <= b.maxX + reach && y >= b.minY - reach && y <= b.maxY + reach;

/**
 * The frontmost shape at a place, lines within `reach` mm first; where nothing lies, the one in whose counter it is. Undefined when
 * there is none.
 */
export function pickAt(
  { shapes, lines }: Pick<PreparedArtwork, 'shapes' | 'lines'>,
  at: Spot,
  reach: number,
): Picked | undefined {
  for (const { points, closed, bounds, ref, colour } of lines.toReversed()) {
    if (!within(bounds, at, reach)) continue;
    const near = nearestOnLine(points, closed, at);
    if (near.distance <= reach) return { ref, colour, bounds, isLine: true };
  }
  for (const { region, bounds, ref, colour } of shapes.toReversed()) {
    if (!within(bounds, at, 0)) continue;
    const crossings = region.filter((ring) => isInside(ring, at)).length;
    if (crossings % 2 === 1) return { ref, colour, bounds, isLine: false };
  }
  const near = shapes.filter(({ bounds }) => within(bounds, at, 0));
  const around = aroundCounter(near, ({ region }) => region, at);
  return around && { ref: around.ref, colour: around.colour, bounds: around.bounds, isLine: false };
}

/** A place drawn to something exact. */
export interface Snapped {
  readonly at: Spot;
  readonly to: 'node' | 'edge' | 'centre';
}

/** The node, centre or edge nearest to a place, nodes and centres before edges; undefined when none is within reach. */
export function snapAt(
  { shapes, lines }: Pick<PreparedArtwork, 'shapes' | 'lines'>,
  at: Spot,
  reach: number,
): Snapped | undefined {
  let node: { at: Spot; distance: number } | undefined;
  let edge: { at: Spot; distance: number } | undefined;
  let centre: { at: Spot; distance: number } | undefined;
  const look = (points: Float64Array, closed: boolean): void => {
    for (let i = 0; i < points.length; i += 2) {
      const distance = Math.hypot(points[i] - at[0], points[i + 1] - at[1]);
      if (distance <= reach && distance < (node?.distance ?? Infinity) && isCorner(points, i, closed))
        node = { at: [points[i], points[i + 1]], distance };
    }
    const near = nearestOnLine(points, closed, at);
    if (near.distance <= reach && near.distance < (edge?.distance ?? Infinity)) edge = near;
  };
  const middle = ({ minX, minY, maxX, maxY }: Bounds): void => {
    const spot: Spot = [(minX + maxX) / 2, (minY + maxY) / 2];
    const distance = Math.hypot(spot[0] - at[0], spot[1] - at[1]);
    if (distance <= reach && distance < (centre?.distance ?? Infinity)) centre = { at: spot, distance };
  };
  for (const { region, bounds } of shapes) {
    middle(bounds);
    if (within(bounds, at, reach)) region.forEach((ring) => look(ring, true));
  }
  for (const { points, closed, bounds } of lines) {
    middle(bounds);
    if (within(bounds, at, reach)) look(points, closed);
  }
  if (node) return { at: node.at, to: 'node' };
  if (centre) return { at: centre.at, to: 'centre' };
  return edge && { at: edge.at, to: 'edge' };
}

/** Points where a flattened curve turns a little are no nodes that anybody drew. */
const SMOOTH = Math.cos((12 * Math.PI) / 180);

function isCorner(points: Float64Array, i: number, closed: boolean): boolean {
  const n = points.length;
  if (!closed && (i === 0 || i === n - 2)) return true;
  const [before, after] = [(i + n - 2) % n, (i + 2) % n];
  const [ax, ay] = [points[i] - points[before], points[i + 1] - points[before + 1]];
  const [bx, by] = [points[after] - points[i], points[after + 1] - points[i + 1]];
  const lengths = Math.hypot(ax, ay) * Math.hypot(bx, by);
  return lengths === 0 || (ax * bx + ay * by) / lengths < SMOOTH;
}
