import type { PackedRegion } from '../workers/packedRegion';

const known = new WeakMap<PackedRegion, Map<number, readonly Path2D[]>>();
/** Past this many points a fine line around each shape costs more than it shows. */
const MOST_OUTLINED = 20_000;
const EDGE = 'rgb(38 28 44 / 28%)';

/** Fills a region, with a fine edge so that pale film is seen on pale ground. */
export function* fillAll(
  context: CanvasRenderingContext2D,
  region: PackedRegion,
  colour: string,
  scale: number,
): Generator<void> {
  const outlined = region.xy.length / 2 < MOST_OUTLINED;
  for (const path of pathsOf(region, scale)) {
    context.fillStyle = colour;
    context.fill(path);
    if (outlined) {
      context.strokeStyle = EDGE;
      context.lineWidth = 0.6 / scale;
      context.stroke(path);
    }
    yield;
  }
}

export function* strokeAll(
  context: CanvasRenderingContext2D,
  region: PackedRegion,
  colour: string,
  scale: number,
): Generator<void> {
  for (const path of pathsOf(region, scale)) {
    context.strokeStyle = colour;
    context.lineWidth = 1.2 / scale;
    context.stroke(path);
    yield;
  }
}

/**
 * One Path2D an outermost outline with its holes: one huge path is several times slower to fill and stroke.
 * Points that would fall within a third of a pixel of one another are left out; each doubling of the zoom has its
 * own set, made when it is first looked at.
 */
function* pathsOf(region: PackedRegion, scale: number): Generator<Path2D> {
  const level = Math.ceil(Math.log2(scale));
  const levels = known.get(region) ?? new Map<number, readonly Path2D[]>();
  known.set(region, levels);
  const made = levels.get(level);
  if (made) return yield* made;
  const apart = 0.35 / 2 ** level;
  const paths: Path2D[] = [];
  let ring = 0;
  for (const lastRing of region.groups) {
    const path = new Path2D();
    for (; ring < lastRing; ring++)
      addRing(path, region.xy, ring === 0 ? 0 : region.rings[ring - 1], region.rings[ring], apart);
    paths.push(path);
    yield path;
  }
  levels.set(level, paths);
}

function addRing(path: Path2D, xy: Float32Array, from: number, to: number, apart: number): void {
  let [x, y] = [xy[from], xy[from + 1]];
  path.moveTo(x, y);
  for (let i = from + 2; i < to; i += 2) {
    if (Math.abs(xy[i] - x) < apart && Math.abs(xy[i + 1] - y) < apart) continue;
    [x, y] = [xy[i], xy[i + 1]];
    path.lineTo(x, y);
  }
  path.closePath();
}

/** All of a region at once. */
export function pathOfRegion({ xy, rings }: PackedRegion): Path2D {
  const path = new Path2D();
  let from = 0;
  for (const to of rings) {
    addRing(path, xy, from, to, 0);
    from = to;
  }
  return path;
}

/** Open or closed lines given as flat numbers. */
export function pathOfLine(points: ArrayLike<number>, closed: boolean): Path2D {
  const path = new Path2D();
  for (let i = 0; i < points.length; i += 2) {
    if (i === 0) path.moveTo(points[0], points[1]);
    else path.lineTo(points[i], points[i + 1]);
  }
  if (closed) path.closePath();
  return path;
}
