/** A region as it is handed to the page. */
import { groupNested } from '../../core/geometry/nesting';
import type { Region } from '../../core/geometry/region';

/** Rings one behind the other; `groups` ends an outermost outline with its holes, `rings` each ring. */
export interface PackedRegion {
  readonly xy: Float32Array;
  readonly rings: Uint32Array;
  readonly groups: Uint32Array;
}

export function packRegion(region: Region): PackedRegion {
  const groups = groupNested(region);
  const count = region.reduce((sum, ring) => sum + ring.length, 0);
  const xy = new Float32Array(count);
  const rings = new Uint32Array(region.length);
  const ends = new Uint32Array(groups.length);
  let at = 0;
  let ring = 0;
  groups.forEach((group, g) => {
    for (const index of group.rings) {
      xy.set(region[index], at);
      at += region[index].length;
      rings[ring++] = at;
    }
    ends[g] = ring;
  });
  return { xy, rings, groups: ends };
}
