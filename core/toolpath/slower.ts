/** Slower where a line curves tightly: what is pulled round a small radius at full speed is torn rather than cut. */

/** How a line is slowed. */
export interface Slowing {
  /** cm/s on what is straight, and the lowest that the machine has */
  readonly speed: number;
  readonly least: number;
  /** mm: what curves more tightly than that is cut slower. */
  readonly radius: number;
}

/** Each speed is this share of the next faster one (our own). */
const RUNG = 0.75;
/** mm for which a speed is kept at least: heads do not gain by changing it for less (our own). */
const LEAST_STRETCH = 2;

/**
 * The speed of every move along a line: so slow in a curve that it is pushed aside no harder than in one of the slowing's
 * radius, v ∝ √r (v²/r is what pushes it), in whole cm/s of few steps.
 * @param points x0, y0, x1, y1 … mm
 * @param radii of the curve up to each point, mm
 * @returns cm/s of each move; undefined: it is cut at one speed
 */
export function speedsAlong(
  points: Float64Array,
  radii: ArrayLike<number>,
  slowing: Slowing,
): Float64Array | undefined {
  const rungs = rungsOf(slowing);
  const own = Float64Array.from({ length: points.length / 2 - 1 }, (_, i) =>
    rungFor(rungs, slowing, radii[i + 1]),
  );
  if (own.every((speed) => speed === slowing.speed)) return undefined;
  return leastAround(own, points);
}

/** The speeds that are used, the fastest first. */
function rungsOf({ speed, least }: Slowing): number[] {
  const out = [speed];
  for (let next = speed * RUNG; ; next *= RUNG) {
    const whole = Math.max(Math.ceil(least), Math.floor(next));
    if (whole >= out[out.length - 1]) return out;
    out.push(whole);
  }
}

/** The fastest speed that a curve bears; where none does, the slowest. */
function rungFor(rungs: readonly number[], { speed, radius }: Slowing, curve: number): number {
  if (curve >= radius) return speed;
  const most = speed * Math.sqrt(curve / radius);
  return rungs.find((rung) => rung <= most) ?? rungs[rungs.length - 1];
}

/** Of each move the lowest speed of those near it; a long one keeps its own. */
function leastAround(speeds: Float64Array, points: Float64Array): Float64Array {
  const at = new Float64Array(speeds.length + 1);
  for (let i = 1; i < at.length; i++)
    at[i] = at[i - 1] + Math.hypot(points[2 * i] - points[2 * i - 2], points[2 * i + 1] - points[2 * i - 1]);
  return speeds.map((own, i) => {
    if (at[i + 1] - at[i] >= LEAST_STRETCH) return own;
    let speed = own;
    for (let k = i - 1; k >= 0 && at[i] - at[k + 1] < LEAST_STRETCH / 2; k--)
      speed = Math.min(speed, speeds[k]);
    for (let k = i + 1; k < speeds.length && at[k] - at[i + 1] < LEAST_STRETCH / 2; k++)
      speed = Math.min(speed, speeds[k]);
    return speed;
  });
}
