/** Cuts of one film that wait at one cutter and may lie on one strip. */

/** What of a cut decides whether others can be laid beside it. */
export interface Joinable {
  readonly id: number;
  readonly cutter: string;
  /** Id of its film. */
  readonly film: string;
  /** Orders whose art it holds, by id: the one that it was queued with first. */
  readonly orders: readonly number[];
}

/**
 * Groups that may be joined, each in the order in which its cuts come: of one film at one cutter, of several orders. Where
 * several hold art of more than one order already, the first of these counts and the others stay as they are: an order is
 * cut with one other.
 */
export function groupsToJoin<T extends Joinable>(cuts: readonly T[]): readonly (readonly T[])[] {
  const groups = new Map<string, T[]>();
  for (const cut of cuts) {
    const key = JSON.stringify([cut.cutter, cut.film]);
    groups.set(key, [...(groups.get(key) ?? []), cut]);
  }
  return [...groups.values()].map(withOneHost).filter((group) => ordersOf(group).length > 1);
}

function withOneHost<T extends Joinable>(group: readonly T[]): readonly T[] {
  const host = hostOf(group);
  return group.filter(({ orders }) => orders.length === 1 || orders[0] === host);
}

/** Whose strip the others are laid on: the order that has others on its strip already, or the one that comes first. */
export function hostOf(group: readonly Pick<Joinable, 'orders'>[]): number {
  return (group.find(({ orders }) => orders.length > 1) ?? group[0]).orders[0];
}

/** All orders of a group, each once, in the order in which they come. */
export const ordersOf = (group: readonly Pick<Joinable, 'orders'>[]): readonly number[] => [
  ...new Set(group.flatMap(({ orders }) => orders)),
];

/** What cuts come to. */
export interface StripsWorth {
  readonly strips: number;
  /** mm of film, all strips one after the other. */
  readonly length: number;
  /** s */
  readonly seconds: number;
}

export const stripsWorth = (
  cuts: readonly { readonly length: number; readonly seconds: number }[],
): StripsWorth => ({
  strips: cuts.length,
  length: cuts.reduce((sum, { length }) => sum + length, 0),
  seconds: cuts.reduce((sum, { seconds }) => sum + seconds, 0),
});

/** mm that are no more film: rounding. */
const SAME = 0.01;

/** Whether joined cuts are fewer strips and take no more film. */
export const isWorthJoining = (now: StripsWorth, then: StripsWorth): boolean =>
  then.strips < now.strips && then.length <= now.length + SAME;
