/** How a knife dulls: the force that cuts cleanly creeps up with the metres that it has cut. */
import { largest } from '../geometry/lists';
import { leastSquares } from '../registration/leastSquares';
import { SURE } from './estimate';
import { studentWithin } from './student';

/** A trial grid of one film on one cutter, at one speed or another. */
export interface WearPoint {
  /** m of ordinary film that the knife had cut by then. */
  readonly metres: number;
  /** g from which it cut cleanly, and half of the interval that holds the truth. */
  readonly force: number;
  readonly sure: number;
}

export interface Wear {
  /** g that it would want new, and g more for each metre. */
  readonly whenNew: number;
  readonly perMetre: number;
  /** g from which on it is done for. */
  readonly limit: number;
  /** g by which it has crept up since the first grid. */
  readonly crept: number;
  /** m at which it will want a new knife, and what holds that in 95 of 100; null: it does not dull, or nothing tells yet how fast. */
  readonly until: { readonly at: number; readonly from: number; readonly to: number } | null;
  /** It wants one now. */
  readonly isWorn: boolean;
}

/**
 * A knife is done for when it wants so many times what it wanted new: ordinary film takes 50 to 70 g of a new one and 150 to
 * 200 g of an old one (common practice, no source), and edges tear well before.
 */
const DONE_FOR = 2;
/** m by which two grids lie apart at least to tell how fast a knife dulls. */
const APART = 0.5;

/**
 * A straight line by weighted least squares; where it reaches what is too much, the knife is done for.
 * @param points of one knife, in their order
 * @param metres that it has cut by now
 * @returns undefined: there are no points
 */
export function wearOf(points: readonly WearPoint[], metres: number): Wear | undefined {
  if (points.length === 0) return undefined;
  const [first, last] = [points[0], points[points.length - 1]];
  const crept = last.force - first.force;
  const span = largest(points.map((one) => one.metres)) - first.metres;
  const line = span >= APART ? straight(points) : undefined;
  if (!line || line.perMetre <= 0)
    return {
      whenNew: first.force,
      perMetre: 0,
      limit: DONE_FOR * first.force,
      crept,
      until: null,
      isWorn: last.force >= DONE_FOR * first.force,
    };
  const { whenNew, perMetre, error, freedom } = line;
  const limit = DONE_FOR * whenNew;
  const at = (limit - whenNew) / perMetre;
  // by how much the slope may be off, the forecast is too
  const t = freedom > 0 ? studentWithin(SURE, freedom) : 2;
  const [steep, flat] = [perMetre + t * error, Math.max(perMetre - t * error, perMetre / MOST_LATER)];
  const now = whenNew + perMetre * metres;
  return {
    whenNew,
    perMetre,
    limit,
    crept,
    until: { at, from: (limit - whenNew) / steep, to: (limit - whenNew) / flat },
    isWorn: now >= limit || last.force >= limit,
  };
}
/** A forecast is not told further out than so many times itself. */
const MOST_LATER = 4;

function straight(points: readonly WearPoint[]) {
  const weights = points.map(({ sure }) => 1 / Math.max(1, sure));
  const solved = leastSquares(
    points.map(({ metres }, i) => [weights[i], weights[i] * metres]),
    points.map(({ force }, i) => weights[i] * force),
  );
  if (!solved) return undefined;
  const { unknowns, covariance, rss, freedom } = solved;
  const [whenNew, perMetre] = unknowns;
  // intervals are about two standard errors; what scatters more than they say, is believed
  const scatter = freedom > 0 ? Math.max(0.5, Math.sqrt(rss / freedom)) : 0.5;
  return { whenNew, perMetre, error: scatter * Math.sqrt(covariance[3]), freedom };
}
