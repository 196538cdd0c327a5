/** How much of a large set of cases a test goes through: a part of it each time, or all of it in the long run. */
import { random } from './random';

/** `npm run test:long`: everything is gone through. */
export const IS_LONG = process.env.JAM_PAN_LONG === '1';

/** What is drawn by chance: the run's own seed, or another one each day. */
export const SEED = Number(process.env.JAM_PAN_SEED ?? Math.floor(Date.now() / 86_400_000));

/** So many of the cases, picked by the run's seed; in the long run all of them. */
export function sample<T>(cases: readonly T[], count: number): readonly T[] {
  if (IS_LONG) return cases;
  const next = random(SEED);
  const keyed = cases.map((one) => ({ one, key: next() }));
  return keyed
    .sort((a, b) => a.key - b.key)
    .slice(0, count)
    .map(({ one }) => one);
}

/** How often a test tries what it draws by chance: as often as proves it, or as often as a run of ten minutes allows. */
export const times = (inLong: number, otherwise: number): number => (IS_LONG ? inLong : otherwise);
