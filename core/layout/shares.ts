/** Several orders on one strip: how much of it is whose. */
import { heightOf, widthOf } from '../geometry/bounds';
import type { Placement, Strip } from './strip';

/** What of a strip is one order's. */
export interface Share {
  /** Its number; missing: the order that was planned. */
  readonly order?: number;
  readonly copies: number;
  /** Of the film used, 0 … 1; all shares of a strip make 1. */
  readonly share: number;
}

/** Film shared out by the area of what each order has on it, its own order first. */
export function sharesOf({ placements }: Pick<Strip, 'placements'>): readonly Share[] {
  const byArt = placements.some(({ part }) => part.area > 0);
  // lines alone have no area: then what they take up counts
  const areaOf = ({ part, box }: Placement): number => (byArt ? part.area : widthOf(box) * heightOf(box));
  const all = placements.reduce((sum, one) => sum + areaOf(one), 0);
  return [...byOrder(placements, ({ part }) => part.order)].map(([order, its]): Share => ({
    ...(order !== undefined && { order }),
    copies: new Set(its.map(({ copy }) => copy)).size,
    share: its.reduce((sum, one) => sum + areaOf(one), 0) / all,
  }));
}

/** mm² of art on a strip. */
export const artOn = ({ placements }: Pick<Strip, 'placements'>): number =>
  placements.reduce((sum, { part }) => sum + part.area, 0);

/** Things order by order, in the order in which orders first come; the planned order's own before all. */
export function byOrder<T>(
  things: readonly T[],
  orderOf: (thing: T) => number | undefined,
): ReadonlyMap<number | undefined, readonly T[]> {
  const groups = new Map<number | undefined, T[]>();
  for (const thing of things) {
    const order = orderOf(thing);
    const group = groups.get(order);
    if (group) group.push(thing);
    else groups.set(order, [thing]);
  }
  return new Map([...groups].sort(([a], [b]) => Number(a !== undefined) - Number(b !== undefined)));
}
