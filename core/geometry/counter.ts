import { isInside } from './nesting';
import type { Region } from './region';
import { regionArea, ringArea } from './region';
import type { Spot } from './spot';

/** A hole more than this many times larger than its shape counts as a frame's window, not as a letter's counter (our own). */
const WINDOW = 6;

/**
 * The counter around a place: a hole of the shape that is small enough for a tap in it to select the shape.
 * @param shape outlines, holes turned the other way
 * @returns its area, mm²; undefined: it lies in none
 */
export function counterAt(shape: Region, at: Spot): number | undefined {
  const holes = shape
    .filter((ring) => ringArea(ring) < 0 && isInside(ring, at))
    .map((ring) => -ringArea(ring));
  if (holes.length === 0) return undefined;
  const least = holes.reduce((a, b) => Math.min(a, b));
  return least <= WINDOW * regionArea(shape) ? least : undefined;
}

/** Of several shapes the one in whose counter a place lies, the smallest counter first; undefined: it lies in none. */
export function aroundCounter<T>(
  shapes: readonly T[],
  regionOf: (shape: T) => Region,
  at: Spot,
): T | undefined {
  const found = shapes.flatMap((shape) => {
    const area = counterAt(regionOf(shape), at);
    return area === undefined ? [] : [{ shape, area }];
  });
  return found.sort((a, b) => a.area - b.area)[0]?.shape;
}
