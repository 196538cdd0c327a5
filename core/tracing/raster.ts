import type { Region } from '../geometry/region';

/** Marks pixels whose centre lies inside by the even-odd rule. */
export function rasterise(
  rings: Region,
  width: number,
  height: number,
  into: Uint8Array,
  mark: number,
): void {
  const crossings: number[][] = Array.from({ length: height }, () => []);
  for (const ring of rings) {
    const n = ring.length;
    for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
      const [y0, y1] = [ring[j + 1], ring[i + 1]];
      if (y0 === y1) continue;
      const [low, high] = y0 < y1 ? [y0, y1] : [y1, y0];
      const first = Math.max(0, Math.ceil(low - 0.5));
      const last = Math.min(height - 1, Math.ceil(high - 0.5) - 1);
      const slope = (ring[i] - ring[j]) / (y1 - y0);
      for (let y = first; y <= last; y++) crossings[y].push(ring[j] + (y + 0.5 - y0) * slope);
    }
  }
  crossings.forEach((row, y) => {
    row.sort((a, b) => a - b);
    for (let k = 0; k + 1 < row.length; k += 2) {
      const from = Math.max(0, Math.ceil(row[k] - 0.5));
      const to = Math.min(width, Math.ceil(row[k + 1] - 0.5));
      into.fill(mark, y * width + from, y * width + Math.max(from, to));
    }
  });
}
