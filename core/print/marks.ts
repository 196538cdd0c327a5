/** Print marks around the art of a sheet: where they are, how they look, and in which order they are read. */
import type { Film } from '../films/film';
import type { Bounds } from '../geometry/bounds';
import { heightOf, outset, widthOf } from '../geometry/bounds';
import type { Region } from '../geometry/region';
import { grow, rectangle, weld } from '../geometry/region';
import type { DesignedMark } from '../registration/readMarks';
import type { PrintChoices, PrintMarkChoices } from './choices';

/** One mark on a sheet, mm. */
export interface PrintMark extends DesignedMark {
  readonly isBetween: boolean;
}

/** A dot is as wide as so many lines. */
const DOT = 4;
/** A mark that tells a turned sheet stands aside of the middle by this share of the edge. */
const ASIDE = 0.08;
/** An arm that goes towards the art stays so far off it, mm. */
const OFF_ART = 3;
/** mm: an arm is no shorter */
const LEAST_ARM = 2;
/** Arms of short art are shorter, so that no two marks meet: shares of its edge, for corners and for what lies between. */
const MOST_ARM = 0.3;
const MOST_BETWEEN = 0.2;

/** mm that a mark reaches past where it is read, away from the art. */
export const beyondMark = ({ kind, arm, line }: PrintMarkChoices): number =>
  (kind === 'dots' ? DOT * line : line) / 2 + (kind === 'out' ? arm : 0);

/** mm beside the art that marks and the way to them take. */
export const roomForMarks = (choices: PrintMarkChoices): number => choices.away + beyondMark(choices);

/** Where the corners' marks are: drawn by hand, or as far off the art as is said. */
export const markFrame = (art: Bounds, { at, away }: PrintMarkChoices): Bounds => at ?? outset(art, away);

/**
 * The corners, then what lies between them along one long edge, then along the other. On the first edge there is always one
 * more, aside of the middle: no turn and no mirror brings the marks onto themselves.
 * @param art what is printed and cut, bleed and all, on the sheet
 */
export function marksAround(art: Bounds, choices: PrintMarkChoices): PrintMark[] {
  const frame = markFrame(art, choices);
  const { minX, minY, maxX, maxY } = frame;
  const isUpright = heightOf(frame) > widthOf(frame);
  const corners = (
    [
      [minX, minY, 1, 1],
      [maxX, minY, -1, 1],
      [maxX, maxY, -1, -1],
      [minX, maxY, 1, -1],
    ] as const
  ).slice(0, choices.corners);
  const armsAt = (sx: number, sy: number, most: number): readonly [number, number] => {
    if (choices.kind === 'dots') return [(DOT * choices.line) / 2, (DOT * choices.line) / 2];
    if (choices.kind === 'out') return [-sx * choices.arm, -sy * choices.arm];
    const arm = Math.min(choices.arm, most * Math.min(maxX - minX, maxY - minY));
    return [sx * arm, sy * arm];
  };
  const mark = (x: number, y: number, arms: readonly [number, number], isBetween: boolean): PrintMark => ({
    kind: choices.kind,
    at: [x, y],
    arms,
    isBetween,
  });
  const length = isUpright ? maxY - minY : maxX - minX;
  const many = Math.max(0, Math.ceil(length / choices.between) - 1);
  const first = Array.from(
    { length: Math.max(1, many) },
    (_, i) => (i + 1) / (Math.max(1, many) + 1) - ASIDE,
  );
  const second = Array.from({ length: many }, (_, i) => (i + 1) / (many + 1));
  const between = (share: number, side: 1 | -1): PrintMark => {
    const [x, y] = isUpright
      ? [side === 1 ? minX : maxX, minY + share * length]
      : [minX + share * length, side === 1 ? minY : maxY];
    const [ax, ay] = armsAt(isUpright ? side : 1, isUpright ? 1 : side, MOST_BETWEEN);
    const free = isUpright
      ? side === 1
        ? art.minX - minX
        : maxX - art.maxX
      : side === 1
        ? art.minY - minY
        : maxY - art.maxY;
    // the arm across goes towards the art, and keeps off it
    const short = (arm: number): number =>
      choices.kind === 'in'
        ? Math.sign(arm) * Math.min(Math.abs(arm), Math.max(LEAST_ARM, free - OFF_ART))
        : arm;
    return mark(x, y, isUpright ? [short(ax), ay] : [ax, short(ay)], true);
  };
  return [
    ...corners.map(([x, y, sx, sy]) => mark(x, y, armsAt(sx, sy, MOST_ARM), false)),
    ...first.map((share) => between(share, 1)),
    ...second.map((share) => between(share, -1)),
  ];
}

/** mm of patch around a mark: a sensor needs so much ground on either side of a line (our own). */
const PATCH = 3;

/** Whether marks need white behind them to be seen on a film. */
export const needsPatch = (film: Pick<Film, 'print'>, patch: PrintChoices['patch']): boolean =>
  patch === 'always' || (patch === 'when-needed' && film.print !== 'white');

/**
 * What is printed white, before all else, where the film itself does not show up what is to be read: around the arms of marks,
 * and behind the code.
 * @param line mm that arms are wide
 */
export const patchOn = (marks: readonly PrintMark[], code: Bounds | undefined, line: number): Region =>
  weld([...marks.flatMap((mark) => grow(markShape(mark, line), PATCH)), ...(code ? rectangle(code) : [])]);

/** A mark as it is printed. @param line mm that its arms are wide */
export function markShape({ kind, at: [x, y], arms: [ax, ay] }: DesignedMark, line: number): Region {
  if (kind === 'dots') return grow([Float64Array.of(x, y)], ax);
  const half = line / 2;
  const bar = (x0: number, y0: number, x1: number, y1: number): Bounds => ({
    minX: Math.min(x0, x1) - half,
    minY: Math.min(y0, y1) - half,
    maxX: Math.max(x0, x1) + half,
    maxY: Math.max(y0, y1) + half,
  });
  return weld([...rectangle(bar(x, y, x + ax, y)), ...rectangle(bar(x, y, x, y + ay))]);
}
