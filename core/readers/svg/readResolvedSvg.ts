/**
 * Reads a resolved SVG: one in which CSS, shapes, `use`, text and units have already become plain paths of
 * M, L, C, Q and Z in groups (the resolver runs where native code can; see server/files). What is left to do
 * here is the meaning: painter's order, transforms, clips, strokes, paints, and saying what a knife cannot do.
 */
import { MM_PER_INCH } from '../../units/length';
import type { Element } from './xml';
import { parseXml } from './xml';
import type { Artwork, Clip, ClipOutline, Shape } from '../artwork';
import type { Finding } from '../../findings/finding';
import type { Fill } from '../../geometry/region';
import type { Matrix } from '../../geometry/matrix';
import { IDENTITY, multiply, scaling, translation } from '../../geometry/matrix';
import type { Bounds } from '../../geometry/bounds';
import { emptyBounds, heightOf, joinBounds, widthOf } from '../../geometry/bounds';
import { pathBounds } from '../../geometry/path';
import { clipToPage } from '../clipToPage';
import { parsePathData } from './pathData';
import { readMask } from './readMask';
import { isVisible, opacityOf, parseMatrix, reference, strokeStyle } from './svgAttributes';
import { flatColour, parseColour } from '../paint';
import { PRINT_IT } from '../waysOut';

/** CSS: 96 px to the inch (CSS Values and Units 3, 5.2). */
const MM_PER_PX = MM_PER_INCH / 96;
/** Paint fainter than this is not seen at all. */
const UNSEEN_OPACITY = 1 / 255;

interface Inherited {
  readonly matrix: Matrix;
  readonly clips: readonly number[];
  readonly opacity: number;
  readonly layer?: string;
}

interface Reader {
  readonly defs: ReadonlyMap<string, Element>;
  readonly clips: Clip[];
  readonly clipIndex: Map<string, number>;
  readonly shapes: Shape[];
  readonly counts: Record<Trouble, number>;
  readonly layers: ReadonlyMap<string, string>;
}

type Trouble = 'pattern' | 'image' | 'mask' | 'veil' | 'filter';

const TROUBLES: Readonly<Record<Trouble, (n: number) => Omit<Finding, 'code'>>> = {
  pattern: (n) => ({
    severity: 'check',
    message: `${shapes(n)} filled with a repeating pattern: the pattern is left out.`,
    waysOut: ['Turn the pattern into shapes in the drawing and bring the file in again'],
  }),
  image: (n) => ({
    severity: 'check',
    message: `${n} ${n === 1 ? 'picture' : 'pictures'} placed in the artwork: a knife cannot cut a picture, so it is left out.`,
    waysOut: ['Draw or trace its outline in the drawing', PRINT_IT],
  }),
  mask: (n) => ({
    severity: 'check',
    message: `${shapes(n)} masked by a picture, pattern or effect: the mask is not applied.`,
    waysOut: ['Cut the shape to its outline in the drawing and bring the file in again'],
  }),
  veil: (n) => ({
    severity: 'check',
    message: `${shapes(n)} faded by a mask: film cannot fade, so what is seen by half or more is kept whole.`,
    waysOut: ['Make the fading part solid in the drawing, or print the drawing as it is'],
  }),
  filter: (n) => ({
    severity: 'check',
    message: `${shapes(n)} with a blur, shadow or other effect: the effect is left out.`,
    waysOut: [PRINT_IT],
  }),
};

const shapes = (n: number): string => (n === 1 ? '1 shape is' : `${n} shapes are`);

/**
 * Reads a resolved SVG into artwork.
 * @param svg the resolver's text
 * @param moreFindings what the resolver's side already found
 * @param layers names of layers by the id of their group
 * @throws Error when the text is not a resolved SVG (a programming error: files are checked before)
 */
export function readResolvedSvg(
  svg: string,
  moreFindings: readonly Finding[] = [],
  layers: ReadonlyMap<string, string> = new Map(),
): Artwork {
  const root = parseXml(svg);
  if (root.name !== 'svg') throw new Error('not a resolved SVG');
  const reader: Reader = {
    defs: collectIds(root),
    clips: [],
    clipIndex: new Map(),
    shapes: [],
    counts: { pattern: 0, image: 0, mask: 0, veil: 0, filter: 0 },
    layers,
  };
  const page = {
    width: Number(root.attributes.width) * MM_PER_PX,
    height: Number(root.attributes.height) * MM_PER_PX,
  };
  readChildren(reader, root, { matrix: pageMatrix(root), clips: [], opacity: 1 });
  const pageClip = clipToPage(reader.shapes, reader.clips, page);
  return {
    page,
    shapes: pageClip.shapes,
    clips: pageClip.clips,
    findings: [...moreFindings, ...troubleFindings(reader), ...pageClip.findings],
  };
}

function troubleFindings({ counts }: Reader): Finding[] {
  return (Object.keys(counts) as Trouble[])
    .filter((code) => counts[code] > 0)
    .map((code) => ({ code, ...TROUBLES[code](counts[code]) }));
}

function collectIds(root: Element): Map<string, Element> {
  const found = new Map<string, Element>();
  const visit = (element: Element): void => {
    if (element.attributes.id) found.set(element.attributes.id, element);
    element.children.forEach(visit);
  };
  root.children.filter((child) => child.name === 'defs').forEach(visit);
  return found;
}

/** viewBox and preserveAspectRatio (SVG 2, 8.7) onto the page in mm. */
function pageMatrix(root: Element): Matrix {
  const { width, height, viewBox, preserveAspectRatio = 'xMidYMid' } = root.attributes;
  const toMm = scaling(MM_PER_PX);
  if (!viewBox) return toMm;
  const [x, y, w, h] = viewBox.split(/[\s,]+/).map(Number);
  const sx = Number(width) / w;
  const sy = Number(height) / h;
  if (preserveAspectRatio.startsWith('none'))
    return multiply(toMm, multiply(scaling(sx, sy), translation(-x, -y)));
  const s = preserveAspectRatio.includes('slice') ? Math.max(sx, sy) : Math.min(sx, sy);
  const align = (axis: 'x' | 'Y'): number => {
    const word = preserveAspectRatio.slice(axis === 'x' ? 1 : 5, axis === 'x' ? 4 : 8);
    return word === 'Min' ? 0 : word === 'Max' ? 1 : 0.5;
  };
  const dx = (Number(width) - w * s) * align('x');
  const dy = (Number(height) - h * s) * align('Y');
  return multiply(toMm, multiply(translation(dx, dy), multiply(scaling(s), translation(-x, -y))));
}

function readChildren(reader: Reader, parent: Element, inherited: Inherited): void {
  for (const child of parent.children) {
    if (child.name === 'g') readGroup(reader, child, inherited);
    else if (child.name === 'path' && isVisible(child)) readPath(reader, child, inherited);
    else if (child.name === 'image') reader.counts.image++;
  }
}

function readGroup(reader: Reader, group: Element, inherited: Inherited): void {
  const { attributes } = group;
  const matrix = multiply(inherited.matrix, parseMatrix(attributes.transform));
  const clips = [...inherited.clips];
  const opacity = inherited.opacity * opacityOf(attributes.opacity);
  if (attributes.filter) reader.counts.filter++;
  const clipId = reference(attributes['clip-path']);
  if (clipId) clips.push(clipFor(reader, clipId, matrix, group));
  const maskId = reference(attributes.mask);
  if (maskId) {
    const mask = maskAsClip(reader, maskId, matrix, group);
    if (mask === undefined) reader.counts.mask++;
    else clips.push(mask);
  }
  const layer = inherited.layer ?? layerName(reader, attributes.id);
  readChildren(reader, group, { matrix, clips, opacity, layer });
}

/** A named layer by its name; a group with an id of its own by that. */
const layerName = (reader: Reader, id: string | undefined): string | undefined =>
  id ? (reader.layers.get(id) ?? id) : undefined;

function readPath(reader: Reader, element: Element, inherited: Inherited): void {
  const { attributes } = element;
  const matrix = multiply(inherited.matrix, parseMatrix(attributes.transform));
  const path = parsePathData(attributes.d ?? '');
  if (path.ops.length === 0) return;
  const { layer, clips, opacity } = inherited;
  const common = { id: attributes.id, layer, path, matrix, clips };
  const fillRule: Fill = attributes['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero';
  const filled = seenPaint(
    reader,
    attributes.fill ?? '#000000',
    opacity * opacityOf(attributes['fill-opacity']),
  );
  const fill = (): void => {
    if (filled) reader.shapes.push({ ...common, ...filled, fill: fillRule });
  };
  const stroke = (): void => {
    const style = strokeStyle(attributes);
    if (!(style.width > 0)) return;
    const paint = seenPaint(
      reader,
      attributes.stroke ?? 'none',
      opacity * opacityOf(attributes['stroke-opacity']),
    );
    const alsoFilled = filled !== undefined;
    if (paint) reader.shapes.push({ ...common, ...paint, fill: 'nonzero', stroke: style, alsoFilled });
  };
  const strokeFirst = (attributes['paint-order'] ?? '').trim().startsWith('stroke');
  (strokeFirst ? [stroke, fill] : [fill, stroke]).forEach((paint) => paint());
}

/** The one colour a paint is seen in and what film cannot show of it; undefined when nothing of it is seen. */
function seenPaint(
  reader: Reader,
  paint: string,
  opacity: number,
): Pick<Shape, 'colour' | 'look'> | undefined {
  if (paint === 'none' || opacity < UNSEEN_OPACITY) return undefined;
  const look = opacity < 0.995 ? ('translucent' as const) : undefined;
  const id = reference(paint);
  if (!id) return { colour: parseColour(paint), look };
  const server = reader.defs.get(id);
  if (server?.name === 'linearGradient' || server?.name === 'radialGradient') {
    return { colour: flatColour(server), look: 'gradient' };
  }
  reader.counts.pattern++;
  return undefined;
}

/** A clip as it applies to one group; the same clip under another matrix is another entry. */
function clipFor(reader: Reader, id: string, matrix: Matrix, group: Element): number {
  const element = reader.defs.get(id);
  const key = `${id} ${matrix.join(' ')}`;
  const boxed = element?.attributes.clipPathUnits === 'objectBoundingBox';
  const known = reader.clipIndex.get(key);
  if (known !== undefined && !boxed) return known;
  const own = multiply(matrix, parseMatrix(element?.attributes.transform));
  const inner = boxed ? multiply(own, boxMatrix(group)) : own;
  const parentId = reference(element?.attributes['clip-path']);
  const parent = parentId && parentId !== id ? clipFor(reader, parentId, matrix, group) : undefined;
  const outlines = element ? outlinesIn(element, inner) : [];
  reader.clips.push({ outlines, parent });
  reader.clipIndex.set(key, reader.clips.length - 1);
  return reader.clips.length - 1;
}

function outlinesIn(element: Element, matrix: Matrix): Clip['outlines'][number][] {
  return element.children.flatMap((child) => {
    const own = multiply(matrix, parseMatrix(child.attributes.transform));
    if (child.name === 'g') return outlinesIn(child, own);
    if (child.name !== 'path' || !isVisible(child)) return [];
    const fill: Fill =
      child.attributes['clip-rule'] === 'evenodd' || child.attributes['fill-rule'] === 'evenodd'
        ? 'evenodd'
        : 'nonzero';
    return [{ path: parsePathData(child.attributes.d ?? ''), matrix: own, fill }];
  });
}

/** A mask as clips; undefined when it holds what has no outline. */
function maskAsClip(reader: Reader, id: string, matrix: Matrix, group: Element): number | undefined {
  const mask = reader.defs.get(id);
  if (!mask) return undefined;
  const { maskContentUnits, mask: outerMask } = mask.attributes;
  const inner = maskContentUnits === 'objectBoundingBox' ? multiply(matrix, boxMatrix(group)) : matrix;
  const reading = readMask(mask, inner, reader.defs);
  if (!reading) return undefined;
  if (reading.isFaded) reader.counts.veil++;
  const outerId = reference(outerMask);
  const outer = outerId && outerId !== id ? maskAsClip(reader, outerId, matrix, group) : undefined;
  if (outerId && outer === undefined) reader.counts.mask++;
  reader.clips.push({ outlines: [maskFrame(mask, matrix, group)], parent: outer });
  reader.clips.push({ ...reading.clip, parent: reader.clips.length - 1 });
  return reader.clips.length - 1;
}

/** The box beyond which a mask lets nothing be seen (CSS Masking 1, 8.2). */
function maskFrame({ attributes }: Element, matrix: Matrix, group: Element): ClipOutline {
  const [x, y, w, h] = ['x', 'y', 'width', 'height'].map((name) => Number(attributes[name]));
  const boxed = attributes.maskUnits !== 'userSpaceOnUse';
  return {
    path: { ops: 'MLLLZ', xy: [x, y, x + w, y, x + w, y + h, x, y + h] },
    matrix: boxed ? multiply(matrix, boxMatrix(group)) : matrix,
    fill: 'nonzero',
  };
}

/** The unit square onto the group's own box, for clips given in fractions of it. */
function boxMatrix(group: Element): Matrix {
  const box = boundsIn(group, IDENTITY);
  return [widthOf(box), 0, 0, heightOf(box), box.minX, box.minY];
}

function boundsIn(element: Element, matrix: Matrix): Bounds {
  return element.children.reduce((box, child) => {
    const own = multiply(matrix, parseMatrix(child.attributes.transform));
    if (child.name === 'g') return joinBounds(box, boundsIn(child, own));
    if (child.name !== 'path') return box;
    return joinBounds(box, pathBounds(parsePathData(child.attributes.d ?? ''), own));
  }, emptyBounds());
}
