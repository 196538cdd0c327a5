/** What is cut through the waste of a strip so that it lifts off in pieces: its weed borders and weed lines. */
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { joinBounds, outset } from '../geometry/bounds';
import { append, largest } from '../geometry/lists';
import { mapped, translation } from '../geometry/matrix';
import type { Matrix } from '../geometry/matrix';
import type { Polyline } from '../geometry/path';
import type { Region } from '../geometry/region';
import {
  difference,
  grow,
  linesInside,
  mapRegion,
  rectangle,
  ringArea,
  ringBounds,
  weld,
} from '../geometry/region';
import { byOrder } from '../layout/shares';
import type { LayoutChoices, Placement, Strip } from '../layout/strip';
import type { Part } from '../panels/part';
import { solidOf } from '../panels/part';
import { weedBorder } from './boxBorder';
import type { LinesLaid, StripWeedLines, WeedLine } from './lines';
import { linesOn } from './lines';
import type { Obstacle } from './ways';
import { obstacleOf, WIDER } from './ways';

/** Cut through the waste of one strip, placement by placement: what is cut after each. */
export interface Weeding {
  readonly borders: readonly (readonly Polyline[])[];
  readonly lines: readonly (readonly WeedLine[])[];
}

/** A strip with what takes its waste apart. */
export interface WeededStrip extends Strip {
  readonly weeding: Weeding;
}

/** How the waste of one strip is taken apart. */
export interface WeedingChoices extends Pick<LayoutChoices, 'border' | 'borderDistance'> {
  /** Its art is taken apart: pieces of copies lie among one another. */
  readonly isPacked: boolean;
  readonly weedLines: StripWeedLines;
}

/** Lays the weed borders and weed lines of a strip. */
export function weed(
  strip: Strip,
  choices: WeedingChoices,
): Weeding & { readonly findings: readonly Finding[] } {
  const { weedLines } = choices;
  const fields = fieldsOf(strip, choices);
  const borders: Polyline[][] = strip.placements.map(() => []);
  const lines: WeedLine[][] = strip.placements.map(() => []);
  for (const { last, border } of fields) append(borders[last], border);
  if (weedLines.way === 'none') return { borders, lines, findings: [] };
  const laid = linesLaid(strip, fields, weedLines);
  for (const line of laid.lines) lines[lastBefore(strip, line)].push(line);
  return { borders, lines, findings: laid.missing === 0 ? [] : [missingLines(strip, laid)] };
}

/** The placement after which a line is cut, so that film does not travel to and fro for it. */
function lastBefore({ placements }: Strip, { points }: Polyline): number {
  const end = largest(points.filter((_, i) => i % 2 === 0));
  const after = placements.findLastIndex(({ box }) => box.minX <= end);
  return Math.max(0, after);
}

function missingLines({ film: { name } }: Strip, { wanted, missing }: LinesLaid): Finding {
  return {
    code: 'weed-lines-missing',
    film: name,
    severity: 'note',
    message: `${missing} of ${wanted} weed lines of ${name} find no way through the waste.`,
    waysOut: [
      'Keep them less far off the art under Layout',
      'Lay them both ways, for easy lifting, or by hand',
    ],
    measured: missing,
    limit: wanted,
  };
}

/** A stretch of waste that is lifted by itself. */
interface Field {
  /** Numbers of the placements in it; the border is cut after the last of them. */
  readonly placed: readonly number[];
  readonly last: number;
  readonly box: Bounds;
  readonly inside: Region;
  readonly border: readonly Polyline[];
}

function fieldsOf(strip: Strip, choices: WeedingChoices): Field[] {
  const { placements } = strip;
  // one box goes around pieces of all copies
  const kind = choices.border === 'copy' && choices.isPacked ? 'box' : choices.border;
  const each = kind === 'copy' || (kind === 'follow' && !choices.isPacked);
  const all = placements.map((_, i) => i);
  const orders = byOrder(all, (i) => placements[i].part.order);
  const groups = each ? all.map((i) => [i]) : kind === 'order' ? [...orders.values()] : [all];
  return groups.map((placed): Field => {
    const field = { placed, last: placed[placed.length - 1] };
    const own = placed.map((i) => placements[i]);
    if (kind === 'none') return { ...field, ...boxField(reachedBox(strip), []) };
    const box = own.map((one) => one.box).reduce(joinBounds);
    const tabs = own.flatMap(tabsOf);
    if (kind === 'follow') return { ...field, ...followed(own, tabs, box, choices.borderDistance) };
    const around = each ? box : outset(box, choices.borderDistance);
    return { ...field, ...boxField(around, weedBorder(around, tabs, choices.borderDistance + BESIDE)) };
  });
}

const boxField = (box: Bounds, border: readonly Polyline[]) => ({ box, inside: rectangle(box), border });

/** What the knife reaches of a strip's film. */
const reachedBox = ({ cuttable, length }: Strip): Bounds => ({
  minX: ENDS,
  minY: 0,
  maxX: length - ENDS,
  maxY: cuttable,
});
/** Film at both ends of a strip that lines do not run into, mm. */
const ENDS = 1;

/** Tabs no further from the art's edge than this count as lying beside the border, mm. */
const BESIDE = 1;

const tabsOf = ({ part, matrix }: Placement): Bounds[] =>
  mapRegion(
    part.marks.filter((ring) => ringArea(ring) > 0),
    matrix,
  ).map(ringBounds);

/** Follows the art at a distance; like a box, it is broken beside layer marks. */
function followed(placed: readonly Placement[], tabs: readonly Bounds[], box: Bounds, distance: number) {
  const outlines = weld(letOutEach(placed, distance).flat()).filter((ring) => ringArea(ring) > 0);
  const lines = outlines.map((points): Polyline => ({ points, closed: true }));
  const border = tabs.length === 0 ? lines : withoutTabs(lines, tabs, outset(box, 2 * distance), distance);
  return { box: outset(box, distance), inside: outlines, border };
}

function withoutTabs(lines: readonly Polyline[], tabs: readonly Bounds[], all: Bounds, distance: number) {
  const beside = weld(tabs.flatMap((tab) => rectangle(outset(tab, distance + BESIDE))));
  return linesInside(lines, difference(rectangle(outset(all, 1)), beside));
}

/** What is cut of each placement and written into its waste, let out by a distance; equal parts are let out once. */
function letOutEach(placed: readonly Placement[], distance: number): Region[] {
  const known = new Map<Part, Region>();
  return placed.map(({ part, matrix }) => {
    const out = known.get(part) ?? grow(solidOf(part, LINE_WIDTH), distance);
    known.set(part, out);
    return mapRegion(out, matrix);
  });
}

/** A line that a tool follows, mm. */
const LINE_WIDTH = 0.2;

/** Lines on every stretch of waste; stretches with the same art lying the same way get the same lines. */
function linesLaid(strip: Strip, fields: readonly Field[], choices: StripWeedLines): LinesLaid {
  const obstacles = obstaclesOf(strip, choices.away);
  const known = new Map<string, { readonly corner: readonly [number, number]; readonly laid: LinesLaid }>();
  const all = fields.map(({ placed, box, inside }): LinesLaid => {
    const key =
      choices.way === 'hand' || placed.length > 1 ? undefined : sameKey(strip.placements[placed[0]]);
    const same = key === undefined ? undefined : known.get(key);
    if (same) return movedLines(same.laid, translation(box.minX - same.corner[0], box.minY - same.corner[1]));
    const laid = linesOn({ box, inside, obstacles: placed.map((i) => obstacles[i]) }, choices);
    if (key !== undefined) known.set(key, { corner: [box.minX, box.minY], laid });
    return laid;
  });
  const sum = (of: (laid: LinesLaid) => number): number => all.reduce((total, laid) => total + of(laid), 0);
  return {
    lines: all.flatMap(({ lines }) => lines),
    wanted: sum(({ wanted }) => wanted),
    missing: sum(({ missing }) => missing),
  };
}

const sameKey = ({ part, matrix }: Placement): string => `${part.id} ${matrix.slice(0, 4).join(' ')}`;

const movedLines = (laid: LinesLaid, by: Matrix): LinesLaid => ({
  ...laid,
  lines: laid.lines.map((line) => ({
    ...line,
    at: line.at + by[line.axis === 'upright' ? 4 : 5],
    points: mapped(line.points, by),
  })),
});

function obstaclesOf({ placements }: Strip, away: number): Obstacle[] {
  const wide = letOutEach(placements, away + WIDER);
  return letOutEach(placements, away).map((kept, i) => obstacleOf(kept, wide[i]));
}
