/** How a simulated cutter's head moves: trapezoids of speed, slower where the way turns. */
import type { Move, Step } from './front';
import { AHEAD } from './front';
import type { Spot } from './spec';

/** One move as the head makes it. */
export interface Travel {
  readonly seconds: number;
  /** mm/s that it still has at the end */
  readonly exit: number;
}

/** Corner rounding in time terms, mm. */
const CORNER = 0.03;

const distance = (a: Spot, b: Spot): number => Math.hypot(b.x - a.x, b.y - a.y);

/**
 * The first of the steps ahead, from where the head is.
 * @param entry speed it comes with @param top mm/s @param acceleration mm/s²
 */
export function travel(
  from: Spot,
  steps: readonly Step[],
  entry: number,
  top: number,
  acceleration: number,
): Travel {
  const chain = chainOf(from, steps);
  const s = distance(chain[0], chain[1]);
  const exit = Math.min(exitOf(chain, top, acceleration), top, Math.sqrt(entry ** 2 + 2 * acceleration * s));
  if (s === 0) return { seconds: 0, exit };
  const peak = Math.min(top, Math.sqrt((2 * acceleration * s + entry ** 2 + exit ** 2) / 2));
  const ramps = (2 * peak ** 2 - entry ** 2 - exit ** 2) / (2 * acceleration);
  const seconds = Math.max(0, (2 * peak - entry - exit) / acceleration) + Math.max(0, s - ramps) / peak;
  return { seconds, exit };
}

/** The moves that follow without the pen going up or down; a question does not stop the head. */
function chainOf(from: Spot, steps: readonly Step[]): readonly Spot[] {
  const first = steps[0] as Move;
  const chain: Spot[] = [from, first];
  for (let i = 1; i < steps.length && chain.length < AHEAD; i++) {
    const next = steps[i];
    if (next.kind === 'answer') continue;
    if (next.kind !== 'move' || next.down !== first.down) break;
    chain.push(next);
  }
  return chain;
}

/** Fastest speed at the end of the first move from which the head can still take every corner it knows of. */
function exitOf(chain: readonly Spot[], top: number, acceleration: number): number {
  let exit = 0;
  for (let i = chain.length - 1; i >= 2; i--) {
    const corner = cornerSpeed(chain[i - 2], chain[i - 1], chain[i], top, acceleration);
    exit = Math.min(corner, Math.sqrt(exit ** 2 + 2 * acceleration * distance(chain[i - 1], chain[i])));
  }
  return exit;
}

function cornerSpeed(a: Spot, b: Spot, c: Spot, top: number, acceleration: number): number {
  const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, c.x - b.x, c.y - b.y];
  const lengths = Math.hypot(ux, uy) * Math.hypot(vx, vy);
  if (lengths === 0) return top;
  const sinHalf = Math.sqrt(Math.max(0, (1 + (ux * vx + uy * vy) / lengths) / 2));
  return sinHalf > 0.9999 ? top : Math.min(top, Math.sqrt((acceleration * CORNER * sinHalf) / (1 - sinHalf)));
}
