/** What is drawn and cut to find out how a machine is set: lines on its strip, mm. */
import { largest } from '../geometry/lists';
import type { Spot } from '../geometry/spot';
import type { Recipe } from '../layout/cutter';
import { figures, figuresWidth } from '../panels/strokeFigures';
import type { DesignedMark } from '../registration/readMarks';
import { perforated } from '../toolpath/perforation';
import type { Cell } from './grid';

/** One line of a pattern. */
export interface TestLine {
  readonly points: Float64Array;
  readonly closed: boolean;
  readonly recipe: Recipe;
  /** The holder itself goes along it, whatever trails: a pen's line, or one that shows how far the tip trails. */
  readonly isPlain?: boolean;
  /** g: it belongs to a cell that tries this force. */
  readonly force?: number;
}

export interface Pattern {
  readonly lines: readonly TestLine[];
  /** mm of film that it takes. */
  readonly length: number;
}

/** What there is to lay a pattern on. */
export interface PatternRoom {
  /** mm before the pattern, for the blade to be turned into its way */
  readonly lead: number;
  /** mm the knife reaches across */
  readonly cuttable: number;
}

const line = (recipe: Recipe, ...points: number[]): TestLine => ({
  points: Float64Array.from(points),
  closed: false,
  recipe,
});
const square = (recipe: Recipe, x: number, y: number, size: number): TestLine => ({
  points: Float64Array.of(x, y, x + size, y, x + size, y + size, x, y + size),
  closed: true,
  recipe,
});
const written = (recipe: Recipe, text: string, x: number, y: number, height: number): TestLine[] =>
  figures(text, x, y, height).map((points) => ({ points, closed: false, recipe }));

/** mm of a pen mark's arms, of the rectangle that they stand at the corners of, and off what the sensor may not reach. */
const [ARM, WIDE, TALL, INSET] = [20, 150, 120, 16];
/** mm across that pen marks take at least. */
export const PEN_ROOM = 2 * (ARM + INSET) + 4;

/** Corners, and one in the middle, as a pen draws them and a sensor reads them. */
export function penMarks({ lead, cuttable }: PatternRoom): DesignedMark[] {
  const tall = Math.min(TALL, cuttable - 2 * INSET);
  const [x0, x1] = [lead + INSET, lead + INSET + WIDE];
  const [y0, y1] = [(cuttable - tall) / 2, (cuttable + tall) / 2];
  const mark = (x: number, y: number, ax: number, ay: number): DesignedMark => ({
    kind: 'in',
    at: [x, y],
    arms: [ax, ay],
  });
  const low = Math.min(ARM, tall / 2 - 2);
  return [
    mark(x0, y0, ARM, low),
    mark(x1, y0, -ARM, low),
    mark(x1, y1, -ARM, -low),
    mark(x0, y1, ARM, -low),
    mark((x0 + x1) / 2 - ARM, y0, ARM, low),
  ];
}

/** mm that a pen's line is wide, and by which strokes beside one another lie apart (common practice, no source). */
const [PEN, BESIDE] = [0.5, 0.25];
/** mm that an arm is wide: a sensor tells the edges of a single stroke badly. */
export const PEN_LINE = PEN + 2 * BESIDE;

/** The same as lines: down one arm to the corner and out along the other, three times beside itself. */
export const penPattern = (marks: readonly DesignedMark[], recipe: Recipe): Pattern => ({
  lines: marks.flatMap(({ at: [x, y], arms: [ax, ay] }) =>
    [-BESIDE, 0, BESIDE].map((by) => ({
      ...line(recipe, x + ax, y + by, x + by, y + by, x + by, y + ay),
      isPlain: true,
    })),
  ),
  length: largest(marks.map(({ at, arms }) => at[0] + Math.max(0, arms[0]))) + INSET,
});

/** mm that a printed cross reaches to each side, and one that is cut. */
const [PRINTED, CUT] = [8, 6];

/** Where crosses are printed and cut: the corners of a box, and its middle. */
export const crossPlaces = (width: number, height: number): Spot[] => {
  const [x, y] = [width - PRINTED, height - PRINTED];
  return [
    [PRINTED, PRINTED],
    [x, PRINTED],
    [width / 2, height / 2],
    [PRINTED, y],
    [x, y],
  ];
};

/** Both lines of a cross. @param half mm to each side */
export const crossLines = ([x, y]: Spot, half: number): Float64Array[] => [
  Float64Array.of(x - half, y, x + half, y),
  Float64Array.of(x, y - half, x, y + half),
];
export const printedCross = (at: Spot): Float64Array[] => crossLines(at, PRINTED);
export const cutCross = (at: Spot, recipe: Recipe): TestLine[] =>
  crossLines(at, CUT).map((points) => ({ points, closed: false, recipe }));

/** Shares of the whole way at which ticks are cut. */
const STATIONS = [0.3, 0.6, 1];
/** mm that a tick is long, and figures are high. */
const [TICK, FIGURE] = [10, 4];

/** Places of the ticks, mm from the first. */
export const stationsOf = (whole: number): number[] => STATIONS.map((share) => Math.round(whole * share));

/** A line with a tick at its start and at each station: along the film, or across it. */
export function lengthPattern(
  axis: 'along' | 'across',
  whole: number,
  { lead, cuttable }: PatternRoom,
  recipe: Recipe,
): Pattern {
  const [x0, y0] = axis === 'along' ? [lead + 4, cuttable / 2] : [lead + 4 + TICK, (cuttable - whole) / 2];
  const at = (way: number, aside: number): number[] =>
    axis === 'along' ? [x0 + way, y0 + aside] : [x0 + aside, y0 + way];
  const ticks = [0, ...stationsOf(whole)];
  const label = (way: number, i: number): TestLine[] => {
    const [x, y] = at(way, TICK / 2);
    const back = axis === 'along' ? figuresWidth(String(i), FIGURE) + 1 : -1;
    return written(recipe, String(i), x - back, axis === 'along' ? y - FIGURE : y - FIGURE - 1, FIGURE);
  };
  return {
    lines: ticks.flatMap((way, i) => [
      line(recipe, ...at(way, -TICK / 2), ...at(way, TICK / 2)),
      ...(i === 0 ? [] : label(way, i)),
    ]),
    length: axis === 'along' ? x0 + whole + 8 : x0 + TICK + 8,
  };
}

/** mm of a shape in a row, and from one to the next. */
const [SHAPE, NEXT] = [8, 13];

/** A row of squares, each with another blade offset or overcut, its number beneath. */
export function rowPattern(
  what: 'bladeOffset' | 'overcut',
  values: readonly number[],
  { lead, cuttable }: PatternRoom,
  recipe: Recipe,
): Pattern {
  const perRow = Math.max(1, Math.floor((cuttable - 4) / NEXT));
  const place = (i: number): Spot => [
    lead + 4 + Math.floor(i / perRow) * (NEXT + FIGURE + 1),
    4 + (i % perRow) * NEXT,
  ];
  return {
    lines: values.flatMap((value, i) => {
      const [x, y] = place(i);
      return [
        square({ ...recipe, [what]: value }, x, y, SHAPE),
        ...written(recipe, String(i + 1), x + SHAPE + 1, y, FIGURE),
      ];
    }),
    length: place(values.length - 1)[0] + NEXT + FIGURE + 8,
  };
}

/** mm that a line of a gap is long, and between gaps; gaps that are cut. */
const [GAP_LINE, GAP_NEXT] = [15, 6];
export const GAPS = 4;
/** mm across that gaps take at least. */
export const GAP_ROOM = (GAPS + 1) * GAP_NEXT;
/** mm aside, from where a line of a gap comes. */
const BEND = 2;

/** Pairs of lines that the holder takes to the same place, from both sides: what is left between their ends is two blade offsets. */
export function gapPattern({ lead, cuttable }: PatternRoom, recipe: Recipe): Pattern {
  const [x, y0] = [lead + 4 + GAP_LINE, (cuttable - GAPS * GAP_NEXT) / 2];
  return {
    lines: Array.from({ length: GAPS }, (_, i) => y0 + i * GAP_NEXT).flatMap((y) =>
      // a blade that is pushed straight back does not turn: each comes in with a bend
      [-1, 1].map((side) => ({
        ...line(recipe, x + side * GAP_LINE, y + BEND, x + side * (GAP_LINE - BEND), y, x, y),
        isPlain: true,
      })),
    ),
    length: x + GAP_LINE + 8,
  };
}

/** mm of a cell's square, and from one to the next both ways; perforated ones take some dashes a side. */
const CELL = { size: 8, along: 11, across: 15 } as const;
const DASHED_CELL = { size: 20, along: 24, across: 28 } as const;
/** mm that a cell's figures are high. */
const SMALL = 2;
/** Cells of a grid that fit, forces across the film and what is tried beside them along it. */
export function gridRoom(
  cuttable: number,
  length: number,
  isDashed: boolean,
): { readonly columns: number; readonly rows: number } {
  const { across, along } = isDashed ? DASHED_CELL : CELL;
  return {
    columns: Math.max(1, Math.floor((cuttable - 4) / across)),
    rows: Math.max(1, Math.floor((length - 4) / along)),
  };
}

/** Every cell a square and its diagonal, or a square of dashes, as it is tried, with its force beneath. */
export function gridPattern(
  cells: readonly Cell[],
  columns: number,
  { lead, cuttable }: PatternRoom,
  recipe: Recipe,
): Pattern {
  const { size, along, across } = cells[0].dashes ? DASHED_CELL : CELL;
  const y0 = Math.max(2, (cuttable - columns * across) / 2);
  const at = (i: number): Spot => [lead + 2 + Math.floor(i / columns) * along, y0 + (i % columns) * across];
  return {
    lines: cells.flatMap(({ force, speed, dashes }, i) => {
      const [x, y] = at(i);
      const own = { ...recipe, force, speed };
      const box = square(own, x, y, size);
      return [
        ...(dashes
          ? perforated(box, dashes).map((dash) => ({ ...dash, recipe: own }))
          : [line(own, x, y, x + size, y + size), box]),
        ...written(recipe, dashes ? `${force} ${dashes.join('-')}` : String(force), x, y + size + 1, SMALL),
      ].map((one) => ({ ...one, force }));
    }),
    length: at(cells.length - 1)[0] + along + 4,
  };
}
