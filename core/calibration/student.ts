import { beyondF } from '../registration/fDistribution';

const PRECISE = 1e-12;

/**
 * Student's t that a share of chance lies within, both sides together: 0.95 and 6 degrees of freedom give 2.447.
 * Found by halving on the F distribution: t² with ν degrees of freedom is F with 1 and ν.
 * @param freedom ≥ 1
 */
export function studentWithin(share: number, freedom: number): number {
  let [low, high] = [0, 1];
  const isWithin = (t: number): boolean => 1 - beyondF(t * t, 1, freedom) < share;
  while (isWithin(high)) high *= 2;
  while (high - low > PRECISE * high) {
    const middle = (low + high) / 2;
    if (isWithin(middle)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
