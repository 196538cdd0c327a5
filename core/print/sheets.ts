/** Printed art n-up on sheets, with its marks and code. */
import type { LineKind } from '../artwork/choices';
import type { PreparedLine } from '../artwork/preparePiece';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { boundsTouch, heightOf, joinBounds, outset, widthOf } from '../geometry/bounds';
import { mapped, multiply, translation } from '../geometry/matrix';
import type { Polyline } from '../geometry/path';
import type { Region } from '../geometry/region';
import { mapRegion, PLAIN_STROKE, regionBounds, strokeOutline, weld } from '../geometry/region';
import { formatLength } from '../units/length';
import type { ColourArea } from './bleed';
import { bleedOf } from './bleed';
import type { CutLineChoices, PrintMarkChoices, SheetRoom } from './choices';
import { TIGHT } from './choices';
import { cutLineAround } from './cutLine';
import type { PrintMark } from './marks';
import { packClose } from './packClose';
import type { SheetPlace } from './place';
import { centred } from './place';
import { beyondMark, markFrame, marksAround, markShape, roomForMarks } from './marks';

/** A line that is cut, as the area inside it. */
export interface CutOutline {
  readonly kind: CutLineChoices['kind'];
  readonly region: Region;
}

/** Something that is painted, and what a person knows it by. */
export interface PaintedArea extends ColourArea {
  /** `pieceId/shape` */
  readonly ref?: string;
  readonly layer?: string;
}

/** One copy of what is printed and cut. */
export interface PrintUnit {
  /** As it is painted: what comes later lies on what came before. */
  readonly art: readonly ColourArea[];
  readonly bleed: readonly ColourArea[];
  /** Where of them something is printed; missing: everywhere. */
  readonly clip?: Region;
  /** Innermost first. */
  readonly lines: readonly CutOutline[];
  /** Lines that are in the art's file, each of its kind. */
  readonly followed: readonly PreparedLine[];
  /** Of what is printed and cut. */
  readonly box: Bounds;
}

/**
 * @param seen what is seen of each colour
 * @param painted the art as it is painted
 * @param followed lines that are in the file to be cut
 * @param bleed mm that colours reach past the innermost line; 0: only the art is printed
 */
export function printUnit(
  seen: readonly ColourArea[],
  painted: readonly PaintedArea[],
  cutLines: readonly CutLineChoices[],
  bleed: number,
  followed: readonly PreparedLine[] = [],
): PrintUnit {
  const around = ({ around: colours, layers = [], shapes = [] }: CutLineChoices): Region => {
    const isAll = colours === null && layers.length + shapes.length === 0;
    const own = seen.filter(({ colour }) => isAll || colours?.includes(colour));
    const picked = painted.filter(
      ({ ref = '', layer }) => shapes.includes(ref) || (layer !== undefined && layers.includes(layer)),
    );
    const regions = [...own, ...picked].map(({ region }) => region);
    // one by itself is welded already
    return regions.length === 1 ? regions[0] : weld(regions.flat());
  };
  const cutAround = [...cutLines]
    .sort((a, b) => a.offset - b.offset)
    .map((line) => ({ line, region: cutLineAround(around(line), line) }))
    .filter(({ region }) => region.length > 0);
  const [innermost] = cutAround;
  const past =
    bleed > 0 && innermost ? bleedOf(seen, innermost.region, bleed, besideArt(innermost.line)) : [];
  const lines = cutAround.map(({ line: { kind }, region }): CutOutline => ({ kind, region }));
  const printed = [...seen, ...past].map(({ region }) => regionBounds(region));
  const cut = [...lines.map(({ region }) => regionBounds(region)), ...followed.map(({ bounds }) => bounds)];
  return { art: painted, bleed: past, lines, followed, box: [...printed, ...cut].reduce(joinBounds) };
}

/** mm that a line lies off the art where it runs along it: further where corners were rounded or gaps closed. */
const besideArt = ({ offset, smallestRadius, join }: CutLineChoices): number =>
  Math.max(0, offset) + smallestRadius + join / 2;

export interface SheetChoices {
  readonly room: SheetRoom;
  readonly copies: number;
  /** mm between what is printed of two copies */
  readonly spacing: number;
  readonly turn: 'as-drawn' | 'turned' | 'shorter';
  readonly marks: PrintMarkChoices;
  /** Missing: in rows. */
  readonly pack?: 'rows' | 'close';
  /** Sheets that come before it. */
  readonly before?: number;
}

export interface PrintSheet {
  readonly id: string;
  /** mm */
  readonly width: number;
  readonly height: number;
  readonly places: readonly SheetPlace[];
  /** All copies together. */
  readonly art: Bounds;
  /** In the order in which they are read. */
  readonly marks: readonly PrintMark[];
  /** Where its code is printed; undefined: there is no room. */
  readonly code: Bounds | undefined;
}

/** mm: a code is no larger, and no smaller can be read (our own measure of a phone's camera). */
const CODE = 12;
const LEAST_CODE = 7;
/** mm kept free around a code. */
const QUIET = 2;

/** What a sheet leaves to the art, on the sheet. */
export function roomForArt({ room, marks }: Pick<SheetChoices, 'room' | 'marks'>): Bounds {
  if (marks.at) return outset(marks.at, -TIGHT - marks.line / 2);
  const { width, height, edges } = room;
  const beside = roomForMarks(marks);
  return {
    minX: edges.left + beside,
    minY: edges.top + beside,
    maxX: width - edges.right - beside,
    maxY: height - edges.bottom - beside,
  };
}

/**
 * Copies on as many sheets as they need, in rows, whichever way round takes fewer, or close together where that takes less; or
 * why none fits.
 */
export function layOnSheets(
  unit: PrintUnit,
  choices: SheetChoices,
): { readonly sheets: readonly PrintSheet[]; readonly findings: readonly Finding[] } {
  const free = roomForArt(choices);
  const rows = inRows(unit.box, free, choices);
  const shape = choices.pack === 'close' ? shapeOf(unit) : [];
  const ways = choices.pack === 'close' ? TURNS[choices.turn] : [];
  const laid = ways
    .map((turns): Laid => packClose(shape, free, { ...choices, turns }))
    .reduce((best, close) => (takesLess(close, best) ? close : best), rows);
  if (laid.length === 0) return { sheets: [], findings: [tooLarge(unit.box, widthOf(free), heightOf(free))] };
  const sheets = laid.map((places, k) =>
    sheetOf(k, centred(places, free, choices.room.isRoll === true), choices),
  );
  return { sheets, findings: sheets.some(({ code }) => !code) ? [noCode] : [] };
}

/** mm that a line without a width of its own takes. */
const LINE_WIDTH = 0.5;
/** Ways that copies may be turned when they lie close together: each is tried. */
const TURNS: Readonly<Record<SheetChoices['turn'], readonly (readonly number[])[]>> = {
  'as-drawn': [[0, 180]],
  turned: [[90, 270]],
  shorter: [
    [0, 180],
    [90, 270],
    [0, 90, 180, 270],
  ],
};

/** All that is printed and cut of one copy. */
function shapeOf({ art, bleed, lines, followed, clip }: PrintUnit): Region {
  if (clip) return clip;
  const areas = [...art, ...bleed, ...lines].flatMap(({ region }) => region);
  return weld([...areas, ...strokeOutline(followed, LINE_WIDTH, PLAIN_STROKE)]);
}

type Laid = readonly (readonly SheetPlace[])[];

/** Fewer sheets, or as many and less of the last. */
function takesLess(a: Laid, b: Laid): boolean {
  if (a.length === 0 || b.length === 0) return b.length === 0;
  const along = (laid: Laid): number =>
    widthOf(
      laid
        .at(-1)!
        .map(({ box }) => box)
        .reduce(joinBounds),
    );
  return a.length < b.length || (a.length === b.length && along(a) < along(b) - ROUNDING);
}

/** Sizes that fit to a hair do fit, mm. */
const ROUNDING = 1e-6;

function inRows(box: Bounds, free: Bounds, { copies, spacing, turn, room }: SheetChoices): Laid {
  const ways = [false, true].map((turned) => {
    const [w, h] = turned ? [heightOf(box), widthOf(box)] : [widthOf(box), heightOf(box)];
    const fit = (all: number, one: number): number =>
      Math.max(0, Math.floor((all + spacing + ROUNDING) / (one + spacing)));
    return { w, h, columns: fit(widthOf(free), w), rows: fit(heightOf(free), h) };
  });
  const [asDrawn, turned] = ways.map((way) => way.columns * way.rows);
  const isTurned = turn === 'turned' || (turn === 'shorter' && turned > asDrawn);
  const { w, h, columns: most, rows } = ways[Number(isTurned)];
  const each = most * rows;
  if (each === 0) return [];
  const toCorner = isTurned
    ? multiply([0, 1, -1, 0, box.maxY - box.minY, 0], translation(-box.minX, -box.minY))
    : translation(-box.minX, -box.minY);
  return Array.from({ length: Math.ceil(copies / each) }, (_, k) => {
    const count = Math.min(each, copies - k * each);
    // of a roll no more length is taken than its rows need
    const columns = room.isRoll ? Math.min(most, Math.ceil(count / rows)) : most;
    return Array.from({ length: count }, (__, i): SheetPlace => {
      const [x, y] = [(i % columns) * (w + spacing), Math.floor(i / columns) * (h + spacing)];
      const cell = { minX: x, minY: y, maxX: x + w, maxY: y + h };
      return { copy: k * each + i, matrix: multiply(translation(x, y), toCorner), box: cell };
    });
  });
}

function sheetOf(
  k: number,
  places: readonly SheetPlace[],
  { room, marks: how, before = 0 }: SheetChoices,
): PrintSheet {
  const art = places.map(({ box }) => box).reduce(joinBounds);
  const marks = marksAround(art, how);
  const end = markFrame(art, how).maxX + beyondMark(how) + room.edges.right;
  return {
    id: `sheet-${before + k + 1}`,
    width: room.isRoll ? Math.min(room.width, end) : room.width,
    height: room.height,
    places,
    art,
    marks,
    code: codeBeside(art, marks, how),
  };
}

/** In the band below the art, as far to the right as marks leave it. */
function codeBeside(art: Bounds, marks: readonly PrintMark[], how: PrintMarkChoices): Bounds | undefined {
  const band = markFrame(art, how).maxY - art.maxY;
  const size = Math.min(CODE, band - 2 * QUIET);
  if (size < LEAST_CODE) return undefined;
  const taken = marks.map((mark) => outset(regionBounds(markShape(mark, how.line)), QUIET));
  for (let maxX = art.maxX; maxX - size >= art.minX; maxX -= 1) {
    const minY = art.maxY + (band - size) / 2;
    const box = { minX: maxX - size, minY, maxX, maxY: minY + size };
    if (!taken.some((mark) => boundsTouch(mark, box))) return box;
  }
  return undefined;
}

/** What is written on a sheet. */
export interface SheetLabel {
  /** What its code says. */
  readonly code: string;
  readonly text: string;
}

/** @param order its number or name @param i which of its sheets, from 0 @param panel its number, of art in panels */
export const sheetLabel = (order: string, i: number, many: number, panel?: number): SheetLabel => ({
  code: `JP ${order} ${i + 1} A`,
  text: `${order} · sheet ${i + 1} of ${many}${panel === undefined ? '' : ` · panel ${panel}`} · this side up`,
});

/**
 * What a sheet's code tells, or what a person types who reads it off the label, such as `#2047 2`.
 * @returns the order's number and which of its sheets, from 1; undefined: it is no such code
 */
export function readSheetCode(text: string): { readonly order: number; readonly sheet: number } | undefined {
  const [, order, sheet] = /^(?:JP )?#?(\d{1,9}) +(\d{1,4})(?: A)?$/i.exec(text.trim()) ?? [];
  return order === undefined ? undefined : { order: Number(order), sheet: Number(sheet) };
}

/** Lines of one kind on a sheet, mm. */
export interface SheetLines {
  readonly kind: LineKind;
  readonly lines: readonly Polyline[];
}

/** The order in which kinds are cut: what frees the sheet comes last. */
const KINDS: readonly LineKind[] = ['pen', 'crease', 'kiss', 'perforated', 'through'];

/** What is cut on a sheet, kind by kind in the order in which it is. */
export function cutOnSheet({ lines, followed }: PrintUnit, { places }: PrintSheet): SheetLines[] {
  return KINDS.flatMap((kind) => {
    const rings = lines.filter((line) => line.kind === kind).flatMap(({ region }) => region);
    const own = followed.filter((line) => line.kind === kind);
    const all = places.flatMap(({ matrix }) => [
      ...mapRegion(rings, matrix).map((points): Polyline => ({ points, closed: true })),
      ...own.map(({ points, closed }): Polyline => ({ points: mapped(points, matrix), closed })),
    ]);
    return all.length > 0 ? [{ kind, lines: all }] : [];
  });
}

const sizeOf = (width: number, height: number): string =>
  `${formatLength(Math.max(0, width), 'mm')} × ${formatLength(Math.max(0, height), 'mm')}`;

const tooLarge = (box: Bounds, wide: number, high: number): Finding => ({
  code: 'larger-than-sheet',
  severity: 'stop',
  message: `With its bleed and cut line the art is ${sizeOf(widthOf(box), heightOf(box))}; marks and edges leave ${sizeOf(wide, high)} of the sheet.`,
  waysOut: ['Take a larger sheet', 'Draw the marks nearer to the art', 'Make the art smaller'],
  where: box,
  measured: Math.max(widthOf(box), heightOf(box)),
  limit: Math.max(wide, high),
});

const noCode: Finding = {
  code: 'no-room-for-code',
  severity: 'note',
  message: 'Between the art and the marks there is no room for the sheet’s code.',
  waysOut: ['Move the marks further away from the art', 'Write the order on the sheet'],
};
