import type { EdgeZone } from './edges';
import { EDGE, OUTSIDE } from './edges';

/**
 * The lines along which a field passes 0.5, as closed rings in pixels (0, 0 is the upper left corner of the picture,
 * pixel centres lie at halves), inside on the left of their way. Marching squares with linear interpolation
 * (Lorensen & Cline 1987, in the plane); what lies past the picture's edge counts as outside.
 */
export function contours(zone: EdgeZone): Float64Array[] {
  // one edge of a cell is known by its upper left pixel in a frame one pixel wider all round: 2n is the edge to the
  // right of it, 2n + 1 the one below it
  const { width } = zone;
  const next = new EdgeLinks(zone.pixels.length);
  for (const i of zone.pixels) {
    const x = i % width;
    const y = (i - x) / width;
    readCell(zone, next, x, y);
    if (x === 0) readCell(zone, next, -1, y);
    if (y === 0) readCell(zone, next, x, -1);
    if (i === 0) readCell(zone, next, -1, -1);
  }
  return link(next, zone);
}

const isOff = ({ width, height }: EdgeZone, x: number, y: number): boolean =>
  x < 0 || y < 0 || x >= width || y >= height;
const levelAt = (zone: EdgeZone, x: number, y: number): number =>
  isOff(zone, x, y) ? OUTSIDE : zone.levels[y * zone.width + x];

/** Adds the lines through the cell between a pixel, the one on its right and the two below. */
function readCell(zone: EdgeZone, next: EdgeLinks, x: number, y: number): void {
  const a = levelAt(zone, x, y);
  const b = levelAt(zone, x + 1, y);
  const c = levelAt(zone, x + 1, y + 1);
  const d = levelAt(zone, x, y + 1);
  // at the rim of what is known nothing changes sides
  if (b === 0 || c === 0 || d === 0) return;
  const kind = (a > EDGE ? 8 : 0) | (b > EDGE ? 4 : 0) | (c > EDGE ? 2 : 0) | (d > EDGE ? 1 : 0);
  const stride = zone.width + 2;
  if (kind !== 0 && kind !== 15)
    addCell(next, kind, (y + 1) * stride + x + 1, stride, a + b + c + d > 4 * EDGE);
}

/** Which edge a line leaves a cell by when it came in by another; inside on the left. */
function addCell(next: EdgeLinks, kind: number, n: number, stride: number, fullMiddle: boolean): void {
  const top = 2 * n;
  const left = 2 * n + 1;
  const right = 2 * (n + 1) + 1;
  const bottom = 2 * (n + stride);
  switch (kind) {
    case 1:
      return void next.set(left, bottom);
    case 2:
      return void next.set(bottom, right);
    case 3:
      return void next.set(left, right);
    case 4:
      return void next.set(right, top);
    case 6:
      return void next.set(bottom, top);
    case 7:
      return void next.set(left, top);
    case 8:
      return void next.set(top, left);
    case 9:
      return void next.set(top, bottom);
    case 11:
      return void next.set(top, right);
    case 12:
      return void next.set(right, left);
    case 13:
      return void next.set(right, bottom);
    case 14:
      return void next.set(bottom, left);
    case 5:
      // two corners across: joined when the middle of the cell is inside
      next.set(left, fullMiddle ? top : bottom);
      return void next.set(right, fullMiddle ? bottom : top);
    default:
      next.set(top, fullMiddle ? right : left);
      next.set(bottom, fullMiddle ? left : right);
  }
}

function link(next: EdgeLinks, zone: EdgeZone): Float64Array[] {
  const out: Float64Array[] = [];
  const stride = zone.width + 2;
  for (const first of next.starts) {
    const ring: number[] = [];
    for (let edge = next.has(first) ? first : -1; edge >= 0;) {
      const n = edge >> 1;
      const x = (n % stride) - 1;
      const y = Math.floor(n / stride) - 1;
      const here = levelAt(zone, x, y);
      if (edge & 1) ring.push(x + 0.5, y + 0.5 + crossing(here, levelAt(zone, x, y + 1)));
      else ring.push(x + 0.5 + crossing(here, levelAt(zone, x + 1, y)), y + 0.5);
      const to = next.take(edge);
      edge = next.has(to) ? to : -1;
    }
    if (ring.length >= 6) out.push(Float64Array.from(ring));
  }
  return out;
}

/** Where between two neighbours the outline passes. */
const crossing = (from: number, to: number): number => Math.min(1, Math.max(0, (EDGE - from) / (to - from)));

/** From one edge of a cell to the next: an open hash table of whole numbers, several times faster than a Map. */
class EdgeLinks {
  readonly #from: Int32Array;
  readonly #to: Int32Array;
  readonly #mask: number;
  /** Every edge that was set, in that order. */
  readonly starts: number[] = [];

  /** @param most edges that it can take */
  constructor(most: number) {
    this.#mask = 2 ** Math.ceil(Math.log2(2 * most + 16)) - 1;
    this.#from = new Int32Array(this.#mask + 1).fill(-1);
    this.#to = new Int32Array(this.#mask + 1).fill(-1);
  }

  set(from: number, to: number): void {
    const place = this.#placeOf(from);
    this.#from[place] = from;
    this.#to[place] = to;
    this.starts.push(from);
  }

  has(from: number): boolean {
    return this.#to[this.#placeOf(from)] >= 0;
  }

  /** Where an edge leads to; it leads nowhere after that. */
  take(from: number): number {
    const place = this.#placeOf(from);
    const to = this.#to[place];
    this.#to[place] = -1;
    return to;
  }

  #placeOf(from: number): number {
    let place = Math.imul(from, 0x9e3779b1) & this.#mask;
    while (this.#from[place] !== from && this.#from[place] !== -1) place = (place + 1) & this.#mask;
    return place;
  }
}
