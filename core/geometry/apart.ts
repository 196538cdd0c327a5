/** Outlines that lie apart, so that each group can be looked at by itself. */
import { indexOfBoxes } from './boxes';
import { emptyBounds, growBounds } from './bounds';

/**
 * Groups of rings whose boxes meet, directly or by way of others; groups and rings in the order in which they came.
 */
export function groupsApart(rings: readonly Float64Array[]): Float64Array[][] {
  if (rings.length < 2) return rings.length === 0 ? [] : [[...rings]];
  const bounds = rings.map((ring) => growBounds(emptyBounds(), ring));
  const boxes = indexOfBoxes(bounds);
  const group = new Int32Array(rings.length).fill(-1);
  const groups: Float64Array[][] = [];
  rings.forEach((_, first) => {
    if (group[first] >= 0) return;
    const own = groups.push([]) - 1;
    const open = [first];
    group[first] = own;
    for (let i = open.pop(); i !== undefined; i = open.pop()) {
      const { minX, minY, maxX, maxY } = bounds[i];
      boxes.search(minX, minY, maxX, maxY, (other) => {
        if (group[other] < 0) {
          group[other] = own;
          open.push(other);
        }
        return false;
      });
    }
  });
  rings.forEach((ring, i) => groups[group[i]].push(ring));
  return groups;
}
