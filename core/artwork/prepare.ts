import type { Artwork, Clip, Shape } from './artwork';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { boundsTouch, emptyBounds, heightOf, isEmptyBounds, joinBounds, widthOf } from '../geometry/bounds';
import { dash } from '../geometry/dash';
import type { Matrix } from '../geometry/matrix';
import { multiply, scaling, stretch, translation } from '../geometry/matrix';
import { FLATTEN_TOLERANCE, flatten, pathBounds, toleranceBefore } from '../geometry/path';
import type { Region } from '../geometry/region';
import { intersection, mapRegion, regionBounds, strokeOutline, weld } from '../geometry/region';

/** How large the finished sign is. A missing side follows the other one, or the file. */
export interface ArtworkChoices {
  readonly width: number | null;
  readonly height: number | null;
  readonly lockAspect: boolean;
}

/** One painted thing at final size: what it covers, before anything above it is taken away. */
export interface PreparedShape {
  readonly colour: string;
  readonly region: Region;
  readonly bounds: Bounds;
}

/** The art at final size, its upper left corner at 0, 0; mm, y down. */
export interface PreparedArtwork {
  readonly width: number;
  readonly height: number;
  /** Where the art lies on the file's page and how large the file itself wants it, mm. */
  readonly natural: {
    readonly x: number;
    readonly y: number;
    readonly width: number;
    readonly height: number;
  };
  readonly shapes: readonly PreparedShape[];
  readonly findings: readonly Finding[];
}

/** Larger than any wall the shop covers in one order, and inside the region grid. */
export const LARGEST_SIGN_MM = 30_000;
/** Smaller than this there is nothing a knife can follow. */
export const SMALLEST_SIGN_MM = 1;

/**
 * Brings artwork to its final size and turns every fill and stroke into the region it covers.
 * Sizes are exact: what is covered, strokes and clips included, spans the chosen width and height.
 */
export function prepare(artwork: Artwork, choices: ArtworkChoices): PreparedArtwork {
  return prepareFrom(guessedInk(artwork), artwork, choices, 2);
}

/** Straightens at the scale that `box` calls for, measures what is covered, and corrects: again when far off. */
function prepareFrom(box: Bounds, artwork: Artwork, choices: ArtworkChoices, tries: number): PreparedArtwork {
  if (isEmptyBounds(box)) return nothing(artwork, { x: 0, y: 0, width: 0, height: 0 }, nothingToCut());
  const guessed = sizeOf(box);
  const trouble = sizeTrouble(finalSize(guessed, choices));
  if (trouble && tries === 0) return nothing(artwork, guessed, trouble);
  const toFinal = fit(box, trouble ? workableSize(guessed) : finalSize(guessed, choices));
  const rough = shapesAt(artwork, toFinal);
  const covered = boundsOf(rough);
  if (isEmptyBounds(covered)) return nothing(artwork, guessed, nothingToCut());
  const inFile = unmap(toFinal, covered);
  // clips can leave much less than guessed: then curves were straightened for another size
  if (trouble || (tries > 0 && !nearly(box, inFile))) {
    return prepareFrom(inFile, artwork, choices, trouble ? 0 : tries - 1);
  }
  const natural = sizeOf(inFile);
  const size = finalSize(natural, choices);
  return { ...size, natural, shapes: mapShapes(rough, fit(covered, size)), findings: artwork.findings };
}

const sizeOf = (b: Bounds): PreparedArtwork['natural'] => ({
  x: b.minX,
  y: b.minY,
  width: widthOf(b),
  height: heightOf(b),
});

function nothing(artwork: Artwork, natural: PreparedArtwork['natural'], finding: Finding): PreparedArtwork {
  return {
    width: natural.width,
    height: natural.height,
    natural,
    shapes: [],
    findings: [...artwork.findings, finding],
  };
}

function nothingToCut(): Finding {
  return {
    code: 'nothing-to-cut',
    severity: 'stop',
    message: 'There is nothing in this file that a knife can cut: no filled shape and no line with a width.',
    waysOut: ['Turn text and pictures into outlines in the drawing, then bring the file in again'],
  };
}

function sizeTrouble({ width, height }: { width: number; height: number }): Finding | undefined {
  const largest = Math.max(width, height);
  if (largest > LARGEST_SIGN_MM) {
    return {
      code: 'too-large',
      severity: 'stop',
      message: `At ${(largest / 1000).toFixed(1)} m this is larger than any sign: the limit is ${LARGEST_SIGN_MM / 1000} m.`,
      waysOut: ['Type the finished width or height under Artwork'],
      measured: largest,
      limit: LARGEST_SIGN_MM,
    };
  }
  if (largest < SMALLEST_SIGN_MM) {
    return {
      code: 'too-small',
      severity: 'stop',
      message: `At ${largest.toFixed(3)} mm there is nothing a knife can follow.`,
      waysOut: ['Type the finished width or height under Artwork'],
      measured: largest,
      limit: SMALLEST_SIGN_MM,
    };
  }
  return undefined;
}

/** The finished size: typed sides are exact, a missing one keeps the proportions. */
export function finalSize(
  natural: { readonly width: number; readonly height: number },
  { width, height, lockAspect }: ArtworkChoices,
): { width: number; height: number } {
  const byWidth = width !== null && natural.width > 0 ? width / natural.width : undefined;
  const byHeight = height !== null && natural.height > 0 ? height / natural.height : undefined;
  if (lockAspect || byWidth === undefined || byHeight === undefined) {
    const scale = byWidth ?? byHeight ?? 1;
    return { width: natural.width * scale, height: natural.height * scale };
  }
  return { width: natural.width * byWidth, height: natural.height * byHeight };
}

/** The map that lays `box` onto 0, 0 … width, height. A flat side is only moved. */
function fit(box: Bounds, { width, height }: { width: number; height: number }): Matrix {
  const sx = widthOf(box) > 0 ? width / widthOf(box) : 1;
  const sy = heightOf(box) > 0 ? height / heightOf(box) : 1;
  return multiply(scaling(sx, sy), translation(-box.minX, -box.minY));
}

/** Roughly what the art covers at the file's own size: outlines with their strokes' reach, within their clips. */
function guessedInk({ shapes, clips }: Artwork): Bounds {
  const clipBoxes = clips.map((clip) =>
    clip.outlines.reduce((box, { path, matrix }) => joinBounds(box, pathBounds(path, matrix)), emptyBounds()),
  );
  return shapes.reduce((sum, shape) => {
    const reach = shape.stroke ? (shape.stroke.width / 2) * stretch(shape.matrix) : 0;
    const own = grown(pathBounds(shape.path, shape.matrix), reach);
    const clipped = shape.clips.reduce((box, i) => overlap(box, clipBoxes[i]), own);
    return isEmptyBounds(clipped) ? sum : joinBounds(sum, clipped);
  }, emptyBounds());
}

const grown = (b: Bounds, by: number): Bounds => ({
  minX: b.minX - by,
  minY: b.minY - by,
  maxX: b.maxX + by,
  maxY: b.maxY + by,
});

const overlap = (a: Bounds, b: Bounds): Bounds => ({
  minX: Math.max(a.minX, b.minX),
  minY: Math.max(a.minY, b.minY),
  maxX: Math.min(a.maxX, b.maxX),
  maxY: Math.min(a.maxY, b.maxY),
});

/** Box of final size back in the file's own mm; `m` only scales and moves. */
const unmap = (m: Matrix, b: Bounds): Bounds => ({
  minX: (b.minX - m[4]) / m[0],
  minY: (b.minY - m[5]) / m[3],
  maxX: (b.maxX - m[4]) / m[0],
  maxY: (b.maxY - m[5]) / m[3],
});

const nearly = (a: Bounds, b: Bounds): boolean =>
  Math.abs(widthOf(a) - widthOf(b)) <= 0.02 * widthOf(b) &&
  Math.abs(heightOf(a) - heightOf(b)) <= 0.02 * heightOf(b);

/** A size at which anything can be measured, whatever the file says. */
function workableSize(natural: { width: number; height: number }): { width: number; height: number } {
  const scale = 1000 / Math.max(natural.width, natural.height);
  return { width: natural.width * scale, height: natural.height * scale };
}

function mapShapes(shapes: readonly PreparedShape[], matrix: Matrix): PreparedShape[] {
  return shapes.map((shape) => {
    const region = mapRegion(shape.region, matrix);
    return { ...shape, region, bounds: regionBounds(region) };
  });
}

const boundsOf = (shapes: readonly PreparedShape[]): Bounds =>
  shapes.reduce((box, shape) => joinBounds(box, shape.bounds), emptyBounds());

function shapesAt(artwork: Artwork, toFinal: Matrix): PreparedShape[] {
  const clipRegions = new Map<number, Region>();
  const out: PreparedShape[] = [];
  for (const shape of artwork.shapes) {
    const region = regionOf(artwork, shape, toFinal, clipRegions);
    if (region.length > 0) out.push({ colour: shape.colour, region, bounds: regionBounds(region) });
  }
  return out;
}

function regionOf(artwork: Artwork, shape: Shape, toFinal: Matrix, clipRegions: Map<number, Region>): Region {
  const matrix = multiply(toFinal, shape.matrix);
  const whole = shape.stroke ? strokeRegion(shape, matrix) : fillRegion(shape, matrix);
  return shape.clips.reduce((region, index) => {
    const clip = clipRegion(artwork.clips, index, toFinal, clipRegions);
    if (!boundsTouch(regionBounds(region), regionBounds(clip))) return [];
    return intersection(region, clip);
  }, whole);
}

const fillRegion = (shape: Shape, matrix: Matrix): Region =>
  weld(
    flatten(shape.path, matrix).map((line) => line.points),
    shape.fill,
  );

/**
 * A stroke is outlined in its own space, where its width is round, and mapped afterwards: a skewed or
 * unevenly scaled stroke then comes out as drawn. The own space is enlarged so that the grid stays finer
 * than the tolerance at final size.
 */
function strokeRegion(shape: Shape, matrix: Matrix): Region {
  const style = shape.stroke!;
  const enlarge = stretch(matrix);
  if (!(enlarge > 0)) return [];
  const [a, b, c, d, e, f] = matrix;
  const toFinal: Matrix = [a / enlarge, b / enlarge, c / enlarge, d / enlarge, e, f];
  const lines = flatten(shape.path, scaling(enlarge), toleranceBefore(toFinal, FLATTEN_TOLERANCE));
  const dashes = style.dashes.map((length) => length * enlarge);
  const dashed = dashes.length > 0 ? dash(lines, dashes, style.dashStart * enlarge) : lines;
  return weld(mapRegion(strokeOutline(dashed, style.width * enlarge, style), toFinal));
}

function clipRegion(
  clips: readonly Clip[],
  index: number,
  toFinal: Matrix,
  known: Map<number, Region>,
): Region {
  const memo = known.get(index);
  if (memo) return memo;
  const clip = clips[index];
  const rings = clip.outlines.flatMap(({ path, matrix, fill }) =>
    weld(
      flatten(path, multiply(toFinal, matrix)).map((line) => line.points),
      fill,
    ),
  );
  const own = weld(rings);
  const region =
    clip.parent === undefined ? own : intersection(own, clipRegion(clips, clip.parent, toFinal, known));
  known.set(index, region);
  return region;
}
