/** Outlines that are found by where their boxes lie. */
import Flatbush from 'flatbush';
import type { Region } from './region';
import { ringBounds } from './region';

/** The boxes of one or more rings; `search` answers with the rings' places in the list. */
export function boxesOf(rings: Region): Flatbush {
  const index = new Flatbush(rings.length);
  for (const ring of rings) {
    const { minX, minY, maxX, maxY } = ringBounds(ring);
    index.add(minX, minY, maxX, maxY);
  }
  index.finish();
  return index;
}
