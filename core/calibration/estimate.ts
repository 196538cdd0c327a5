/** What was found of a quantity, and how sure that is. */

export interface Estimate {
  readonly value: number;
  /** Half of the interval that holds the truth in 95 of 100 runs. */
  readonly sure: number;
}

/** Chance that an interval holds the truth. */
export const SURE = 0.95;
/** The same of a variance that is known: the normal's 97.5 % point. */
export const SURE_OF_KNOWN = 1.959964;

/** Two that differ by no more than their errors together. */
export const agree = (a: Estimate, b: Estimate): boolean =>
  Math.abs(a.value - b.value) <= Math.hypot(a.sure, b.sure);

/** The mean of what was found of the same, each as much as it is sure (Gauss's weights); none: undefined. */
export function combined(found: readonly Estimate[]): Estimate | undefined {
  const exact = found.find(({ sure }) => sure === 0);
  if (exact || found.length === 0) return exact;
  const weights = found.map(({ sure }) => 1 / (sure * sure));
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  const value = found.reduce((sum, one, i) => sum + weights[i] * one.value, 0) / all;
  return { value, sure: 1 / Math.sqrt(all) };
}

/** A value as it is and as it should be. */
export interface Change extends Estimate {
  readonly before: number;
  /** Why it is left as it is; undefined: the change is worth making. */
  readonly left?: 'below-step' | 'inside-noise';
}

/** What a finding changes. @param step smallest change that makes a difference */
export function changeOf(before: number, { value, sure }: Estimate, step: number): Change {
  const by = Math.abs(value - before);
  if (by < step) return { before, value, sure, left: 'below-step' };
  return by <= sure ? { before, value, sure, left: 'inside-noise' } : { before, value, sure };
}

/** Values tried before that are these again, no further off than a step; the latest of them. */
export const triedBefore = <Tried extends { readonly values: readonly number[] }>(
  tried: readonly Tried[],
  values: readonly number[],
  step: number,
): Tried | undefined =>
  tried.findLast(
    (one) =>
      one.values.length === values.length &&
      one.values.every((value, i) => Math.abs(value - values[i]) <= step),
  );
