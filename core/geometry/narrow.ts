/**
 * Where a region is narrower than a film holds together, and where two parts of it lie closer than a blade can part
 * them. At points along the outline the largest disc that fits inside and touches there is found by shrinking a ball
 * (Ma, Bae & Choi, 3D medial axis point approximation using nearest neighbors and the normal field, 2012): its
 * diameter is the local width, its centre lies on the spine of the stem.
 */
import type { Bounds } from './bounds';
import { emptyBounds, growBounds, joinBounds } from './bounds';
import { smallest } from './lists';
import type { Region, Ring } from './region';
import { createSegmentGrid } from './segmentGrid';
import type { SegmentGrid } from './segmentGrid';

/** One narrow place: a thin stem, or with `side: 'outside'` a narrow gap. */
export interface NarrowPlace {
  /** mm: the least, nicks of the outline left aside; of what ends in a point, the mean. */
  readonly width: number;
  /** How far it runs, mm. */
  readonly length: number;
  readonly where: Bounds;
  /** Middle lines x0, y0, x1, y1 … along the place. */
  readonly spines: readonly Float64Array[];
}

/** Two outlines face each other, rather than meet in a corner, when the disc touches them at least this far apart. */
const FACING = Math.cos((135 * Math.PI) / 180);
/** A pointed end is no stem: shorter tapers than this many limits are left alone. */
const POINTED_END = 3;
/** Samples no closer than this and cells no smaller: shorter places are no trouble, mm. */
const CLOSEST_SAMPLES = 0.3;
const COARSE_SAMPLES = 1;
const SMALLEST_CELL = 0.75;
/** Nicks shorter than this share of the limit are no stems. */
const SHORTEST = 0.5;

/**
 * Finds where a region (or, outside it, the room between its parts) is narrower than `limit`.
 * Plain corners are not narrow: only outlines that face one another count.
 * @param limit mm
 */
export function narrowPlaces(
  region: Region,
  limit: number,
  side: 'inside' | 'outside' = 'inside',
): NarrowPlace[] {
  const grid = createSegmentGrid(region, Math.max(limit, SMALLEST_CELL));
  const samples = sampleAll(region, grid, limit, side === 'inside' ? 1 : -1);
  return group(samples, grid, limit);
}

/** A place on the outline with the disc that touches it there. */
interface Sample {
  readonly x: number;
  readonly y: number;
  readonly cx: number;
  readonly cy: number;
  readonly width: number;
  /** Segment the sample lies on and the one it faces. */
  readonly own: number;
  readonly faces: number;
  readonly run: number;
  /** mm of outline this sample stands for */
  readonly share: number;
}

function sampleAll(region: Region, grid: SegmentGrid, limit: number, sign: 1 | -1): Sample[] {
  const out: Sample[] = [];
  const look = { grid, limit, sign };
  let run = 0;
  let firstSegment = 0;
  for (const ring of region) {
    // most outlines are nowhere narrow: a few looks tell, and only the others are looked at closely
    const coarse = sampleRing(ring, firstSegment, run, Math.max(limit / 2, COARSE_SAMPLES), look);
    if (coarse.length > 0) {
      const fine = sampleRing(ring, firstSegment, run, Math.max(limit / 4, CLOSEST_SAMPLES), look);
      for (const sample of fine) out.push(sample);
      for (const sample of fine) run = Math.max(run, sample.run);
      run++;
    }
    firstSegment += ring.length / 2;
  }
  return out;
}

interface Look {
  readonly grid: SegmentGrid;
  readonly limit: number;
  readonly sign: 1 | -1;
}

/** Samples of one ring that are narrow; what follows one another without a break is one run. */
function sampleRing(
  ring: Ring,
  firstSegment: number,
  firstRun: number,
  spacing: number,
  look: Look,
): Sample[] {
  const out: Sample[] = [];
  let run = firstRun;
  let left = spacing / 2;
  let broken = false;
  const n = ring.length;
  for (let i = 0; i < n; i += 2) {
    const x0 = ring[i];
    const y0 = ring[i + 1];
    const dx = ring[(i + 2) % n] - x0;
    const dy = ring[(i + 3) % n] - y0;
    const length = Math.hypot(dx, dy);
    if (length === 0) continue;
    const nx = (-dy / length) * look.sign;
    const ny = (dx / length) * look.sign;
    for (; left <= length; left += spacing) {
      const x = x0 + (dx * left) / length;
      const y = y0 + (dy * left) / length;
      const found = touchingDisc(look.grid, x, y, nx, ny, look.limit / 2);
      if (found) out.push({ x, y, ...found, own: firstSegment + i / 2, run, share: spacing });
      else {
        broken = true;
        if (out[out.length - 1]?.run === run) run++;
      }
    }
    left -= length;
  }
  // the ring closes: what runs on over its first point is one run
  const joins = broken && out.length > 0 && out[0].run === firstRun && out[out.length - 1].run === run;
  return joins && startsAtOnce(out[0], ring, spacing)
    ? out.map((sample) => (sample.run === run ? { ...sample, run: firstRun } : sample))
    : out;
}

/** Whether a ring's first narrow sample is its first sample at all. */
const startsAtOnce = (sample: Sample, ring: Ring, spacing: number): boolean =>
  Math.hypot(sample.x - ring[0], sample.y - ring[1]) <= spacing;

/** The largest disc, no larger than `radius`, that touches the outline at x, y from inside; undefined when it is that large. */
function touchingDisc(
  grid: SegmentGrid,
  x: number,
  y: number,
  nx: number,
  ny: number,
  radius: number,
): Pick<Sample, 'cx' | 'cy' | 'width' | 'faces'> | undefined {
  let r = radius;
  let faces = -1;
  let facing = 0;
  for (let step = 0; step < 20; step++) {
    const cx = x + nx * r;
    const cy = y + ny * r;
    const near = grid.nearest(cx, cy, r * (1 - 1e-6) - 1e-5);
    if (!near) break;
    const dx = near.x - x;
    const dy = near.y - y;
    const ahead = nx * dx + ny * dy;
    if (ahead < 1e-9) break;
    const smaller = (dx * dx + dy * dy) / (2 * ahead);
    faces = near.segment;
    const mx = x + nx * smaller;
    const my = y + ny * smaller;
    facing = ((x - mx) * (near.x - mx) + (y - my) * (near.y - my)) / (smaller * smaller);
    if (smaller > r - 1e-5) break;
    r = smaller;
  }
  if (faces < 0 || facing > FACING) return undefined;
  return { cx: x + nx * r, cy: y + ny * r, width: 2 * r, faces };
}

function group(samples: readonly Sample[], grid: SegmentGrid, limit: number): NarrowPlace[] {
  const runOf = new Map<number, number>();
  for (const { own, run } of samples) runOf.set(own, run);
  const parent = new Map<number, number>();
  const root = (run: number): number => {
    let at = run;
    for (let up = parent.get(at); up !== undefined && up !== at; up = parent.get(at)) at = up;
    if (at !== run) parent.set(run, at);
    return at;
  };
  const unite = (one: number, other: number): void => {
    if (root(one) !== root(other)) parent.set(root(other), root(one));
  };
  const selfFacing = new Set<number>();
  for (const { run, faces } of samples) {
    const other = runNear(runOf, grid, faces);
    if (other === undefined) continue;
    if (other === run) selfFacing.add(run);
    else unite(run, other);
  }
  for (const [one, other] of besideOneAnother(samples, limit / 2)) unite(one, other);
  const groups = new Map<number, Sample[]>();
  for (const sample of samples) {
    const key = root(sample.run);
    const list = groups.get(key);
    if (list) list.push(sample);
    else groups.set(key, [sample]);
  }
  return [...groups.values()].flatMap((members) => {
    const pointed = members.some(({ run }) => selfFacing.has(run));
    const place = placeOf(members, pointed);
    return place.length < limit * (pointed ? POINTED_END : SHORTEST) ? [] : [place];
  });
}

/** Runs that end beside one another, as the sides of a tip do whose end is blunt: pairs of them, some more than once. */
function* besideOneAnother(samples: readonly Sample[], most: number): Generator<readonly [number, number]> {
  const cells = new Map<string, Sample[]>();
  const cellOf = ({ x, y }: Sample): readonly [number, number] => [
    Math.floor(x / most),
    Math.floor(y / most),
  ];
  for (const sample of samples) {
    const [cx, cy] = cellOf(sample);
    for (let ix = cx - 1; ix <= cx + 1; ix++) {
      for (let iy = cy - 1; iy <= cy + 1; iy++) {
        for (const { x, y, run } of cells.get(`${ix} ${iy}`) ?? [])
          if (run !== sample.run && Math.hypot(x - sample.x, y - sample.y) < most) yield [run, sample.run];
      }
    }
    const own = cells.get(`${cx} ${cy}`);
    if (own) own.push(sample);
    else cells.set(`${cx} ${cy}`, [sample]);
  }
}

/** The run that looks across from a segment: its own, or its neighbours' where it carries no sample. */
function runNear(runOf: ReadonlyMap<number, number>, grid: SegmentGrid, segment: number): number | undefined {
  let before = segment;
  let after = segment;
  for (let k = 0; k < 12; k++) {
    const run = runOf.get(before) ?? runOf.get(after);
    if (run !== undefined) return run;
    before = grid.before(before);
    after = grid.after(after);
  }
  return undefined;
}

function placeOf(members: readonly Sample[], isPointed: boolean): NarrowPlace {
  let where: Bounds = emptyBounds();
  let outline = 0;
  const byRun = new Map<number, Sample[]>();
  for (const sample of members) {
    outline += sample.share;
    const ends = [sample.x, sample.y, 2 * sample.cx - sample.x, 2 * sample.cy - sample.y];
    where = joinBounds(where, growBounds(emptyBounds(), ends));
    const run = byRun.get(sample.run);
    if (run) run.push(sample);
    else byRun.set(sample.run, [sample]);
  }
  const runs = [...byRun.values()];
  const spines = runs.map((run) => Float64Array.from(run.flatMap(({ cx, cy }) => [cx, cy])));
  const width = isPointed
    ? members.reduce((sum, one) => sum + one.width, 0) / members.length
    : smallest(runs.map(leastWidth));
  return { width, length: outline / 2, where, spines };
}

/** The least width of a side; one place half as wide as both beside it is a nick of the outline and counts as half of those. */
function leastWidth(run: readonly Sample[]): number {
  return smallest(
    run.map(({ width }, i) => {
      const beside = [run[i - 1], run[i + 1]].flatMap((one) => (one ? [one.width] : []));
      return beside.length === 0 ? width : Math.max(width, smallest(beside) / 2);
    }),
  );
}
