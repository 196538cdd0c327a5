/** Weed borders: the cut around each copy that lets its waste be lifted by itself. */
import { smallest } from '../geometry/lists';
import type { Bounds } from '../geometry/bounds';
import type { Polyline } from '../geometry/path';

type Gap = readonly [from: number, to: number];

/**
 * The border of a box, broken beside layer marks: there the film stays in one piece with what lies outside, so that
 * lifting the waste does not take the marks with it.
 * @param tabs boxes of the marks' tabs, on the strip
 * @param reach mm: tabs further from the border than this do not break it
 * @returns one closed line, or open ones between the breaks; mm
 */
export function weedBorder(box: Bounds, tabs: readonly Bounds[], reach: number): Polyline[] {
  const corners = [box.minX, box.minY, box.maxX, box.minY, box.maxX, box.maxY, box.minX, box.maxY];
  const gaps = joined(tabs.flatMap((tab) => gapBeside(box, tab, reach)));
  if (gaps.length === 0) return [{ points: Float64Array.from(corners), closed: true }];
  const round = perimeter(box);
  return gaps.flatMap(([, from], i): Polyline[] => {
    const next = gaps[(i + 1) % gaps.length][0];
    const to = i + 1 < gaps.length ? next : next + round;
    return to - from > 1e-6 ? [{ points: stretch(box, from, to), closed: false }] : [];
  });
}

const sides = (b: Bounds): readonly number[] => {
  const [w, h] = [b.maxX - b.minX, b.maxY - b.minY];
  return [w, h, w, h];
};
const perimeter = (b: Bounds): number => sides(b).reduce((sum, side) => sum + side, 0);

/** The stretch of the nearest side that lies beside a tab, as ways along the border from its upper left corner. */
function gapBeside(box: Bounds, tab: Bounds, reach: number): Gap[] {
  const away = [tab.minY - box.minY, box.maxX - tab.maxX, box.maxY - tab.maxY, tab.minX - box.minX];
  const side = away.indexOf(smallest(away));
  if (away[side] > reach) return [];
  const start = sides(box)
    .slice(0, side)
    .reduce((sum, length) => sum + length, 0);
  const along: readonly Gap[] = [
    [tab.minX - box.minX, tab.maxX - box.minX],
    [tab.minY - box.minY, tab.maxY - box.minY],
    [box.maxX - tab.maxX, box.maxX - tab.minX],
    [box.maxY - tab.maxY, box.maxY - tab.minY],
  ];
  const length = sides(box)[side];
  const [from, to] = along[side].map((way) => start + Math.min(length, Math.max(0, way)));
  return [[from, to]];
}

function joined(gaps: readonly Gap[]): Gap[] {
  const out: Gap[] = [];
  for (const gap of [...gaps].sort((a, b) => a[0] - b[0])) {
    const last = out.at(-1);
    if (last && gap[0] <= last[1]) out[out.length - 1] = [last[0], Math.max(last[1], gap[1])];
    else out.push(gap);
  }
  return out;
}

/** The border from one way along it to another, with the corners between; may go past its start. */
function stretch(box: Bounds, from: number, to: number): Float64Array {
  const round = perimeter(box);
  const corners = sides(box).map((_, i, all) => all.slice(0, i).reduce((sum, side) => sum + side, 0));
  const passed = [...corners, ...corners.map((way) => way + round)].filter((way) => way > from && way < to);
  return Float64Array.from([from, ...passed, to].flatMap((way) => placeOf(box, way % round)));
}

function placeOf(b: Bounds, way: number): readonly [number, number] {
  const [w, h] = sides(b);
  if (way <= w) return [b.minX + way, b.minY];
  if (way <= w + h) return [b.maxX, b.minY + way - w];
  if (way <= 2 * w + h) return [b.maxX - (way - w - h), b.maxY];
  return [b.minX, b.maxY - (way - 2 * w - h)];
}
