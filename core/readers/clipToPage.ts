/** What lies off the page is not seen in the artwork, so it is not cut either; said when it happens. */
import type { Artwork, Clip, Shape } from './artwork';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { boundsTouch, isEmptyBounds, outset } from '../geometry/bounds';
import { IDENTITY, stretch } from '../geometry/matrix';
import type { Path } from '../geometry/path';
import { pathBounds } from '../geometry/path';

/**
 * Cuts shapes off at the page's edge.
 * @param clips of the artwork; the page's edge is added to them when a shape may reach past it
 */
export function clipToPage(
  shapes: readonly Shape[],
  clips: readonly Clip[],
  page: Artwork['page'],
): Pick<Artwork, 'shapes' | 'clips' | 'findings'> {
  const slack = 1e-4 * Math.max(page.width, page.height);
  const mayLeave = shapes.map((shape) => leaves(reachOf(shape, mitreReach(shape)), page, slack));
  if (!mayLeave.includes(true)) return { shapes, clips, findings: [] };
  const { width, height } = page;
  const edge: Path = { ops: 'MLLLZ', xy: [0, 0, width, 0, width, height, 0, height] };
  const all = [...clips, { outlines: [{ path: edge, matrix: IDENTITY, fill: 'nonzero' as const }] }];
  const sheet: Bounds = { minX: 0, minY: 0, maxX: width, maxY: height };
  const inside = shapes.flatMap((shape, i) => {
    if (!mayLeave[i]) return [shape];
    if (!boundsTouch(reachOf(shape, mitreReach(shape)), sheet)) return [];
    return [{ ...shape, clips: [...shape.clips, all.length - 1] }];
  });
  // where a clip of its own hides what lies outside, nothing is cut off that was seen
  const surely = shapes.filter(
    (shape) => shape.clips.length === 0 && leaves(reachOf(shape, 1), page, slack),
  ).length;
  return { shapes: inside, clips: all, findings: surely === 0 ? [] : [offPage(surely)] };
}

const offPage = (count: number): Finding => ({
  code: 'off-page',
  severity: 'note',
  message:
    count === 1
      ? "1 shape reaches past the artwork's page and is cut off there, as seen in the file."
      : `${count} shapes reach past the artwork's page and are cut off there, as seen in the file.`,
});

/** How many half widths a pointed corner can reach. */
const mitreReach = ({ stroke }: Shape): number =>
  stroke?.join === 'miter' ? Math.max(1.5, stroke.miterLimit) : 1.5;

function reachOf(shape: Shape, halfWidths: number): Bounds {
  const grow = shape.stroke ? (shape.stroke.width / 2) * halfWidths * stretch(shape.matrix) : 0;
  return outset(pathBounds(shape.path, shape.matrix), grow);
}

const leaves = (box: Bounds, page: Artwork['page'], slack: number): boolean =>
  !isEmptyBounds(box) &&
  (box.minX < -slack || box.minY < -slack || box.maxX > page.width + slack || box.maxY > page.height + slack);
