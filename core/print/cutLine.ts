/** The line that is cut around printed art: never the art itself. */
import { componentsOf } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { grow, ringArea } from '../geometry/region';
import { simplify } from '../geometry/simplify';
import type { CutLineChoices } from './choices';

/** How far the line may lie from where it was worked out, mm: less than the knife's own step. */
const SMOOTH = 0.005;

/**
 * The area inside the cut line, whose outlines are cut. What lies near together is joined first, then holes are dropped, then
 * the line is moved out or in, and last its corners are rounded: outer ones by taking away what no disc of the smallest radius
 * reaches, inner ones by filling up.
 * @param art all that is printed, welded
 * @returns none: nothing is left of it so far inside
 */
export function cutLineAround(
  art: Region,
  { offset, corners, mitreLimit, smallestRadius, dropHoles, join }: CutLineChoices,
): Region {
  const joined = join > 0 ? closed(art, join / 2) : art;
  const whole = dropHoles === 0 ? joined : withoutHoles(joined, dropHoles ?? Infinity);
  const how = corners === 'mitre' ? ({ join: 'miter', miterLimit: mitreLimit } as const) : undefined;
  const moved = offset === 0 ? whole : grow(whole, offset, how);
  const rounded = smallestRadius > 0 ? roundedBy(moved, smallestRadius) : moved;
  return rounded.map((points) => simplify({ points, closed: true }, SMOOTH).points);
}

const withoutHoles = (region: Region, below: number): Region =>
  region.filter((ring) => {
    const area = ringArea(ring);
    return area > 0 || -area >= below;
  });

/** Outer corners by opening; what vanishes by it, being too slim, stays as it was. Inner ones by closing. */
function roundedBy(region: Region, radius: number): Region {
  const opened = grow(grow(region, -radius), radius);
  const kept = componentsOf(region).length === componentsOf(opened).length ? opened : region;
  return closed(kept, radius);
}

/** Filled up wherever no disc of the radius goes. */
const closed = (region: Region, radius: number): Region => grow(grow(region, radius), -radius);
