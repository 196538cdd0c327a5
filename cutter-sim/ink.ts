/** What a pen has drawn on a film, as a sensor sees it. */

/** mm that a pen's line is wide. */
const PEN_WIDTH = 0.5;
/** mm across which its edge fades. */
const EDGE = 0.16;
/** mm around a stroke that are not bare: more than half of what a sensor sees at once. */
const NEAR = 0.5;
/** mm of a square of the film that remembers which strokes cross it. */
const CELL = 2;
/** More squares than lie beside one another across any film. */
const ROWS = 100_000;

type Stroke = readonly [x0: number, y0: number, x1: number, y1: number];

export interface Ink {
  /** A straight stroke, mm on the film. */
  readonly draw: (from: readonly [number, number], to: readonly [number, number]) => void;
  /** How much ink is at a place of the film: 0 none, 1 all of it. */
  readonly at: (x: number, y: number) => number;
  /** Nothing was drawn at a place, nor within NEAR of it. */
  readonly isBare: (x: number, y: number) => boolean;
}

/** Ink on a film that is put in clean. */
export function createInk(): Ink {
  const cells = new Map<number, Stroke[]>();
  const key = (i: number, j: number): number => i * ROWS + j;
  const cellOf = (mm: number): number => Math.floor(mm / CELL);
  return {
    draw: ([x0, y0], [x1, y1]) => {
      const half = (PEN_WIDTH + EDGE) / 2 + NEAR;
      for (let i = cellOf(Math.min(x0, x1) - half); i <= cellOf(Math.max(x0, x1) + half); i++)
        for (let j = cellOf(Math.min(y0, y1) - half); j <= cellOf(Math.max(y0, y1) + half); j++) {
          const at = key(i, j);
          const there = cells.get(at);
          if (there) there.push([x0, y0, x1, y1]);
          else cells.set(at, [[x0, y0, x1, y1]]);
        }
    },
    isBare: (x, y) => !cells.has(key(cellOf(x), cellOf(y))),
    at: (x, y) => {
      let most = 0;
      for (const stroke of cells.get(key(cellOf(x), cellOf(y))) ?? []) {
        const inside = (PEN_WIDTH + EDGE) / 2 - distanceTo(stroke, x, y);
        most = Math.max(most, Math.min(1, inside / EDGE));
      }
      return most;
    },
  };
}

function distanceTo([x0, y0, x1, y1]: Stroke, x: number, y: number): number {
  const [dx, dy] = [x1 - x0, y1 - y0];
  const long = dx * dx + dy * dy;
  const t = long === 0 ? 0 : Math.min(1, Math.max(0, ((x - x0) * dx + (y - y0) * dy) / long));
  return Math.hypot(x - x0 - t * dx, y - y0 - t * dy);
}
