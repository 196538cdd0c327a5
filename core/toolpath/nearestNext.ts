/** Takes items one after the other, always the one with a point nearest to where the tool is. */
import Flatbush from 'flatbush';
import type { Spot } from '../geometry/spot';

/** Below this share of what it was made for, the index is made anew: it never looks through more than is left. */
const SPARSE = 0.5;

export class NearestNext {
  private readonly xy: Float64Array;
  /** Item of each point; −1 once it is taken. */
  private readonly owner: Int32Array;
  private readonly first: Int32Array;
  private pointsLeft: number;
  private itemsLeft: number;
  private index: Flatbush | undefined;
  /** The point at each place of the index. */
  private indexed: Int32Array;

  /** @param items points of each at which it can be begun, x0, y0, x1, y1 …, mm; at least one each */
  constructor(items: readonly ArrayLike<number>[]) {
    const total = items.reduce((sum, points) => sum + points.length / 2, 0);
    this.xy = new Float64Array(2 * total);
    this.owner = new Int32Array(total);
    this.first = new Int32Array(items.length + 1);
    let at = 0;
    items.forEach((points, item) => {
      this.first[item] = at;
      this.xy.set(points, 2 * at);
      this.owner.fill(item, at, at + points.length / 2);
      at += points.length / 2;
    });
    this.first[items.length] = at;
    this.pointsLeft = total;
    this.itemsLeft = items.length;
    this.indexed = new Int32Array();
    this.makeIndex();
  }

  /** The nearest item and which of its points that is; undefined when none is left. */
  take([x, y]: Spot): { readonly item: number; readonly point: number } | undefined {
    if (this.itemsLeft === 0 || !this.index) return undefined;
    if (this.pointsLeft < this.indexed.length * SPARSE) this.makeIndex();
    const isLeft = (place: number): boolean => this.owner[this.indexed[place]] >= 0;
    const best = this.indexed[this.index.neighbors(x, y, 1, Infinity, isLeft)[0]];
    const item = this.owner[best];
    const [from, to] = [this.first[item], this.first[item + 1]];
    this.owner.fill(-1, from, to);
    this.pointsLeft -= to - from;
    this.itemsLeft--;
    return { item, point: best - from };
  }

  private makeIndex(): void {
    if (this.pointsLeft === 0) return;
    this.index = new Flatbush(this.pointsLeft);
    this.indexed = new Int32Array(this.pointsLeft);
    let n = 0;
    for (let point = 0; point < this.owner.length; point++) {
      if (this.owner[point] < 0) continue;
      this.indexed[n++] = point;
      const [x, y] = [this.xy[2 * point], this.xy[2 * point + 1]];
      this.index.add(x, y, x, y);
    }
    this.index.finish();
  }
}
