/** How a trailing tip lies after a move of its holder. */
import type { Spot } from '../geometry/spot';

/** Unit vector in which the tip trails: from the tip to the holder. */
export type Heading = Spot;

/** `dragStraight` of core/swivel for a unit vector: tan(φ/2) shrinks by e^(−s/d). */
export function dragged(hx: number, hy: number, dx: number, dy: number, d: number): Heading {
  const s = Math.hypot(dx, dy);
  if (s === 0) return [hx, hy];
  const [ux, uy] = [dx / s, dy / s];
  const along = hx * ux + hy * uy;
  const aside = ux * hy - uy * hx;
  // pushed straight back it stays so
  if (along <= -1 + 1e-12) return [hx, hy];
  const half = (aside / (1 + along)) * Math.exp(-s / d);
  const [c, q] = [(1 - half * half) / (1 + half * half), (2 * half) / (1 + half * half)];
  return [c * ux - q * uy, c * uy + q * ux];
}
