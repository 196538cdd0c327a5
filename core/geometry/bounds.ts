/** Upright boxes in mm, y down. An empty box has min above max. */
export interface Bounds {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
}

export const emptyBounds = (): Bounds => ({
  minX: Infinity,
  minY: Infinity,
  maxX: -Infinity,
  maxY: -Infinity,
});

export const isEmptyBounds = (b: Bounds): boolean => b.minX > b.maxX || b.minY > b.maxY;

/** The box grown to hold the points x0, y0, x1, y1 … as well. */
export function growBounds(b: Bounds, points: ArrayLike<number>): Bounds {
  let { minX, minY, maxX, maxY } = b;
  for (let i = 0; i < points.length; i += 2) {
    if (points[i] < minX) minX = points[i];
    if (points[i] > maxX) maxX = points[i];
    if (points[i + 1] < minY) minY = points[i + 1];
    if (points[i + 1] > maxY) maxY = points[i + 1];
  }
  return { minX, minY, maxX, maxY };
}

export const joinBounds = (a: Bounds, b: Bounds): Bounds => ({
  minX: Math.min(a.minX, b.minX),
  minY: Math.min(a.minY, b.minY),
  maxX: Math.max(a.maxX, b.maxX),
  maxY: Math.max(a.maxY, b.maxY),
});

/** What lies in both boxes; empty where they do not meet. */
export const sharedBounds = (a: Bounds, b: Bounds): Bounds => ({
  minX: Math.max(a.minX, b.minX),
  minY: Math.max(a.minY, b.minY),
  maxX: Math.min(a.maxX, b.maxX),
  maxY: Math.min(a.maxY, b.maxY),
});

/** The box with every edge moved out by so much. */
export const outset = (b: Bounds, by: number): Bounds => ({
  minX: b.minX - by,
  minY: b.minY - by,
  maxX: b.maxX + by,
  maxY: b.maxY + by,
});

/** Whether the boxes share at least an edge or a corner. */
export const boundsTouch = (a: Bounds, b: Bounds): boolean =>
  a.minX <= b.maxX && b.minX <= a.maxX && a.minY <= b.maxY && b.minY <= a.maxY;

export const widthOf = (b: Bounds): number => (isEmptyBounds(b) ? 0 : b.maxX - b.minX);

export const heightOf = (b: Bounds): number => (isEmptyBounds(b) ? 0 : b.maxY - b.minY);
