/** Pixels as RGBA bytes, row by row from the upper left. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array | Uint8ClampedArray;
  /** Standard deviation of what grain is left in it, of 255. */
  readonly noise?: number;
}

/** The picture half as wide and high, each pixel the mean of four. */
export function halved({ width, height, data, noise = 0 }: Picture): Picture {
  const [w, h] = [width >> 1, height >> 1];
  const out = new Uint8Array(4 * w * h);
  for (let y = 0; y < h; y++) {
    for (let x = 0, p = 8 * y * width, q = 4 * y * w; x < w; x++, p += 8) {
      for (let c = 0; c < 4; c++, q++) {
        const below = p + c + 4 * width;
        out[q] = (data[p + c] + data[p + c + 4] + data[below] + data[below + 4] + 2) >> 2;
      }
    }
  }
  return { width: w, height: h, data: out, noise: noise / 2 };
}

/** One number a pixel; what is above 0.5 is inside. */
export interface Field {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array | Uint8Array;
  /** Pixels whose right or lower neighbour lies on the other side of 0.5; some may come twice. */
  readonly edges: readonly number[];
}

/** Whether the outline passes right of a pixel or below it, or along the picture's edge there. */
export function isEdge(values: Field['values'], width: number, i: number): boolean {
  const x = i % width;
  const inside = values[i] > 0.5;
  if (inside && (x === 0 || i < width)) return true;
  const right = x + 1 < width && values[i + 1] > 0.5;
  const below = i + width < values.length && values[i + width] > 0.5;
  return right !== inside || below !== inside;
}

function fieldOf(values: Float32Array, width: number, height: number): Field {
  const edges: number[] = [];
  for (let i = 0; i < values.length; i++) if (isEdge(values, width, i)) edges.push(i);
  return { width, height, values, edges };
}

/** Rec. 709 luma of every pixel on white paper, 0 … 1, shifted so that what is darker than `threshold` is inside. */
export function darker({ width, height, data }: Picture, threshold: number, invert: boolean): Field {
  const values = new Float32Array(width * height);
  const sign = invert ? 1 : -1;
  for (let i = 0, p = 0; i < values.length; i++, p += 4) {
    const alpha = data[p + 3] / 255;
    const luma = 8.337e-4 * data[p] + 2.80471e-3 * data[p + 1] + 2.8314e-4 * data[p + 2];
    values[i] = 0.5 + sign * (1 - alpha + alpha * luma - threshold);
  }
  return fieldOf(values, width, height);
}

/** Opacity of every pixel, 0 … 1, shifted so that what is more opaque than `threshold` is inside. */
export function opaque({ width, height, data }: Picture, threshold: number, invert: boolean): Field {
  const values = new Float32Array(width * height);
  const sign = invert ? -1 : 1;
  for (let i = 0; i < values.length; i++) values[i] = 0.5 + sign * (data[4 * i + 3] / 255 - threshold);
  return fieldOf(values, width, height);
}
