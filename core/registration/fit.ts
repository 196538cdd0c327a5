/** How a printed sheet lies in a cutter, from its marks: the simplest model that explains what was read. */
import { largest } from '../geometry/lists';
import type { Spot } from '../geometry/spot';
import { beyondF, KNOWN } from './fDistribution';
import type { Distortion, DistortionName } from './distortion';
import { sheetErrors, USUAL_DISTORTION } from './distortion';
import type { Fitted, ModelName, Reading } from './models';
import { CASE_OF, fitModel, frameOf, MODELS } from './models';

/** Chance below this is none. */
const LEAST_CHANCE = 0.01;

/** What became of one model. */
export interface Tried {
  readonly model: ModelName;
  readonly unknowns: number;
  /** mm, root of the mean square of what it leaves unexplained. */
  readonly rms: number;
  /** The chance that noise alone leaves as much; undefined: as many unknowns as readings, so nothing is left. */
  readonly chance: number | undefined;
}

/** How the sheet lies. */
export interface SheetFit extends Pick<Fitted, 'model' | 'map' | 'bow'> {
  /** What each mark lies off, measured less expected, mm. */
  readonly residuals: readonly Spot[];
  readonly worst: number;
  /** Degrees that the design is turned by. */
  readonly rotation: number;
  /** Lengths measured over lengths designed, along the design's x and y. */
  readonly scaleX: number;
  readonly scaleY: number;
  /** Degrees by which the angle between x and y differs from a right one. */
  readonly skew: number;
  /** It is seen from behind. */
  readonly isMirrored: boolean;
  /** Noise explains what is left. */
  readonly isExplained: boolean;
  /** Every model that could be fitted, simplest first. */
  readonly tried: readonly Tried[];
  /** mm that a place of the design may lie off by the sensor's noise alone (standard error, both ways together). */
  readonly noiseAt: (at: Spot) => number;
  /** The same with what the marks cannot measure. */
  readonly expectedAt: (at: Spot) => number;
  /** mm that a place lies off at most on 95 of 100 sheets. */
  readonly within95At: (at: Spot) => number;
  /** Distortions that the marks cannot measure, and what they show of the others. */
  readonly unmeasured: readonly DistortionName[];
  readonly distortion: Partial<Distortion>;
}

/**
 * Fits the simplest model whose residuals the sensor's noise explains (χ² test) and on which no larger one improves by more
 * than chance (F test). A model with as many unknowns as readings is taken only when no simpler one will do.
 * @param readings of at least two marks
 * @param noise standard deviation of one reading in x or in y, mm
 * @param usual how much sheets are distorted, for what these marks cannot measure
 * @returns undefined: the marks do not tell, such as two at one place
 */
export function fitSheet(
  readings: readonly Reading[],
  noise: number,
  usual: Distortion = USUAL_DISTORTION,
): SheetFit | undefined {
  const fits = MODELS.flatMap((model) => fitModel(model, readings) ?? []);
  const best = simplest(fits, noise * noise);
  const errors = best && sheetErrors(readings, best.map, noise, usual);
  if (!best || !errors) return undefined;
  const residuals = readings.map(({ designed, measured }): Spot => {
    const [x, y] = best.map(designed);
    return [measured[0] - x, measured[1] - y];
  });
  return {
    model: best.model,
    map: best.map,
    bow: best.bow,
    residuals,
    worst: largest(residuals.map(([x, y]) => Math.hypot(x, y))),
    ...shapeOf(best, frameOf(readings).middle),
    isExplained: isExplained(best, noise * noise),
    tried: fits.map(({ model, unknowns, rss, freedom }) => ({
      model,
      unknowns,
      rms: Math.sqrt(rss / readings.length),
      chance: freedom === 0 ? undefined : chanceOf({ rss, freedom }, noise * noise),
    })),
    noiseAt: (at) => {
      const [xx, yy] = best.covarianceAt(at);
      return noise * Math.sqrt(xx + yy);
    },
    expectedAt: (at) => errors.errorAt(at, best.map).expected,
    within95At: (at) => errors.errorAt(at, best.map).within95,
    unmeasured: errors.unmeasured,
    distortion: errors.measured,
  };
}

const chanceOf = ({ rss, freedom }: Pick<Fitted, 'rss' | 'freedom'>, variance: number): number =>
  beyondF(rss / variance / freedom, freedom, KNOWN);

const isExplained = (fit: Fitted, variance: number): boolean =>
  fit.freedom === 0 || chanceOf(fit, variance) >= LEAST_CHANCE;

function simplest(fits: readonly Fitted[], variance: number): Fitted | undefined {
  const tested = fits.filter(({ freedom }) => freedom > 0);
  const explained = tested.find(
    (fit) => isExplained(fit, variance) && !tested.some((larger) => isBetter(larger, fit, variance)),
  );
  if (explained) return explained;
  const exact = fits.find(({ freedom }) => freedom === 0);
  if (exact) return exact;
  // noise explains none: the simplest on which no other improves
  return tested.reduce<Fitted | undefined>(
    (best, next) => (!best || isBetter(next, best, next.rss / next.freedom, next.freedom) ? next : best),
    undefined,
  );
}

/**
 * Whether a larger model explains more than its further unknowns would by chance.
 * @param below degrees of freedom that the variance was found with
 */
function isBetter(larger: Fitted, fit: Fitted, variance: number, below = KNOWN): boolean {
  if (!CASE_OF[fit.model].includes(larger.model)) return false;
  const more = larger.unknowns - fit.unknowns;
  return beyondF((fit.rss - larger.rss) / more / variance, more, below) < LEAST_CHANCE;
}

const DEGREES = 180 / Math.PI;
/** What a map does near a place is seen over so many mm. */
const SPAN = 1;

/** Turn, scales and skew about the middle. */
function shapeOf(
  { map }: Fitted,
  [x, y]: Spot,
): Pick<SheetFit, 'rotation' | 'scaleX' | 'scaleY' | 'skew' | 'isMirrored'> {
  const way = (to: Spot, from: Spot): Spot => [
    (to[0] - from[0]) / (2 * SPAN),
    (to[1] - from[1]) / (2 * SPAN),
  ];
  const [ax, ay] = way(map([x + SPAN, y]), map([x - SPAN, y]));
  const [bx, by] = way(map([x, y + SPAN]), map([x, y - SPAN]));
  const det = ax * by - ay * bx;
  const rotation = Math.atan2(ay, ax);
  const between = Math.atan2(by, bx) - rotation;
  const right = det < 0 ? -Math.PI / 2 : Math.PI / 2;
  return {
    rotation: rotation * DEGREES,
    scaleX: Math.hypot(ax, ay),
    scaleY: Math.hypot(bx, by),
    skew: wrapped(between - right) * DEGREES,
    isMirrored: det < 0,
  };
}

const wrapped = (angle: number): number => Math.atan2(Math.sin(angle), Math.cos(angle));
