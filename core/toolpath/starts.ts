/** Where outlines that are cut in a known order begin. */
import { smallest } from '../geometry/lists';
import type { Ring } from '../geometry/region';
import type { Spot } from '../geometry/spot';

/** Times that every start is chosen anew between its neighbours. */
const SWEEPS = 2;

/**
 * Begins every outline at one of its points so that the way from start to start is short: among a few of them the shortest way
 * of all, by dynamic programming along the order; then each among all its points.
 * @param from where the knife is, mm
 * @param few points of each that are looked at first
 * @returns the number of each ring's point, and the way in all, mm
 */
export function shortestStarts(
  rings: readonly Ring[],
  from: Spot,
  few: number,
): { readonly starts: Int32Array; readonly travel: number } {
  const starts = amongFew(rings, from, few);
  for (let sweep = 0; sweep < SWEEPS; sweep++)
    rings.forEach((_, i) => (starts[i] = betweenNeighbours(rings, starts, i, from)));
  let travel = 0;
  let [x, y] = from;
  rings.forEach((ring, i) => {
    const [nextX, nextY] = [ring[2 * starts[i]], ring[2 * starts[i] + 1]];
    travel += Math.hypot(nextX - x, nextY - y);
    [x, y] = [nextX, nextY];
  });
  return { starts, travel };
}

/** The shortest way to each of a ring's few points comes from one of those of the ring before. */
function amongFew(rings: readonly Ring[], from: Spot, few: number): Int32Array {
  const every = rings.map((ring) => Math.max(1, Math.ceil(ring.length / 2 / few)));
  const count = rings.map((ring, i) => Math.ceil(ring.length / 2 / every[i]));
  const cameFrom = rings.map((_, i) => new Uint8Array(count[i]));
  let before = Float64Array.of(0);
  rings.forEach((ring, i) => {
    const last = i > 0 ? rings[i - 1] : undefined;
    const now = new Float64Array(count[i]);
    for (let k = 0; k < count[i]; k++) {
      const x = ring[2 * k * every[i]];
      const y = ring[2 * k * every[i] + 1];
      let least = Infinity;
      for (let j = 0; j < before.length; j++) {
        const dx = x - (last ? last[2 * j * every[i - 1]] : from[0]);
        const dy = y - (last ? last[2 * j * every[i - 1] + 1] : from[1]);
        const way = before[j] + Math.sqrt(dx * dx + dy * dy);
        if (way < least) {
          least = way;
          cameFrom[i][k] = j;
        }
      }
      now[k] = least;
    }
    before = now;
  });
  const starts = new Int32Array(rings.length);
  let k = before.indexOf(smallest(before));
  for (let i = rings.length - 1; i >= 0; i--) {
    starts[i] = k * every[i];
    k = cameFrom[i][k];
  }
  return starts;
}

/** The point of a ring from which it is nearest to where the one before and the one behind begin. */
function betweenNeighbours(
  rings: readonly Ring[],
  starts: Int32Array,
  i: number,
  [fromX, fromY]: Spot,
): number {
  const ring = rings[i];
  const px = i > 0 ? rings[i - 1][2 * starts[i - 1]] : fromX;
  const py = i > 0 ? rings[i - 1][2 * starts[i - 1] + 1] : fromY;
  const next = i + 1 < rings.length ? rings[i + 1] : undefined;
  let best = starts[i];
  let least = Infinity;
  for (let k = 0; k < ring.length; k += 2) {
    const ax = ring[k] - px;
    const ay = ring[k + 1] - py;
    let way = Math.sqrt(ax * ax + ay * ay);
    if (next) {
      const bx = ring[k] - next[2 * starts[i + 1]];
      const by = ring[k + 1] - next[2 * starts[i + 1] + 1];
      way += Math.sqrt(bx * bx + by * by);
    }
    if (way < least) {
      least = way;
      best = k / 2;
    }
  }
  return best;
}
