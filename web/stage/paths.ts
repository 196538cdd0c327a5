import type { PackedRegion } from '../workers/packed';

const known = new WeakMap<PackedRegion, readonly Path2D[]>();
/** Past this many points a fine line around each shape costs more than it shows. */
const MOST_OUTLINED = 20_000;
const EDGE = 'rgb(38 28 44 / 28%)';

/** Fills a region, with a fine edge so that pale film is seen on pale ground. */
export function* fillAll(
  context: CanvasRenderingContext2D,
  region: PackedRegion,
  colour: string,
  edge: number,
): Generator<void> {
  const outlined = region.xy.length / 2 < MOST_OUTLINED;
  for (const path of pathsOf(region)) {
    context.fillStyle = colour;
    context.fill(path);
    if (outlined) {
      context.strokeStyle = EDGE;
      context.lineWidth = edge;
      context.stroke(path);
    }
    yield;
  }
}

export function* strokeAll(
  context: CanvasRenderingContext2D,
  region: PackedRegion,
  colour: string,
  width: number,
): Generator<void> {
  for (const path of pathsOf(region)) {
    context.strokeStyle = colour;
    context.lineWidth = width;
    context.stroke(path);
    yield;
  }
}

/** One Path2D an outermost outline with its holes: one huge path is several times slower to fill and stroke. */
function* pathsOf(region: PackedRegion): Generator<Path2D> {
  const made = known.get(region);
  if (made) return yield* made;
  const paths: Path2D[] = [];
  let ring = 0;
  let at = 0;
  for (const lastRing of region.groups) {
    const path = new Path2D();
    for (; ring < lastRing; ring++) {
      path.moveTo(region.xy[at], region.xy[at + 1]);
      for (at += 2; at < region.rings[ring]; at += 2) path.lineTo(region.xy[at], region.xy[at + 1]);
      path.closePath();
    }
    paths.push(path);
    yield path;
  }
  known.set(region, paths);
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
