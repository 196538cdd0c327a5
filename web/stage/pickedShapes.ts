/** Shapes picked on the sign by tapping them: a second tap lets go. */
import { ref, shallowRef } from 'vue';
import { liesOn, placeOn } from '../../core/geometry/nesting';
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

  /** With a place on it: what is tapped may be its counter. */
  async function find(place: Place): Promise<PickedShape | undefined> {
    const region = await shapeAt(place);
    missed.value = region === undefined;
    return region && { ...(liesOn(region, [place.x, place.y]) ? place : placeOn(region)), region };
  }
  async function take(place: Place): Promise<void> {
    const found = await find(place);
    if (found) picked.value = [...picked.value, found];
  }
  /** Takes the shape at a place, or lets go of it again. */
  async function tap(place: Place): Promise<void> {
    missed.value = false;
    const found = await find(place);
    if (!found) return;
    const without = picked.value.filter(({ region }) => !liesOn(region, [found.x, found.y]));
    picked.value = without.length < picked.value.length ? without : [...without, found];
  }
  /** Each by a place on it. */
  const places = (): Place[] => picked.value.map(({ x, y }) => ({ x, y }));
  return { picked, missed, take, tap, places };
}
