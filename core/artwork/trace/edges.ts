import type { Field } from './picture';

/**
 * A field near the lines along which it passes 0.5: what outlines are looked for in. Nothing is known elsewhere, and
 * nothing has to be, which saves nearly all of the work on large pictures.
 */
export interface EdgeZone {
  readonly width: number;
  readonly height: number;
  /** Counts only where `near` is 1. */
  readonly values: Float32Array;
  readonly near: Uint8Array;
}

/**
 * The field near its edges, blurred there by a Gaussian; past the picture's edge counts as outside.
 * @param sigma px; cut off at three deviations
 * @param spent a zone of the same size that nobody needs any more: its memory is taken over
 */
export function edgeZone(field: Field, sigma: number, spent?: EdgeZone): EdgeZone {
  const blurs = sigma > 0.05;
  const reach = blurs ? Math.max(1, Math.ceil(3 * sigma)) : 0;
  const kernel = kernelOf(blurs ? sigma : 1, reach);
  const { width, height } = field;
  // a blur moves an outline by no more than its own deviation
  const near = nearEdges(field, 1 + Math.ceil(blurs ? sigma : 0), spent?.near.fill(0));
  const values = spent?.values ?? new Float32Array(near.length);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    for (let x = 0; x < width; x++) {
      if (near[row + x] === 0) continue;
      values[row + x] = blurs ? blurred(field, kernel, reach, x, y) : field.values[row + x];
    }
  }
  return { width, height, values, near };
}

function blurred(
  { width, height, values }: Field,
  kernel: Float32Array,
  reach: number,
  x: number,
  y: number,
): number {
  let sum = 0;
  let k = 0;
  if (x >= reach && y >= reach && x < width - reach && y < height - reach) {
    const side = 2 * reach + 1;
    for (let v = (y - reach) * width + x - reach; k < side * side; v += width) {
      for (let u = 0; u < side; u++) sum += kernel[k++] * values[v + u];
    }
    return sum;
  }
  for (let v = y - reach; v <= y + reach; v++) {
    const row = (v < 0 ? 0 : v >= height ? height - 1 : v) * width;
    for (let u = x - reach; u <= x + reach; u++) {
      sum += kernel[k++] * values[row + (u < 0 ? 0 : u >= width ? width - 1 : u)];
    }
  }
  return sum;
}

function kernelOf(sigma: number, reach: number): Float32Array {
  const side = 2 * reach + 1;
  const at = (i: number): number => Math.exp(-((i - reach) ** 2) / (2 * sigma * sigma));
  const kernel = Float32Array.from(
    { length: side * side },
    (_, i) => at(i % side) * at(Math.floor(i / side)),
  );
  const sum = kernel.reduce((a, b) => a + b, 0);
  return kernel.map((v) => v / sum);
}

/** Marks every pixel within `reach` of one whose right or lower neighbour lies on the other side of 0.5. */
function nearEdges({ width, height, values }: Field, reach: number, empty?: Uint8Array): Uint8Array {
  const near = empty ?? new Uint8Array(values.length);
  const mark = (x: number, y: number): void => {
    const left = Math.max(0, x - reach);
    const right = Math.min(width - 1, x + 1 + reach);
    const bottom = Math.min(height - 1, y + 1 + reach);
    for (let v = Math.max(0, y - reach); v <= bottom; v++)
      near.fill(1, v * width + left, v * width + right + 1);
  };
  for (let y = 0; y < height; y++) {
    const lastRow = y === height - 1;
    for (let x = 0, i = y * width; x < width; x++, i++) {
      const inside = values[i] > 0.5;
      const right = x + 1 < width && values[i + 1] > 0.5;
      const below = !lastRow && values[i + width] > 0.5;
      if (right !== inside || below !== inside || (inside && (x === 0 || y === 0))) mark(x, y);
    }
  }
  return near;
}
