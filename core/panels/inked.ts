import type { Polyline } from '../geometry/path';
import type { Region } from '../geometry/region';
import { strokeOutline } from '../geometry/region';

/** Width that a line is kept clear of as, mm. */
const PEN = 0.5;

/** All that is art: what is cut around, and lines that a tool follows, which have no area of their own. */
export const inkedBy = (art: { readonly region: Region; readonly lines: readonly Polyline[] }): Region =>
  art.lines.length === 0
    ? art.region
    : [...art.region, ...strokeOutline(art.lines, PEN, { join: 'round', cap: 'round', miterLimit: 2 })];
