/** What a gradient paints: its mean colour, and where (ISO 32000-2, 8.7.4.5). */
import type { ClipOutline } from '../artwork';
import type { Bounds } from '../../geometry/bounds';
import { heightOf, widthOf } from '../../geometry/bounds';
import type { Matrix } from '../../geometry/matrix';
import { inverse, mapped, determinant } from '../../geometry/matrix';
import type { Path } from '../../geometry/path';
import { meanColour } from '../paint';
import type { PdfShading, SweptShading } from './parsed';

/** The mean colour over a gradient's length, each stretch between two stops counted by its length. */
export const shadingColour = (shading: PdfShading): string =>
  shading.kind === 'mesh'
    ? shading.colour
    : meanColour(shading.stops.map(([at, colour]) => ({ at, colour })));

/**
 * The clips that leave just what a gradient paints.
 * @param matrix from the gradient's own space to the page, mm
 * @param page what can be seen, mm
 * @returns outlines of one clip each; empty: it paints everywhere
 */
export function shadingClips(shading: PdfShading, matrix: Matrix, page: Bounds): ClipOutline[][] {
  const clips: ClipOutline[][] = [];
  const put = (path: Path, isHole = false): ClipOutline => ({ path, matrix, fill: 'nonzero', isHole });
  if (shading.box) {
    const [x0, y0, x1, y1] = shading.box;
    clips.push([put({ ops: 'MLLLZ', xy: [x0, y0, x1, y0, x1, y1, x0, y1] })]);
  }
  if (determinant(matrix) === 0) return clips;
  if (shading.kind === 'mesh') return [...clips, [put(trianglesPath(shading.triangles))]];
  const far = farFrom(shading.from, matrix, page);
  if (shading.kind === 'axial') {
    const band = axialBand(shading, far);
    return band ? [...clips, [put(band)]] : clips;
  }
  const { outer, hole } = radialReach(shading, far);
  return [...clips, [...outer.map((path) => put(path)), ...(hole ? [put(hole, true)] : [])]];
}

type Place = readonly [number, number];

/** No place of the page is further from `from` than this, in the gradient's own units. */
function farFrom([x, y]: Place, matrix: Matrix, page: Bounds): number {
  const { minX, minY, maxX, maxY } = page;
  const corners = mapped([minX, minY, maxX, minY, maxX, maxY, minX, maxY], inverse(matrix));
  let far = 0;
  for (let i = 0; i < corners.length; i += 2)
    far = Math.max(far, Math.hypot(corners[i] - x, corners[i + 1] - y));
  return far + widthOf(page) + heightOf(page);
}

/** The band between both ends, as far as it is painted; undefined: it is painted past both. */
function axialBand(shading: SweptShading, far: number): Path | undefined {
  const { from, to, extends: past } = shading;
  if (past[0] && past[1]) return undefined;
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
  if (length === 0) return { ops: '', xy: [] };
  const [ux, uy] = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
  const reach = far + length;
  const at = (along: number, aside: number): [number, number] => [
    from[0] + ux * along - uy * aside,
    from[1] + uy * along + ux * aside,
  ];
  const [start, end] = [past[0] ? -reach : 0, past[1] ? reach : length];
  return {
    ops: 'MLLLZ',
    xy: [...at(start, -reach), ...at(end, -reach), ...at(end, reach), ...at(start, reach)],
  };
}

/** What circles sweep on their way from one to the other; the inside of one within the other stays free. */
function radialReach(
  { from, to, radii: [r0, r1], extends: past }: SweptShading,
  far: number,
): { outer: Path[]; hole?: Path } {
  const growth = r1 - r0;
  const step = Math.hypot(to[0] - from[0], to[1] - from[1]) + Math.abs(growth);
  // a circle that shrinks ends in a point, one that does not goes on past the page
  const limit = (isEnd: boolean): number => {
    const sign = isEnd ? 1 : -1;
    if (!past[isEnd ? 1 : 0]) return isEnd ? 1 : 0;
    if (growth * sign < 0) return -r0 / growth;
    return (isEnd ? 1 : 0) + sign * Math.min(1e6, (4 * (far + r0 + r1)) / Math.max(step, 1e-9));
  };
  const circle = (s: number): Circle => ({
    x: from[0] + s * (to[0] - from[0]),
    y: from[1] + s * (to[1] - from[1]),
    r: Math.max(0, r0 + s * growth),
  });
  const [a, b] = [circle(limit(false)), circle(limit(true))];
  const [small, large] = a.r < b.r ? [a, b] : [b, a];
  const isNested = Math.hypot(a.x - b.x, a.y - b.y) <= large.r - small.r;
  if (isNested) return { outer: [circlePath(large)], ...(small.r > 0 ? { hole: circlePath(small) } : {}) };
  return { outer: [circlePath(a), circlePath(b), tangentQuad(a, b)] };
}

interface Circle {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

/** How far control points of a quarter circle lie along its tangents: within 2.8e-4 of the radius. */
const QUARTER = 0.5522847498;

function circlePath({ x, y, r }: Circle): Path {
  const k = r * QUARTER;
  const quarters = [
    ...[x + r, y + k, x + k, y + r, x, y + r],
    ...[x - k, y + r, x - r, y + k, x - r, y],
    ...[x - r, y - k, x - k, y - r, x, y - r],
    ...[x + k, y - r, x + r, y - k, x + r, y],
  ];
  return { ops: 'MCCCCZ', xy: [x + r, y, ...quarters] };
}

/** The quadrilateral between the outer tangents of two circles that are not nested. */
function tangentQuad(a: Circle, b: Circle): Path {
  const d = Math.hypot(b.x - a.x, b.y - a.y);
  const towards = Math.atan2(b.y - a.y, b.x - a.x);
  const turn = Math.acos(Math.max(-1, Math.min(1, (a.r - b.r) / d)));
  const at = ({ x, y, r }: Circle, angle: number): [number, number] => [
    x + r * Math.cos(angle),
    y + r * Math.sin(angle),
  ];
  const [left, right] = [towards + turn, towards - turn];
  return { ops: 'MLLLZ', xy: [...at(a, right), ...at(b, right), ...at(b, left), ...at(a, left)] };
}

/** Triangles as one path, all turning the same way, so that neighbours join. */
function trianglesPath(corners: readonly number[]): Path {
  const xy = corners.slice();
  for (let i = 0; i < xy.length; i += 6) {
    const [x0, y0, x1, y1, x2, y2] = xy.slice(i, i + 6);
    const isLeft = (x1 - x0) * (y2 - y0) - (y1 - y0) * (x2 - x0) > 0;
    if (!isLeft) [xy[i + 2], xy[i + 3], xy[i + 4], xy[i + 5]] = [x2, y2, x1, y1];
  }
  return { ops: 'MLLZ'.repeat(xy.length / 6), xy };
}
