/** Where art that is larger than the cutter is taken apart. */
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { heightOf, widthOf } from '../geometry/bounds';
import { largest } from '../geometry/lists';
import type { Axis, Span } from './axis';
import { AXES, spanOf } from './axis';
import type { PanelChoices, SeamChoices } from './choices';
import type { Ground } from './ground';
import type { PanelRoom } from './room';
import { keptRoom } from './room';
import { crossedAll, impossible, MOST_PANELS, NEAREST, noPanel, noWay, tooMany } from './seamFindings';
import { KEY_WIDTH } from './seamKeys';
import type { Seams, SeamSum } from './seams';
import { fewestPanels, leastCut, NO_SEAMS, panelsOf, sumOf } from './seams';
import type { Widths } from './straightBest';
import { straightBest } from './straightBest';
import { wanderingSeams } from './wandering';

export interface PlacedSeams {
  readonly seams: Seams;
  readonly sum: SeamSum;
  readonly findings: readonly Finding[];
}

/** One set of seams, in the room of the narrowest film. */
export function placeSeams(ground: Ground, room: PanelRoom, choices: SeamChoices): PlacedSeams {
  const { box, ink, kept, spread } = ground;
  const overlap = widestOverlap(choices);
  const taken = spread + (choices.keys ? KEY_WIDTH : 0);
  const wrong = impossible(room, overlap, taken);
  const done = (seams: Seams, findings: readonly Finding[]): PlacedSeams => ({
    seams,
    sum: sumOf(seams, ink),
    findings: [...findings, ...crossedAll(crossedBy(seams, kept), room, isFree(choices))],
  });
  if (wrong) return done(NO_SEAMS, [wrong]);
  const { way } = choices;
  if (way === 'by-hand') return done(...byHand(box, choices));
  if (way === 'grid') {
    const seams = evenly(box, choices.columns, choices.rows);
    return done(seams, tooMany(panelsOf(seams)));
  }
  const fitting = { overlap, taken, onTop: choices.onTop, way };
  const tried = cellsFor(box, keptRoom(room)).flatMap((cell) => {
    const seams = seamsWithin(cell, ground, fitting);
    return seams ? [{ cell, seams, sum: sumOf(seams, ink) }] : [];
  });
  const by = isFree(choices) ? leastCut : fewestPanels;
  const [best] = tried.sort((a, b) => by(a.sum, b.sum));
  if (!best) return done(NO_SEAMS, [noWay(keptRoom(room))]);
  if (way !== 'wandering' || best.sum.ink === 0) return done(best.seams, tooMany(best.sum.panels));
  const starts = tried.flatMap(({ cell, seams }) => {
    const widths = widthsOf(cell, fitting);
    const narrower = SPARE.flatMap((spare) => {
      const own = { ...fitting, taken: fitting.taken + 2 * spare };
      return seamsWithin(cell, ground, own) ?? [];
    });
    return [seams, ...narrower, evenSeams(box, widths)].map((from) => ({ from, widths }));
  });
  const least = wanderingSeams(ground, starts);
  const crossed = crossedAll(crossedBy(least.seams, kept), room, true);
  return { ...least, findings: [...tooMany(least.sum.panels), ...crossed] };
}

/** Room to wander on both sides that seams leave to begin with, mm. */
const SPARE = [40, 120];

/** Whether seams were placed by what they cut. */
const isFree = ({ way }: Pick<PanelChoices, 'way'>): boolean =>
  way === 'when-needed' || way === 'wandering' || way === 'pieces';

/** Boxes that straight seams go through; wandering ones have gone around what they could. */
function crossedBy(seams: Seams, kept: readonly Bounds[]): Bounds[] {
  return kept.filter((box) =>
    AXES.some((axis) => {
      const [from, to] = spanOf(box, axis);
      return seams[axis].some((x, i) => !seams.ways?.[axis][i] && x > from + SLACK && x < to - SLACK);
    }),
  );
}
const SLACK = 2e-3;

const widestOverlap = ({ overlap, overlaps }: Pick<PanelChoices, 'overlap' | 'overlaps'>): number =>
  largest(
    [...overlaps.upright, ...overlaps.level].map((own) => own ?? overlap),
    overlap,
  );

/** How wide a panel may be each way; Infinity: not split that way. */
interface Cell {
  readonly width: number;
  readonly height: number;
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

/** What panels lose of their width. */
interface Fitting {
  readonly overlap: number;
  readonly taken: number;
  readonly onTop: PanelChoices['onTop'];
  readonly way: PanelChoices['way'];
}

const widthsOf = (cell: Cell, fitting: Fitting): Readonly<Record<Axis, Widths>> => ({
  upright: widthsFor(cell.width, fitting),
  level: widthsFor(cell.height, fitting),
});

/**
 * What lies beneath reaches past its seam by the overlap: seam to seam it is narrower by that. Keys reach past each seam
 * by half of themselves, and a film's own seams lie beside the common ones by half of the spread at most.
 */
function widthsFor(widest: number, { overlap, taken, onTop }: Fitting): Widths {
  const between = widest - overlap - taken;
  const [under, over] = [widest - overlap - taken / 2, widest - taken / 2];
  return onTop === 'next' ? { first: under, between, last: over } : { first: over, between, last: under };
}

/** Seams of both axes: none wider than allowed, the overlap counted in; undefined: there are none that do. */
function seamsWithin(cell: Cell, { box, kept, ink }: Ground, fitting: Fitting): Seams | undefined {
  const widths = widthsOf(cell, fitting);
  const along = (axis: Axis): number[] | undefined => {
    const span = spanOf(box, axis);
    if (widths[axis].last === Infinity) return [];
    if (widths[axis].between <= 0) return undefined;
    if (fitting.way === 'equal') return between(span, evenCount(span, widths[axis]));
    if (fitting.way === 'media') return full(span, widths[axis]);
    const spared = kept.map((one) => spanOf(one, axis));
    return straightBest(ink[axis], span, widths[axis], spared);
  };
  const [upright, level] = [along('upright'), along('level')];
  return upright && level && { upright, level };
}

const evenCount = ([from, to]: Span, { between: width }: Widths): number =>
  Math.ceil((to - from) / width - 1e-9);

/** Panels as wide as they may be, the last with what is left. */
function full([from, to]: Span, widths: Widths): number[] {
  const seams: number[] = [];
  for (let x = from + widths.first; x < to - 1e-6; x += widths.between) {
    seams.push(x);
    if (seams.length > MOST_PANELS || to - x <= widths.last) break;
  }
  return seams;
}

/** Even seams where panels do not fit otherwise, one more than there must be: room for wandering on both sides. */
function evenSeams(box: Bounds, widths: Readonly<Record<Axis, Widths>>): Seams {
  const along = (axis: Axis): number[] => {
    if (widths[axis].last === Infinity) return [];
    const span = spanOf(box, axis);
    return between(span, evenCount(span, widths[axis]) + 1);
  };
  return { upright: along('upright'), level: along('level') };
}

function between([from, to]: Span, count: number): number[] {
  return Array.from({ length: Math.max(0, count - 1) }, (_, i) => from + ((i + 1) * (to - from)) / count);
}

const evenly = (box: Bounds, columns: number, rows: number): Seams => ({
  upright: between([box.minX, box.maxX], columns),
  level: between([box.minY, box.maxY], rows),
});

/** Seams as they were set; those that make no panel are told and left out. */
function byHand(box: Bounds, { upright, level }: SeamChoices): [Seams, Finding[]] {
  const findings: Finding[] = [];
  const good = (all: readonly number[], axis: Axis): number[] => {
    const [from, to] = spanOf(box, axis);
    const seams: number[] = [];
    for (const x of [...all].sort((a, b) => a - b)) {
      const isOutside = x < from + NEAREST || x > to - NEAREST;
      if (!isOutside && x - (seams.at(-1) ?? -Infinity) >= NEAREST) seams.push(x);
      else findings.push(noPanel(x, axis, isOutside));
    }
    return seams;
  };
  const seams = { upright: good(upright, 'upright'), level: good(level, 'level') };
  return [seams, [...findings, ...tooMany(panelsOf(seams))]];
}
