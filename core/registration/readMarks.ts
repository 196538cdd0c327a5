/**
 * Reads a sheet's print marks with a sensor that sees along straight lines: the first is searched within reach, each next one
 * where those before it put it; all are read once more, finely.
 */
import type { Bounds } from '../geometry/bounds';
import { largest, smallest } from '../geometry/lists';
import type { Spot } from '../geometry/spot';
import { fitModel } from './models';
import type { Reading } from './models';
import type { LineFound, ScanProblem } from './scan';
import { cornerOf, findLine } from './scan';

export const MARK_KINDS = ['in', 'out', 'dots'] as const;
/** Corners whose arms go along what they stand around, or away from it; or dots. */
export type MarkKind = (typeof MARK_KINDS)[number];

/** A mark as it was printed: what is read of it is where its arms meet, or its middle. */
export interface DesignedMark {
  readonly kind: MarkKind;
  /** mm on the sheet */
  readonly at: Spot;
  /** Which way its arms go from there, mm; of a dot half its width, both ways. */
  readonly arms: readonly [x: number, y: number];
}

/** How marks are told from the stock that they are printed on, reflectances from 0 black to 1 white. */
export interface StockContrast {
  /** What reflects less is a mark. */
  readonly threshold: number;
  /** Difference that can be trusted at least. */
  readonly least: number;
}

/** Of a stock that nobody has looked at: anything may be a mark that differs by so much (our own). */
export const USUAL_CONTRAST: StockContrast = { threshold: 1, least: 0.15 };

/** Has the sensor move straight, and gives what it sees, evenly spaced from end to end: 0 black, 1 white. */
export type Look = (from: Spot, to: Spot, values: number) => Promise<readonly number[]>;

export interface Sensor {
  readonly look: Look;
  /** The place nearest to one at which it can be: a head goes by whole steps. Missing: anywhere. */
  readonly nearest?: (at: Spot) => Spot;
  /** mm around where a mark should be in which it is looked for */
  readonly reach: number;
  /** mm that a mark's line is wide */
  readonly line: number;
  /** How marks are told from what they are printed on; missing: as usual. */
  readonly contrast?: StockContrast;
  /** What it can see, mm in the cutter. */
  readonly sees: Bounds;
}

/** One look across an arm or a dot. */
export interface ScanSeen {
  readonly from: Spot;
  readonly to: Spot;
  readonly values: readonly number[];
  readonly found: LineFound | ScanProblem;
}

/** A mark that was read. */
export interface MarkSeen {
  readonly at: Spot;
  readonly scans: readonly ScanSeen[];
  /** The least difference of reflectance that its lines showed. */
  readonly contrast: number;
}

/** What became of the reading. */
export type SheetReading =
  | { readonly isRead: true; readonly marks: readonly MarkSeen[] }
  | {
      readonly isRead: false;
      /** Number of the mark at which it ended, from 0. */
      readonly mark: number;
      readonly why: ScanProblem | 'moved';
      readonly scans: readonly ScanSeen[];
    };

/** mm from one value of a look to the next. */
export const LOOK_STEP = 0.05;
/** mm around a mark that was found, in which it is read again. */
const NEAR = 2.4;
/** How far the second mark may lie off where the first puts it: the tangent of four degrees, and five in a hundred of length. */
const ASLANT = Math.tan((4 * Math.PI) / 180);
const STRETCHED = 0.05;
/** mm that a mark may have moved between two readings: more, and the sheet has slipped. */
const SLIPPED = 0.3;

/**
 * @param marks in the order in which they are read, mm on the sheet
 * @param first where the first one should be, mm in the cutter; the sheet lies about straight
 */
export async function readMarks(
  marks: readonly DesignedMark[],
  first: Spot,
  sensor: Sensor,
): Promise<SheetReading> {
  let failed: SheetReading | undefined;
  // the same place is not looked at twice, whichever way the sheet lies
  const seen = new Map<string, MarkSeen | Failure>();
  for (const way of waysToLie(marks)) {
    const reading = await readLying(way, first, sensor, seen);
    if (reading.isRead) return readFinely(way, reading.marks, sensor);
    // what is said is said of the sheet as it was designed
    failed ??= reading;
  }
  return failed!;
}

interface Failure {
  readonly why: ScanProblem;
  readonly scans: readonly ScanSeen[];
}
const isFailure = (seen: MarkSeen | Failure): seen is Failure => 'why' in seen;

/** The marks as they lie when the sheet is as designed, turned, or seen from behind: their frame stays where it is. */
function waysToLie(marks: readonly DesignedMark[]): DesignedMark[][] {
  const xs = marks.map(({ at }) => at[0]);
  const ys = marks.map(({ at }) => at[1]);
  const [cx, cy] = [(smallest(xs) + largest(xs)) / 2, (smallest(ys) + largest(ys)) / 2];
  const lying = (sx: 1 | -1, sy: 1 | -1): DesignedMark[] =>
    marks.map(({ kind, at: [x, y], arms: [ax, ay] }) => ({
      kind,
      at: [cx + sx * (x - cx), cy + sy * (y - cy)],
      arms: kind === 'dots' ? [ax, ay] : [sx * ax, sy * ay],
    }));
  return [lying(1, 1), lying(-1, -1), lying(-1, 1), lying(1, -1)];
}

/** All marks once, each where those before it put it. */
async function readLying(
  marks: readonly DesignedMark[],
  first: Spot,
  sensor: Sensor,
  known: Map<string, MarkSeen | Failure>,
): Promise<SheetReading> {
  // read from the corner that should be where the head was put, whichever mark it is
  const order = marks.map((_, i) => i).sort((a, b) => nearTo(marks, a, first) - nearTo(marks, b, first));
  const start = marks[order[0]].at;
  const offset: Spot = [first[0] - start[0], first[1] - start[1]];
  const found = new Map<number, MarkSeen>();
  for (const i of order) {
    const { at: expected, reach } = expectedAt(marks, i, found, offset, sensor.reach);
    const key = `${marks[i].kind} ${Math.sign(marks[i].arms[0])} ${Math.sign(marks[i].arms[1])} ${expected.map((v) => v.toFixed(2)).join(' ')}`;
    const seen = known.get(key) ?? (await readMark(marks[i], expected, reach, turnOf(marks, found), sensor));
    known.set(key, seen);
    if (isFailure(seen)) return { isRead: false, mark: i, ...seen };
    found.set(i, seen);
  }
  return { isRead: true, marks: marks.map((_, i) => found.get(i)!) };
}

const nearTo = (marks: readonly DesignedMark[], i: number, [x, y]: Spot): number =>
  Math.hypot(marks[i].at[0] - x, marks[i].at[1] - y);

const readingsOf = (marks: readonly DesignedMark[], found: ReadonlyMap<number, MarkSeen>): Reading[] =>
  [...found].map(([i, { at }]) => ({ designed: marks[i].at, measured: at }));

/** Where a mark should be by those that were found, and how far around there it is looked for. */
function expectedAt(
  marks: readonly DesignedMark[],
  i: number,
  found: ReadonlyMap<number, MarkSeen>,
  [dx, dy]: Spot,
  reach: number,
): { readonly at: Spot; readonly reach: Reach } {
  const [x, y] = marks[i].at;
  const readings = readingsOf(marks, found);
  if (readings.length === 0) return { at: [x + dx, y + dy], reach: [reach, reach] };
  const fit = readings.length > 1 ? fitModel('similarity', readings) : undefined;
  if (fit) return { at: fit.map([x, y]), reach: [reach / 2, reach / 2] };
  const [{ designed, measured }] = readings;
  const [wx, wy] = [Math.abs(x - designed[0]), Math.abs(y - designed[1])];
  return {
    at: [measured[0] + x - designed[0], measured[1] + y - designed[1]],
    // what is turned moves it across the way there, what is stretched along it
    reach: [1 + wy * ASLANT + wx * STRETCHED, 1 + wx * ASLANT + wy * STRETCHED],
  };
}

/** mm in x and in y. */
type Reach = readonly [x: number, y: number];

/** Radians that the sheet is turned by, as far as is known. */
function turnOf(marks: readonly DesignedMark[], found: ReadonlyMap<number, MarkSeen>): number {
  const readings = readingsOf(marks, found);
  const fit = readings.length > 1 ? fitModel('similarity', readings) : undefined;
  if (!fit) return 0;
  const [x0, y0] = fit.map([0, 0]);
  const [x1, y1] = fit.map([1, 0]);
  return Math.atan2(y1 - y0, x1 - x0);
}

/** The other marks put it there to so much: it is read within NEAR. */
async function readFinely(
  marks: readonly DesignedMark[],
  coarse: readonly MarkSeen[],
  sensor: Sensor,
): Promise<SheetReading> {
  const found = new Map(coarse.map((mark, i) => [i, mark]));
  const turn = turnOf(marks, found);
  const fine: MarkSeen[] = [];
  for (const [i, mark] of marks.entries()) {
    const again = await readMark(mark, coarse[i].at, [NEAR, NEAR], turn, sensor);
    if (isFailure(again)) return { isRead: false, mark: i, ...again };
    const [dx, dy] = [again.at[0] - coarse[i].at[0], again.at[1] - coarse[i].at[1]];
    if (Math.hypot(dx, dy) > SLIPPED) return { isRead: false, mark: i, why: 'moved', scans: again.scans };
    const back = await readMark(mark, again.at, [NEAR, NEAR], turn, sensor);
    if (isFailure(back)) return { isRead: false, mark: i, ...back };
    fine.push({
      at: [(again.at[0] + back.at[0]) / 2, (again.at[1] + back.at[1]) / 2],
      scans: [...again.scans, ...back.scans],
      contrast: Math.min(again.contrast, back.contrast),
    });
  }
  return { isRead: true, marks: fine };
}

/** Looks once more where nothing was found: noise may have spoilt a look. */
async function readMark(
  mark: DesignedMark,
  expected: Spot,
  reach: Reach,
  turn: number,
  sensor: Sensor,
): Promise<MarkSeen | Failure> {
  const once = (): Promise<MarkSeen | Failure> =>
    mark.kind === 'dots'
      ? readDot(mark, expected, reach, sensor)
      : readCorner(mark, expected, reach, turn, sensor);
  const seen = await once();
  return isFailure(seen) ? once() : seen;
}

/** One look across, as far as the sensor sees, and the line in it. @param around mm to either side of a place, along a direction of length one */
async function across(
  [x, y]: Spot,
  [ux, uy]: Spot,
  around: number,
  width: number,
  { look, sees, contrast: { threshold, least } = USUAL_CONTRAST, nearest = (at) => at }: Sensor,
): Promise<ScanSeen> {
  const [back, on] = [-1, 1].map((way) => {
    const [toX, toY] = [x + way * ux * around, y + way * uy * around];
    const [inX, inY] = [
      Math.min(Math.max(toX, sees.minX), sees.maxX),
      Math.min(Math.max(toY, sees.minY), sees.maxY),
    ];
    const short = Math.max(
      Math.abs(ux) > AXIS ? Math.abs(toX - inX) / Math.abs(ux) : 0,
      Math.abs(uy) > AXIS ? Math.abs(toY - inY) / Math.abs(uy) : 0,
    );
    return Math.max(0, around - short);
  });
  const from = nearest([x - ux * back, y - uy * back]);
  const to = nearest([x + ux * on, y + uy * on]);
  const count = Math.max(2, Math.round((back + on) / LOOK_STEP) + 1);
  const values = await look(from, to, count);
  const step = Math.hypot(to[0] - from[0], to[1] - from[1]) / (count - 1);
  const found = findLine(
    { step, values },
    { width, isPale: false, leastContrast: least, darkerThan: threshold },
  );
  return { from, to, values, found };
}

/** A direction runs along an axis when less of it than this goes aside. */
const AXIS = 0.2;

const isLine = (found: ScanSeen['found']): found is LineFound => typeof found === 'object';
const placeOn = ({ from, to }: ScanSeen, { centre }: LineFound): Spot => {
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
  return [from[0] + ((to[0] - from[0]) * centre) / length, from[1] + ((to[1] - from[1]) * centre) / length];
};

/** Where an arm is crossed in shares of its length: to find it, then to measure it. */
const HALFWAY = 0.45;
const CROSSINGS = [0.35, 0.85] as const;

/**
 * Each arm is looked for by one look across its middle, which tells about where the corner is; then each is crossed at two
 * places, and where both lines meet is the corner.
 */
async function readCorner(
  { arms: [ax, ay] }: DesignedMark,
  expected: Spot,
  [rx, ry]: Reach,
  turn: number,
  sensor: Sensor,
): Promise<MarkSeen | Failure> {
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const arms = [
    { along: [ax * cos, ax * sin], way: [-sin, cos], reach: ry },
    { along: [-ay * sin, ay * cos], way: [cos, sin], reach: rx },
  ] as const;
  const scans: ScanSeen[] = [];
  let corner = expected;
  for (const { along, way, reach } of arms) {
    if (reach <= NEAR) continue;
    const at = further(corner, along, HALFWAY);
    const scan = await across(at, way, reach, sensor.line, sensor);
    if (!isLine(scan.found)) return { why: scan.found, scans: [scan] };
    const [dx, dy] = shift(placeOn(scan, scan.found), at, way);
    corner = [corner[0] + dx, corner[1] + dy];
  }
  const lines: Spot[][] = [];
  for (const { along, way } of arms) {
    const spots: Spot[] = [];
    for (const share of CROSSINGS) {
      const scan = await across(further(corner, along, share), way, NEAR, sensor.line, sensor);
      scans.push(scan);
      if (!isLine(scan.found)) return { why: scan.found, scans };
      spots.push(placeOn(scan, scan.found));
    }
    lines.push(spots);
  }
  const [[a, b], [c, d]] = lines;
  const at = cornerOf([a, b], [c, d]);
  return at ? { at, scans, contrast: contrastOf(scans) } : { why: 'no-line', scans };
}

const further = ([x, y]: Spot, [dx, dy]: Spot, share: number): Spot => [x + share * dx, y + share * dy];

/** How far a place lies off another along a direction of length one. */
const shift = ([x, y]: Spot, [fx, fy]: Spot, [ux, uy]: Spot): Spot => {
  const by = (x - fx) * ux + (y - fy) * uy;
  return [by * ux, by * uy];
};

const contrastOf = (scans: readonly ScanSeen[]): number =>
  smallest(scans.flatMap(({ found }) => (isLine(found) ? [found.contrast] : [])));

/** mm by which looks for a dot lie apart, in shares of its width. */
const ROW = 0.6;

/** Rows of looks until one meets the dot, then through its middle both ways. */
async function readDot(
  { arms: [half] }: DesignedMark,
  expected: Spot,
  [rx, ry]: Reach,
  sensor: Sensor,
): Promise<MarkSeen | Failure> {
  const width = 2 * half;
  const scans: ScanSeen[] = [];
  let why: ScanProblem = 'no-line';
  const rows = Math.ceil(rx / (ROW * width));
  for (let row = 0; row <= 2 * rows; row++) {
    const dx = ROW * width * (row % 2 === 0 ? row / 2 : -(row + 1) / 2);
    // a chord is narrower than the dot
    const scan = await across(
      [expected[0] + dx, expected[1]],
      [0, 1],
      Math.max(1.6 * width, ry),
      0.8 * width,
      sensor,
    );
    scans.push(scan);
    if (!isLine(scan.found)) {
      if (scan.found !== 'no-line') why = scan.found;
      continue;
    }
    let at = placeOn(scan, scan.found);
    const own: ScanSeen[] = [];
    for (const way of [
      [1, 0],
      [0, 1],
      [1, 0],
      [0, 1],
    ] as const) {
      const through = await across(at, way, 1.6 * width, width, sensor);
      own.push(through);
      if (!isLine(through.found)) break;
      at = placeOn(through, through.found);
    }
    const last = own[own.length - 1];
    if (own.length === 4 && isLine(last.found))
      return { at, scans: own.slice(2), contrast: contrastOf(own.slice(2)) };
    if (!isLine(last.found)) why = last.found;
  }
  return { why, scans };
}
