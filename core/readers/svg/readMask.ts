/**
 * Masks of a resolved SVG as geometry (CSS Masking 1, 7 and 8): what a mask paints light, or opaque, is seen; what it
 * paints dark over that is not. Half-lit parts cannot be cut: they go to the nearer side, and it is said.
 */
import type { Clip, ClipOutline, StrokeStyle } from '../artwork';
import type { Matrix } from '../../geometry/matrix';
import { multiply } from '../../geometry/matrix';
import { parsePathData } from './pathData';
import { channels, flatColour } from '../paint';
import type { Element } from './xml';
import { isVisible, opacityOf, parseMatrix, reference, strokeStyle } from './svgAttributes';

export interface MaskReading {
  readonly clip: Clip;
  /** Some of it lets its shapes shine through partly. */
  readonly isFaded: boolean;
}

/** Light between these is neither on nor off. */
const DARK = 0.02;
const LIGHT = 0.98;

interface Light {
  readonly opacity: number;
  readonly byAlpha: boolean;
}

/**
 * Reads what a mask lets through.
 * @param matrix the mask's content → mm
 * @param defs gradients by id
 * @returns undefined when it holds what has no outline: pictures, patterns, filters, clips of its own
 */
export function readMask(
  mask: Element,
  matrix: Matrix,
  defs: ReadonlyMap<string, Element>,
): MaskReading | undefined {
  const byAlpha = /alpha/.test(`${mask.attributes['mask-type'] ?? ''} ${mask.attributes.style ?? ''}`);
  const painted = paintsIn(mask, matrix, { opacity: 1, byAlpha }, defs);
  if (!painted) return undefined;
  const outlines = painted.flatMap((paint): ClipOutline[] => {
    // a veil that lets more than half of what lies beneath it through leaves it as it was
    if (paint.opacity < 0.5) return [];
    return [{ ...paint.outline, isHole: paint.light < 0.5 }];
  });
  return { clip: { outlines }, isFaded: painted.some(isHalfLit) };
}

interface Paint {
  readonly outline: ClipOutline;
  /** 0 … 1, as it lies there alone. */
  readonly light: number;
  readonly opacity: number;
}

const isHalfLit = ({ light, opacity }: Paint): boolean =>
  (light > DARK && light < LIGHT) || (opacity > DARK && opacity < LIGHT);

/** Bottom paint first. */
function paintsIn(
  parent: Element,
  matrix: Matrix,
  light: Light,
  defs: ReadonlyMap<string, Element>,
): Paint[] | undefined {
  const all = parent.children.map((child): Paint[] | undefined => {
    const { attributes } = child;
    const own = multiply(matrix, parseMatrix(attributes.transform));
    if (child.name === 'path') return isVisible(child) ? paintsOf(child, own, light, defs) : [];
    if (child.name !== 'g' || attributes.filter || attributes['clip-path'] || attributes.mask)
      return undefined;
    return paintsIn(child, own, { ...light, opacity: light.opacity * opacityOf(attributes.opacity) }, defs);
  });
  return all.every((paints) => paints !== undefined) ? all.flat() : undefined;
}

function paintsOf(
  element: Element,
  matrix: Matrix,
  light: Light,
  defs: ReadonlyMap<string, Element>,
): Paint[] | undefined {
  const { attributes } = element;
  const path = parsePathData(attributes.d ?? '');
  const paints: Paint[] = [];
  const add = (colour: string, opacity: string | undefined, stroke?: StrokeStyle): boolean => {
    if (colour === 'none') return true;
    const seen = lit(colour, light.opacity * opacityOf(opacity), light.byAlpha, defs);
    const fill = attributes['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero';
    if (seen) paints.push({ outline: { path, matrix, fill, stroke }, ...seen });
    return seen !== undefined;
  };
  const known =
    add(attributes.fill ?? '#000000', attributes['fill-opacity']) &&
    add(attributes.stroke ?? 'none', attributes['stroke-opacity'], strokeStyle(attributes));
  return known ? paints : undefined;
}

function lit(
  paint: string,
  opacity: number,
  byAlpha: boolean,
  defs: ReadonlyMap<string, Element>,
): Pick<Paint, 'light' | 'opacity'> | undefined {
  if (byAlpha) return { light: opacity, opacity };
  const id = reference(paint);
  if (!id) return { light: luminance(paint), opacity };
  const server = defs.get(id);
  if (!server?.name.endsWith('Gradient')) return undefined;
  // a gradient fades wherever its mean is: half-lit on purpose
  const mean = luminance(flatColour(server));
  return { light: Math.min(LIGHT - DARK, Math.max(2 * DARK, mean)), opacity };
}

/** Luminance of an sRGB colour by its coefficients as CSS Masking 1 (7.10.1) takes them, 0 … 1. */
function luminance(colour: string): number {
  const [r, g, b] = channels(colour);
  return (0.2125 * r + 0.7154 * g + 0.0721 * b) / 255;
}
