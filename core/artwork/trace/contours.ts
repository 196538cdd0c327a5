import type { EdgeZone } from './edges';

/**
 * The lines along which a field passes 0.5, as closed rings in pixels (0, 0 is the upper left corner of the picture,
 * pixel centres lie at halves), inside on the left of their way. Marching squares with linear interpolation
 * (Lorensen & Cline 1987, in the plane); what lies past the picture's edge counts as outside.
 */
export function contours({ width, height, values, near }: EdgeZone): Float64Array[] {
  // one edge of a cell is known by its upper left pixel in a frame one pixel wider all round: 2n is the edge to the
  // right of it, 2n + 1 the one below it
  const stride = width + 2;
  const at = (x: number, y: number): number =>
    x < 0 || y < 0 || x >= width || y >= height ? 0 : values[y * width + x];
  const known = (x: number, y: number): boolean =>
    x < 0 || y < 0 || x >= width || y >= height || near[y * width + x] === 1;
  const next = new Map<number, number>();
  const cell = (x: number, y: number): void => {
    // at the rim of what is known nothing changes sides
    if (!known(x + 1, y) || !known(x, y + 1) || !known(x + 1, y + 1)) return;
    const [a, b, c, d] = [at(x, y), at(x + 1, y), at(x + 1, y + 1), at(x, y + 1)];
    const kind = (a > 0.5 ? 8 : 0) | (b > 0.5 ? 4 : 0) | (c > 0.5 ? 2 : 0) | (d > 0.5 ? 1 : 0);
    if (kind !== 0 && kind !== 15) addCell(next, kind, (y + 1) * stride + x + 1, stride, a + b + c + d > 2);
  };
  for (let i = near.indexOf(1); i >= 0; i = near.indexOf(1, i + 1)) {
    const x = i % width;
    const y = (i - x) / width;
    cell(x, y);
    if (x === 0) cell(-1, y);
    if (y === 0) cell(x, -1);
    if (i === 0) cell(-1, -1);
  }
  return link(next, stride, at);
}

/** Which edge a line leaves a cell by when it came in by another; inside on the left. */
function addCell(
  next: Map<number, number>,
  kind: number,
  n: number,
  stride: number,
  fullMiddle: boolean,
): void {
  const top = 2 * n;
  const left = 2 * n + 1;
  const right = 2 * (n + 1) + 1;
  const bottom = 2 * (n + stride);
  switch (kind) {
    case 1:
      return void next.set(left, bottom);
    case 2:
      return void next.set(bottom, right);
    case 3:
      return void next.set(left, right);
    case 4:
      return void next.set(right, top);
    case 6:
      return void next.set(bottom, top);
    case 7:
      return void next.set(left, top);
    case 8:
      return void next.set(top, left);
    case 9:
      return void next.set(top, bottom);
    case 11:
      return void next.set(top, right);
    case 12:
      return void next.set(right, left);
    case 13:
      return void next.set(right, bottom);
    case 14:
      return void next.set(bottom, left);
    case 5:
      // two corners across: joined when the middle of the cell is inside
      next.set(left, fullMiddle ? top : bottom);
      return void next.set(right, fullMiddle ? bottom : top);
    default:
      next.set(top, fullMiddle ? right : left);
      next.set(bottom, fullMiddle ? left : right);
  }
}

function link(
  next: Map<number, number>,
  stride: number,
  at: (x: number, y: number) => number,
): Float64Array[] {
  const out: Float64Array[] = [];
  for (const first of next.keys()) {
    if (!next.has(first)) continue;
    const ring: number[] = [];
    for (let edge = first; next.has(edge);) {
      const n = edge >> 1;
      const x = (n % stride) - 1;
      const y = Math.floor(n / stride) - 1;
      const here = at(x, y);
      if (edge & 1) ring.push(x + 0.5, y + 0.5 + crossing(here, at(x, y + 1)));
      else ring.push(x + 0.5 + crossing(here, at(x + 1, y)), y + 0.5);
      const to = next.get(edge)!;
      next.delete(edge);
      edge = to;
    }
    if (ring.length >= 6) out.push(Float64Array.from(ring));
  }
  return out;
}

/** Where between two neighbours the field passes 0.5. */
const crossing = (from: number, to: number): number => Math.min(1, Math.max(0, (0.5 - from) / (to - from)));
