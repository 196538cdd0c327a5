import { own } from '../units/own';
import { append } from '../geometry/lists';
import type { FilmLayer } from '../films/separate';
import type { Film, Roll } from '../films/film';
import { limitsOf } from '../films/film';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { heightOf, widthOf } from '../geometry/bounds';
import type { Matrix } from '../geometry/matrix';
import { IDENTITY, multiply, translation } from '../geometry/matrix';
import type { Polyline } from '../geometry/path';
import type { Region } from '../geometry/region';
import { mapRegion, ringArea, ringBounds } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import { formatLength } from '../units/length';
import { weedBorder } from './border';
import type { Cutter } from './cutter';
import { cuttableWidth } from './cutter';

export interface LayoutChoices {
  readonly copies: number;
  /** mm between copies, weed borders included */
  readonly spacing: number;
  readonly turn: 'as-drawn' | 'turned' | 'shorter';
  readonly mirror: 'by-film' | 'mirrored' | 'not-mirrored';
  readonly border: boolean;
  /** mm from the art to its weed border */
  readonly borderDistance: number;
  readonly place: 'edge' | 'middle';
  /** Width of the roll a film is cut from, by film id; missing: whichever takes the least film. */
  readonly rolls: Readonly<Record<string, number>>;
}

/** One copy on the film: maps face view to the strip. */
export interface Placement {
  readonly copy: number;
  readonly matrix: Matrix;
  /** What it takes up on the strip, weed border included. */
  readonly box: Bounds;
}

/**
 * One film as it will lie in the cutter. Strip coordinates in mm: x runs along the roll from the leading edge,
 * y across it from the far edge of the cuttable width.
 */
export interface Strip {
  readonly film: Film;
  readonly layer: FilmLayer;
  readonly roll: Roll;
  readonly cuttable: number;
  /** Uncut film at each edge of the roll, mm. */
  readonly rollerMargin: number;
  readonly mirrored: boolean;
  readonly turned: boolean;
  readonly placements: readonly Placement[];
  /** Weed border per placement, broken beside layer marks; empty when switched off. */
  readonly borders: readonly (readonly Polyline[])[];
  /** mm of film used along the roll */
  readonly length: number;
  /** mm² of film used, the whole width */
  readonly area: number;
  /** Share of the used film that stays on the sign, 0 … 1. */
  readonly used: number;
}

export interface Layout {
  readonly strips: readonly Strip[];
  readonly findings: readonly Finding[];
}

/** Room kept at both edges of the cuttable width: the holder swings past the art by its blade offset, mm. */
const SWING_ROOM = 0.5;
/** Room kept free at the end of a strip, for cutting it off the roll, mm. */
const TAIL = 5;

/**
 * Lays every film of an order on its roll: copies in columns across the film, columns along it, each film with
 * its own box so that none is longer than it must be.
 */
export function layOut(films: readonly FilmLayer[], choices: LayoutChoices, cutter: Cutter): Layout {
  const strips: Strip[] = [];
  const findings: Finding[] = [];
  for (const layer of films) {
    const { film } = layer;
    const strip = onBestRoll(layer, choices, cutter);
    if ('code' in strip) findings.push(strip);
    else {
      strips.push(strip);
      append(findings, stripFindings(strip, cutter));
    }
    append(findings, mirrorFindings(film, choices));
  }
  return { strips, findings };
}

/** A film on the roll that was chosen, or on the one of which it takes the least and that is long enough. */
function onBestRoll(layer: FilmLayer, choices: LayoutChoices, cutter: Cutter): Strip | Finding {
  const { film } = layer;
  if (film.rolls.length === 0) return noRoll(film);
  const fitting = film.rolls.filter((roll) => isTaken(roll, cutter));
  if (fitting.length === 0) return rollMisfit(film, cutter);
  const chosen = fitting.filter(({ width }) => width === own(choices.rolls, film.id));
  const tries = (chosen.length > 0 ? chosen : fitting).map((roll) => stripOf(layer, roll, choices, cutter));
  const strips = tries.filter((strip): strip is Strip => !('code' in strip));
  const missing = ({ length, roll }: Strip): number => Math.max(0, length - roll.lengthLeft);
  strips.sort((a, b) => missing(a) - missing(b) || a.area - b.area);
  // when it is too wide for all of them, the widest roll tells by how much
  return strips[0] ?? tries.reduce((best, next) => (limitIn(next) > limitIn(best) ? next : best));
}

const limitIn = (strip: Strip | Finding): number => ('code' in strip ? (strip.limit ?? 0) : 0);

const isTaken = ({ width }: Roll, { narrowestRoll, widestRoll }: Cutter): boolean =>
  width >= narrowestRoll && width <= widestRoll;

const noRoll = ({ name }: Film): Finding => ({
  code: 'no-roll',
  severity: 'stop',
  message: `No roll of ${name} is on the shelf.`,
  waysOut: ['Pick another film under Films', 'Add a roll under Materials'],
});

function rollMisfit({ name, rolls }: Film, cutter: Cutter): Finding {
  const widths = rolls.map(({ width }) => both(width)).join(', ');
  return {
    code: 'roll-misfit',
    severity: 'stop',
    message: `${name} is ${widths} wide; ${cutter.name} takes rolls of ${both(cutter.narrowestRoll)} to ${both(cutter.widestRoll)}.`,
    waysOut: ['Pick a film on another roll under Films'],
    measured: rolls[0].width,
    limit: cutter.widestRoll,
  };
}

function stripOf(layer: FilmLayer, roll: Roll, all: LayoutChoices, cutter: Cutter): Strip | Finding {
  const choices = { ...all, copies: layer.copies ?? all.copies };
  const cuttable = cuttableWidth(cutter, roll.width);
  const usable = cuttable - 2 * SWING_ROOM;
  const rim = choices.border ? choices.borderDistance : 0;
  const along = widthOf(layer.bounds) + 2 * rim;
  const across = heightOf(layer.bounds) + 2 * rim;
  const asDrawn = packing(along, across, usable, choices);
  const turnedRound = packing(across, along, usable, choices);
  const turned = pickTurn(choices, asDrawn, turnedRound);
  const chosen = turned ? turnedRound : asDrawn;
  if (!chosen)
    return tooWide(layer, roll, turned ? along : across, usable, cutter, turned ? asDrawn : turnedRound);
  const mirrored = isMirrored(layer.film, choices);
  const cell = turned ? { along: across, across: along } : { along, across };
  const toCell = intoCell(layer.bounds, rim, mirrored, turned);
  const start: Spot = [
    cutter.leadMargin,
    choices.place === 'middle' ? (cuttable - chosen.width) / 2 : SWING_ROOM,
  ];
  const placements = Array.from({ length: choices.copies }, (_, copy) =>
    placeCopy(copy, chosen.rows, cell, start, choices.spacing, toCell),
  );
  const length = cutter.leadMargin + chosen.length + TAIL;
  return {
    film: layer.film,
    layer,
    roll,
    cuttable,
    rollerMargin: cutter.rollerMargin,
    mirrored,
    turned,
    placements,
    borders: choices.border ? placements.map((p) => borderOf(p, layer.marks, rim)) : [],
    length,
    area: length * roll.width,
    used: (layer.area * choices.copies) / (length * roll.width),
  };
}

function borderOf({ box, matrix }: Placement, marks: Region, rim: number): Polyline[] {
  const outer = marks.filter((ring) => ringArea(ring) > 0);
  const tabs = mapRegion(outer, matrix).map(ringBounds);
  return weedBorder(box, tabs, rim + BESIDE);
}

/** Tabs no further from the art's edge than this count as lying beside the border, mm. */
const BESIDE = 1;

interface Packing {
  readonly rows: number;
  /** mm along and across */
  readonly length: number;
  readonly width: number;
}

/** How copies of a box pack on the film, or undefined when even one is too wide. */
function packing(
  along: number,
  across: number,
  usable: number,
  { copies, spacing }: LayoutChoices,
): Packing | undefined {
  if (across > usable + 1e-6) return undefined;
  const rows = Math.min(copies, Math.max(1, Math.floor((usable + spacing + 1e-6) / (across + spacing))));
  const columns = Math.ceil(copies / rows);
  return {
    rows,
    length: columns * along + (columns - 1) * spacing,
    width: rows * across + (rows - 1) * spacing,
  };
}

function pickTurn(
  choices: LayoutChoices,
  asDrawn: Packing | undefined,
  turned: Packing | undefined,
): boolean {
  if (choices.turn !== 'shorter') return choices.turn === 'turned';
  if (!asDrawn || !turned) return asDrawn === undefined && turned !== undefined;
  return turned.length < asDrawn.length - 1e-6;
}

/** Film that is cut from the back is mirrored by itself: its face lies down in the cutter. */
function isMirrored(film: Film, choices: LayoutChoices): boolean {
  return choices.mirror === 'by-film' ? film.cutFromBack : choices.mirror === 'mirrored';
}

/** Face view → a cell whose upper left corner is 0, 0: mirrored left to right first, then turned. */
function intoCell(box: Bounds, rim: number, mirrored: boolean, turned: boolean): Matrix {
  const w = widthOf(box) + 2 * rim;
  const h = heightOf(box) + 2 * rim;
  const toCorner = translation(rim - box.minX, rim - box.minY);
  const mirror: Matrix = mirrored ? [-1, 0, 0, 1, w, 0] : IDENTITY;
  // a quarter turn clockwise: the art's top then points across the film
  const turn: Matrix = turned ? [0, 1, -1, 0, h, 0] : IDENTITY;
  return multiply(turn, multiply(mirror, toCorner));
}

function placeCopy(
  copy: number,
  rows: number,
  cell: { along: number; across: number },
  start: Spot,
  spacing: number,
  toCell: Matrix,
): Placement {
  const x = start[0] + Math.floor(copy / rows) * (cell.along + spacing);
  const y = start[1] + (copy % rows) * (cell.across + spacing);
  const box = { minX: x, minY: y, maxX: x + cell.along, maxY: y + cell.across };
  return { copy, matrix: multiply(translation(x, y), toCell), box };
}

const both = (mm: number): string => `${formatLength(mm, 'mm')} (${(mm / 25.4).toFixed(2)} in)`;

function tooWide(
  layer: FilmLayer,
  roll: Roll,
  needs: number,
  usable: number,
  cutter: Cutter,
  otherWay: Packing | undefined,
): Finding {
  const scale = Math.floor((usable / needs) * 1000) / 10;
  return {
    code: 'too-wide',
    severity: 'stop',
    message: `${layer.film.name} needs ${both(needs)} across, but the knife reaches ${both(usable)} on this ${formatLength(roll.width, 'mm')} roll in ${cutter.name}.`,
    waysOut: [
      ...(otherWay ? ['Turn it by 90° under Layout: then it fits'] : []),
      `Make the sign smaller: ${scale} % of this size fits`,
      `Pick a film on a wider roll under Films`,
    ],
    where: layer.bounds,
    measured: needs,
    limit: usable,
  };
}

function stripFindings(strip: Strip, cutter: Cutter): Finding[] {
  const findings: Finding[] = [];
  const second = strip.layer.lines.filter((line) => line.kind === 'pen' || line.kind === 'crease').length;
  if (second > 0 && (cutter.device.tools ?? 1) < 2) {
    findings.push({
      code: 'no-second-tool',
      severity: 'check',
      message: `${second === 1 ? '1 line of' : `${second} lines of`} ${strip.film.name} want a pen or a creasing tool; ${cutter.name} holds only a knife, so they are left out.`,
      waysOut: ['Give them another line kind under Artwork', 'Pick a cutter with two tools'],
      where: strip.layer.bounds,
      key: `no-second-tool ${strip.film.id}`,
    });
  }
  const { lengthLeft } = strip.roll;
  if (strip.length > lengthLeft) {
    findings.push({
      code: 'film-short',
      severity: 'check',
      message: `${strip.film.name} needs ${metres(strip.length)} of film; ${metres(lengthLeft)} is left on the roll.`,
      waysOut: ['Cut fewer copies', 'Put a new roll in'],
      measured: strip.length,
      limit: lengthLeft,
    });
  }
  const ownTrack = limitsOf(strip.film).track;
  if (strip.length > Math.min(cutter.trackLength, ownTrack)) {
    findings.push({
      code: 'long-track',
      severity: 'check',
      message: `${strip.film.name} runs ${metres(strip.length)} in one go; ${ownTrack < cutter.trackLength ? `it runs true for ${metres(ownTrack)}` : `${cutter.name} keeps film true for ${metres(cutter.trackLength)}`}.`,
      waysOut: ['Queue fewer copies at a time'],
      measured: strip.length,
      limit: Math.min(cutter.trackLength, ownTrack),
    });
  }
  return findings;
}

function mirrorFindings(film: Film, { mirror }: LayoutChoices): Finding[] {
  if (mirror === 'by-film') {
    if (!film.cutFromBack) return [];
    const message = `${film.name} is cut from the back, so its cut is mirrored.`;
    return [{ code: 'mirrored-by-film', severity: 'note', message }];
  }
  if (film.cutFromBack === (mirror === 'mirrored')) return [];
  return [
    {
      code: 'mirror-unusual',
      severity: 'check',
      message: film.cutFromBack
        ? `${film.name} is cut from the back but is not mirrored: it will read backwards.`
        : `${film.name} is cut from the front but is mirrored: it will read backwards unless it goes behind glass.`,
      waysOut: ['Set Mirror to “as the film needs” under Layout'],
    },
  ];
}

const metres = (mm: number): string => `${(mm / 1000).toFixed(2)} m`;
