import type { Field } from './picture';

/** The level along which outlines run. */
export const EDGE = 128;

const levelOf = (value: number): number => Math.min(255, Math.max(1, Math.round(EDGE + 127 * (value - 0.5))));

/** The level of what lies past the picture's edge. */
export const OUTSIDE = levelOf(0);

/**
 * A field near the lines along which it passes 0.5: what outlines are looked for in. Nothing is known elsewhere, and
 * nothing has to be, which saves nearly all of the work on large pictures.
 */
export interface EdgeZone {
  readonly width: number;
  readonly height: number;
  /** The field from 1 to 255, {@link EDGE} standing for 0.5 and 127 for one; 0 where nothing is known. */
  readonly levels: Uint8Array;
  /** Indices of the pixels that are near. */
  readonly pixels: readonly number[];
}

/**
 * The field near its edges, blurred there by a Gaussian; past the picture's edge counts as outside.
 * @param sigma px; cut off at three deviations
 * @param spent a zone of the same size that nobody needs any more: its memory is taken over
 */
export function edgeZone(field: Field, sigma: number, spent?: EdgeZone): EdgeZone {
  const blurs = sigma > 0.05;
  const { width, height } = field;
  const levels = spent?.levels ?? new Uint8Array(width * height);
  for (const i of spent?.pixels ?? []) levels[i] = 0;
  // a blur moves an outline by no more than its own deviation
  const pixels = markNear(field.edges, Math.max(1, Math.ceil(sigma)), width, levels);
  if (blurs) blurInto(levels, field, pixels, sigma);
  else for (const i of pixels) levels[i] = levelOf(field.values[i]);
  return { width, height, levels, pixels };
}

function blurInto(levels: Uint8Array, field: Field, pixels: readonly number[], sigma: number): void {
  const reach = Math.max(1, Math.ceil(3 * sigma));
  const kernel = kernelOf(sigma, reach);
  const { width, height } = field;
  for (const i of pixels) {
    const x = i % width;
    const y = (i - x) / width;
    const isInner = x >= reach && y >= reach && x < width - reach && y < height - reach;
    levels[i] = levelOf(
      isInner ? blurred(field, kernel, reach, i) : blurredAtRim(field, kernel, reach, x, y),
    );
  }
}

function blurred({ width, values }: Field, kernel: Float32Array, reach: number, i: number): number {
  const side = 2 * reach + 1;
  let sum = 0;
  let k = 0;
  for (let row = i - reach * width - reach; k < kernel.length; row += width) {
    for (let u = 0; u < side; u++) sum += kernel[k++] * values[row + u];
  }
  return sum;
}

function blurredAtRim(
  { width, height, values }: Field,
  kernel: Float32Array,
  reach: number,
  x: number,
  y: number,
): number {
  let sum = 0;
  let k = 0;
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

/** Marks every pixel within `reach` of an edge and its right and lower neighbours; gives those newly marked. */
function markNear(edges: readonly number[], reach: number, width: number, levels: Uint8Array): number[] {
  const marked: number[] = [];
  const height = levels.length / width;
  for (const edge of edges) {
    const x = edge % width;
    const y = (edge - x) / width;
    const left = Math.max(0, x - reach);
    const right = Math.min(width - 1, x + 1 + reach);
    const bottom = Math.min(height - 1, y + 1 + reach);
    for (let v = Math.max(0, y - reach); v <= bottom; v++) {
      for (let i = v * width + left; i <= v * width + right; i++) {
        if (levels[i] !== 0) continue;
        levels[i] = EDGE;
        marked.push(i);
      }
    }
  }
  return marked;
}
