/** Where art that is larger than the cutter is taken apart. */
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { heightOf, widthOf } from '../geometry/bounds';
import { formatBoth, formatLength } from '../units/length';
import type { Region } from '../geometry/region';
import type { PanelChoices } from './choices';
import type { Axis, InkProfile } from './ink';
import { costAt, inkProfile } from './ink';
import type { PanelRoom } from './room';
import { fitsIn, keptRoom } from './room';
import type { Widths } from './straightBest';
import { straightBest } from './straightBest';

/** Straight seams, mm on the sign, rising: upright ones by their x, level ones by their y. */
export interface Seams {
  readonly upright: readonly number[];
  readonly level: readonly number[];
}

/** What seams come to. */
export interface SeamSum {
  readonly panels: number;
  /** mm of art cut */
  readonly ink: number;
  /** Outlines crossed. */
  readonly crossings: number;
}

export interface Panelling {
  /** The art that is taken apart. */
  readonly box: Bounds;
  readonly seams: Seams;
  readonly sum: SeamSum;
  readonly findings: readonly Finding[];
}

/** How wide a panel may be each way; Infinity: not split that way. */
interface Cell {
  readonly width: number;
  readonly height: number;
}

export const MOST_PANELS = 200;
const NO_SEAMS: Seams = { upright: [], level: [] };

/**
 * The seams of an order: one set for all films that are taken apart, in the room of the narrowest.
 * @param box all that is taken apart
 * @param regions what is seen of it, film by film
 */
export function placeSeams(
  box: Bounds,
  regions: readonly Region[],
  room: PanelRoom,
  choices: Omit<PanelChoices, 'skip'>,
): Panelling {
  const ink = { upright: inkProfile(regions, 'upright'), level: inkProfile(regions, 'level') };
  const kept = keptRoom(room, choices.reserve);
  const wrong = impossible(kept, room, choices);
  const done = (seams: Seams, findings: readonly Finding[]): Panelling => ({
    box,
    seams,
    sum: sumOf(seams, ink),
    findings,
  });
  if (wrong) return done(NO_SEAMS, [wrong]);
  const { way } = choices;
  if (way === 'by-hand') return done(...byHand(box, choices));
  if (way === 'grid') {
    const seams = evenly(box, choices.columns, choices.rows);
    return done(seams, tooMany(seams));
  }
  const tried = cellsFor(box, kept).flatMap((cell) => {
    const seams = seamsWithin(cell, box, ink, choices);
    return seams ? [{ seams, sum: sumOf(seams, ink) }] : [];
  });
  const by = way === 'when-needed' ? leastCut : fewestPanels;
  const [best] = tried.sort((a, b) => by(a.sum, b.sum));
  return best ? done(best.seams, tooMany(best.seams)) : done(NO_SEAMS, [noWay(kept)]);
}

const leastCut = (a: SeamSum, b: SeamSum): number =>
  a.ink - b.ink || a.crossings - b.crossings || a.panels - b.panels;
const fewestPanels = (a: SeamSum, b: SeamSum): number => a.panels - b.panels || leastCut(a, b);

function sumOf({ upright, level }: Seams, ink: Readonly<Record<Axis, InkProfile>>): SeamSum {
  const costs = [...upright.map((x) => costAt(ink.upright, x)), ...level.map((y) => costAt(ink.level, y))];
  return {
    panels: (upright.length + 1) * (level.length + 1),
    ink: costs.reduce((sum, cost) => sum + cost.ink, 0),
    crossings: costs.reduce((sum, cost) => sum + cost.crossings, 0),
  };
}

/** Ways to split so that every panel fits: upright seams alone, level ones alone, or both. */
function cellsFor(box: Bounds, { across, along, turn }: PanelRoom): Cell[] {
  const [w, h] = [widthOf(box), heightOf(box)];
  const lying = [
    ...(turn === 'turned' ? [] : [{ width: along, height: across }]),
    ...(turn === 'as-drawn' ? [] : [{ width: across, height: along }]),
  ];
  return lying.map(({ width, height }) => ({
    width: w <= width ? Infinity : width,
    height: h <= height ? Infinity : height,
  }));
}

/** Seams of one axis: none wider than allowed, the overlap counted in; undefined: there are none that do. */
function seamsWithin(
  cell: Cell,
  box: Bounds,
  ink: Readonly<Record<Axis, InkProfile>>,
  choices: Omit<PanelChoices, 'skip'>,
): Seams | undefined {
  const upright = seamsAlong([box.minX, box.maxX], cell.width, ink.upright, choices);
  const level = seamsAlong([box.minY, box.maxY], cell.height, ink.level, choices);
  return upright && level && { upright, level };
}

function seamsAlong(
  span: readonly [number, number],
  widest: number,
  ink: InkProfile,
  { way, overlap, onTop }: Omit<PanelChoices, 'skip'>,
): number[] | undefined {
  if (widest === Infinity) return [];
  const widths = widthsFor(widest, overlap, onTop);
  if (widths.between <= 0) return undefined;
  const [from, to] = span;
  if (way === 'equal') {
    const count = Math.ceil((to - from) / widths.between - 1e-9);
    return between(span, count);
  }
  if (way === 'media') {
    const seams: number[] = [];
    for (let x = from + widths.first; x < to - 1e-6; x += widths.between) {
      seams.push(x);
      if (seams.length > MOST_PANELS || to - x <= widths.last) break;
    }
    return seams;
  }
  return straightBest(ink, span, widths);
}

/** What lies beneath reaches past its seam by the overlap: seam to seam it is narrower by that. */
function widthsFor(widest: number, overlap: number, onTop: PanelChoices['onTop']): Widths {
  const under = widest - overlap;
  return onTop === 'next'
    ? { first: under, between: under, last: widest }
    : { first: widest, between: under, last: under };
}

function between([from, to]: readonly [number, number], count: number): number[] {
  return Array.from({ length: Math.max(0, count - 1) }, (_, i) => from + ((i + 1) * (to - from)) / count);
}

const evenly = (box: Bounds, columns: number, rows: number): Seams => ({
  upright: between([box.minX, box.maxX], columns),
  level: between([box.minY, box.maxY], rows),
});

/** Nearer than this to another or to the art's edge a seam makes no panel, mm. */
const NEAREST = 1;

/** Seams as they were set; those that make no panel are told and left out. */
function byHand(box: Bounds, { upright, level }: Omit<PanelChoices, 'skip'>): [Seams, Finding[]] {
  const findings: Finding[] = [];
  const good = (all: readonly number[], from: number, to: number, axis: Axis): number[] => {
    const seams: number[] = [];
    for (const x of [...all].sort((a, b) => a - b)) {
      const isOutside = x < from + NEAREST || x > to - NEAREST;
      if (!isOutside && x - (seams.at(-1) ?? -Infinity) >= NEAREST) seams.push(x);
      else findings.push(noPanel(x, axis, isOutside));
    }
    return seams;
  };
  const seams = {
    upright: good(upright, box.minX, box.maxX, 'upright'),
    level: good(level, box.minY, box.maxY, 'level'),
  };
  return [seams, [...findings, ...tooMany(seams)]];
}

const noPanel = (at: number, axis: Axis, isOutside: boolean): Finding => ({
  code: 'seam-without-panel',
  severity: 'check',
  message: `The ${axis} seam at ${formatLength(at, 'mm')} lies ${isOutside ? 'outside the art' : 'on another seam'} and is left out.`,
  waysOut: ['Move it, or take it away'],
  measured: at,
  key: `seam ${axis} ${at.toFixed(1)}`,
});

function tooMany({ upright, level }: Seams): Finding[] {
  const panels = (upright.length + 1) * (level.length + 1);
  if (panels <= MOST_PANELS) return [];
  return [
    {
      code: 'too-many-panels',
      severity: 'stop',
      message: `That makes ${panels} panels; ${MOST_PANELS} is the most.`,
      waysOut: ['Use fewer rows and columns, or wider film', 'Look whether the size under Artwork is meant'],
      measured: panels,
      limit: MOST_PANELS,
    },
  ];
}

/** Choices that no panel can follow. */
function impossible(
  kept: PanelRoom,
  room: PanelRoom,
  { reserve, overlap }: Omit<PanelChoices, 'skip'>,
): Finding | undefined {
  if (kept.across <= NEAREST)
    return {
      code: 'reserve-too-wide',
      severity: 'stop',
      message: `${formatBoth(reserve)} kept in hand leaves nothing of the ${formatBoth(room.across)} that the knife reaches.`,
      waysOut: ['Keep less in hand'],
      measured: reserve,
      limit: room.across,
    };
  if (overlap >= Math.min(kept.across, kept.along) - NEAREST)
    return {
      code: 'overlap-too-wide',
      severity: 'stop',
      message: `An overlap of ${formatBoth(overlap)} is as wide as a panel, which is ${formatBoth(Math.min(kept.across, kept.along))} at most.`,
      waysOut: ['Make the overlap narrower'],
      measured: overlap,
      limit: Math.min(kept.across, kept.along),
    };
  return undefined;
}

const noWay = ({ across }: PanelRoom): Finding => ({
  code: 'no-panels',
  severity: 'stop',
  message: `No seams can be found that leave panels of at most ${formatBoth(across)}.`,
  waysOut: ['Let the parts be turned under Layout', 'Place the seams by hand'],
});

/** A panel that was made by hand or by number, and is larger than what fits. */
export function tooLarge(number: number, box: Bounds, film: string, room: PanelRoom): Finding | undefined {
  const [w, h] = [widthOf(box), heightOf(box)];
  if (fitsIn(w, h, room)) return undefined;
  return {
    code: 'panel-too-large',
    film,
    severity: 'stop',
    message: `Panel ${number} is ${formatLength(w, 'mm')} × ${formatLength(h, 'mm')}; at most ${formatBoth(room.across)} across fits, ${formatBoth(room.along)} along.`,
    waysOut: ['Add a seam, or move one', 'Let the seams be placed where they are needed'],
    where: box,
    measured: Math.min(w, h),
    limit: room.across,
  };
}
