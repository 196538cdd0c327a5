/** Force and speed in a machine's own steps, as its panel counts them: the first is the least that it has, the last the most. */
import { rounded } from '../units/rounded';
import type { Range } from './cutter';

/** Between one step and the next, g or cm/s; undefined: the machine has any value. */
export const stepSize = ({ least, most, steps }: Range): number | undefined =>
  steps === undefined || steps < 2 ? undefined : (most - least) / (steps - 1);

/** The number of the step nearest to a value; undefined: the machine counts none. */
export function ownStep(range: Range, value: number): number | undefined {
  const size = stepSize(range);
  if (size === undefined) return undefined;
  return 1 + Math.round((within(range, value) - range.least) / size);
}

/** What a step comes to. @param step 1 or more @param digits that are told: forces are in whole g */
export const ofStep = (range: Range, step: number, digits = 2): number =>
  rounded(within(range, range.least + (step - 1) * (stepSize(range) ?? 0)), digits);

/** The value that a machine does when it is told one: the nearest that it has. */
export function onOwnStep(range: Range, value: number, digits = 2): number {
  const step = ownStep(range, value);
  return step === undefined ? rounded(within(range, value), digits) : ofStep(range, step, digits);
}

const within = ({ least, most }: Range, value: number): number => Math.min(most, Math.max(least, value));

/**
 * The next value up or down that a machine does.
 * @param usual between one value and the next where its panel counts no steps
 */
export function nextStep(range: Range, value: number, by: 1 | -1, usual: number, digits = 2): number {
  const step = ownStep(range, value);
  return step === undefined
    ? rounded(within(range, value + by * usual), digits)
    : ofStep(range, Math.max(1, step + by), digits);
}
