import type { Region } from './region';

/** SVG path data of a region in mm, µm exact: every ring closed, holes wound against their outer ring. */
export function regionToPathData(region: Region): string {
  return region.map(ringToPathData).join('');
}

/** SVG path data of one ring. */
export function ringToPathData(ring: Float64Array): string {
  let d = `M${short(ring[0])} ${short(ring[1])}`;
  for (let i = 2; i < ring.length; i += 2) d += `L${short(ring[i])} ${short(ring[i + 1])}`;
  return `${d}Z`;
}

const short = (mm: number): string => String(Math.round(mm * 1000) / 1000);
