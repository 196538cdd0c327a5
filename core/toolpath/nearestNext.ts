/**
 * Takes items one after the other, always the one with a point nearest to where the tool is. Points lie in a grid of
 * about two a cell, which is made anew when three in four are gone: so each step looks at few cells however many
 * items there are.
 */
import type { Spot } from '../geometry/spot';

const PER_CELL = 2;
/** Below this share of what it was made for, the grid is made anew. */
const SPARSE = 0.25;

interface Grid {
  readonly cell: number;
  readonly minX: number;
  readonly minY: number;
  readonly columns: number;
  readonly rows: number;
  /** Points of cell c: `points[starts[c]]` … `points[starts[c + 1] - 1]`. */
  readonly starts: Int32Array;
  readonly points: Int32Array;
  readonly madeFor: number;
}

export class NearestNext {
  private readonly xy: Float64Array;
  /** Item of each point; −1 once it is taken. */
  private readonly owner: Int32Array;
  private readonly first: Int32Array;
  private pointsLeft: number;
  private itemsLeft: number;
  private grid: Grid;

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
    this.grid = this.makeGrid();
  }

  /** The nearest item and which of its points that is; undefined when none is left. Of equals the first counts. */
  take([x, y]: Spot): { readonly item: number; readonly point: number } | undefined {
    if (this.itemsLeft === 0) return undefined;
    if (this.pointsLeft < this.grid.madeFor * SPARSE) this.grid = this.makeGrid();
    const best = this.nearest(x, y);
    const item = this.owner[best];
    const [from, to] = [this.first[item], this.first[item + 1]];
    this.owner.fill(-1, from, to);
    this.pointsLeft -= to - from;
    this.itemsLeft--;
    return { item, point: best - from };
  }

  private nearest(x: number, y: number): number {
    const { cell, minX, minY, columns, rows } = this.grid;
    const [column, row] = [Math.floor((x - minX) / cell), Math.floor((y - minY) / cell)];
    let best = -1;
    let least = Infinity;
    const look = (c: number, r: number): void => {
      if (c < 0 || r < 0 || c >= columns || r >= rows) return;
      const { starts, points } = this.grid;
      const k = r * columns + c;
      for (let i = starts[k]; i < starts[k + 1]; i++) {
        const point = points[i];
        if (this.owner[point] < 0) continue;
        const d = (this.xy[2 * point] - x) ** 2 + (this.xy[2 * point + 1] - y) ** 2;
        if (d < least || (d === least && point < best)) [best, least] = [point, d];
      }
    };
    // from a place off the grid, rings of cells that do not touch it yet are passed over
    const away = Math.max(0, -column, -row, column - columns + 1, row - rows + 1);
    for (let ring = away; ; ring++) {
      const [c0, c1] = [Math.max(0, column - ring), Math.min(columns - 1, column + ring)];
      const [r0, r1] = [Math.max(0, row - ring), Math.min(rows - 1, row + ring)];
      for (let c = c0; c <= c1; c++) {
        look(c, row - ring);
        if (ring > 0) look(c, row + ring);
      }
      for (let r = Math.max(r0, row - ring + 1); r <= Math.min(r1, row + ring - 1); r++) {
        look(column - ring, r);
        look(column + ring, r);
      }
      // whatever lies in the next ring is at least this far away
      const reach = ring * cell;
      if (best >= 0 && least <= reach * reach) return best;
      if (ring > Math.max(columns, rows) + away) return best;
    }
  }

  private makeGrid(): Grid {
    let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
    const { xy, owner } = this;
    for (let p = 0; p < owner.length; p++) {
      if (owner[p] < 0) continue;
      minX = Math.min(minX, xy[2 * p]);
      maxX = Math.max(maxX, xy[2 * p]);
      minY = Math.min(minY, xy[2 * p + 1]);
      maxY = Math.max(maxY, xy[2 * p + 1]);
    }
    const [width, height] = [Math.max(0, maxX - minX), Math.max(0, maxY - minY)];
    const cells = Math.max(1, this.pointsLeft / PER_CELL);
    const longest = Math.max(width, height, 1e-6);
    const cell = Math.max(Math.sqrt((width * height) / cells), longest / cells);
    const columns = Math.floor(width / cell) + 1;
    const rows = Math.floor(height / cell) + 1;
    const cellOf = (p: number): number =>
      Math.floor((xy[2 * p + 1] - minY) / cell) * columns + Math.floor((xy[2 * p] - minX) / cell);
    const starts = new Int32Array(columns * rows + 1);
    for (let p = 0; p < owner.length; p++) if (owner[p] >= 0) starts[cellOf(p) + 1]++;
    for (let k = 1; k < starts.length; k++) starts[k] += starts[k - 1];
    const fill = starts.slice(0, -1);
    const points = new Int32Array(this.pointsLeft);
    for (let p = 0; p < owner.length; p++) if (owner[p] >= 0) points[fill[cellOf(p)]++] = p;
    return { cell, minX, minY, columns, rows, starts, points, madeFor: this.pointsLeft };
  }
}
