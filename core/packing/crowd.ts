/** All pieces as they lie on a strip, and how much they lie in one another. */
import { largest } from '../geometry/lists';
import type { Body, Posed, Room } from './body';
import { areNear, movedInside, needOf, posed } from './body';
import type { Lying } from './lying';
import type { Outline } from './outline';
import { cross, denser } from './outline';
import type { Push } from './overlap';
import { aboutOverlap, overlapOf } from './overlap';

/** A pair of pieces in conflict weighs more by so much each round, the worst by twice; in peace it forgets. */
const GROWTH = 1.2;
const MORE = 0.8;
const FORGETS = 0.95;

export class Crowd {
  readonly poses: Posed[];
  /** mm of strip that they have to lie within. */
  length: number;
  private readonly outlines: Outline[];
  private readonly weights: Float64Array;

  /** @param start where the pieces lie */
  constructor(
    readonly bodies: readonly Body[],
    readonly room: Room,
    start: readonly Lying[],
  ) {
    this.outlines = bodies.map(({ outline }) => outline);
    this.poses = start.map((lying, i) => this.posed(i, lying));
    this.weights = new Float64Array(bodies.length ** 2).fill(1);
    this.length = this.extent();
  }

  posed(i: number, lying: Lying): Posed {
    return posed(this.outlines[i], lying);
  }

  /** mm from the strip's beginning to the end of the last piece. */
  extent(): number {
    return largest(
      this.poses.map(({ x, box }) => x + box.maxX),
      0,
    );
  }

  lying(): Lying[] {
    return this.poses.map(({ turn, x, y }) => ({ turn, x, y }));
  }

  /** Moved into the strip. */
  inside(pose: Posed): Posed {
    return movedInside(pose, this.room, this.length);
  }

  fits({ box }: Posed): boolean {
    return box.maxY - box.minY <= this.room.across + 1e-9 && box.maxX - box.minX <= this.length + 1e-9;
  }

  /** Weighted overlap of a piece with all others, if it lay so; about, above `most`. */
  weigh(i: number, pose: Posed, most: number, push?: Push): number {
    const { poses, outlines, weights } = this;
    const { spacing } = this.room;
    const n = poses.length;
    const left = pose.x + pose.box.minX - spacing;
    const right = pose.x + pose.box.maxX + spacing;
    const top = pose.y + pose.box.minY - spacing;
    const bottom = pose.y + pose.box.maxY + spacing;
    const a = outlines[i];
    let sum = 0;
    for (let j = 0; j < n; j++) {
      const other = poses[j];
      const { box } = other;
      if (other.x + box.minX > right || other.x + box.maxX < left) continue;
      if (other.y + box.minY > bottom || other.y + box.maxY < top || j === i) continue;
      const w = weights[i * n + j];
      const b = outlines[j];
      sum += w * overlapOf(a, pose, b, other, needOf(a, b, spacing), (most - sum) / w, push, w);
      if (sum > most) return sum;
    }
    return sum;
  }

  /** About the same, at a tenth of the cost. */
  about(i: number, pose: Posed, most: number): number {
    const { poses, outlines, weights } = this;
    const { spacing } = this.room;
    const n = poses.length;
    const a = outlines[i];
    let sum = 0;
    for (let j = 0; j < n && sum <= most; j++) {
      if (j === i || !areNear(pose, poses[j], spacing)) continue;
      const b = outlines[j];
      sum += weights[i * n + j] * aboutOverlap(a, pose, b, poses[j], needOf(a, b, spacing));
    }
    return sum;
  }

  /** All overlap there is; pairs that have some weigh more from now on, the others less. */
  settle(): number {
    const { poses, outlines, weights } = this;
    const n = poses.length;
    const pairs: (readonly [number, number, number])[] = [];
    this.forNear(this.room.spacing, (i, j) => {
      const need = needOf(outlines[i], outlines[j], this.room.spacing);
      const lies = overlapOf(outlines[i], poses[i], outlines[j], poses[j], need, Infinity);
      if (lies > 0) pairs.push([i, j, lies]);
    });
    const worst = largest(pairs.map(([, , lies]) => lies));
    for (let k = 0; k < weights.length; k++) weights[k] = Math.max(1, weights[k] * FORGETS);
    for (const [i, j, lies] of pairs) {
      weights[i * n + j] *= GROWTH + MORE * (lies / worst);
      weights[j * n + i] = weights[i * n + j];
    }
    return pairs.reduce((sum, [, , lies]) => sum + lies, 0);
  }

  /** All pairs weigh the same again. */
  forget(): void {
    this.weights.fill(1);
  }

  /** Whether any two cross without a place of one in the other; they are looked at more closely from now on. */
  crossing(): boolean {
    const { poses, outlines } = this;
    let found = false;
    this.forNear(0, (i, j) => {
      if (!cross(outlines[i], poses[i], outlines[j], poses[j])) return;
      found = true;
      for (const k of [i, j]) outlines[k] = denser(outlines[k]);
    });
    return found;
  }

  private forNear(spacing: number, visit: (i: number, j: number) => void): void {
    const { poses } = this;
    for (let i = 0; i < poses.length; i++)
      for (let j = i + 1; j < poses.length; j++) if (areNear(poses[i], poses[j], spacing)) visit(i, j);
  }
}
