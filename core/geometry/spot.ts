/**
 * A place in mm. A pair and not an object with x and y: the polygon library keeps its whole-numbered grid points in
 * such objects, the engine shares one layout between all of them, and a single one with fractions in it makes every
 * boolean after it two to three times slower.
 */
export type Spot = readonly [x: number, y: number];
