/**
 * A place in mm. A pair and not an object with x and y: the polygon library keeps its whole-numbered grid points in
 * such objects, the engine shares one layout between all of them, and a single one with fractions in it makes every
 * boolean after it two to three times slower.
 */
export type Spot = readonly [x: number, y: number];

/** A list x, y, x, y … with each place where a map has it. */
export const placesMapped = (
  points: ArrayLike<number>,
  map: (at: Spot) => readonly [x: number, y: number],
): number[] => {
  const out: number[] = [];
  for (let i = 0; i + 1 < points.length; i += 2) {
    const [x, y] = map([points[i], points[i + 1]]);
    out.push(x, y);
  }
  return out;
};
