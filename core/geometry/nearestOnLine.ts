import type { Spot } from './spot';

/** The place on a line, or on the ring it closes to, that is nearest to another, and mm between the two. */
export function nearestOnLine(
  points: Float64Array,
  closed: boolean,
  [x, y]: Spot,
): { at: Spot; distance: number } {
  let best: { at: Spot; distance: number } = { at: [points[0], points[1]], distance: Infinity };
  const n = points.length;
  for (let i = closed ? 0 : 2; i < n; i += 2) {
    const j = (i + n - 2) % n;
    const dx = points[i] - points[j];
    const dy = points[i + 1] - points[j + 1];
    const length2 = dx * dx + dy * dy;
    const t =
      length2 > 0 ? Math.max(0, Math.min(1, ((x - points[j]) * dx + (y - points[j + 1]) * dy) / length2)) : 0;
    const spot: Spot = [points[j] + t * dx, points[j + 1] + t * dy];
    const distance = Math.hypot(spot[0] - x, spot[1] - y);
    if (distance < best.distance) best = { at: spot, distance };
  }
  return best;
}
