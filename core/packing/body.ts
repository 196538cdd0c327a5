/** A piece that wants a place, and how it lies where it is tried. */
import type { Bounds } from '../geometry/bounds';
import { smallest } from '../geometry/lists';
import type { Lying, Pose } from './lying';
import { cosOf, sinOf } from './lying';
import type { Outline } from './outline';
import { cross, turnedBox } from './outline';
import { overlapOf } from './overlap';

/** A piece to be laid. */
export interface Body {
  readonly outline: Outline;
  /** Degrees that it may be turned by; none: any. */
  readonly turns: readonly number[];
  /** It lies where it lies. */
  readonly isPinned: boolean;
}

/** What there is to lay pieces in. */
export interface Room {
  /** mm that pieces may take across the strip. */
  readonly across: number;
  /** mm between pieces. */
  readonly spacing: number;
}

/** A piece as it lies, with its box around its middle. */
export interface Posed extends Lying, Pose {
  readonly box: Bounds;
}

export function posed(outline: Outline, { turn, x, y }: Lying): Posed {
  const [cos, sin] = [cosOf(turn), sinOf(turn)];
  return { turn, x, y, cos, sin, box: turnedBox(outline, cos, sin) };
}

/** mm between two outlines that keep the true ones apart by the spacing. */
export const needOf = (a: Outline, b: Outline, spacing: number): number => spacing + a.slack + b.slack;

/** Whether boxes lie so near that what is in them may be too close. */
export const areNear = (p: Posed, q: Posed, spacing: number): boolean =>
  p.x + p.box.minX - spacing < q.x + q.box.maxX &&
  q.x + q.box.minX - spacing < p.x + p.box.maxX &&
  p.y + p.box.minY - spacing < q.y + q.box.maxY &&
  q.y + q.box.minY - spacing < p.y + p.box.maxY;

/** What rounding may do, mm. */
const ROUNDING = 0.001;

/** mm along a strip that a piece takes at the least; where any turn is allowed, nobody knows. */
export function leastAlong({ outline, turns }: Body, across: number): number {
  const boxes = turns.map((turn) => turnedBox(outline, cosOf(turn), sinOf(turn)));
  const fitting = boxes.filter(({ minY, maxY }) => maxY - minY <= across + ROUNDING);
  return fitting.length === 0 ? 0 : smallest(fitting.map(({ minX, maxX }) => maxX - minX));
}

/** Whether a piece lies in the strip; its end is not looked at. */
export const isAcross = ({ x, y, box }: Posed, { across }: Room): boolean =>
  x + box.minX > -ROUNDING && y + box.minY > -ROUNDING && y + box.maxY < across + ROUNDING;

/** A piece moved into a strip of that length. */
export function movedInside(pose: Posed, { across }: Room, length: number): Posed {
  const { box } = pose;
  const x = Math.min(Math.max(pose.x, -box.minX), Math.max(-box.minX, length - box.maxX));
  const y = Math.min(Math.max(pose.y, -box.minY), across - box.maxY);
  return x === pose.x && y === pose.y ? pose : { ...pose, x, y };
}

/** Whether two pieces lie as far apart as they have to. */
export function areApart(a: Outline, p: Posed, b: Outline, q: Posed, { spacing }: Room): boolean {
  if (!areNear(p, q, spacing)) return true;
  const need = needOf(a, b, spacing) - ROUNDING;
  return overlapOf(a, p, b, q, need, Infinity) === 0 && !cross(a, p, b, q);
}

/** Which pieces lie as they may, each apart from those before it that do. */
export function layable(bodies: readonly Body[], room: Room, lying: readonly Lying[]): boolean[] {
  const poses = lying.map((one, i) => posed(bodies[i].outline, one));
  const out: boolean[] = [];
  for (const [i, pose] of poses.entries()) {
    const isFree = (k: number): boolean =>
      !out[k] || areApart(bodies[i].outline, pose, bodies[k].outline, poses[k], room);
    out.push(isAcross(pose, room) && poses.slice(0, i).every((_, k) => isFree(k)));
  }
  return out;
}
