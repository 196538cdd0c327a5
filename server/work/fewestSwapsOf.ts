import type { FewestSwaps } from '../../contracts/floor';
import { fewestSwaps } from '../../core/floor/fewestSwaps';
import type { LaneCut, Loaded } from '../../core/floor/lane';
import { laneWorth } from '../../core/floor/lane';

interface Lane {
  readonly cutter: string;
  readonly loaded: Loaded | undefined;
  readonly cuts: readonly LaneCut[];
}

/** Orders of lanes with fewer changes; lanes that cannot be better are left out. */
export const fewestSwapsOf = ({ lanes }: { readonly lanes: readonly Lane[] }): FewestSwaps =>
  lanes.flatMap(({ cutter, loaded, cuts }) => {
    const order = fewestSwaps(cuts, loaded);
    const [now, then] = [laneWorth(cuts, loaded), laneWorth(order, loaded)];
    // what the machine has in hand is in no order
    const ids = order.filter(({ isBegun }) => !isBegun).map(({ id }) => id);
    return then.seconds < now.seconds || then.late < now.late ? [{ cutter, ids, now, then }] : [];
  });
