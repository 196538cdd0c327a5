/** The point of an outline nearest to a place. */
export interface Nearest {
  readonly x: number;
  readonly y: number;
  readonly segment: number;
}

/** All segments of a region, findable by place. Segments are counted through all rings. */
export interface SegmentGrid {
  /** The nearest point within `within` mm (at most half the cell size given), or undefined. */
  readonly nearest: (x: number, y: number, within: number) => Nearest | undefined;
  readonly before: (segment: number) => number;
  readonly after: (segment: number) => number;
}

/** Enough that few cells share a bucket, and few enough to make room for. */
const MOST_BUCKETS = 2 ** 22;

/** Half cells along a segment. */
const stepsOf = (dx: number, dy: number, cell: number): number =>
  Math.ceil((2 * Math.hypot(dx, dy)) / cell) || 1;

/** About how many cells all segments lie in. */
function looksAt(ends: Float64Array, cell: number): number {
  let sum = 0;
  for (let k = 0; k < ends.length; k += 4)
    sum += stepsOf(ends[k + 2] - ends[k], ends[k + 3] - ends[k + 1], cell);
  return sum / 2 + ends.length / 4;
}

/**
 * A hashed grid with cells of `cell` mm: each segment lies in every cell that one of its points at every half cell
 * falls into, so a search looks one cell further than it reaches.
 */
export function createSegmentGrid(region: readonly ArrayLike<number>[], cell: number): SegmentGrid {
  const count = region.reduce((sum, ring) => sum + ring.length / 2, 0);
  const ends = new Float64Array(4 * count);
  const next = new Int32Array(count);
  const previous = new Int32Array(count);
  let s = 0;
  for (const ring of region) {
    const first = s;
    const n = ring.length;
    for (let i = 0; i < n; i += 2, s++) {
      ends[4 * s] = ring[i];
      ends[4 * s + 1] = ring[i + 1];
      ends[4 * s + 2] = ring[(i + 2) % n];
      ends[4 * s + 3] = ring[(i + 3) % n];
      next[s] = i + 2 < n ? s + 1 : first;
      previous[s] = i > 0 ? s - 1 : first + n / 2 - 1;
    }
  }
  let mask = 1024;
  while (mask < 2 * looksAt(ends, cell) && mask < MOST_BUCKETS) mask *= 2;
  mask--;
  const bucket = (cx: number, cy: number): number =>
    (Math.imul(cx, 73856093) ^ Math.imul(cy, 19349663)) & mask;
  const walk = (visit: (bucket: number, segment: number) => void): void => {
    for (let k = 0; k < count; k++) {
      const dx = ends[4 * k + 2] - ends[4 * k];
      const dy = ends[4 * k + 3] - ends[4 * k + 1];
      const steps = stepsOf(dx, dy, cell);
      let lastX = NaN;
      let lastY = NaN;
      for (let i = 0; i <= steps; i++) {
        const cx = Math.floor((ends[4 * k] + (dx * i) / steps) / cell);
        const cy = Math.floor((ends[4 * k + 1] + (dy * i) / steps) / cell);
        if (cx === lastX && cy === lastY) continue;
        visit(bucket(cx, cy), k);
        lastX = cx;
        lastY = cy;
      }
    }
  };
  const starts = new Int32Array(mask + 2);
  walk((b) => void starts[b + 1]++);
  for (let b = 0; b <= mask; b++) starts[b + 1] += starts[b];
  const entries = new Int32Array(starts[mask + 1]);
  const fill = starts.slice();
  walk((b, k) => void (entries[fill[b]++] = k));

  const nearest = (x: number, y: number, within: number): Nearest | undefined => {
    const reach = within + cell / 4;
    const [fromX, toX] = [Math.floor((x - reach) / cell), Math.floor((x + reach) / cell)];
    const [fromY, toY] = [Math.floor((y - reach) / cell), Math.floor((y + reach) / cell)];
    let best = within * within;
    let segment = -1;
    let bestX = 0;
    let bestY = 0;
    for (let cx = fromX; cx <= toX; cx++) {
      for (let cy = fromY; cy <= toY; cy++) {
        const b = bucket(cx, cy);
        for (let e = starts[b]; e < starts[b + 1]; e++) {
          const k = 4 * entries[e];
          const ax = ends[k] - x;
          const ay = ends[k + 1] - y;
          const dx = ends[k + 2] - ends[k];
          const dy = ends[k + 3] - ends[k + 1];
          const length2 = dx * dx + dy * dy;
          const along = -(ax * dx + ay * dy);
          const t = along <= 0 ? 0 : along >= length2 ? 1 : along / length2;
          const px = ax + t * dx;
          const py = ay + t * dy;
          const d2 = px * px + py * py;
          if (d2 >= best) continue;
          best = d2;
          segment = entries[e];
          bestX = x + px;
          bestY = y + py;
        }
      }
    }
    return segment < 0 ? undefined : { x: bestX, y: bestY, segment };
  };
  return { nearest, before: (k) => previous[k], after: (k) => next[k] };
}
