/** What several people say of one run at the same time, put together place by place. */
import type { Measured } from './run';

/**
 * What is measured once somebody has changed it who may not have seen what others said meanwhile: only what differs between
 * what they saw and what they made of it is taken over.
 * @param kept as it is kept, whoever said it
 */
export const bothSaid = (kept: Measured, was: Measured, now: Measured): Measured =>
  withoutGaps({
    off: placesOf(kept.off, was.off, now.off),
    lengths: placesOf(kept.lengths, was.lengths, now.lengths),
    looks: placesOf(kept.looks, was.looks, now.looks),
    picked: now.picked === was.picked ? kept.picked : now.picked,
    trusted: numbersOf(kept.trusted, was.trusted, now.trusted),
    leftOut: numbersOf(kept.leftOut, was.leftOut, now.leftOut),
  });

type Places<T> = readonly (T | null)[] | undefined;

function placesOf<T>(kept: Places<T>, was: Places<T>, now: Places<T>): Places<T> {
  if (!kept || !now) return now ?? kept;
  return Array.from({ length: Math.max(kept.length, now.length) }, (_, i) =>
    String(now[i] ?? null) === String(was?.[i] ?? null) ? (kept[i] ?? null) : (now[i] ?? null),
  );
}

/** Numbers of a set: those that were put in or taken out. */
function numbersOf(
  kept: readonly number[] = [],
  was: readonly number[] = [],
  now: readonly number[] = [],
): readonly number[] | undefined {
  const all = new Set(kept.filter((one) => now.includes(one) || !was.includes(one)));
  for (const one of now) if (!was.includes(one)) all.add(one);
  return all.size > 0 ? [...all] : undefined;
}

const withoutGaps = (measured: Measured): Measured =>
  Object.fromEntries(Object.entries(measured).filter(([, value]) => value !== undefined));
