import type { Motion } from '../layout/cutter';

/**
 * Time of one straight move from rest to rest under a trapezoid of speed: s/v + v/a when the top speed is
 * reached, 2·√(s/a) when not.
 * @param s mm @param v mm/s @param a mm/s²
 */
export const moveSeconds = (s: number, v: number, a: number): number =>
  s >= (v * v) / a ? s / v + v / a : 2 * Math.sqrt(s / a);

/**
 * mm that such a move has made after some seconds.
 * @param s mm @param v mm/s @param a mm/s² @param t s, 0 to {@link moveSeconds}
 */
export function moveReached(s: number, v: number, a: number, t: number): number {
  const peak = Math.min(v, Math.sqrt(s * a));
  const ramp = peak / a;
  const left = moveSeconds(s, v, a) - t;
  if (t < ramp) return (a * t * t) / 2;
  return left < ramp ? s - (a * left * left) / 2 : (peak * ramp) / 2 + peak * (t - ramp);
}

/** Top speed along a line, mm/s: one, or one for each of its moves. */
export type TopSpeed = number | ArrayLike<number>;

/** Moves of a line that are longer than nothing, and the speed that is kept where each begins and the last ends. */
interface Moves {
  readonly lengths: readonly number[];
  readonly tops: readonly number[];
  /** The point of the line that each ends at. */
  readonly ends: readonly number[];
  readonly joints: number[];
}

/**
 * Time along a chain of straight moves, from rest to rest, slowing for corners.
 * The speed kept through a corner is that of an arc which leaves the corner by `tolerance`:
 * v² = a·tolerance·sin(θ/2)/(1 − sin(θ/2)), θ the angle between the two moves (common practice in motion control).
 * @param line x0, y0, x1, y1 … mm
 * @param v top speed mm/s @param a mm/s² @param tolerance mm
 */
export function lineSeconds(line: ArrayLike<number>, v: TopSpeed, a: number, tolerance: number): number {
  let seconds = 0;
  runThrough(movesOf(line, v, a, tolerance), a, (move) => (seconds += move));
  return seconds;
}

/** The same, as seconds from the start of the line at which each of its points is reached. */
export function lineMoments(
  line: ArrayLike<number>,
  v: TopSpeed,
  a: number,
  tolerance: number,
): Float64Array {
  const moves = movesOf(line, v, a, tolerance);
  const out = new Float64Array(line.length / 2);
  let seconds = 0;
  let point = 0;
  runThrough(moves, a, (move, i) => {
    // points that lie on the one before are reached with it
    out.fill(seconds, point, moves.ends[i]);
    seconds += move;
    point = moves.ends[i];
  });
  return out.fill(seconds, point);
}

function movesOf(line: ArrayLike<number>, v: TopSpeed, a: number, tolerance: number): Moves {
  const lengths: number[] = [];
  const tops: number[] = [];
  const ends: number[] = [];
  const joints: number[] = [];
  let px = 0;
  let py = 0;
  for (let i = 2; i < line.length; i += 2) {
    const dx = line[i] - line[i - 2];
    const dy = line[i + 1] - line[i - 1];
    const s = Math.hypot(dx, dy);
    if (s === 0) continue;
    const [ux, uy] = [dx / s, dy / s];
    const top = typeof v === 'number' ? v : v[i / 2 - 1];
    const least = Math.min(top, tops[tops.length - 1] ?? 0);
    joints.push(cornerSpeed(px * ux + py * uy, least, a, tolerance));
    lengths.push(s);
    tops.push(top);
    ends.push(i / 2);
    [px, py] = [ux, uy];
  }
  joints.push(0);
  return { lengths, tops, ends, joints };
}

/** @param cos cosine of the turn from one move to the next */
function cornerSpeed(cos: number, v: number, a: number, tolerance: number): number {
  const sinHalf = Math.sqrt(Math.max(0, (1 + cos) / 2));
  if (sinHalf > 0.999999) return v;
  return Math.min(v, Math.sqrt((a * tolerance * sinHalf) / (1 - sinHalf)));
}

/** Speeds at the joints lowered until every move can brake and gather speed in its length; then trapezoids. */
function runThrough(
  { lengths, tops, joints }: Moves,
  a: number,
  took: (seconds: number, move: number) => void,
): void {
  for (let i = lengths.length - 1; i >= 0; i--) {
    joints[i] = Math.min(joints[i], Math.sqrt(joints[i + 1] ** 2 + 2 * a * lengths[i]));
  }
  for (let i = 0; i < lengths.length; i++) {
    joints[i + 1] = Math.min(joints[i + 1], Math.sqrt(joints[i] ** 2 + 2 * a * lengths[i]));
    took(trapezoidSeconds(lengths[i], joints[i], joints[i + 1], tops[i], a), i);
  }
}

function trapezoidSeconds(s: number, v0: number, v1: number, v: number, a: number): number {
  const peak = Math.min(v, Math.sqrt((2 * a * s + v0 * v0 + v1 * v1) / 2));
  const ramps = (2 * peak * peak - v0 * v0 - v1 * v1) / (2 * a);
  return (2 * peak - v0 - v1) / a + Math.max(0, s - ramps) / peak;
}

/** A machine as it really moves: by its pace everything takes so much longer, so that speeds fall with it and accelerations with its square. */
export function paced({ pace = 1, ...motion }: Motion): Motion & { readonly pace: number } {
  const { acceleration, travelSpeed, down, up } = motion;
  return {
    ...motion,
    pace,
    acceleration: acceleration / pace ** 2,
    travelSpeed: travelSpeed / pace,
    down: down * pace,
    up: up * pace,
  };
}

/** What is told in cm/s as a machine really does it, mm/s. */
export function topSpeed(speed: TopSpeed, { pace = 1 }: Pick<Motion, 'pace'>): TopSpeed {
  const real = (one: number): number => (one * 10) / pace;
  return typeof speed === 'number' ? real(speed) : Float64Array.from(speed, real);
}

/**
 * Seconds for a line with the knife down and for the way to it, knife lifts included.
 * @param travel mm @param speed cm/s: one, or one for each move
 */
export function cutSeconds(line: Float64Array, travel: number, speed: TopSpeed, own: Motion): number {
  const motion = paced(own);
  const a = motion.acceleration;
  return (
    moveSeconds(travel, motion.travelSpeed * 10, a) +
    lineSeconds(line, topSpeed(speed, motion), a, motion.cornerTolerance) +
    motion.down +
    motion.up
  );
}
