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

/** A straight one from a place by a way, mm. */
interface Stroke {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  /** 1 over the square of its length; 0: it has none. */
  readonly scale: number;
}

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
      const [dx, dy] = [x1 - x0, y1 - y0];
      const stroke = { x: x0, y: y0, dx, dy, scale: dx || dy ? 1 / (dx * dx + dy * dy) : 0 };
      const half = (PEN_WIDTH + EDGE) / 2 + NEAR;
      for (let i = cellOf(Math.min(x0, x1) - half); i <= cellOf(Math.max(x0, x1) + half); i++)
        for (let j = cellOf(Math.min(y0, y1) - half); j <= cellOf(Math.max(y0, y1) + half); j++) {
          const at = key(i, j);
          const there = cells.get(at);
          if (there) there.push(stroke);
          else cells.set(at, [stroke]);
        }
    },
    isBare: (x, y) => !cells.has(key(cellOf(x), cellOf(y))),
    at: (x, y) => {
      const near = cells.get(key(cellOf(x), cellOf(y)));
      if (!near) return 0;
      let nearest = Infinity;
      for (const stroke of near) nearest = Math.min(nearest, squareTo(stroke, x, y));
      const inside = (PEN_WIDTH + EDGE) / 2 - Math.sqrt(nearest);
      return Math.max(0, Math.min(1, inside / EDGE));
    },
  };
}

/** Square of the distance of a place from a stroke, mm². */
function squareTo(stroke: Stroke, x: number, y: number): number {
  const { dx, dy } = stroke;
  const [px, py] = [x - stroke.x, y - stroke.y];
  const t = Math.min(1, Math.max(0, (px * dx + py * dy) * stroke.scale));
  const [ox, oy] = [px - t * dx, py - t * dy];
  return ox * ox + oy * oy;
}
