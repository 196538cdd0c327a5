/** The line that is cut around printed art: never the art itself. */
import { componentsOf } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { grow, ringArea } from '../geometry/region';
import { simplify } from '../geometry/simplify';
import type { CutLineChoices } from './choices';
import { joinOf } from './choices';

/** How far the line may lie from where it was worked out, mm: less than the knife's own step. */
const SMOOTH = 0.005;

/**
 * The area inside the cut line, whose outlines are cut. What lies near together is joined first, then holes are dropped, then
 * the line is moved out or in, and last its corners are rounded: outer ones by taking away what no disc of the smallest radius
 * reaches, inner ones by filling up. Where discs alone do it, what would change nothing is left out: what was grown by a disc
 * has no outer corner that is tighter, and what is less than two of it apart is joined (Serra, Image Analysis and Mathematical
 * Morphology, 1982: dilations add up, and what was dilated is open).
 * @param art all that is printed, welded
 * @returns none: nothing is left of it so far inside
 */
export function cutLineAround(art: Region, choices: CutLineChoices): Region {
  const { offset, corners, smallestRadius, dropHoles } = choices;
  const join = joinOf(choices);
  const areAll = dropHoles === null || dropHoles === 0;
  const isByDiscs = corners === 'round' && offset >= smallestRadius && offset > 0;
  const isJoined = isByDiscs && areAll && offset >= join / 2;
  const joined = join > 0 && !isJoined ? closed(art, join / 2) : art;
  const whole = dropHoles === 0 ? joined : withoutHoles(joined, dropHoles ?? Infinity);
  const rounded = isByDiscs ? grownByDiscs(whole, choices) : movedAndRounded(whole, choices);
  return rounded.map((points) => simplify({ points, closed: true }, SMOOTH).points);
}

/** Moved out and its inner corners filled up in one: out by both, and back. */
function grownByDiscs(whole: Region, { offset, smallestRadius, dropHoles }: CutLineChoices): Region {
  // holes that only the way out closes are not wanted either
  const grown = grow(whole, offset + smallestRadius);
  const out = dropHoles === null ? withoutHoles(grown) : grown;
  return smallestRadius > 0 ? grow(out, -smallestRadius) : out;
}

function movedAndRounded(
  whole: Region,
  { offset, corners, mitreLimit, smallestRadius }: CutLineChoices,
): Region {
  const how = corners === 'mitre' ? ({ join: 'miter', miterLimit: mitreLimit } as const) : undefined;
  const moved = offset === 0 ? whole : grow(whole, offset, how);
  return smallestRadius > 0 ? roundedBy(moved, smallestRadius) : moved;
}

/** @param below mm² from which on holes are kept */
const withoutHoles = (region: Region, below = Infinity): Region =>
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
