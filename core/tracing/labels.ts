/** Pictures whose pixels are named by the colour they belong to: their edges, and one colour of them as a mask. */
import type { Field } from './picture';
import { isEdge } from './picture';
import { dotSizes } from './specks';

/** A label for each pixel, 255 where the picture is see-through. */
export interface LabelMap {
  readonly width: number;
  readonly height: number;
  readonly labels: Uint8Array;
  /** Pixels whose right or lower neighbour has another label, and those along the picture's own edges; ascending. */
  readonly edges: readonly number[];
  /** Sizes of dots and lines a pixel wide that went with the fringes, px across. */
  readonly lost: readonly number[];
}

export function labelMap(labels: Uint8Array, width: number, height: number): LabelMap {
  const clean = withoutFringes(labels, width, height);
  const lost = lostSizes(labels, clean, width);
  return { width, height, labels: clean, edges: edgesOf(clean, width, height), lost };
}

/** What lay on one colour and is gone: a fringe lies between two. */
function lostSizes(before: Uint8Array, after: Uint8Array, width: number): number[] {
  const isLost = (i: number): boolean =>
    before[i] !== after[i] &&
    ((before[i - 1] === after[i] && before[i + 1] === after[i]) ||
      (before[i - width] === after[i] && before[i + width] === after[i]));
  const changed = before.keys();
  return dotSizes(changed, width, isLost);
}

/** About how many pixels have another label than the one on their right: every few rows are looked at. */
export function roughEdges(labels: Uint8Array, width: number): number {
  let edges = 0;
  for (let row = 0; row + width <= labels.length; row += ROWS * width)
    for (let i = row + 1; i < row + width; i++) if (labels[i] !== labels[i - 1]) edges++;
  return edges * ROWS;
}

const ROWS = 8;

/** Gives fringes one pixel wide, as soft edges between two colours leave them, to the colour beside them. */
function withoutFringes(labels: Uint8Array, width: number, height: number): Uint8Array {
  const out = labels.slice();
  for (let y = 0; y < height; y++) {
    for (let x = 0, i = y * width; x < width; x++, i++) {
      const own = labels[i];
      // nearly every pixel has its like on the left, above and between
      const plain =
        x > 0 && y > 0 && own === labels[i - 1] && own === labels[i - width] && own === labels[i - width - 1];
      if (!plain && isFringe(labels, width, height, x, y)) out[i] = commonest(labels, width, height, x, y);
    }
  }
  return out;
}

/** Whether no block of 2 × 2 around a pixel has its label alone. */
function isFringe(labels: Uint8Array, width: number, height: number, x: number, y: number): boolean {
  const i = y * width + x;
  const own = labels[i];
  const above = y > 0 && labels[i - width] === own;
  const below = y + 1 < height && labels[i + width] === own;
  if (x > 0 && labels[i - 1] === own) {
    if (above && labels[i - width - 1] === own) return false;
    if (below && labels[i + width - 1] === own) return false;
  }
  if (x + 1 < width && labels[i + 1] === own) {
    if (above && labels[i - width + 1] === own) return false;
    if (below && labels[i + width + 1] === own) return false;
  }
  return true;
}

/** The label that most pixels around one have, its own left out. */
function commonest(labels: Uint8Array, width: number, height: number, x: number, y: number): number {
  const own = labels[y * width + x];
  const counts = new Map<number, number>();
  for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++) {
    for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
      const label = labels[v * width + u];
      if (label !== own) counts.set(label, (counts.get(label) ?? 0) + 1);
    }
  }
  let best = own;
  let most = 1;
  for (const [label, n] of counts) if (n > most) [best, most] = [label, n];
  return best;
}

function edgesOf(labels: Uint8Array, width: number, height: number): number[] {
  const edges: number[] = [];
  for (let y = 0; y < height; y++) {
    const row = y * width;
    const isRim = y === 0 || y === height - 1;
    for (let i = row; i < row + width; i++) {
      const own = labels[i];
      if (isRim || i === row || own !== labels[i + 1] || own !== labels[i + width] || i === row + width - 1)
        edges.push(i);
    }
  }
  return edges;
}

/**
 * Where colour `k` is seen, with what lies above it under its edge, so that no gap shows between two colours.
 * @param reach px that it goes under the colours above
 * @param spent a mask of the same size that nobody needs any more: its memory is taken over
 */
export function maskOf(map: LabelMap, k: number, reach: number, spent?: Uint8Array): Field {
  const { width, height, labels, edges } = map;
  const values = spent?.fill(0) ?? new Uint8Array(labels.length);
  let from = 0;
  for (const i of edges) {
    if (labels[i + 1] === labels[i]) continue;
    if (labels[i] === k) values.fill(1, from, i + 1);
    from = i + 1;
  }
  const found: number[] = [];
  const look = (i: number): void => {
    if (i >= 0 && isEdge(values, width, i)) found.push(i);
  };
  for (const i of spread(map, values, k, reach)) {
    look(i);
    look(i - 1);
    look(i - width);
  }
  for (const i of edges) if (labels[i] === k || labels[i + 1] === k || labels[i + width] === k) look(i);
  return { width, height, values, edges: found };
}

/** Marks what lies above colour `k` within `reach` of it; gives the pixels marked. */
function spread({ width, labels, edges }: LabelMap, values: Uint8Array, k: number, reach: number): number[] {
  const marked: number[] = [];
  const mark = (i: number): void => {
    if (labels[i] <= k || labels[i] === 255 || values[i] === 1) return;
    values[i] = 1;
    marked.push(i);
  };
  const markBeside = (i: number): void => {
    const x = i % width;
    if (x > 0) mark(i - 1);
    if (x < width - 1) mark(i + 1);
    if (i >= width) mark(i - width);
    if (i + width < labels.length) mark(i + width);
  };
  for (const i of edges) {
    if (labels[i] === k) markBeside(i);
    if (labels[i + 1] === k) markBeside(i + 1);
    if (labels[i + width] === k) markBeside(i + width);
  }
  let from = 0;
  for (let step = 1; step < reach; step++) {
    const to = marked.length;
    for (; from < to; from++) markBeside(marked[from]);
  }
  return marked;
}
