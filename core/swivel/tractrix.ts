/**
 * How a trailing knife tip moves: the tractrix. The holder drags the tip on a rod of length d; the tip always
 * moves towards the holder. For a straight move of length s the angle φ between rod and move obeys
 * tan(φ/2) = tan(φ₀/2)·e^(−s/d) exactly (tractrix of a straight line; see e.g. Lockwood, A Book of Curves, 1961).
 */

/**
 * Follows a holder that moves straight from (x0, y0) to (x1, y1).
 * @param angle rod angle before the move, radians
 * @param d rod length (blade offset), mm, > 0
 * @returns the rod angle after the move
 */
export function dragStraight(
  angle: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  d: number,
): number {
  const s = Math.hypot(x1 - x0, y1 - y0);
  if (s === 0) return angle;
  const move = Math.atan2(y1 - y0, x1 - x0);
  const before = Math.atan2(Math.sin(angle - move), Math.cos(angle - move));
  return move + 2 * Math.atan(Math.tan(before / 2) * Math.exp(-s / d));
}

/**
 * The tip's way under a holder that follows straight moves, sampled so finely that curves stay smooth.
 * @param holder x0, y0, x1, y1 … mm
 * @param d blade offset, mm; 0 gives the holder's own way
 * @param angle rod angle at the start, radians
 * @param step longest move between two samples, mm
 */
export function tipPath(
  holder: ArrayLike<number>,
  d: number,
  angle: number,
  step = 0.1,
): { points: Float64Array; angle: number } {
  if (d <= 0) return { points: Float64Array.from(holder as ArrayLike<number>), angle };
  const out: number[] = [];
  let now = angle;
  const sample = (x: number, y: number): void => void out.push(x - d * Math.cos(now), y - d * Math.sin(now));
  if (holder.length >= 2) sample(holder[0], holder[1]);
  for (let i = 2; i < holder.length; i += 2) {
    const [x0, y0, x1, y1] = [holder[i - 2], holder[i - 1], holder[i], holder[i + 1]];
    const parts = Math.max(1, Math.ceil(Math.hypot(x1 - x0, y1 - y0) / step));
    for (let k = 1; k <= parts; k++) {
      const at = (t: number): [number, number] => [
        x0 + ((x1 - x0) * t) / parts,
        y0 + ((y1 - y0) * t) / parts,
      ];
      const [ax, ay] = at(k - 1);
      const [bx, by] = at(k);
      now = dragStraight(now, ax, ay, bx, by, d);
      sample(bx, by);
    }
  }
  return { points: Float64Array.from(out), angle: now };
}
