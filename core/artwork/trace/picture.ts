/** Pixels as RGBA bytes, row by row from the upper left. */
export interface Picture {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array | Uint8ClampedArray;
}

/** One number a pixel; what is above 0.5 is inside. */
export interface Field {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array | Uint8Array;
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
  return { width, height, values };
}

/** Opacity of every pixel, 0 … 1, shifted so that what is more opaque than `threshold` is inside. */
export function opaque({ width, height, data }: Picture, threshold: number, invert: boolean): Field {
  const values = new Float32Array(width * height);
  const sign = invert ? -1 : 1;
  for (let i = 0; i < values.length; i++) values[i] = 0.5 + sign * (data[4 * i + 3] / 255 - threshold);
  return { width, height, values };
}
