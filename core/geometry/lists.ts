/** What spreading into a call would do, for lists of any length: a call takes no more arguments than the stack holds. */

/** Adds all of `more` behind `list`. */
export function append<T>(list: T[], more: Iterable<T>): void {
  for (const one of more) list.push(one);
}

/** The largest of the values and `least`. */
export function largest(values: Iterable<number>, least = -Infinity): number {
  let most = least;
  for (const value of values) if (value > most) most = value;
  return most;
}

/** The smallest of the values and `most`. */
export function smallest(values: Iterable<number>, most = Infinity): number {
  let least = most;
  for (const value of values) if (value < least) least = value;
  return least;
}
