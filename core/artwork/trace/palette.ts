/** The few colours that a picture is made of: k-means in CIE L*a*b* (Lloyd 1982; seeding by the farthest point). */
import { smallest } from '../../geometry/lists';
import { labOf } from '../../films/colour';
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
