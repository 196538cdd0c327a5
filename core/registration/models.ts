/** Ways that a printed sheet may lie in a cutter, from the simplest: what each does to a place, and how it is found. */
import { largest, smallest } from '../geometry/lists';
import type { Spot } from '../geometry/spot';
import { leastSquares } from './leastSquares';

/** A place of the design and where it was read in the cutter, mm. */
export interface Reading {
  readonly designed: Spot;
  readonly measured: Spot;
}

export const MODELS = ['similarity', 'affine', 'bow', 'double-bow', 'projective'] as const;
/** Moved, turned and scaled; stretched both ways and skewed too; bowed along its length, the same on both edges or not; as seen aslant. */
export type ModelName = (typeof MODELS)[number];

/** Models that are a case of others. */
export const CASE_OF: Readonly<Record<ModelName, readonly ModelName[]>> = {
  similarity: ['affine', 'bow', 'double-bow', 'projective'],
  affine: ['bow', 'double-bow', 'projective'],
  bow: ['double-bow'],
  'double-bow': [],
  projective: [],
};

/** A model fitted to readings by least squares. */
export interface Fitted {
  readonly model: ModelName;
  readonly unknowns: number;
  /** Sum of squares of what it does not explain, mm². */
  readonly rss: number;
  /** Readings less unknowns; each mark counts twice. */
  readonly freedom: number;
  readonly map: (at: Spot) => Spot;
  /** How a place's position varies, in x, y and both, for readings that vary by 1 mm. */
  readonly covarianceAt: (at: Spot) => readonly [xx: number, yy: number, xy: number];
  /** mm that the middle of the sheet's length lies aside from its ends. */
  readonly bow: number;
}

/** The design's places about their middle, their longer side from -1 to 1 or so. */
export interface Frame {
  readonly middle: Spot;
  readonly half: number;
  /** The longer side runs along y. */
  readonly isUpright: boolean;
}

/** Of what was designed: its middle, and half its longer side. */
export function frameOf(readings: readonly Reading[]): Frame {
  const range = (axis: 0 | 1): readonly [number, number] => {
    const all = readings.map(({ designed }) => designed[axis]);
    return [smallest(all), largest(all)];
  };
  const [[minX, maxX], [minY, maxY]] = [range(0), range(1)];
  const half = Math.max(maxX - minX, maxY - minY) / 2 || 1;
  return { middle: [(minX + maxX) / 2, (minY + maxY) / 2], half, isUpright: maxY - minY > maxX - minX };
}

const within = ([x, y]: Spot, { middle, half }: Frame): Spot => [
  (x - middle[0]) / half,
  (y - middle[1]) / half,
];

/** How x and y of a place depend on the unknowns. */
type Columns = (at: Spot) => readonly [x: readonly number[], y: readonly number[]];

const similarity: Columns = ([u, v]) => [
  [u, -v, 1, 0],
  [v, u, 0, 1],
];
const affine: Columns = ([u, v]) => [
  [u, v, 1, 0, 0, 0],
  [0, 0, 0, u, v, 1],
];
/** Across the length, in the cutter's own axes, by the square of the place along it; once more, growing from edge to edge. */
const bowed =
  ([nx, ny]: Spot, { isUpright }: Frame, isDouble: boolean): Columns =>
  (at) => {
    const [along, across] = isUpright ? [at[1], at[0]] : at;
    const bows = isDouble ? [along ** 2, along ** 2 * across] : [along ** 2];
    const [x, y] = affine(at);
    return [
      [...x, ...bows.map((bow) => nx * bow)],
      [...y, ...bows.map((bow) => ny * bow)],
    ];
  };

/** @returns undefined: the readings do not tell */
export function fitModel(model: ModelName, readings: readonly Reading[]): Fitted | undefined {
  const frame = frameOf(readings);
  if (model === 'similarity') return fitLinear(model, similarity, readings, frame);
  const plain = fitLinear('affine', affine, readings, frame);
  if (!plain || model === 'affine') return plain;
  if (model === 'projective') return fitProjective(readings, frame);
  // which way is across shows better once the bow is known
  let fitted: Fitted | undefined = plain;
  for (let pass = 0; pass < 2 && fitted; pass++)
    fitted = fitLinear(model, bowed(acrossOf(fitted, frame), frame, model === 'double-bow'), readings, frame);
  return fitted;
}

/** Which way across the sheet's length lies in the cutter. */
function acrossOf({ map }: Fitted, { middle: [x, y], half, isUpright }: Frame): Spot {
  // a bow lies as far aside at either end
  const [x0, y0] = map(isUpright ? [x, y - half] : [x - half, y]);
  const [x1, y1] = map(isUpright ? [x, y + half] : [x + half, y]);
  const length = Math.hypot(x1 - x0, y1 - y0);
  return [-(y1 - y0) / length, (x1 - x0) / length];
}

function fitLinear(
  model: ModelName,
  columns: Columns,
  readings: readonly Reading[],
  frame: Frame,
): Fitted | undefined {
  const rows = readings.flatMap(({ designed }) => columns(within(designed, frame)));
  const solved = leastSquares(
    rows,
    readings.flatMap(({ measured }) => [...measured]),
  );
  if (!solved) return undefined;
  const { unknowns, rss, freedom, covariance } = solved;
  const times = (row: readonly number[]): number =>
    row.reduce((sum, value, j) => sum + value * unknowns[j], 0);
  const at = (place: Spot) => columns(within(place, frame));
  return {
    model,
    unknowns: unknowns.length,
    rss,
    freedom,
    map: (place) => {
      const [x, y] = at(place);
      return [times(x), times(y)];
    },
    covarianceAt: (place) => spread(at(place), covariance),
    bow: unknowns.length > 6 ? -unknowns[6] : 0,
  };
}

/** J Σ Jᵀ of two rows. */
function spread(
  [x, y]: readonly [readonly number[], readonly number[]],
  covariance: Float64Array,
): readonly [number, number, number] {
  const n = x.length;
  const form = (a: readonly number[], b: readonly number[]): number =>
    a.reduce((sum, ai, i) => sum + ai * b.reduce((inner, bj, j) => inner + covariance[i * n + j] * bj, 0), 0);
  return [form(x, x), form(y, y), form(x, y)];
}

/** Rounds of Gauss and Newton: from an affine map this near, a few are enough. */
const ROUNDS = 12;

/** As seen aslant: the affine map over 1 + g·u + h·v, by Gauss and Newton from g = h = 0. */
function fitProjective(readings: readonly Reading[], frame: Frame): Fitted | undefined {
  const flat = readings.map(({ designed }) => within(designed, frame));
  const target = readings.flatMap(({ measured }) => [...measured]);
  const start = leastSquares(flat.flatMap(affine), target);
  if (!start) return undefined;
  let now = [...start.unknowns, 0, 0];
  let solved: ReturnType<typeof leastSquares>;
  for (let round = 0; round < ROUNDS; round++) {
    const off = flat.flatMap((at, i) => {
      const [x, y] = seenAslant(at, now);
      return [target[2 * i] - x, target[2 * i + 1] - y];
    });
    solved = leastSquares(
      flat.flatMap((at) => slopes(at, now)),
      off,
    );
    if (!solved) return undefined;
    now = now.map((value, j) => value + solved!.unknowns[j]);
  }
  const { covariance, freedom } = solved!;
  const map = (place: Spot): Spot => seenAslant(within(place, frame), now);
  const rss = readings.reduce((sum, { designed, measured }) => {
    const [x, y] = map(designed);
    return sum + (measured[0] - x) ** 2 + (measured[1] - y) ** 2;
  }, 0);
  return {
    model: 'projective',
    unknowns: now.length,
    rss,
    freedom,
    map,
    covarianceAt: (place) => spread(slopes(within(place, frame), now), covariance),
    bow: 0,
  };
}

function seenAslant([u, v]: Spot, [a, b, c, d, e, f, g, h]: readonly number[]): Spot {
  const w = 1 + g * u + h * v;
  return [(a * u + b * v + c) / w, (d * u + e * v + f) / w];
}

function slopes(at: Spot, unknowns: readonly number[]): readonly [number[], number[]] {
  const [u, v] = at;
  const w = 1 + unknowns[6] * u + unknowns[7] * v;
  const [x, y] = seenAslant(at, unknowns);
  return [
    [u / w, v / w, 1 / w, 0, 0, 0, (-x * u) / w, (-x * v) / w],
    [0, 0, 0, u / w, v / w, 1 / w, (-y * u) / w, (-y * v) / w],
  ];
}
