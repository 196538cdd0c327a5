/** How a picture is best traced to begin with, and whether it is one that knives are made for. */
import type { TraceChoices } from './choices';
import type { Lab } from './palette';
import { findPalette, labNoise, sampleOf } from './palette';
import type { Picture } from './picture';

/** Pixels that lie on a line between two colours lie this near to it in Lab, but for a few. */
const NEAR_LINE = 7;
const RARE = 0.002;
/** Deviations of grain that all but those keep to: a* and b* have up to twice that of L*. */
const GRAIN = 6;
/** A picture of which more is see-through is cut out. */
const CUT_OUT = 0.05;
/** Of this share of the pixels there is something to see. */
const SEEN = 0.02;
const BINS = 40;
/** Between two colours that are two there are at most so many pixels, as a share of the rarer one's. */
const VALLEY = 0.5;
const MOST_COLOURS = 4;

/**
 * By brightness when all colours lie on one line of Lab and are two at most: ink on paper, whatever grain or shade lies
 * on it. By opacity when one colour stands on nothing. Otherwise by the colours that are seen.
 */
export function suggestTrace(picture: Picture, otherwise: TraceChoices): TraceChoices {
  const { samples, clear } = sampleOf(picture);
  const isCutOut = clear > CUT_OUT;
  if (samples.length === 0) return { ...otherwise, by: 'alpha' };
  const flat = samples.filter((sample) => sample.isFlat);
  const { along, across } = principalAxis((flat.length > 0 ? flat : samples).map(({ lab }) => lab));
  const isLine = across <= NEAR_LINE + GRAIN * labNoise(picture);
  const colours = isLine ? peaksOf(along) : MOST_COLOURS;
  if (isCutOut && colours === 1) return { ...otherwise, by: 'alpha' };
  if (!isCutOut && colours <= 2) return { ...otherwise, by: 'brightness' };
  const found = findPalette(picture, isCutOut ? MOST_COLOURS - 1 : MOST_COLOURS).colours.length;
  return { ...otherwise, by: 'colours', colours: Math.max(2, found) };
}

/** Where points lie along the line that fits them best (Pearson 1901), and how far from it all but a few do. */
function principalAxis(labs: readonly Lab[]): { readonly along: number[]; readonly across: number } {
  const mean = [0, 1, 2].map((axis) => labs.reduce((sum, lab) => sum + lab[axis], 0) / labs.length);
  const centred = labs.map((lab) => lab.map((v, axis) => v - mean[axis]));
  const spread = [0, 1, 2].map((i) => [0, 1, 2].map((j) => centred.reduce((sum, p) => sum + p[i] * p[j], 0)));
  let way = [1, 0.3, 0.2];
  // the power method: a few dozen rounds tell the longest axis of three
  for (let round = 0; round < 40; round++) {
    const next = spread.map((row) => row[0] * way[0] + row[1] * way[1] + row[2] * way[2]);
    const length = Math.hypot(next[0], next[1], next[2]) || 1;
    way = next.map((v) => v / length);
  }
  const along = centred.map((p) => p[0] * way[0] + p[1] * way[1] + p[2] * way[2]);
  const off = centred.map((p, i) =>
    Math.sqrt(Math.max(0, p[0] ** 2 + p[1] ** 2 + p[2] ** 2 - along[i] ** 2)),
  );
  off.sort((a, b) => a - b);
  return { along, across: off[Math.floor((1 - RARE) * (off.length - 1))] };
}

/** How many heaps numbers lie in that are parted by valleys. */
function peaksOf(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const [from, to] = [sorted[0], sorted[sorted.length - 1]];
  if (to - from < 1) return 1;
  let bins = new Float64Array(BINS);
  for (const v of values) bins[Math.min(BINS - 1, Math.floor(((v - from) / (to - from)) * BINS))]++;
  for (let round = 0; round < 2; round++)
    bins = bins.map((v, i) => ((bins[i - 1] ?? v) + 2 * v + (bins[i + 1] ?? v)) / 4);
  return heapsOf(bins).filter((heap) => heap >= SEEN * values.length).length;
}

/** How much lies in each heap: where the ground between two tops is high, they are one. */
function heapsOf(bins: Float64Array): number[] {
  const tops = [...bins.keys()].filter((i) => bins[i] > (bins[i - 1] ?? 0) && bins[i] >= (bins[i + 1] ?? 0));
  const lowest = (from: number, to: number): number => {
    let at = from;
    for (let i = from; i <= to; i++) if (bins[i] < bins[at]) at = i;
    return at;
  };
  for (let k = 1; k < tops.length;) {
    const [a, b] = [tops[k - 1], tops[k]];
    if (bins[lowest(a, b)] <= VALLEY * Math.min(bins[a], bins[b])) k++;
    else {
      tops.splice(bins[a] < bins[b] ? k - 1 : k, 1);
      k = Math.max(1, k - 1);
    }
  }
  return tops.map((top, k) => {
    const from = k === 0 ? 0 : lowest(tops[k - 1], top);
    const to = k === tops.length - 1 ? bins.length : lowest(top, tops[k + 1]);
    return bins.subarray(from, to).reduce((sum, n) => sum + n, 0);
  });
}

/** Two places this share of the width apart show another shade in a photograph, and the same one on a flat drawing. */
const APART = 1 / 64;
/** Differences that are shades rather than grain, or another colour; of 255. */
const SHADES = [6, 60] as const;
const SHADED = 0.25;

/** Whether a picture is made of shades, as photographs are: there is more in it than films can show. */
export function isPhotograph({ width, height, data, noise = 0 }: Picture): boolean {
  const far = Math.max(4, Math.round(width * APART));
  const least = Math.max(SHADES[0], 4 * noise);
  const step = Math.max(1, Math.floor((width * height) / 20_000)) | 1;
  let shaded = 0;
  let n = 0;
  for (let i = 0; i < width * height - far; i += step) {
    if ((i % width) + far >= width || data[4 * i + 3] < 128) continue;
    const difference = Math.abs(data[4 * i + 1] - data[4 * (i + far) + 1]);
    if (difference > least && difference < SHADES[1]) shaded++;
    n++;
  }
  return n > 0 && shaded > SHADED * n;
}

/** Colours that change over these shares of the picture's longer side change by and by, and not in steps. */
const SLOPES = [1 / 16, 1 / 6];
/** Channel values by which they would change over all of it, at least; less is soft light on paper. */
const LEAST_RISE = 128;
/** Channel values by which they change over the share itself, at most: more is an edge. */
const MOST_RISE = 110;
/** Means of a few pixels differ by no more than this many deviations of the grain. */
const GRAINY = 1.2;
/** Each quarter of a slope takes its share of the rise, give or take: of a step one quarter or two take all. */
const [LEAST_QUARTER, MOST_QUARTER] = [0.08, 0.5];
/** The share of what is seen that is a slope, from which on it is told. */
const SLOPED = 0.08;

/** Whether a part of a picture fades from one colour into another, by light, colour or both, grain or not. */
export const hasGradients = (picture: Picture): boolean =>
  SLOPES.some((share) => slopedShare(picture, share) > SLOPED);

/** Of the places that are seen, the share from which colours fade away to the right or downwards. */
function slopedShare(picture: Picture, share: number): number {
  const { width, height, data, noise = 0 } = picture;
  const quarter = Math.max(2, Math.round((Math.max(width, height) * share) / 4));
  const far = 4 * quarter;
  const ring = Math.min(4, quarter);
  const least = Math.max(LEAST_RISE * share, GRAINY * noise);
  const step = Math.max(1, Math.floor(Math.sqrt((width * height) / 20_000)));
  const isSlope = (x: number, y: number, dx: number, dy: number): boolean => {
    const places = [0, 1, 2, 3, 4].map((k) => meanAround(picture, x + k * dx, y + k * dy, ring));
    const rises = [0, 1, 2].map((c) => places[4][c] - places[0][c]);
    const c = rises.reduce((best, by, k) => (Math.abs(by) > Math.abs(rises[best]) ? k : best), 0);
    if (Math.abs(rises[c]) < least || Math.abs(rises[c]) > MOST_RISE) return false;
    return [1, 2, 3, 4].every((k) => {
      const part = (places[k][c] - places[k - 1][c]) / rises[c];
      return part > LEAST_QUARTER && part < MOST_QUARTER;
    });
  };
  let [sloped, seen] = [0, 0];
  for (let y = ring; y + far + ring < height; y += step)
    for (let x = ring; x + far + ring < width; x += step) {
      if (data[4 * (y * width + x) + 3] < 128) continue;
      seen++;
      if (isSlope(x, y, quarter, 0) || isSlope(x, y, 0, quarter)) sloped++;
    }
  return sloped / Math.max(1, seen);
}

/** Red, green and blue about a place, see-through pixels as what they are on. */
function meanAround({ width, data }: Picture, x: number, y: number, ring: number): number[] {
  const sum = [0, 0, 0];
  for (let v = y - ring; v <= y + ring; v += Math.max(1, ring >> 1))
    for (let u = x - ring; u <= x + ring; u += Math.max(1, ring >> 1))
      for (let c = 0; c < 3; c++) sum[c] += data[4 * (v * width + u) + c];
  const across = Math.floor((2 * ring) / Math.max(1, ring >> 1)) + 1;
  return sum.map((value) => value / (across * across));
}
