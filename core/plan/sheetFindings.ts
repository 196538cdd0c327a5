/** What may go wrong with a printed sheet: each said with its measure, its limit and what to do. */
import type { Film } from '../films/film';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { boundsTouch, joinBounds } from '../geometry/bounds';
import { largest } from '../geometry/lists';
import { intersection, rectangle, regionArea, regionBounds } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import type { Cutter } from '../layout/cutter';
import { formatLength } from '../units/length';
import type { Printer, PrintChoices, SheetEdges, SheetRoom } from '../print/choices';
import { markShape, needsPatch } from '../print/marks';
import type { PrintMark } from '../print/marks';
import type { PrintSheet, PrintUnit } from '../print/sheets';
import type { MarkKind } from '../registration/readMarks';
import { unmeasurable } from '../registration/verdict';

/** mm: a line that lies nearer to the art than this runs along its edge. */
const ON_EDGE = 0.5;
/** mm that a cut may lie beside the print and no white shows (common practice, no source). */
export const USUAL_BLEED = 2;

/** What of a cutter matters to sheets. */
export type SheetReader = Pick<Cutter, 'name' | 'narrowest' | 'widest' | 'trackLength' | 'sensor'>;

/** What a sheet has to get through. */
export interface SheetWay {
  readonly film: Pick<Film, 'name' | 'print'>;
  readonly printer: Printer;
  readonly cutter: SheetReader;
  readonly edges: { readonly printer: SheetEdges; readonly cutter: SheetEdges };
  readonly room: SheetRoom;
}

/** What is found about sheets; what holds for all of them is said of the first. */
export function sheetFindings(
  unit: PrintUnit,
  [first]: readonly PrintSheet[],
  { lines, bleed, marks, patch }: Pick<PrintChoices, 'lines' | 'bleed' | 'marks' | 'patch'>,
  { film, printer, cutter, edges, room }: SheetWay,
): Finding[] {
  const isOnEdge = unit.lines.length > 0 && lines.some(({ offset }) => Math.abs(offset) < ON_EDGE);
  return [
    ...(unit.lines.length + unit.followed.length === 0 ? [noLine(lines.length > 0)] : []),
    ...(isOnEdge && bleed < ON_EDGE ? [noBleed(bleed)] : []),
    ...(film.print === 'dark' && !needsPatch(film, patch) ? [unseenMarks(film.name)] : []),
    ...tooLarge(room, printer, cutter),
    ...(first ? [...marksOff(first, marks.line, edges), ...marksOnArt(first, marks.line)] : []),
    ...(first ? unread(first.marks, cutter) : []),
  ];
}

const mm = (value: number): string => formatLength(value, 'mm');

const noLine = (wasAsked: boolean): Finding => ({
  code: 'no-cut-line',
  severity: 'stop',
  message: wasAsked
    ? 'Nothing is left of what the cut lines go around, or nothing so far inside its edge: there is no line to cut.'
    : 'No line is cut around what is printed.',
  waysOut: wasAsked
    ? ['Let the line lie less far inside', 'Let it go around something else under Print marks']
    : ['Add a cut line under Print marks', 'Draw the line in the file and give its colour a line kind'],
});

const noBleed = (bleed: number): Finding => ({
  code: 'no-bleed',
  severity: 'check',
  message:
    'The cut runs along the edge of the art and no colour reaches past it: where it lies a hair off, the film shows.',
  waysOut: [`Give it ${mm(USUAL_BLEED)} of bleed`, 'Let the line lie further outside'],
  measured: bleed,
  limit: USUAL_BLEED,
  key: 'no-bleed',
});

const unseenMarks = (film: string): Finding => ({
  code: 'marks-unseen',
  severity: 'check',
  message: `Black marks do not show on ${film} without white behind them: no sensor finds them, nor does an eye.`,
  waysOut: ['Print white behind the marks', 'Take another film to print on'],
});

/** The sheet itself is too large for a machine. */
function tooLarge({ width, height }: SheetRoom, printer: Printer, cutter: SheetReader): Finding[] {
  const over = (who: string, measured: number, limit: number, way: string): Finding[] =>
    measured <= limit
      ? []
      : [
          {
            code: 'sheet-too-large',
            severity: 'stop',
            message: `The sheet is ${mm(measured)} ${way}; ${who} takes ${mm(limit)}.`,
            waysOut: ['Take a smaller sheet'],
            measured,
            limit,
          },
        ];
  return [
    ...over(printer.name, height, printer.widest, 'wide'),
    ...over(printer.name, width, printer.longest, 'long'),
    ...over(cutter.name, height, cutter.widest, 'wide'),
    ...over(cutter.name, width, cutter.trackLength, 'long'),
    ...(height < cutter.narrowest
      ? [
          {
            code: 'sheet-too-narrow',
            severity: 'stop' as const,
            message: `The sheet is ${mm(height)} wide; ${cutter.name} holds none narrower than ${mm(cutter.narrowest)}.`,
            waysOut: ['Take a wider sheet', 'Send it to another cutter'],
            measured: height,
            limit: cutter.narrowest,
          },
        ]
      : []),
  ];
}

/** Marks where the printer does not print, or the rollers keep the sensor away. */
function marksOff(sheet: PrintSheet, line: number, edges: SheetWay['edges']): Finding[] {
  const all = sheet.marks.map((mark) => regionBounds(markShape(mark, line))).reduce(joinBounds);
  const off = (who: keyof SheetWay['edges']): number => outsideBy(all, sheet, edges[who]);
  const say = (code: string, by: number, what: string): Finding[] =>
    by <= ROUNDING
      ? []
      : [
          {
            code,
            severity: 'stop',
            message: `Marks lie ${mm(by)} inside what ${what} at the edge of the sheet.`,
            waysOut: ['Draw the marks further in', 'Take a larger sheet'],
            measured: by,
            limit: 0,
          },
        ];
  return [
    ...say('mark-unprintable', off('printer'), 'the printer leaves'),
    ...say('mark-under-rollers', off('cutter'), 'the cutter’s rollers hold'),
  ];
}

const ROUNDING = 1e-6;

const outsideBy = (box: Bounds, { width, height }: PrintSheet, edges: SheetEdges): number =>
  Math.max(
    edges.left - box.minX,
    edges.top - box.minY,
    box.maxX - (width - edges.right),
    box.maxY - (height - edges.bottom),
  );

function marksOnArt({ marks, places, code }: PrintSheet, line: number): Finding[] {
  const taken = [...places.map(({ box }) => box), ...(code ? [code] : [])];
  const on = marks.findIndex((mark) => {
    const shape = markShape(mark, line);
    const bounds = regionBounds(shape);
    // the arms of a corner go around the art, and so does their box
    return taken.some(
      (box) => boundsTouch(box, bounds) && regionArea(intersection(shape, rectangle(box))) > 0,
    );
  });
  if (on < 0) return [];
  return [
    {
      code: 'mark-on-art',
      severity: 'stop',
      message: `Mark ${on + 1} lies on what is printed or cut: it would not be found.`,
      waysOut: ['Draw the marks further out', 'Let them keep their distance from the art'],
    },
  ];
}

/** What the cutter's sensor does not read. */
function unread(marks: readonly PrintMark[], { name, sensor }: SheetReader): Finding[] {
  if (!sensor)
    return [
      {
        code: 'marks-by-hand',
        severity: 'note',
        message: `${name} has no sensor: its marks are taken by hand.`,
      },
    ];
  const spots = marks.map(({ at }) => at);
  const far = farthestApart(spots);
  const [{ kind }] = marks;
  return [
    ...unmeasurable(spots, sensor.noise),
    ...(sensor.kinds.includes(kind)
      ? []
      : [
          {
            code: 'mark-kind-unread',
            severity: 'stop' as const,
            message: `${name} does not read ${KIND_NAMES[kind]}.`,
            waysOut: [`Print ${sensor.kinds.map((one) => KIND_NAMES[one]).join(' or ')}`],
          },
        ]),
    ...(marks.length <= sensor.most
      ? []
      : [
          {
            code: 'too-many-marks',
            severity: 'stop' as const,
            message: `There are ${marks.length} marks; ${name} reads ${sensor.most} at the most.`,
            waysOut: ['Set fewer marks between the corners'],
            measured: marks.length,
            limit: sensor.most,
          },
        ]),
    ...(far <= sensor.farthest
      ? []
      : [
          {
            code: 'marks-too-far',
            severity: 'stop' as const,
            message: `Marks lie ${mm(far)} apart; ${name} reads up to ${mm(sensor.farthest)}.`,
            waysOut: ['Take a smaller sheet', 'Draw the marks nearer to the art'],
            measured: far,
            limit: sensor.farthest,
          },
        ]),
  ];
}

const KIND_NAMES: Readonly<Record<MarkKind, string>> = {
  in: 'corners that face in',
  out: 'corners that face out',
  dots: 'dots',
};

const farthestApart = (spots: readonly Spot[]): number =>
  largest([
    0,
    ...spots.flatMap(([x, y], i) =>
      spots.slice(i + 1).map(([u, v]) => Math.max(Math.abs(u - x), Math.abs(v - y))),
    ),
  ]);
