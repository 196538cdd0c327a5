/** Spoilt shapes cut again, without the rest of their film. */
import { aroundCounter } from '../geometry/counter';
import { liesOn, componentsOf } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import type { Spot } from '../geometry/spot';

/** Shapes of one film, each named by a place that lies on it, mm on the sign. */
export interface Again {
  readonly film: string;
  readonly at: readonly { readonly x: number; readonly y: number }[];
}

/** Panels that are cut again, by their numbers: of every film that has something on them. */
export interface PanelsAgain {
  readonly panels: readonly number[];
}

/** The shape of a region that a place lies on; on none, the one in whose counter it lies. */
export function shapeAt(region: Region, at: Spot): Region | undefined {
  const shapes = componentsOf(region);
  return shapes.find((shape) => liesOn(shape, at)) ?? aroundCounter(shapes, (shape) => shape, at);
}
