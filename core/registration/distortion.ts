/**
 * How far places of a printed sheet may lie off where its fit puts them: the sensor's noise, and what its marks cannot
 * measure. Marks at four corners, say, lie the same on a sheet that is bowed and on one that is not.
 *
 * The true sheet is taken as a similarity with five kinds of distortion, each normally distributed with a usual size. The
 * readings turn this into a posterior distribution (linear Gaussian model; Gelman et al., Bayesian Data Analysis, 14), and
 * the fit is held against it: its own bias counts as error too.
 */
import { largest } from '../geometry/lists';
import type { Spot } from '../geometry/spot';
import { leastSquares } from './leastSquares';
import type { Solved } from './leastSquares';
import type { Frame, Reading } from './models';
import { frameOf } from './models';

export const DISTORTIONS = ['stretch', 'skew', 'bow', 'unevenBow', 'aslant'] as const;
/**
 * Longer one way than the other (share); corners off a right angle (radians); bowed along its length (mm that its middle
 * lies aside); by how much more at one long edge than in the middle (mm); as seen aslant, along and across (mm at its ends).
 */
export type DistortionName = (typeof DISTORTIONS)[number];

/** A size of each kind of distortion, in its own unit. */
export type Distortion = Readonly<Record<DistortionName, number>>;

/**
 * Standard deviations that are assumed until enough sheets were read (our own, wide on purpose: bows of ordinary sheets
 * stay within a millimetre).
 */
export const USUAL_DISTORTION: Distortion = {
  stretch: 0.004,
  skew: 0.004,
  bow: 0.5,
  unevenBow: 0.25,
  aslant: 0.4,
};

/** Sheets that have to be read before what they showed counts, and that are looked back on. */
export const ENOUGH_SHEETS = 6;
/** A distortion is never taken to be smaller than this share of what is usual. */
const LEAST_SHARE = 0.1;
/** The median of absolute values of a normal distribution, as a share of its standard deviation. */
const MEDIAN_SHARE = 0.6745;

/**
 * How much sheets of one printer and one cutter are distorted: for each kind the robust standard deviation about none of
 * what earlier sheets showed, and what is usual for a kind that too few of them could measure.
 * @param earlier what sheets showed; kinds that their marks did not measure are missing
 */
export function usualDistortion(earlier: readonly Partial<Distortion>[]): Distortion {
  const sizeOf = (name: DistortionName): number => {
    const seen = earlier.flatMap((one) => (one[name] === undefined ? [] : [Math.abs(one[name])]));
    if (seen.length < ENOUGH_SHEETS) return USUAL_DISTORTION[name];
    const sorted = seen.sort((a, b) => a - b);
    const [low, high] = [sorted[(seen.length - 1) >> 1], sorted[seen.length >> 1]];
    // the fewer sheets, the less sure the median is
    const robust = ((low + high) / 2 / MEDIAN_SHARE) * (1 + 2 / seen.length);
    return Math.max(robust, LEAST_SHARE * USUAL_DISTORTION[name]);
  };
  return Object.fromEntries(DISTORTIONS.map((name) => [name, sizeOf(name)])) as Distortion;
}

/** What the readings tell about a sheet's distortion. */
export interface SheetErrors {
  /** Error of a map at a place of the design: the root of its expected square, and what 95 of 100 sheets stay within; mm. */
  readonly errorAt: (
    at: Spot,
    map: (at: Spot) => Spot,
  ) => { readonly expected: number; readonly within95: number };
  /** Kinds that the marks leave about as uncertain as they were. */
  readonly unmeasured: readonly DistortionName[];
  /** What the marks by themselves say of the others. */
  readonly measured: Partial<Distortion>;
}

/** Unknowns: four of the similarity, then one for each kind of distortion, two for the last. */
const OWNERS: readonly (DistortionName | undefined)[] = [
  ...[undefined, undefined, undefined, undefined],
  ...DISTORTIONS,
  'aslant',
];
/** Readings leave a kind unmeasured where its deviation stays above this share of what was assumed. */
const HARDLY_LESS = 0.6;
/** What is assumed when a sheet is to speak for itself, as a multiple of what is usual. */
const OPEN = 20;
/** A kind is measured where its own deviation is below this share of what is usual. */
const WELL_KNOWN = 0.35;

/**
 * @param readings of at least two marks
 * @param map a fit of them: only its turn and whether it mirrors are used
 * @param noise standard deviation of one reading in x or in y, mm
 * @param usual standard deviations of distortions
 * @returns undefined: the marks do not tell, such as two at one place
 */
export function sheetErrors(
  readings: readonly Reading[],
  map: (at: Spot) => Spot,
  noise: number,
  usual: Distortion,
): SheetErrors | undefined {
  const frame = frameOf(readings);
  const back = turnedBack(map, frame.middle);
  const space: Space = { frame, aspect: aspectOf(readings, frame) };
  const assumed = posterior(readings, back, noise, usual, space);
  const open = posterior(readings, back, noise, times(usual, OPEN), space);
  if (!assumed || !open) return undefined;
  const spreadOf = ({ covariance, unknowns: { length: n } }: Solved, i: number): number =>
    Math.sqrt(covariance[i * n + i]);
  const unmeasured = DISTORTIONS.filter((name) =>
    OWNERS.some((owner, i) => owner === name && spreadOf(assumed, i) > HARDLY_LESS),
  );
  const known = DISTORTIONS.flatMap((name) => {
    const own = OWNERS.flatMap((owner, i) => (owner === name ? [i] : []));
    if (own.some((i) => spreadOf(open, i) * OPEN * usual[name] > WELL_KNOWN * USUAL_DISTORTION[name]))
      return [];
    const size = Math.sqrt(own.reduce((sum, i) => sum + open.unknowns[i] ** 2, 0));
    return [[name, size * OPEN * usual[name]] as const];
  });
  return {
    errorAt: (at, fitted) => errorAt(at, back(fitted(at)), assumed, usual, space),
    unmeasured,
    measured: Object.fromEntries(known),
  };
}

const times = (usual: Distortion, by: number): Distortion =>
  Object.fromEntries(DISTORTIONS.map((name) => [name, by * usual[name]])) as Distortion;

interface Space {
  readonly frame: Frame;
  /** The shorter side as a share of the longer one. */
  readonly aspect: number;
}

function aspectOf(readings: readonly Reading[], { middle, half, isUpright }: Frame): number {
  const short = readings.map(({ designed }) =>
    Math.abs(designed[isUpright ? 0 : 1] - middle[isUpright ? 0 : 1]),
  );
  return Math.max(largest(short) / half, 0.05);
}

/** A place in the cutter, turned back so that the design lies straight; noise stays the same in all directions. */
function turnedBack(map: (at: Spot) => Spot, [x, y]: Spot): (at: Spot) => Spot {
  const [ox, oy] = map([x, y]);
  const [ax, ay] = map([x + 1, y]);
  const [bx, by] = map([x, y + 1]);
  const length = Math.hypot(ax - ox, ay - oy);
  const [cos, sin] = [(ax - ox) / length, (ay - oy) / length];
  const flip = (ax - ox) * (by - oy) - (ay - oy) * (bx - ox) < 0 ? -1 : 1;
  return ([u, v]) => {
    const [dx, dy] = [u - ox, v - oy];
    return [cos * dx + sin * dy, flip * (cos * dy - sin * dx)];
  };
}

/** How x and y of a place depend on the unknowns; distortions in shares of `usual`. */
function columns([x, y]: Spot, usual: Distortion, { frame, aspect }: Space): readonly [number[], number[]] {
  const { middle, half, isUpright } = frame;
  const [u, v] = [(x - middle[0]) / half, (y - middle[1]) / half];
  const [along, across] = isUpright ? [v, u] : [u, v];
  const { stretch, skew, bow, unevenBow, aslant } = usual;
  /** Distortions along and across; a bow is measured from the ends. */
  const lengthwise = [
    half * stretch * along,
    half * skew * across,
    0,
    0,
    -aslant * along ** 2,
    -aslant * along * across,
  ];
  const sag = along ** 2 - 1;
  const crosswise = [0, 0, bow * sag, (unevenBow * sag * across) / aspect, -aslant * along * across, -aslant * across ** 2]; // prettier-ignore
  const [dx, dy] = isUpright ? [crosswise, lengthwise] : [lengthwise, crosswise];
  return [
    [u, -v, 1, 0, ...dx],
    [v, u, 0, 1, ...dy],
  ];
}

function posterior(
  readings: readonly Reading[],
  back: (at: Spot) => Spot,
  noise: number,
  usual: Distortion,
  space: Space,
): Solved | undefined {
  const rows = readings.flatMap(({ designed }) => columns(designed, usual, space));
  const right = readings.flatMap(({ measured }) => [...back(measured)]);
  // each distortion is none, give or take what is usual: one equation more for each
  const prior = OWNERS.flatMap((owner, i) => (owner ? [OWNERS.map((_, j) => (i === j ? 1 : 0))] : []));
  return leastSquares(
    [...rows.map((row) => row.map((value) => value / noise)), ...prior],
    [...right.map((value) => value / noise), ...prior.map(() => 0)],
  );
}

function errorAt(
  at: Spot,
  fitted: Spot,
  { unknowns, covariance }: Solved,
  usual: Distortion,
  space: Space,
): { expected: number; within95: number } {
  const [x, y] = columns(at, usual, space);
  const n = unknowns.length;
  const dot = (row: readonly number[]): number => row.reduce((sum, value, j) => sum + value * unknowns[j], 0);
  const form = (a: readonly number[], b: readonly number[]): number => {
    let sum = 0;
    for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) sum += a[i] * covariance[i * n + j] * b[j];
    return sum;
  };
  const [bx, by] = [fitted[0] - dot(x), fitted[1] - dot(y)];
  const [xx, yy, xy] = [form(x, x) + bx * bx, form(y, y) + by * by, form(x, y) + bx * by];
  return { expected: Math.sqrt(xx + yy), within95: radiusOf95(xx, yy, xy) };
}

/** Squares that 95 of 100 stay below, for one and for two directions (χ² of 1 and 2 degrees of freedom). */
const [ONE_WAY, BOTH_WAYS] = [3.841, 5.991];

/** The radius that holds 95 of 100 of a plane's normal distribution (Satterthwaite 1946: two sums of squares as one). */
function radiusOf95(xx: number, yy: number, xy: number): number {
  const sum = xx + yy;
  if (!(sum > 0)) return 0;
  const squares = xx * xx + yy * yy + 2 * xy * xy;
  const freedom = (sum * sum) / squares;
  return Math.sqrt((squares / sum) * (ONE_WAY + (freedom - 1) * (BOTH_WAYS - ONE_WAY)));
}
