/** The few colours that a picture is made of: k-means in CIE L*a*b* (Lloyd 1982; seeding by the farthest point). */
import { labOf } from '../../films/colour';
import type { Field, Picture } from './picture';

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

type Lab = readonly [number, number, number];

const hex = (r: number, g: number, b: number): string =>
  `#${[r, g, b].map((v) => Math.round(v).toString(16).padStart(2, '0')).join('')}`;

/** Finds `count` colours and gives every opaque pixel the nearest. Fewer come back when the picture has fewer. */
export function findPalette(picture: Picture, count: number): Palette {
  const samples = sampleOf(picture);
  const centres = cluster(
    samples.map(({ lab }) => lab),
    count,
  );
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

interface Sample {
  readonly rgb: Lab;
  readonly lab: Lab;
}

function sampleOf({ width, height, data }: Picture): Sample[] {
  const known = new Map<number, Lab>();
  const out: Sample[] = [];
  // a step that is no divisor of the width wanders over all columns
  const step = Math.max(1, Math.floor((width * height) / SAMPLE)) | 1;
  for (let i = 0; i < width * height; i += step) {
    const p = 4 * i;
    if (data[p + 3] < 128) continue;
    const key = (data[p] << 16) | (data[p + 1] << 8) | data[p + 2];
    let lab = known.get(key);
    if (!lab) {
      const { l, a, b } = labOf(hex(data[p], data[p + 1], data[p + 2]));
      known.set(key, (lab = [l, a, b]));
    }
    out.push({ rgb: [data[p], data[p + 1], data[p + 2]], lab });
  }
  return out;
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
      Math.min(...out.map((centre) => apart(lab, centre))) * Math.sqrt(n);
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
  const known = new Int16Array(1 << (3 * BITS)).fill(-1);
  for (let i = 0, p = 0; i < labels.length; i++, p += 4) {
    if (data[p + 3] < 128) continue;
    const key = rough(data[p], data[p + 1], data[p + 2]);
    if (known[key] < 0) {
      const { l, a, b } = labOf(hex(data[p], data[p + 1], data[p + 2]));
      known[key] = nearest([l, a, b], centres);
    }
    labels[i] = known[key];
  }
  return labels;
}

/** Gives fringes one pixel wide, as soft edges between two colours leave them, to the colour beside them. */
export function withoutFringes(labels: Uint8Array, width: number, height: number): Uint8Array {
  const out = labels.slice();
  const at = (x: number, y: number): number =>
    x < 0 || y < 0 || x >= width || y >= height ? -1 : labels[y * width + x];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const own = labels[i];
      if (
        x > 0 &&
        y > 0 &&
        own === labels[i - 1] &&
        own === labels[i - width] &&
        own === labels[i - width - 1]
      )
        continue;
      const block = (dx: number, dy: number): boolean =>
        at(x + dx, y) === own && at(x, y + dy) === own && at(x + dx, y + dy) === own;
      if (block(-1, -1) || block(1, -1) || block(-1, 1) || block(1, 1)) continue;
      out[i] = commonest(at, x, y, own);
    }
  }
  return out;
}

function commonest(at: (x: number, y: number) => number, x: number, y: number, own: number): number {
  const counts = new Map<number, number>();
  for (let dx = -1; dx <= 1; dx++) {
    for (let dy = -1; dy <= 1; dy++) {
      const label = at(x + dx, y + dy);
      if (label >= 0 && label !== own) counts.set(label, (counts.get(label) ?? 0) + 1);
    }
  }
  let best = own;
  let most = 1;
  for (const [label, n] of counts) if (n > most) [best, most] = [label, n];
  return best;
}

/**
 * Where colour `k` is seen, with what lies above it under its edge, so that no gap shows between two colours:
 * 1 inside, 0 outside.
 * @param reach px that it goes under the colours above
 * @param spent a mask of the same size that nobody needs any more: its memory is taken over
 */
export function maskOf(
  labels: Uint8Array,
  width: number,
  height: number,
  k: number,
  reach: number,
  spent?: Uint8Array,
): Field {
  const values = spent ? spent.fill(0) : new Uint8Array(labels.length);
  let rim: number[] = [];
  const isAbove = (i: number): boolean => labels[i] > k && labels[i] !== 255 && values[i] === 0;
  for (let i = 0; i < labels.length; i++) {
    if (labels[i] !== k) continue;
    values[i] = 1;
    if (
      (i % width > 0 && labels[i - 1] > k) ||
      (i % width < width - 1 && labels[i + 1] > k) ||
      labels[i - width] > k ||
      labels[i + width] > k
    )
      rim.push(i);
  }
  for (let step = 0; step < reach; step++) {
    const further: number[] = [];
    for (const i of rim) {
      const x = i % width;
      for (const beside of [x > 0 ? i - 1 : -1, x < width - 1 ? i + 1 : -1, i - width, i + width]) {
        if (beside < 0 || beside >= labels.length || !isAbove(beside)) continue;
        values[beside] = 1;
        further.push(beside);
      }
    }
    rim = further;
  }
  return { width, height, values };
}
