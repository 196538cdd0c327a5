/** How far long work has come, told while it runs. */

/** Hears a share of the work, 0 … 1, rising. */
export type Tell = (share: number) => void;

export const untold: Tell = () => {};

/** Tells one step's share as a share of the whole, of which it is what lies between `from` and `to`. */
export const between =
  (from: number, to: number, tell: Tell): Tell =>
  (share) =>
    tell(from + (to - from) * share);
