/** A picture past its own edges: each clear pixel takes the colour of the opaque one that is nearest. */
import type { ShownPicture } from '../artwork/preparePiece';
import { inverse } from '../geometry/matrix';
import type { Region } from '../geometry/region';
import { mapRegion, regionBounds } from '../geometry/region';
import type { Picture } from '../tracing/picture';
import { halved } from '../tracing/picture';

/** Pixels of which so much shows have a colour of their own, of 255; fainter ones mostly show what was behind them. */
const OPAQUE = 250;
const HALF = 128;
/** What is printed past the cut line is cut away: more pixels than this would only take longer. */
const MOST_PIXELS = 4_000_000;
const FAR = 1e20;
/** px */
const ROUNDING = 1e-3;

/** A picture with its edges drawn out. */
export interface GrownPicture extends Picture {
  /** Where the picture that it was made of lies in it, its own pixels. */
  readonly at: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}

/** How far a picture has to grow on every side to fill a region, in whole pixels of its own: alike for pieces that are alike. */
export function reachOf(region: Region, { width, height, matrix }: ShownPicture): number {
  const { minX, minY, maxX, maxY } = regionBounds(mapRegion(region, inverse(matrix)));
  return Math.max(1, Math.ceil(Math.max(-minX, -minY, maxX - width, maxY - height) - ROUNDING));
}

/**
 * The nearest pixel is found by the distance transform of sampled functions: along rows, then along columns, in time that
 * grows as the pixels do (Felzenszwalb and Huttenlocher, Theory of Computing 8, 2012).
 * @param reach px of the picture that it grows by, on every side
 * @returns opaque everywhere; all clear when nothing of the picture is opaque
 */
export function grownPicture(whole: Picture, reach: number): GrownPicture {
  let [picture, by] = [whole, reach];
  while (picture.width * picture.height > MOST_PIXELS) [picture, by] = [halved(picture), by / 2];
  const margin = Math.ceil(by);
  const [width, height] = [picture.width + 2 * margin, picture.height + 2 * margin];
  const at = { x: margin, y: margin, width: picture.width, height: picture.height };
  const from = nearestOpaque(picture, margin, width, height);
  const data = new Uint8Array(4 * width * height);
  if (from) {
    // a copy: wherever the bytes lie, it begins at a whole word
    const source = new Uint32Array(new Uint8Array(picture.data).buffer);
    const out = new Uint32Array(data.buffer);
    for (let i = 0; i < out.length; i++) out[i] = source[from[i]];
    for (let p = 3; p < data.length; p += 4) data[p] = 255;
  }
  return { width, height, data, at };
}

/** For every pixel of the larger picture the index of the nearest opaque one; undefined: there is none. */
function nearestOpaque(
  { width: w, height: h, data }: Picture,
  margin: number,
  width: number,
  height: number,
): Int32Array | undefined {
  const limit = limitOf(data);
  if (limit === undefined) return undefined;
  // along rows: how far the nearest opaque pixel of the row is, and which one
  const column = new Int32Array(width * h).fill(-1);
  for (let y = 0; y < h; y++) {
    const row = y * width;
    const mark = (x: number, last: number): number => {
      const own = x - margin;
      if (own >= 0 && own < w && data[4 * (y * w + own) + 3] >= limit) last = own;
      const before = column[row + x];
      if (last >= 0 && (before < 0 || Math.abs(own - last) < Math.abs(own - before))) column[row + x] = last;
      return last;
    };
    for (let x = 0, last = -1; x < width; x++) last = mark(x, last);
    for (let x = width - 1, last = -1; x >= 0; x--) last = mark(x, last);
  }
  // along columns: the lower envelope of one parabola a row
  const from = new Int32Array(width * height);
  const rows = new Int32Array(h);
  const starts = new Float64Array(h + 1);
  for (let x = 0; x < width; x++) {
    const height2 = (y: number): number => {
      const at = column[y * width + x];
      return at < 0 ? FAR : (at - (x - margin)) ** 2;
    };
    const count = envelope(height2, h, rows, starts);
    for (let y = 0, k = 0; y < height; y++) {
      while (k + 1 < count && starts[k + 1] < y - margin) k++;
      from[y * width + x] = rows[k] * w + column[rows[k] * width + x];
    }
  }
  return from;
}

/** The least opaque pixels that count: those that are nearly so, or where there is none of them, half so. */
function limitOf(data: Picture['data']): number | undefined {
  let most = 0;
  for (let p = 3; p < data.length && most < OPAQUE; p += 4) if (data[p] > most) most = data[p];
  if (most >= OPAQUE) return OPAQUE;
  return most >= HALF ? HALF : undefined;
}

/** Rows whose parabolas are lowest somewhere, and from where on each is. @returns how many */
function envelope(height: (y: number) => number, h: number, rows: Int32Array, starts: Float64Array): number {
  let k = -1;
  for (let y = 0; y < h; y++) {
    const own = height(y);
    if (own >= FAR) continue;
    let meet = -Infinity;
    while (k >= 0) {
      const before = rows[k];
      meet = (own + y * y - height(before) - before * before) / (2 * (y - before));
      if (meet > starts[k]) break;
      k--;
      meet = -Infinity;
    }
    k++;
    rows[k] = y;
    starts[k] = meet;
  }
  return k + 1;
}
