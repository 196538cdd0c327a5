/** Dots of a picture that a trace loses before it has outlines of them. */
import type { EdgeZone } from './edges';
import { EDGE } from './edges';
import type { Field } from './picture';

/**
 * Takes pixels apart into dots: what touches at a side or a corner is one.
 * @param isOf whether a pixel belongs to a dot
 * @returns how large each is, px across
 */
export function dotSizes(
  pixels: Iterable<number>,
  width: number,
  isOf: (pixel: number) => boolean,
): number[] {
  const seen = new Set<number>();
  const sizes: number[] = [];
  for (const first of pixels) {
    if (seen.has(first) || !isOf(first)) continue;
    const open = [first];
    seen.add(first);
    let [minX, maxX, minY, maxY] = [Infinity, -Infinity, Infinity, -Infinity];
    for (let at = open.pop(); at !== undefined; at = open.pop()) {
      const [x, y] = [at % width, Math.floor(at / width)];
      [minX, maxX] = [Math.min(minX, x), Math.max(maxX, x)];
      [minY, maxY] = [Math.min(minY, y), Math.max(maxY, y)];
      for (const by of around(width)) {
        const next = at + by;
        if (seen.has(next) || !isOf(next)) continue;
        seen.add(next);
        open.push(next);
      }
    }
    sizes.push(1 + Math.max(maxX - minX, maxY - minY));
  }
  return sizes;
}

const around = (width: number): readonly number[] => [
  ...[-width - 1, -width, 1 - width, -1],
  ...[1, width - 1, width, width + 1],
];

/** Sizes of the dots, and of the holes, that smoothing leaves nothing of, px across. */
export function smoothedAway({ values }: Field, { levels, pixels, width }: EdgeZone): number[] {
  const was = (pixel: number): boolean => values[pixel] > 0.5;
  const is = (pixel: number): boolean => (levels[pixel] === 0 ? was(pixel) : levels[pixel] > EDGE);
  const isGone = (pixel: number): boolean =>
    was(pixel) !== is(pixel) && around(width).every((by) => is(pixel + by) === is(pixel));
  return dotSizes(pixels, width, isGone);
}
