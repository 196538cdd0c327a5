/** How a simulated cutter's head moves: trapezoids of speed, slower where the way turns. */
import type { Move, Step } from './front';
import type { Spot } from './spec';

/** One move as the head makes it. */
export interface Travel {
  readonly seconds: number;
  /** mm/s that it still has at the end */
  readonly exit: number;
}

/** cm/s: it goes no slower. */
export const SLOWEST = 1;

/** cm/s with the tool down and up, and whether it does as it is told of the first. */
export interface Tops {
  readonly down: number;
  readonly up: number;
  readonly isTold: boolean;
}

/** Corner rounding in time terms, mm. */
const CORNER = 0.03;

const distance = (a: Spot, b: Spot): number => Math.hypot(b.x - a.x, b.y - a.y);

/**
 * The first of the steps ahead, from where the head is.
 * @param entry speed it comes with @param acceleration mm/s²
 */
export function travel(
  from: Spot,
  steps: readonly Step[],
  entry: number,
  tops: Tops,
  acceleration: number,
): Travel {
  const chain = chainOf(from, steps, tops, acceleration);
  const top = chain.most[1];
  const s = distance(from, chain.spots[1]);
  const exit = Math.min(exitOf(chain, acceleration), top, Math.sqrt(entry ** 2 + 2 * acceleration * s));
  if (s === 0) return { seconds: 0, exit };
  const peak = Math.min(top, Math.sqrt((2 * acceleration * s + entry ** 2 + exit ** 2) / 2));
  const ramps = (2 * peak ** 2 - entry ** 2 - exit ** 2) / (2 * acceleration);
  const seconds = Math.max(0, (2 * peak - entry - exit) / acceleration) + Math.max(0, s - ramps) / peak;
  return { seconds, exit };
}

/** Places on the way, and mm/s at the most to each of them. */
interface Chain {
  readonly spots: readonly Spot[];
  readonly most: readonly number[];
}

/**
 * The moves that follow without the pen going up or down, as far ahead as it brakes from full speed; neither a question nor
 * another speed stops the head.
 */
function chainOf(from: Spot, steps: readonly Step[], tops: Tops, acceleration: number): Chain {
  const first = steps[0] as Move;
  let top = 10 * (first.down ? tops.down : tops.up);
  const spots: Spot[] = [from, first];
  const most = [top, top];
  const brakes = top ** 2 / (2 * acceleration);
  let ahead = 0;
  for (let i = 1; i < steps.length && ahead < brakes; i++) {
    const next = steps[i];
    if (next.kind === 'answer') continue;
    if (next.kind === 'set' && next.what === 'speed' && first.down) {
      if (tops.isTold) top = 10 * Math.max(SLOWEST, next.value);
      continue;
    }
    if (next.kind !== 'move' || next.down !== first.down) break;
    ahead += distance(spots[spots.length - 1], next);
    spots.push(next);
    most.push(top);
  }
  return { spots, most };
}

/** Fastest speed at the end of the first move from which the head can still take every corner it knows of. */
function exitOf({ spots, most }: Chain, acceleration: number): number {
  let exit = 0;
  for (let i = spots.length - 1; i >= 2; i--) {
    const top = Math.min(most[i - 1], most[i]);
    const corner = cornerSpeed(spots[i - 2], spots[i - 1], spots[i], top, acceleration);
    exit = Math.min(corner, Math.sqrt(exit ** 2 + 2 * acceleration * distance(spots[i - 1], spots[i])));
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
