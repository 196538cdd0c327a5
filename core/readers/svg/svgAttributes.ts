/** Attributes of a resolved SVG's elements. */
import type { StrokeStyle } from '../artwork';
import type { Element } from './xml';
import type { Matrix } from '../../geometry/matrix';
import { IDENTITY } from '../../geometry/matrix';

/** The id that a `url(#…)` names. */
export const reference = (value: string | undefined): string | undefined =>
  /url\(\s*["']?#([^"')]+)/.exec(value ?? '')?.[1];

/** The resolver keeps hidden paths, since they count for the box of their group. */
export const isVisible = ({ attributes }: Element): boolean =>
  attributes.visibility === undefined || attributes.visibility === 'visible';

export const opacityOf = (value: string | undefined): number => Number(value ?? 1);

export function parseMatrix(transform: string | undefined): Matrix {
  const numbers = /matrix\(([^)]*)\)/
    .exec(transform ?? '')?.[1]
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  return numbers?.length === 6 ? (numbers as unknown as Matrix) : IDENTITY;
}

export function strokeStyle(attributes: Readonly<Record<string, string>>): StrokeStyle {
  const join = attributes['stroke-linejoin'];
  const cap = attributes['stroke-linecap'];
  const dashes = attributes['stroke-dasharray'];
  return {
    width: Number(attributes['stroke-width'] ?? 1),
    join: join === 'round' || join === 'bevel' ? join : 'miter',
    cap: cap === 'round' || cap === 'square' ? cap : 'butt',
    miterLimit: Number(attributes['stroke-miterlimit'] ?? 4),
    dashes: dashes && dashes !== 'none' ? dashes.split(/[\s,]+/).map(Number) : [],
    dashStart: Number(attributes['stroke-dashoffset'] ?? 0),
  };
}
