/** What painted things cover: strokes as outlines, clips as regions. */
import type { Clip, ClipOutline, StrokeStyle } from '../readers/artwork';
import { dash } from '../geometry/dash';
import type { Matrix } from '../geometry/matrix';
import { multiply, scaling, stretch } from '../geometry/matrix';
import type { Path } from '../geometry/path';
import { FLATTEN_TOLERANCE, flatten, toleranceBefore } from '../geometry/path';
import type { Region } from '../geometry/region';
import { difference, intersection, mapRegion, strokeOutline, weld } from '../geometry/region';

/**
 * A stroke is outlined in its own space, where its width is round, and mapped afterwards: a skewed or
 * unevenly scaled stroke then comes out as drawn. The own space is enlarged so that the grid stays finer
 * than the tolerance at final size.
 * @param least width that it has at final size if it is drawn thinner, mm
 */
export function strokeRegion(path: Path, style: StrokeStyle, matrix: Matrix, least = 0): Region {
  const enlarge = stretch(matrix);
  if (!(enlarge > 0)) return [];
  const [a, b, c, d, e, f] = matrix;
  const toFinal: Matrix = [a / enlarge, b / enlarge, c / enlarge, d / enlarge, e, f];
  const lines = flatten(path, scaling(enlarge), toleranceBefore(toFinal, FLATTEN_TOLERANCE));
  const dashes = style.dashes.map((length) => length * enlarge);
  const dashed = dashes.length > 0 ? dash(lines, dashes, style.dashStart * enlarge) : lines;
  return weld(mapRegion(strokeOutline(dashed, Math.max(style.width * enlarge, least), style), toFinal));
}

/**
 * What a clip lets be seen, mm at final size.
 * @param known clips worked out already, by index; this one is added
 */
export function clipRegion(
  clips: readonly Clip[],
  index: number,
  toFinal: Matrix,
  known: Map<number, Region>,
): Region {
  const memo = known.get(index);
  if (memo) return memo;
  const { outlines, parent } = clips[index];
  const own = openParts(outlines, toFinal);
  const region = parent === undefined ? own : intersection(own, clipRegion(clips, parent, toFinal, known));
  known.set(index, region);
  return region;
}

/** Outlines as they lie over each other: runs of open ones are joined, holes take away what came before. */
function openParts(outlines: readonly ClipOutline[], toFinal: Matrix): Region {
  let region: Region = [];
  for (let from = 0; from < outlines.length;) {
    const isHole = outlines[from].isHole ?? false;
    let to = from;
    while (to < outlines.length && (outlines[to].isHole ?? false) === isHole) to++;
    const run = outlines.slice(from, to).flatMap((outline) => outlineRegion(outline, toFinal));
    region = isHole ? difference(region, weld(run)) : weld([...region, ...run]);
    from = to;
  }
  return region;
}

function outlineRegion({ path, matrix, fill, stroke }: ClipOutline, toFinal: Matrix): Region {
  const whole = multiply(toFinal, matrix);
  if (stroke) return strokeRegion(path, stroke, whole);
  return weld(
    flatten(path, whole).map((line) => line.points),
    fill,
  );
}
