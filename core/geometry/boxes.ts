/** Things that are found by where their boxes lie. */
import Flatbush from 'flatbush';
import type { Bounds } from './bounds';
import { emptyBounds, growBounds } from './bounds';

/** An index of one or more boxes; `search` answers with their places in the list. */
export function indexOfBoxes(boxes: readonly Bounds[]): Flatbush {
  const index = new Flatbush(boxes.length);
  for (const { minX, minY, maxX, maxY } of boxes) index.add(minX, minY, maxX, maxY);
  index.finish();
  return index;
}

/** The boxes of one or more rings. */
export const boxesOf = (rings: readonly Float64Array[]): Flatbush =>
  indexOfBoxes(rings.map((ring) => growBounds(emptyBounds(), ring)));
