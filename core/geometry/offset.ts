/**
 * Outlines moved sideways, as raw rings that may cross themselves: what the winding number leaves positive of them is
 * the offset (Chen & McMains, Polygon Offsetting by Computing Winding Numbers, ASME DETC 2005). Points are flat
 * numbers throughout: point objects with fractions would make every boolean after them several times slower.
 */

export type Join = 'round' | 'miter' | 'bevel';
export type Cap = 'butt' | 'round' | 'square';

/** How corners are made. */
export interface Corners {
  readonly join: Join;
  /** How far a pointed corner may reach, in widths; beyond that it is cut off (SVG 2, 13.5.5). */
  readonly miterLimit: number;
  /** How far a round corner's chords may lie from the arc, mm. */
  readonly tolerance: number;
}

/** Below this angle, as a cosine, edges go on in the same direction. */
const STRAIGHT = 0.999;
/** Points nearer than this are one, mm. */
const REPEAT = 5e-4;

/** A ring moved to its right by `distance` mm (outer rings of a region grow, holes shrink); negative: to its left. */
export function offsetRing(ring: Float64Array, distance: number, corners: Corners): Float64Array {
  const points = withoutRepeats(ring, true);
  const n = points.length / 2;
  if (n < 2)
    return n === 1 && distance > 0 ? circle(points, distance, corners.tolerance) : new Float64Array();
  const normals = normalsOf(points, true);
  const pen = new OffsetPen(points, distance, corners);
  for (let i = 0; i < n; i++) pen.corner(i, normals, (i + n - 1) % n, i);
  return pen.ring();
}

/** The outline of an open line drawn with a pen of twice `distance` mm. */
export function offsetLine(line: Float64Array, distance: number, corners: Corners, cap: Cap): Float64Array {
  const points = withoutRepeats(line, false);
  const last = points.length / 2 - 1;
  if (last < 0) return new Float64Array();
  if (last === 0) return dot(points, distance, corners.tolerance, cap);
  const there = normalsOf(points, false);
  const back = there.map((v) => -v);
  const pen = new OffsetPen(points, distance, corners);
  pen.cap(last, there, last - 1, cap, () => {
    for (let i = 1; i < last; i++) pen.corner(i, there, i - 1, i);
  });
  pen.cap(0, back, 0, cap, () => {
    for (let i = last - 1; i > 0; i--) pen.corner(i, back, i, i - 1);
  });
  return pen.ring();
}

function withoutRepeats(points: Float64Array, closed: boolean): Float64Array {
  const out = new Float64Array(points.length);
  let n = 0;
  for (let i = 0; i < points.length; i += 2) {
    if (n > 0 && isSame(points[i], points[i + 1], out[n - 2], out[n - 1])) continue;
    out[n++] = points[i];
    out[n++] = points[i + 1];
  }
  while (closed && n > 2 && isSame(out[0], out[1], out[n - 2], out[n - 1])) n -= 2;
  return out.subarray(0, n);
}

const isSame = (x: number, y: number, u: number, v: number): boolean =>
  Math.abs(x - u) < REPEAT && Math.abs(y - v) < REPEAT;

/** Unit normals of the edges, to their right: edge i runs from point i to the next. */
function normalsOf(points: Float64Array, closed: boolean): Float64Array {
  const count = closed ? points.length : points.length - 2;
  const out = new Float64Array(count);
  for (let i = 0; i < count; i += 2) {
    const next = (i + 2) % points.length;
    const dx = points[next] - points[i];
    const dy = points[next + 1] - points[i + 1];
    const length = Math.sqrt(dx * dx + dy * dy);
    out[i] = dy / length;
    out[i + 1] = -dx / length;
  }
  return out;
}

const circle = (middle: Float64Array, radius: number, tolerance: number): Float64Array => {
  const steps = Math.max(8, Math.ceil((2 * Math.PI) / arcStep(radius, tolerance)));
  return Float64Array.from({ length: 2 * steps }, (_, i) => {
    const angle = (2 * Math.PI * (i >> 1)) / steps;
    return i & 1 ? middle[1] + radius * Math.sin(angle) : middle[0] + radius * Math.cos(angle);
  });
};

function dot(middle: Float64Array, radius: number, tolerance: number, cap: Cap): Float64Array {
  if (cap === 'butt') return new Float64Array();
  if (cap === 'round') return circle(middle, radius, tolerance);
  const [x, y] = middle;
  const r = radius;
  return Float64Array.of(x - r, y - r, x + r, y - r, x + r, y + r, x - r, y + r);
}

/** The angle whose chord lies `tolerance` inside its arc. */
const arcStep = (radius: number, tolerance: number): number =>
  2 * Math.acos(1 - Math.min(0.5, tolerance / Math.abs(radius)));

class OffsetPen {
  private readonly out: number[] = [];
  private readonly step: number;
  private readonly leastCosine: number;

  constructor(
    private readonly points: Float64Array,
    private readonly distance: number,
    private readonly corners: Corners,
  ) {
    this.step = arcStep(distance, corners.tolerance);
    this.leastCosine = corners.miterLimit <= 1 ? 1 : 2 / corners.miterLimit ** 2 - 1;
  }

  ring(): Float64Array {
    return Float64Array.from(this.out);
  }

  /** Length of the shorter of two edges. */
  private shorter(a: number, b: number): number {
    return Math.min(this.edge(a), this.edge(b));
  }
  private edge(i: number): number {
    const { points } = this;
    const to = (2 * i + 2) % points.length;
    const dx = points[to] - points[2 * i];
    const dy = points[to + 1] - points[2 * i + 1];
    return Math.sqrt(dx * dx + dy * dy);
  }

  /** The corner at a point between two edges, each given by the index of its normal. */
  corner(point: number, normals: Float64Array, before: number, after: number): void {
    const ux = normals[2 * before];
    const uy = normals[2 * before + 1];
    const vx = normals[2 * after];
    const vy = normals[2 * after + 1];
    const cosine = ux * vx + uy * vy;
    const sine = ux * vy - uy * vx;
    if (cosine > -STRAIGHT && sine * this.distance < 0) {
      const reach = 1 / (1 + cosine);
      // both edges are long enough to meet: there is nothing wrong about it
      if (Math.abs(this.distance * sine) * reach <= this.shorter(before, after) / 2)
        return this.beside(point, (ux + vx) * reach, (uy + vy) * reach);
      // a hollow corner goes through the point itself: what is wrong about it winds the other way round
      this.beside(point, ux, uy);
      this.out.push(this.points[2 * point], this.points[2 * point + 1]);
      this.beside(point, vx, vy);
    } else if (this.corners.join === 'round') this.arc(point, ux, uy, Math.atan2(sine, cosine), vx, vy);
    else if (cosine > STRAIGHT || (this.corners.join === 'miter' && cosine >= this.leastCosine)) {
      const reach = 1 / (1 + cosine);
      this.beside(point, (ux + vx) * reach, (uy + vy) * reach);
    } else {
      this.beside(point, ux, uy);
      this.beside(point, vx, vy);
    }
  }

  /** One side of an open line and the cap at its end; `normal` is that of the edge that ends there. */
  cap(point: number, normals: Float64Array, normal: number, cap: Cap, side: () => void): void {
    side();
    const [x, y] = [normals[2 * normal], normals[2 * normal + 1]];
    if (cap === 'round') return this.arc(point, x, y, Math.PI, -x, -y);
    const far = cap === 'square' ? 1 : 0;
    this.beside(point, x - far * y, y + far * x);
    this.beside(point, -x - far * y, -y + far * x);
  }

  private beside(point: number, x: number, y: number): void {
    this.out.push(this.points[2 * point] + x * this.distance, this.points[2 * point + 1] + y * this.distance);
  }

  private arc(point: number, ux: number, uy: number, angle: number, vx: number, vy: number): void {
    this.beside(point, ux, uy);
    const steps = Math.ceil(Math.abs(angle) / this.step);
    for (let i = 1; i < steps; i++) {
      const turn = (angle * i) / steps;
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      this.beside(point, ux * c - uy * s, ux * s + uy * c);
    }
    this.beside(point, vx, vy);
  }
}
