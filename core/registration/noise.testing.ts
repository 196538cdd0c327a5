import type { Spot } from '../geometry/spot';
import { random } from '../random';

/** Normally distributed numbers of chance (Box & Muller 1958). */
export function normal(seed: number): () => number {
  const next = random(seed);
  return () => Math.sqrt(-2 * Math.log(next() || 1e-12)) * Math.cos(2 * Math.PI * next());
}

/** A sheet with marks in its corners, and further ones along both long edges; the second row is not quite opposite. */
export function marksOf(width: number, height: number, between: number): Spot[] {
  const along = Array.from({ length: between }, (_, i) => ((i + 1) * width) / (between + 1));
  return [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
    ...along.map((x): Spot => [x + 7, 0]),
    ...along.map((x): Spot => [x - 3, height]),
  ];
}

/** How a sheet is printed and loaded. */
export interface Distortion {
  readonly rotation?: number;
  readonly scaleX?: number;
  readonly scaleY?: number;
  /** mm that the middle lies aside of the ends. */
  readonly bow?: number;
  readonly shift?: Spot;
}

/** The same place on a sheet that is so wide, in the cutter. */
export const distorted =
  (width: number, { rotation = 0, scaleX = 1, scaleY = 1, bow = 0, shift = [12, 5] }: Distortion) =>
  ([x, y]: Spot): Spot => {
    const u = (2 * x) / width - 1;
    const [px, py] = [x * scaleX, y * scaleY + bow * (1 - u * u)];
    const [cos, sin] = [Math.cos((rotation * Math.PI) / 180), Math.sin((rotation * Math.PI) / 180)];
    return [cos * px - sin * py + shift[0], sin * px + cos * py + shift[1]];
  };
