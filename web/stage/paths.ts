import type { PackedRegion } from '../workers/packed';

const known = new WeakMap<PackedRegion, readonly Path2D[]>();

/** One Path2D an outermost outline with its holes: one huge path is several times slower to fill and stroke. */
export function pathsOf(region: PackedRegion): readonly Path2D[] {
  const made = known.get(region);
  if (made) return made;
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
  }
  known.set(region, paths);
  return paths;
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
