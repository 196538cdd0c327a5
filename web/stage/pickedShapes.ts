/** Shapes picked on the sign by tapping them: a second tap lets go. */
import { ref, shallowRef } from 'vue';
import { liesOn } from '../../core/geometry/nesting';
import type { Region } from '../../core/geometry/region';
import type { Place } from '../../core/panels/choices';

export interface PickedShape extends Place {
  readonly region: Region;
}

/** @param shapeAt the shape that a tap means; undefined: none lies there */
export function usePickedShapes(shapeAt: (place: Place) => Promise<Region | undefined>) {
  const picked = shallowRef<readonly PickedShape[]>([]);
  /** The last tap met nothing. */
  const missed = ref(false);

  async function take(place: Place): Promise<void> {
    const region = await shapeAt(place);
    missed.value = region === undefined;
    if (region) picked.value = [...picked.value, { ...place, region }];
  }
  /** Takes the shape at a place, or lets go of it again. */
  async function tap(place: Place): Promise<void> {
    missed.value = false;
    const without = picked.value.filter(({ region }) => !liesOn(region, [place.x, place.y]));
    if (without.length < picked.value.length) picked.value = without;
    else await take(place);
  }
  /** Each by a place on it. */
  const places = (): Place[] => picked.value.map(({ x, y }) => ({ x, y }));
  return { picked, missed, take, tap, places };
}
