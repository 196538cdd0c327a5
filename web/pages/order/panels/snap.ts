import type { InkSamples } from '../../../../core/panels/panelling';

/** How far a seam is drawn to a gap, px. */
const REACH = 9;

/**
 * Where a seam that is dragged comes to rest: in the middle of a gap in the art that is near, else on a whole millimetre.
 * @param scale px a mm
 */
export function snapped(to: number, ink: InkSamples | undefined, scale: number): number {
  const whole = Math.round(to);
  if (!ink || ink.at.length < 2) return whole;
  const step = (ink.to - ink.from) / (ink.at.length - 1);
  const near = Math.round((to - ink.from) / step);
  const reach = Math.ceil(REACH / scale / step);
  for (let by = 0; by <= reach; by++) {
    for (const i of [near - by, near + by]) {
      if (i <= 0 || i >= ink.at.length - 1 || ink.at[i] > 0) continue;
      let [low, high] = [i, i];
      while (low > 0 && ink.at[low - 1] === 0) low--;
      while (high < ink.at.length - 1 && ink.at[high + 1] === 0) high++;
      const middle = ink.from + ((low + high) / 2) * step;
      return Math.abs(middle - to) * scale <= REACH ? Math.round(middle * 10) / 10 : whole;
    }
  }
  return whole;
}
