/** The few colours that a picture is made of: k-means in CIE L*a*b* (Lloyd 1982; seeding by the farthest point). */
import { smallest } from '../geometry/lists';
import { labOf } from '../colour/colour';
import type { Picture } from './picture';

/** Pixels looked at to find the colours. */
const SAMPLE = 12_000;
const ROUNDS = 12;
/** Bits a channel kept when pixels are looked up: 2^18 colours. */
const BITS = 6;

export interface Palette {
  /** `#rrggbb`, most pixels first. */
  readonly colours: readonly string[];
  /** Colour of every pixel, by index; 255 where the picture is see-through. */
  readonly labels: Uint8Array;
}

export type Lab = readonly [number, number, number];

const hex = (r: number, g: number, b: number): string =>
  `#${[r, g, b].map((v) => Math.round(v).toString(16).padStart(2, '0')).join('')}`;

/** Finds `count` colours and gives every opaque pixel the nearest. Fewer come back when the picture has fewer. */
export function findPalette(picture: Picture, count: number): Palette {
  const { samples } = sampleOf(picture);
  const found = cluster(
    samples.map(({ lab }) => lab),
    count,
  );
  const centres = withoutNoise(found, samples, Math.min(MOST_NOISE, 4 * labNoise(picture)));
  const members = centres.map((): Sample[] => []);
  for (const sample of samples) members[nearest(sample.lab, centres)].push(sample);
  const order = centres
    .map((centre, k) => ({ centre, own: members[k] }))
    .filter(({ own }) => own.length > 0)
    .sort((a, b) => b.own.length - a.own.length);
  const colours = order.map(({ own }) => medianOf(own));
  return {
    colours,
    labels: labelAll(
      picture,
      order.map(({ centre }) => centre),
    ),
  };
}

/** Grain that stands for the same colour ends here: ΔE that anybody sees is no grain. */
const MOST_NOISE = 14;

/** The standard deviation of a picture's grain in L*, of which white has 100 and bytes 255. */
export const labNoise = ({ noise = 0 }: Picture): number => noise / 2.55;

/** Centres nearer to each other than `least`, one after another, made one. */
function withoutNoise(centres: readonly Lab[], samples: readonly Sample[], least: number): Lab[] {
  const counts = centres.map(() => 0);
  for (const { lab } of samples) counts[nearest(lab, centres)]++;
  const all = centres.map((centre, k) => ({ centre, n: counts[k] })).filter(({ n }) => n > 0);
  for (;;) {
    const pair = nearestPair(all.map(({ centre }) => centre));
    if (!pair || pair.apart >= least ** 2) return all.map(({ centre }) => centre);
    const [p, q] = [all[pair.i], all[pair.k]];
    const n = p.n + q.n;
    const mean = p.centre.map((v, axis) => (v * p.n + q.centre[axis] * q.n) / n) as unknown as Lab;
    all.splice(pair.k, 1);
    all[pair.i] = { centre: mean, n };
  }
}

function nearestPair(
  centres: readonly Lab[],
): { readonly i: number; readonly k: number; readonly apart: number } | undefined {
  let best: { i: number; k: number; apart: number } | undefined;
  for (let k = 1; k < centres.length; k++) {
    for (let i = 0; i < k; i++) {
      const own = apart(centres[i], centres[k]);
      if (!best || own < best.apart) best = { i, k, apart: own };
    }
  }
  return best;
}

export interface Sample {
  readonly rgb: Lab;
  readonly lab: Lab;
  /** Whether its neighbours have about its colour: soft edges between two colours have colours of their own. */
  readonly isFlat: boolean;
}

/** Neighbours that differ by no more in any channel are one colour. */
const FLAT = 24;

function isFlat({ width, height, data, noise = 0 }: Picture, i: number): boolean {
  const most = FLAT + 4 * noise;
  const near = (k: number): boolean =>
    [0, 1, 2].every((c) => Math.abs(data[4 * i + c] - data[4 * k + c]) <= most);
  return (i % width === width - 1 || near(i + 1)) && (i + width >= width * height || near(i + width));
}

/** Opaque pixels spread over a picture, and the share of those looked at that are not. */
export function sampleOf(picture: Picture): {
  readonly samples: readonly Sample[];
  readonly clear: number;
} {
  const { width, height, data } = picture;
  const known = new Map<number, Lab>();
  const out: Sample[] = [];
  // a step that is no divisor of the width wanders over all columns
  const step = Math.max(1, Math.floor((width * height) / SAMPLE)) | 1;
  let looked = 0;
  for (let i = 0; i < width * height; i += step) {
    const p = 4 * i;
    looked++;
    if (data[p + 3] < 128) continue;
    const key = (data[p] << 16) | (data[p + 1] << 8) | data[p + 2];
    let lab = known.get(key);
    if (!lab) {
      const { l, a, b } = labOf(hex(data[p], data[p + 1], data[p + 2]));
      known.set(key, (lab = [l, a, b]));
    }
    out.push({ rgb: [data[p], data[p + 1], data[p + 2]], lab, isFlat: isFlat(picture, i) });
  }
  return { samples: out, clear: 1 - out.length / Math.max(1, looked) };
}

const apart = (p: Lab, q: Lab): number => (p[0] - q[0]) ** 2 + (p[1] - q[1]) ** 2 + (p[2] - q[2]) ** 2;

function nearest(lab: Lab, centres: readonly Lab[]): number {
  let best = 0;
  for (let k = 1; k < centres.length; k++) if (apart(lab, centres[k]) < apart(lab, centres[best])) best = k;
  return best;
}

function cluster(labs: readonly Lab[], count: number): Lab[] {
  if (labs.length === 0) return [];
  let centres = seeds(labs, count);
  for (let round = 0; round < ROUNDS; round++) {
    const sums = centres.map(() => [0, 0, 0, 0]);
    for (const lab of labs) {
      const sum = sums[nearest(lab, centres)];
      for (let axis = 0; axis < 3; axis++) sum[axis] += lab[axis];
      sum[3]++;
    }
    const moved = centres.map((centre, k): Lab => {
      const [l, a, b, n] = sums[k];
      return n === 0 ? centre : [l / n, a / n, b / n];
    });
    const still = moved.every((centre, k) => apart(centre, centres[k]) < 1e-6);
    centres = moved;
    if (still) break;
  }
  return centres;
}

/** The first the commonest colour, each next what adds most: far from all before it and not alone. */
function seeds(labs: readonly Lab[], count: number): Lab[] {
  const bins = new Map<string, { lab: Lab; n: number }>();
  for (const lab of labs) {
    const key = lab.map((v) => Math.round(v / 6)).join();
    const bin = bins.get(key);
    if (bin) bin.n++;
    else bins.set(key, { lab, n: 1 });
  }
  const all = [...bins.values()];
  const out: Lab[] = [all.reduce((best, bin) => (bin.n > best.n ? bin : best)).lab];
  while (out.length < Math.min(count, all.length)) {
    const score = ({ lab, n }: { lab: Lab; n: number }): number =>
      smallest(out.map((centre) => apart(lab, centre))) * Math.sqrt(n);
    const next = all.reduce((best, bin) => (score(bin) > score(best) ? bin : best));
    if (score(next) === 0) break;
    out.push(next.lab);
  }
  return out;
}

/** The middle of each channel: soft edges pull a mean towards other colours, not the median. */
function medianOf(samples: readonly Sample[]): string {
  const middle = (channel: 0 | 1 | 2): number => {
    const values = samples.map(({ rgb }) => rgb[channel]).sort((a, b) => a - b);
    return values[values.length >> 1] ?? 0;
  };
  return hex(middle(0), middle(1), middle(2));
}

const rough = (r: number, g: number, b: number): number =>
  ((r >> (8 - BITS)) << (2 * BITS)) | ((g >> (8 - BITS)) << BITS) | (b >> (8 - BITS));

function labelAll({ width, height, data }: Picture, centres: readonly Lab[]): Uint8Array {
  const labels = new Uint8Array(width * height).fill(255);
  const known = new Uint8Array(1 << (3 * BITS)).fill(255);
  let last = -1;
  let label = 255;
  for (let i = 0, p = 0; i < labels.length; i++, p += 4) {
    if (data[p + 3] < 128) continue;
    const key = rough(data[p], data[p + 1], data[p + 2]);
    if (key !== last) {
      if (known[key] === 255) known[key] = nearestTo(data[p], data[p + 1], data[p + 2], centres);
      last = key;
      label = known[key];
    }
    labels[i] = label;
  }
  return labels;
}

function nearestTo(red: number, green: number, blue: number, centres: readonly Lab[]): number {
  const { l, a, b } = labOf(hex(red, green, blue));
  return nearest([l, a, b], centres);
}
