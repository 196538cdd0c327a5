/**
 * Swivel compensation. A drag knife's tip trails its holder by the blade offset d, like a trailer: on a straight
 * line the holder must be d ahead along the line, and where the line turns it must swing on an arc of radius d
 * about the tip. Driven so, the tip follows any chain of straight lines exactly (the tractrix of an arc about
 * the tip is the tip itself). For d = 0 (a pen) the path is the outline.
 */
import type { Ring } from '../geometry/region';
import type { Spot } from '../geometry/spot';

/** Unit vector in which the tip trails: from the tip to the holder. */
export type Heading = Spot;

export interface HolderPath {
  /** x0, y0, x1, y1 … of the holder, mm; the knife is down all along. */
  readonly points: Float64Array;
  /** Where the tip shall be when the holder is at each point. */
  readonly tips: Float64Array;
  /** Heading when the knife is lifted. */
  readonly heading: Heading;
}

/** How far a swing's straight steps may lie from their arc, mm. */
const SWING_TOLERANCE = 0.004;

/**
 * The holder's way round a closed outline.
 * @param ring outline in mm, from its first point on
 * @param offset blade offset d in mm, 0 for a pen
 * @param overcut mm cut again past the start, so that the corner where the cut closes comes free
 * @param heading how the tip lies when the knife comes down: it is set down on the start point and swung round
 */
export function compensateRing(ring: Ring, offset: number, overcut: number, heading: Heading): HolderPath {
  return compensate(closeWithOvercut(ring, overcut), offset, heading);
}

/** The same for an open line x0, y0, x1, y1 … */
export function compensate(line: ArrayLike<number>, offset: number, heading: Heading): HolderPath {
  const out: number[] = [];
  const tips: number[] = [];
  let now = heading;
  const last = line.length - 2;
  const tipAt = (i: number): void => {
    while (tips.length < out.length) tips.push(line[i], line[i + 1]);
  };
  out.push(line[0] + offset * now[0], line[1] + offset * now[1]);
  tipAt(0);
  for (let i = 0; i < last; i += 2) {
    const dx = line[i + 2] - line[i];
    const dy = line[i + 3] - line[i + 1];
    const length = Math.hypot(dx, dy);
    if (length === 0) continue;
    const next: Heading = [dx / length, dy / length];
    if (offset > 0) swing(out, line[i], line[i + 1], offset, now, next);
    tipAt(i);
    now = next;
    out.push(line[i + 2] + offset * now[0], line[i + 3] + offset * now[1]);
    tipAt(i + 2);
  }
  return { points: Float64Array.from(out), tips: Float64Array.from(tips), heading: now };
}

/** Arc of radius d about the tip from one heading to another, the short way, in steps within tolerance. */
function swing(out: number[], cx: number, cy: number, d: number, from: Heading, to: Heading): void {
  const angle = Math.atan2(from[0] * to[1] - from[1] * to[0], from[0] * to[0] + from[1] * to[1]);
  if (Math.abs(angle) < 1e-9) return;
  const largest = 2 * Math.acos(Math.max(0, 1 - SWING_TOLERANCE / d));
  const steps = Math.max(1, Math.ceil(Math.abs(angle) / largest));
  const start = Math.atan2(from[1], from[0]);
  for (let k = 1; k <= steps; k++) {
    const a = start + (angle * k) / steps;
    out.push(cx + d * Math.cos(a), cy + d * Math.sin(a));
  }
}

function closeWithOvercut(ring: Ring, overcut: number): number[] {
  const line = Array.from(ring);
  line.push(ring[0], ring[1]);
  let left = overcut;
  for (let i = 0; left > 0 && i < ring.length; i += 2) {
    const to = (i + 2) % ring.length;
    const dx = ring[to] - ring[i];
    const dy = ring[to + 1] - ring[i + 1];
    const length = Math.hypot(dx, dy);
    const t = Math.min(1, left / Math.max(length, 1e-12));
    line.push(ring[i] + dx * t, ring[i + 1] + dy * t);
    left -= length;
  }
  return line;
}
