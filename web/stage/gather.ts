/** Pins that would lie on one another are gathered into one, which opens as one zooms in. */

export interface Placed {
  readonly x: number;
  readonly y: number;
}

export interface Gathered<T extends Placed> {
  readonly pins: readonly T[];
  /** Where it stands: at its first pin, mm. */
  readonly x: number;
  readonly y: number;
}

/** Pins nearer than this share one, px: two targets of 24 px with room between. */
const NEAR = 30;

/**
 * The scale that pins are gathered at: it moves in steps, so that nothing is gathered anew in every frame of a zoom, and
 * is never larger than what is shown, so that what is apart there is apart on the screen.
 */
export const gatherScale = (scale: number): number => 2 ** (Math.floor(2 * Math.log2(scale)) / 2);

/** Every pin joins the nearest gathering before it that is near enough, or begins one. Cost: linear. */
export function gather<T extends Placed>(pins: readonly T[], scale: number): Gathered<T>[] {
  const reach = NEAR / scale;
  const cells = new Map<string, { x: number; y: number; pins: T[] }[]>();
  const all: { x: number; y: number; pins: T[] }[] = [];
  for (const pin of pins) {
    const [cx, cy] = [Math.floor(pin.x / reach), Math.floor(pin.y / reach)];
    let best: { x: number; y: number; pins: T[] } | undefined;
    let nearest = reach;
    for (let i = cx - 1; i <= cx + 1; i++) {
      for (let j = cy - 1; j <= cy + 1; j++) {
        for (const other of cells.get(`${i} ${j}`) ?? []) {
          const distance = Math.hypot(other.x - pin.x, other.y - pin.y);
          if (distance < nearest) [best, nearest] = [other, distance];
        }
      }
    }
    if (best) {
      best.pins.push(pin);
      continue;
    }
    const begun = { x: pin.x, y: pin.y, pins: [pin] };
    all.push(begun);
    const key = `${cx} ${cy}`;
    const cell = cells.get(key);
    if (cell) cell.push(begun);
    else cells.set(key, [begun]);
  }
  return all;
}
