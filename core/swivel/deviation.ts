import RBush from 'rbush';
import type { Bounds } from '../geometry/bounds';
import type { Region } from '../geometry/region';
import { thereAndBack } from '../geometry/path';
import { createSegmentGrid } from '../geometry/segmentGrid';
import type { Spot } from '../geometry/spot';

/** The largest distance found between what was cut and what was designed. */
export interface Deviation {
  /** mm */
  readonly largest: number;
  /** Where, in the coordinates of both. */
  readonly at: Spot;
}

/** A line that was to be followed; a dashed one is a way to keep to, not one to cut all of. */
export interface Followed {
  readonly points: ArrayLike<number>;
  readonly closed: boolean;
  readonly dashed: boolean;
}

interface Segment extends Bounds {
  readonly ax: number;
  readonly ay: number;
  readonly bx: number;
  readonly by: number;
}

/** Farther than this is not looked for: the knife then was somewhere else altogether, mm. */
const FARTHEST = 25;

/**
 * How far the cut lies from the design, both ways (Hausdorff distance): every point cut against the designed
 * outlines, and every designed corner against what was cut, so that a missing outline shows too.
 * @param cut lines x0, y0, x1, y1 … the tip left, mm
 * @param outlines designed, closed, mm
 * @param followed other designed lines
 */
export function deviationOf(
  cut: readonly Float64Array[],
  outlines: Region,
  followed: readonly Followed[] = [],
): Deviation {
  let worst: Deviation = { largest: 0, at: [0, 0] };
  eachDistance(cut, outlines, followed, (largest, x, y) => {
    if (largest > worst.largest) worst = { largest, at: [x, y] };
  });
  return worst;
}

/** mm: places that lie nearer together are one. */
const ONE_PLACE = 2;
/** Where more is off than this, the whole is: places are not told apart any more. */
const MOST_PLACES = 500;

/**
 * Places at which the cut lies farther from the design than a limit, the worst of each place.
 * @param limit mm
 * @returns in the order in which they were found, and how far the cut lies off at the most, places or not
 */
export function placesOff(
  cut: readonly Float64Array[],
  outlines: Region,
  followed: readonly Followed[],
  limit: number,
): { readonly places: readonly Deviation[]; readonly largest: number } {
  const places: Deviation[] = [];
  let most = 0;
  eachDistance(cut, outlines, followed, (largest, x, y) => {
    most = Math.max(most, largest);
    if (largest <= limit) return;
    // a line is followed along: what belongs to a place comes right behind it, or on the way back
    const known = places.findLastIndex(({ at }) => Math.hypot(at[0] - x, at[1] - y) < ONE_PLACE);
    if (known < 0 && places.length === MOST_PLACES) return;
    if (known < 0) places.push({ largest, at: [x, y] });
    else if (largest > places[known].largest) places[known] = { largest, at: [x, y] };
  });
  return { places, largest: most };
}

function eachDistance(
  cut: readonly Float64Array[],
  outlines: Region,
  followed: readonly Followed[],
  hear: (distance: number, x: number, y: number) => void,
): void {
  const designed = [...outlines.map((points) => ({ points, closed: true, dashed: false })), ...followed];
  const look = (lines: readonly ArrayLike<number>[], distance: (x: number, y: number) => number): void => {
    for (const line of lines) {
      for (let i = 0; i < line.length; i += 2) hear(distance(line[i], line[i + 1]), line[i], line[i + 1]);
    }
  };
  look(cut, distancesTo(designed));
  look(
    designed.filter(({ dashed }) => !dashed).map(({ points }) => points),
    distancesTo(cut.map((points) => ({ points, closed: false }))),
  );
}

/** mm: nearly all of a cut lies nearer to its design */
const NEAR = 0.2;

/** How far places lie from the nearest of some lines: at once where that is near, and by ever larger boxes where it is not. */
function distancesTo(
  lines: readonly { readonly points: ArrayLike<number>; readonly closed: boolean }[],
): (x: number, y: number) => number {
  const grid = createSegmentGrid(
    lines.map(({ points, closed }) => (closed ? points : thereAndBack(points))),
    2 * NEAR,
  );
  let index: RBush<Segment> | undefined;
  return (x, y) => {
    const near = grid.nearest(x, y, NEAR);
    if (near) return Math.hypot(near.x - x, near.y - y);
    index ??= indexOf(lines.flatMap(({ points, closed }) => segmentsOf(points, closed)));
    return distanceTo(index, x, y);
  };
}

const indexOf = (segments: readonly Segment[]): RBush<Segment> => new RBush<Segment>().load(segments);

function segmentsOf(line: ArrayLike<number>, closed: boolean): Segment[] {
  const segments: Segment[] = [];
  const end = closed ? line.length : line.length - 2;
  for (let i = 0; i < end; i += 2) {
    const k = (i + 2) % line.length;
    const [ax, ay, bx, by] = [line[i], line[i + 1], line[k], line[k + 1]];
    segments.push({
      ax,
      ay,
      bx,
      by,
      minX: Math.min(ax, bx),
      minY: Math.min(ay, by),
      maxX: Math.max(ax, bx),
      maxY: Math.max(ay, by),
    });
  }
  return segments;
}

/** Looks in a small box first and in ever larger ones only while nothing is near enough. */
function distanceTo(index: RBush<Segment>, x: number, y: number): number {
  for (let reach = 0.1; ; reach = Math.min(4 * reach, FARTHEST)) {
    const near = index.search({ minX: x - reach, minY: y - reach, maxX: x + reach, maxY: y + reach });
    const best = near.reduce((least, s) => Math.min(least, pointToSegment(x, y, s)), Infinity);
    if (best <= reach) return best;
    if (reach === FARTHEST) return FARTHEST;
  }
}

function pointToSegment(x: number, y: number, { ax, ay, bx, by }: Segment): number {
  const dx = bx - ax;
  const dy = by - ay;
  const along = dx * dx + dy * dy;
  const t = along > 0 ? Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / along)) : 0;
  return Math.hypot(x - ax - t * dx, y - ay - t * dy);
}
