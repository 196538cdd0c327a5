import { own } from '../units/own';
import type { Artwork, Shape } from '../readers/artwork';
import type { Finding, Fix, FixKind } from '../findings/finding';
import type { FilePart, FileSource, LineKind, LineRules } from './choices';
import { isFixed, NO_LINE_RULES } from './choices';
import type { Bounds } from '../geometry/bounds';
import {
  boundsTouch,
  emptyBounds,
  growBounds,
  heightOf,
  isEmptyBounds,
  joinBounds,
  widthOf,
  outset,
  sharedBounds,
} from '../geometry/bounds';
import { clipRegion, strokeRegion } from './cover';
import { mapped } from '../geometry/matrix';
import type { PrintInk } from '../colour/ink';
import type { Matrix } from '../geometry/matrix';
import { multiply, scaling, stretch, translation } from '../geometry/matrix';
import type { Polyline } from '../geometry/path';
import { flatten, pathBounds } from '../geometry/path';
import type { Region } from '../geometry/region';
import { intersection, linesInside, mapRegion, regionBounds, weld } from '../geometry/region';
import { simplify } from '../geometry/simplify';
import { formatLength } from '../units/length';

/** A finished size. A missing side follows the other one, or the file. */
export interface SizeChoices {
  readonly width: number | null;
  readonly height: number | null;
  readonly lockAspect: boolean;
}

/** One painted thing at final size: what it covers, before anything above it is taken away. */
export interface PreparedShape {
  readonly colour: string;
  readonly ink?: PrintInk;
  readonly region: Region;
  readonly bounds: Bounds;
  /** `pieceId/shape`: what rules and fixes name it by. */
  readonly ref: string;
  /** Of typed text: `pieceId/line/word`. */
  readonly word?: string;
  /** Name of the layer it lies on, where the file has layers. */
  readonly layer?: string;
  readonly picture?: ShownPicture;
}

/** A picture that is printed as it is. */
export interface ShownPicture {
  /** Its file, by the hash of what is in it. */
  readonly file: string;
  readonly part: FilePart;
  /** px */
  readonly width: number;
  readonly height: number;
  /** From its pixels to mm. */
  readonly matrix: Matrix;
}

/** Something the tool follows as a line and does not cut around; mm at final size. */
export interface PreparedLine {
  readonly kind: LineKind;
  readonly colour: string;
  readonly points: Float64Array;
  readonly closed: boolean;
  readonly bounds: Bounds;
  readonly ref: string;
  /** Followed only because it has no width to speak of. */
  readonly hairline?: boolean;
}

/** How one piece is to be prepared, beside its size. */
export interface PieceRules {
  readonly id: string;
  /** The file it comes from. */
  readonly file?: Pick<FileSource, 'hash'> & FilePart;
  readonly lines: LineRules;
  readonly fixes: readonly Fix[];
}

/** A piece at its size, its upper left corner at 0, 0; mm, y down. */
export interface PreparedPiece {
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
  readonly lines: readonly PreparedLine[];
  readonly findings: readonly Finding[];
}

const AS_READ: PieceRules = { id: 'p1', lines: NO_LINE_RULES, fixes: [] };

/** Lines with less width than this at final size have no width to speak of: the tool follows their middle, mm. */
export const HAIRLINE = 0.3;
/** An open line whose ends lie no further apart than this closes by itself, mm. */
export const AUTO_CLOSE = 0.1;
/** How far a simplified outline may lie from the drawn one, mm. */
const SIMPLIFY_TOLERANCE = 0.02;

/** Larger than any wall the shop covers in one order, and inside the region grid. */
export const LARGEST_SIGN_MM = 30_000;
/** Smaller than this there is nothing a knife can follow. */
export const SMALLEST_SIGN_MM = 1;

/**
 * Brings artwork to its final size and turns every fill and stroke into the region it covers.
 * Sizes are exact: what is covered, strokes and clips included, spans the chosen width and height.
 */
export function preparePiece(
  artwork: Artwork,
  size: SizeChoices,
  rules: PieceRules = AS_READ,
): PreparedPiece {
  return prepareFrom(guessedInk(artwork), artwork, size, rules, 2);
}

/** Straightens at the scale that `box` calls for, measures what is covered, and corrects: again when far off. */
function prepareFrom(
  box: Bounds,
  artwork: Artwork,
  choices: SizeChoices,
  rules: PieceRules,
  tries: number,
): PreparedPiece {
  if (isEmptyBounds(box)) return nothing(artwork, { x: 0, y: 0, width: 0, height: 0 }, nothingToCut());
  const guessed = sizeOf(box);
  const trouble = sizeTrouble(finalSize(guessed, choices));
  if (trouble && tries === 0) return nothing(artwork, guessed, trouble);
  const toFinal = fit(box, trouble ? workableSize(guessed) : finalSize(guessed, choices));
  const rough = inkAt(artwork, toFinal, rules);
  const covered = [...rough.shapes, ...rough.lines].reduce(
    (b, ink) => joinBounds(b, ink.bounds),
    emptyBounds(),
  );
  if (isEmptyBounds(covered)) return nothing(artwork, guessed, nothingToCut());
  const inFile = unmap(toFinal, covered);
  // clips can leave much less than guessed: then curves were straightened for another size
  if (trouble || (tries > 0 && !nearly(box, inFile))) {
    return prepareFrom(inFile, artwork, choices, rules, trouble ? 0 : tries - 1);
  }
  const natural = sizeOf(inFile);
  const size = finalSize(natural, choices);
  const findings = [
    ...artwork.findings,
    ...specksLeftOut(artwork, size.width / Math.max(natural.width, 1e-9)),
  ];
  return { ...size, natural, ...mapInk(rough, fit(covered, size)), findings };
}

/** mm: specks this large at final size are seen on a sign. */
const SEEN_SPECK = 1;

/** What a trace left out as specks, as large as it would be on the sign. @param scale final size over the file's own */
function specksLeftOut({ offers }: Artwork, scale: number): Finding[] {
  const { specks, mmPerPixel = 0 } = offers?.picture ?? {};
  if (!specks || specks.count === 0) return [];
  const mm = specks.largest * mmPerPixel * scale;
  return [
    {
      code: 'specks',
      severity: mm >= SEEN_SPECK ? 'check' : 'note',
      message: `${specks.count === 1 ? '1 speck' : `${specks.count} specks`} of up to ${formatLength(mm, 'mm')} ${specks.count === 1 ? 'is' : 'are'} left out of the traced picture.`,
      waysOut: ['Keep them: set “Leave specks out” lower under Artwork, at the picture'],
      measured: mm,
      limit: SEEN_SPECK,
    },
  ];
}

const sizeOf = (b: Bounds): PreparedPiece['natural'] => ({
  x: b.minX,
  y: b.minY,
  width: widthOf(b),
  height: heightOf(b),
});

function nothing(artwork: Artwork, natural: PreparedPiece['natural'], finding: Finding): PreparedPiece {
  return {
    width: natural.width,
    height: natural.height,
    natural,
    shapes: [],
    lines: [],
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

export function sizeTrouble({ width, height }: { width: number; height: number }): Finding | undefined {
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
  { width, height, lockAspect }: SizeChoices,
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
export function fit(box: Bounds, { width, height }: { width: number; height: number }): Matrix {
  const sx = widthOf(box) > 0 ? width / widthOf(box) : 1;
  const sy = heightOf(box) > 0 ? height / heightOf(box) : 1;
  return multiply(scaling(sx, sy), translation(-box.minX, -box.minY));
}

/** Roughly what the art covers at the file's own size: outlines with their strokes' reach, within their clips. */
function guessedInk({ shapes, clips }: Artwork): Bounds {
  const clipBoxes = clips.map((clip) =>
    clip.outlines.reduce((box, outline) => joinBounds(box, guessedReach(outline)), emptyBounds()),
  );
  return shapes.reduce((sum, shape) => {
    const own = guessedReach(shape);
    const clipped = shape.clips.reduce((box, i) => sharedBounds(box, clipBoxes[i]), own);
    return isEmptyBounds(clipped) ? sum : joinBounds(sum, clipped);
  }, emptyBounds());
}

function guessedReach({ path, matrix, stroke }: Pick<Shape, 'path' | 'matrix' | 'stroke'>): Bounds {
  return outset(pathBounds(path, matrix), stroke ? (stroke.width / 2) * stretch(matrix) : 0);
}

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

interface Ink {
  readonly shapes: readonly PreparedShape[];
  readonly lines: readonly PreparedLine[];
}

/** Shapes and lines under a map of the plane. */
export function mapInk({ shapes, lines }: Ink, matrix: Matrix): Ink {
  return {
    shapes: shapes.map((shape) => {
      const region = mapRegion(shape.region, matrix);
      const { picture } = shape;
      const shown = picture && { picture: { ...picture, matrix: multiply(matrix, picture.matrix) } };
      return { ...shape, region, bounds: regionBounds(region), ...shown };
    }),
    lines: lines.map((line) => {
      const points = mapped(line.points, matrix);
      return { ...line, points, bounds: growBounds(emptyBounds(), points) };
    }),
  };
}

/** What is cut around and what is followed, in the file's painting order. */
function inkAt(artwork: Artwork, toFinal: Matrix, rules: PieceRules): Ink {
  const clipRegions = new Map<number, Region>();
  const clipTo = (shape: Shape): Region[] =>
    shape.clips.map((index) => clipRegion(artwork.clips, index, toFinal, clipRegions));
  const shapes: PreparedShape[] = [];
  const lines: PreparedLine[] = [];
  artwork.shapes.forEach((shape, index) => {
    const ref = `${rules.id}/${index}`;
    const matrix = multiply(toFinal, shape.matrix);
    const kind = kindOf(shape, ref, rules);
    const hairline = isHairline(shape, matrix) && kind === 'kiss' && rules.lines.stroke[ref] === undefined;
    const add = (line: Polyline): void => {
      const bounds = growBounds(emptyBounds(), line.points);
      lines.push({ ...line, kind, colour: shape.colour, bounds, ref, hairline });
    };
    if (isFollowed(shape, matrix, kind, ref, rules)) {
      const own = straight(shape, matrix, ref, rules).map((line) => closedIfNear(line, ref, rules));
      clipTo(shape).reduce(linesInside, own).forEach(add);
      return;
    }
    const region = regionOf(shape, matrix, ref, rules, clipTo(shape));
    if (region.length === 0) return;
    const word = shape.word === undefined ? {} : { word: `${rules.id}/${shape.word}` };
    const layer = shape.layer === undefined ? {} : { layer: shape.layer };
    const ink = shape.ink ? { ink: shape.ink } : {};
    const picture = rules.file ? shownPicture(shape, rules.file, matrix) : {};
    if (kind === 'kiss')
      shapes.push({
        colour: shape.colour,
        region,
        bounds: regionBounds(region),
        ref,
        ...word,
        ...layer,
        ...ink,
        ...picture,
      });
    else for (const points of region) add({ points, closed: true });
  });
  return { shapes, lines };
}

function shownPicture(
  { picture }: Shape,
  { hash, page, box, font }: NonNullable<PieceRules['file']>,
  matrix: Matrix,
): Pick<PreparedShape, 'picture'> {
  return picture ? { picture: { ...picture, file: hash, part: { page, box, font }, matrix } } : {};
}

function kindOf(shape: Shape, ref: string, { lines, fixes }: PieceRules): LineKind {
  if (shape.look && isFixed(fixes, 'print', ref)) return 'print';
  return (
    own(lines.shape, ref) ??
    (shape.layer === undefined ? undefined : own(lines.layer, shape.layer)) ??
    lines.colour[shape.colour] ??
    'kiss'
  );
}

/** Whether the tool follows the line itself; else it cuts around what is covered. */
function isFollowed(shape: Shape, matrix: Matrix, kind: LineKind, ref: string, rules: PieceRules): boolean {
  if (!shape.stroke || isFixed(rules.fixes, 'weld', ref)) return false;
  const manner = rules.lines.stroke[ref] ?? rules.lines.stroke['*'];
  if (manner) return manner === 'line';
  if (isFixed(rules.fixes, 'outline', ref)) return false;
  if (kind !== 'kiss' && kind !== 'print') return true;
  return isHairline(shape, matrix);
}

/** Whether a line has no width to speak of. @param matrix its own units → mm */
export const isHairline = ({ stroke, alsoFilled }: Shape, matrix: Matrix): boolean =>
  stroke !== undefined && !alsoFilled && stroke.width * stretch(matrix) < HAIRLINE;

/** The shape's lines at final size, with fewer points where that was asked for. */
function straight(shape: Shape, matrix: Matrix, ref: string, { fixes }: PieceRules): Polyline[] {
  const lines = flatten(shape.path, matrix);
  return isFixed(fixes, 'simplify', ref) ? lines.map((line) => simplify(line, SIMPLIFY_TOLERANCE)) : lines;
}

function closedIfNear(line: Polyline, ref: string, { fixes }: PieceRules): Polyline {
  const { points, closed } = line;
  if (closed || points.length < 6) return line;
  const n = points.length;
  const gap = Math.hypot(points[n - 2] - points[0], points[n - 1] - points[1]);
  if (gap > AUTO_CLOSE && !isFixed(fixes, 'close', ref)) return line;
  return { points: gap < 1e-6 ? points.slice(0, n - 2) : points, closed: true };
}

function regionOf(shape: Shape, matrix: Matrix, ref: string, rules: PieceRules, clips: Region[]): Region {
  const whole = coveredBy(shape, matrix, ref, rules);
  return clips.reduce((region, clip) => {
    if (!boundsTouch(regionBounds(region), regionBounds(clip))) return [];
    return intersection(region, clip);
  }, whole);
}

function coveredBy(shape: Shape, matrix: Matrix, ref: string, rules: PieceRules): Region {
  const fixed = (kind: FixKind): boolean => isFixed(rules.fixes, kind, ref);
  if (!shape.stroke || fixed('weld')) {
    const lines = straight(shape, matrix, ref, rules);
    return weld(
      lines.map((line) => line.points),
      shape.fill,
    );
  }
  // a hairline that is to be cut around needs a width that film can have
  const least = fixed('outline') ? OUTLINED_HAIRLINE : 0;
  return strokeRegion(shape.path, shape.stroke, matrix, least);
}

/** Width given to a hairline that is to be cut around, mm. */
const OUTLINED_HAIRLINE = 1.5;
