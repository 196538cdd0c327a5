import { rounded } from '../units/rounded';
import type { Polyline } from './path';
import type { Region } from './region';

/** SVG path data of a region in mm, µm exact: every ring closed, holes wound against their outer ring. */
export function regionToPathData(region: Region): string {
  return region.map(ringToPathData).join('');
}

/** SVG path data of one line, open or closed. */
export function lineToPathData({ points, closed }: Polyline): string {
  let d = `M${short(points[0])} ${short(points[1])}`;
  for (let i = 2; i < points.length; i += 2) d += `L${short(points[i])} ${short(points[i + 1])}`;
  return closed ? `${d}Z` : d;
}

/** SVG path data of one ring. */
export const ringToPathData = (ring: Float64Array): string => lineToPathData({ points: ring, closed: true });

const short = (mm: number): string => String(rounded(mm));
