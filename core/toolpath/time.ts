import type { Motion } from '../layout/cutter';

/**
 * Time of one straight move from rest to rest under a trapezoid of speed: s/v + v/a when the top speed is
 * reached, 2·√(s/a) when not.
 * @param s mm @param v mm/s @param a mm/s²
 */
export const moveSeconds = (s: number, v: number, a: number): number =>
  s >= (v * v) / a ? s / v + v / a : 2 * Math.sqrt(s / a);

/**
 * Time along a chain of straight moves, from rest to rest, slowing for corners.
 * The speed kept through a corner is that of an arc which leaves the corner by `tolerance`:
 * v² = a·tolerance·sin(θ/2)/(1 − sin(θ/2)), θ the angle between the two moves (common practice in motion control).
 * @param line x0, y0, x1, y1 … mm
 * @param v top speed mm/s @param a mm/s² @param tolerance mm
 */
export function lineSeconds(line: ArrayLike<number>, v: number, a: number, tolerance: number): number {
  const lengths: number[] = [];
  const corners: number[] = [];
  let px = 0;
  let py = 0;
  for (let i = 2; i < line.length; i += 2) {
    const dx = line[i] - line[i - 2];
    const dy = line[i + 1] - line[i - 1];
    const s = Math.hypot(dx, dy);
    if (s === 0) continue;
    const [ux, uy] = [dx / s, dy / s];
    corners.push(lengths.length === 0 ? 0 : cornerSpeed(px * ux + py * uy, v, a, tolerance));
    lengths.push(s);
    [px, py] = [ux, uy];
  }
  corners.push(0);
  return profileSeconds(lengths, corners, v, a);
}

/** @param cos cosine of the turn from one move to the next */
function cornerSpeed(cos: number, v: number, a: number, tolerance: number): number {
  const sinHalf = Math.sqrt(Math.max(0, (1 + cos) / 2));
  if (sinHalf > 0.999999) return v;
  return Math.min(v, Math.sqrt((a * tolerance * sinHalf) / (1 - sinHalf)));
}

/** Speeds at the joints lowered until every move can brake and gather speed in its length; then trapezoids. */
function profileSeconds(lengths: readonly number[], joints: number[], v: number, a: number): number {
  for (let i = lengths.length - 1; i >= 0; i--) {
    joints[i] = Math.min(joints[i], Math.sqrt(joints[i + 1] ** 2 + 2 * a * lengths[i]));
  }
  let seconds = 0;
  for (let i = 0; i < lengths.length; i++) {
    joints[i + 1] = Math.min(joints[i + 1], Math.sqrt(joints[i] ** 2 + 2 * a * lengths[i]));
    seconds += trapezoidSeconds(lengths[i], joints[i], joints[i + 1], v, a);
  }
  return seconds;
}

function trapezoidSeconds(s: number, v0: number, v1: number, v: number, a: number): number {
  const peak = Math.min(v, Math.sqrt((2 * a * s + v0 * v0 + v1 * v1) / 2));
  const ramps = (2 * peak * peak - v0 * v0 - v1 * v1) / (2 * a);
  return (2 * peak - v0 - v1) / a + Math.max(0, s - ramps) / peak;
}

/** Seconds for a line with the knife down and for the way to it, knife lifts included. */
export function cutSeconds(line: Float64Array, travel: number, speed: number, motion: Motion): number {
  const a = motion.acceleration;
  return (
    moveSeconds(travel, motion.travelSpeed * 10, a) +
    lineSeconds(line, speed * 10, a, motion.cornerTolerance) +
    motion.down +
    motion.up
  );
}
