/** By how much pieces lie too close to one another, and which way apart is shortest. */
import type { Pose } from './lying';
import type { Outline } from './outline';
import { DEEP, DISC, EDGE } from './outline';
import type { Field } from './field';
import { aboutDistance, away, distanceTo } from './field';

/** A push that would take a piece out of what it lies too close to: along x and y, and round its middle. */
export interface Push {
  round: number;
  x: number;
  y: number;
}

/** Closer by less than this is no overlap: a fifth of what is promised, mm. */
const ROUNDING = 0.002;

/**
 * By how much a piece lies too close to another or in it: the root of mm too close times mm of outline, along both
 * outlines. It is 0 only when no corner of either lies closer to the other than `need`; outlines that do not cross are then
 * that far apart, as they are nearest at a corner of one of them.
 * @param need mm between them
 * @param most no more than that needs to be known
 * @param push what the piece wants is added here, times `weight`
 */
export function overlapOf(
  a: Outline,
  p: Pose,
  b: Outline,
  q: Pose,
  need: number,
  most: number,
  push?: Push,
  weight = 1,
): number {
  const dx = p.x - q.x;
  const dy = p.y - q.y;
  const far = a.radius + b.radius + need;
  if (dx * dx + dy * dy >= far * far) return 0;
  const most2 = most * most;
  const own = push && { round: 0, x: 0, y: 0 };
  const ab = viewOf(p, b.field, q, need, 1);
  const ba = viewOf(q, a.field, p, need, -1);
  // places deep inside tell most, and are few
  let sum = deepIn(a, ab, most2, own);
  if (sum <= most2) sum += deepIn(b, ba, most2 - sum, own);
  if (sum <= most2) sum += edgesIn(a, ab, most2 - sum, own);
  if (sum <= most2) sum += edgesIn(b, ba, most2 - sum, own);
  const root = Math.sqrt(sum);
  if (push && own && root > 0) {
    const scale = (0.5 * weight) / root;
    push.x += scale * own.x;
    push.y += scale * own.y;
    push.round += scale * own.round;
  }
  return root;
}

/**
 * About how much two pieces lie too close to one another, by the discs that stand for them: enough to tell a good place
 * from a bad one, at a tenth of the cost.
 */
export function aboutOverlap(a: Outline, p: Pose, b: Outline, q: Pose, need: number): number {
  const dx = p.x - q.x;
  const dy = p.y - q.y;
  const far = a.radius + b.radius + need;
  if (dx * dx + dy * dy >= far * far) return 0;
  return Math.sqrt(discsIn(a, p, b.field, q, need) + discsIn(b, q, a.field, p, need));
}

function discsIn({ discs }: Outline, p: Pose, field: Field, q: Pose, need: number): number {
  const dx = p.x - q.x;
  const dy = p.y - q.y;
  const cos = p.cos * q.cos + p.sin * q.sin;
  const sin = p.sin * q.cos - p.cos * q.sin;
  const tx = q.cos * dx + q.sin * dy;
  const ty = q.cos * dy - q.sin * dx;
  let sum = 0;
  for (let i = 0; i < discs.length; i += DISC) {
    const r = discs[i + 2];
    const x = cos * discs[i] - sin * discs[i + 1] + tx;
    const y = sin * discs[i] + cos * discs[i + 1] + ty;
    const lies = r + need - aboutDistance(field, x, y);
    if (lies > 0) sum += lies * r;
  }
  return sum;
}

/** One piece as it lies in the field of another. */
interface View {
  readonly field: Field;
  readonly pose: Pose;
  readonly need: number;
  /** 1: the piece itself is pushed, -1: the one that has the field. */
  readonly sense: 1 | -1;
  /** From the piece's own frame into the field's. */
  readonly cos: number;
  readonly sin: number;
  readonly tx: number;
  readonly ty: number;
  readonly maxX: number;
  readonly maxY: number;
}

function viewOf(p: Pose, field: Field, q: Pose, need: number, sense: 1 | -1): View {
  const dx = p.x - q.x;
  const dy = p.y - q.y;
  return {
    field,
    pose: q,
    need,
    sense,
    cos: p.cos * q.cos + p.sin * q.sin,
    sin: p.sin * q.cos - p.cos * q.sin,
    tx: q.cos * dx + q.sin * dy,
    ty: q.cos * dy - q.sin * dx,
    maxX: field.minX + field.columns * field.cell,
    maxY: field.minY + field.rows * field.cell,
  };
}

/** Places deep inside a piece that lie in the field's. */
function deepIn({ deep }: Outline, view: View, most: number, push: Push | undefined): number {
  const { field, need, cos, sin, tx, ty, maxX, maxY } = view;
  let sum = 0;
  for (let i = 0; i < deep.length; i += DEEP) {
    const x = cos * deep[i] - sin * deep[i + 1] + tx;
    const y = sin * deep[i] + cos * deep[i + 1] + ty;
    if (x < field.minX || x >= maxX || y < field.minY || y >= maxY) continue;
    const gap = distanceTo(field, x, y, need) - need;
    if (gap >= -ROUNDING) continue;
    sum -= gap * deep[i + 2];
    if (sum > most) return sum;
    if (push) add(push, x, y, deep[i + 2], view);
  }
  return sum;
}

/**
 * The outline of a piece in the field of another. Along an edge it goes on by as much as it lies away from being too close,
 * or too deep: between two places distances change by no more than what lies between them.
 */
function edgesIn({ edges, step, fine }: Outline, view: View, most: number, push: Push | undefined): number {
  const { field, need, cos, sin, tx, ty, maxX, maxY } = view;
  const { minX, minY } = field;
  let sum = 0;
  let t = 0;
  for (let e = 0; e < edges.length;) {
    const px = edges[e] + t * edges[e + 2];
    const py = edges[e + 1] + t * edges[e + 3];
    const x = cos * px - sin * py + tx;
    const y = sin * px + cos * py + ty;
    const rest = edges[e + 4] - t;
    let onward = Math.min(step, rest);
    if (x < minX || x >= maxX || y < minY || y >= maxY) {
      onward = Math.max(minX - x, x - maxX, minY - y, y - maxY, onward);
    } else {
      const gap = distanceTo(field, x, y, need) - need;
      const off = Math.abs(gap);
      onward = Math.max(off - field.cell, Math.min(rest, Math.max(fine, Math.min(step, off))));
      if (gap < -ROUNDING) {
        sum -= gap * onward;
        if (sum > most) return sum;
        if (push) add(push, x, y, onward, view);
      }
    }
    t += onward;
    while (t >= edges[e + 4] - 1e-9) {
      // an outline ends where it ends
      t = edges[e + 5] === 1 ? 0 : Math.max(0, t - edges[e + 4]);
      e += EDGE;
      if (e >= edges.length) return sum;
    }
  }
  return sum;
}

/** What a place at x, y of the field wants, as the piece that is pushed sees it; its way out is in {@link away}. */
function add(push: Push, x: number, y: number, weight: number, { pose, sense, tx, ty }: View): void {
  const { cos, sin } = pose;
  const ux = sense * (cos * away.alongX - sin * away.alongY);
  const uy = sense * (sin * away.alongX + cos * away.alongY);
  push.x += weight * ux;
  push.y += weight * uy;
  // the lever is measured from the middle of the piece that is pushed
  const [lx, ly] = sense === 1 ? [x - tx, y - ty] : [x, y];
  push.round += weight * ((cos * lx - sin * ly) * uy - (sin * lx + cos * ly) * ux);
}
