/** Where weed lines are wanted. */
import type { Bounds } from '../geometry/bounds';
import type { Polyline } from '../geometry/path';
import type { Axis, Span } from '../panels/axis';
import { append } from '../geometry/lists';
import { spanOf } from '../panels/axis';
import type { Region } from '../geometry/region';
import { strokeOutline } from '../geometry/region';
import type { WeedLineAt, WeedLineChoices } from '../layout/weedChoices';
import { MOST_LINES } from '../layout/weedChoices';
import type { Ground, Wanted } from './ways';
import { gapsAlong, obstacleOf, wayNear, WIDER } from './ways';

/** Longest strip of waste that is lifted in one go, mm (common practice, no source). */
const LONGEST_LIFT = 400;
/** Lines by hand are led around what is in their way no further than this, mm. */
const HAND_REACH = 60;
/** Lines never come nearer to one another, mm. */
const BETWEEN = 1;

/** Choices for one strip, with the lines that are laid on it by hand. */
export interface StripWeedLines extends Omit<WeedLineChoices, 'byHand'> {
  readonly byHand: readonly WeedLineAt[];
}

/** A line, and where it was wanted. */
export interface WeedLine extends Polyline, WeedLineAt {}

/** Lines on one stretch of waste. */
export interface LinesLaid {
  readonly lines: readonly WeedLine[];
  /** How many were wanted, and of how many there is nothing. */
  readonly wanted: number;
  readonly missing: number;
}

/**
 * Weed lines on a stretch of waste: each begins and ends on a border or another line, clear of all that is cut, and none
 * crosses another of the same way.
 */
export function linesOn(ground: Ground, choices: StripWeedLines): LinesLaid {
  const level = linesAlong(ground, 'level', wantedOn(ground.box, 'level', choices), []);
  const wanted = wantedOn(ground.box, 'upright', choices);
  const upright = linesAlong(ground, 'upright', wanted, level.lines);
  if (choices.way !== 'lift' || upright.blocked.length === 0) return together(level, upright);
  // where art leaves no way across, a line along the film between it gives lines something to end on
  const more = linesBetween(ground, upright.blocked, level, choices.step * LEAST_SHARE);
  return together(more, linesAlong(ground, 'upright', wanted, more.lines));
}

/** Lines of one way. */
interface OneWay {
  readonly lines: readonly WeedLine[];
  readonly wanted: number;
  readonly missing: number;
  /** Where one was wanted and does not go all the way. */
  readonly blocked: readonly number[];
}

const together = (level: OneWay, upright: OneWay): LinesLaid => ({
  lines: [...level.lines, ...upright.lines],
  wanted: level.wanted + upright.wanted,
  missing: level.missing + upright.missing,
});

function linesAlong(
  ground: Ground,
  axis: Axis,
  wanted: readonly Wanted[],
  others: readonly WeedLine[],
): OneWay {
  const lines: WeedLine[] = [];
  const blocked: number[] = [];
  let missing = 0;
  for (const one of wanted) {
    const way = wayNear(ground, axis, one, others);
    if (way.blocked > 0) blocked.push(one.at);
    if (way.clear.length === 0) missing++;
    for (const { points, closed } of way.clear) lines.push({ axis, at: one.at, points, closed });
  }
  return { lines, wanted: wanted.length, missing, blocked };
}

/** Lines along the film through gaps lie this share of a strip's width apart at the least. */
const LEAST_SHARE = 0.7;
/** Gaps that are tried for a line along the film, the highest first. */
const TRIES = 12;
/** How far from a gap such a line may be led, mm. */
const LED = 150;

/** Lines along the film through gaps between art that lines across cannot pass, there or close by. */
function linesBetween(ground: Ground, blocked: readonly number[], level: OneWay, apart: number): OneWay {
  const gaps = blocked
    .flatMap((x) => [x - apart / 2, x, x + apart / 2])
    .flatMap((x) => gapsAlong(ground, 'upright', x).map(([from, to]) => ({ x, from, to })))
    .sort((a, b) => b.to - b.from - (a.to - a.from));
  const [least, most] = spanOf(ground.box, 'level');
  const lines = [...level.lines];
  for (const { x, from, to } of gaps.slice(0, TRIES)) {
    const at = (from + to) / 2;
    if (lines.some((line) => passes(line, x, at - apart, at + apart))) continue;
    const reach: Span = [Math.max(least, at - LED), Math.min(most, at + LED)];
    const { clear, blocked: length } = wayNear(apartFrom(ground, lines), 'level', { at, reach }, []);
    const found = clear.map(({ points, closed }): WeedLine => ({ axis: 'level', at, points, closed }));
    if (length === 0 && found.some((line) => passes(line, x, from, to))) append(lines, found);
  }
  return { ...level, lines };
}

/** Whether a line along the film goes through a gap. */
function passes({ points }: WeedLine, x: number, from: number, to: number): boolean {
  for (let i = 0; i + 3 < points.length; i += 2) {
    const [ax, ay, bx, by] = [points[i], points[i + 1], points[i + 2], points[i + 3]];
    if (ax === bx || Math.min(ax, bx) > x || Math.max(ax, bx) < x) continue;
    const y = ay + ((by - ay) * (x - ax)) / (bx - ax);
    if (y >= from && y <= to) return true;
  }
  return false;
}

/** The ground with lines that others of the same way keep off. */
function apartFrom(ground: Ground, lines: readonly Polyline[]): Ground {
  if (lines.length === 0) return ground;
  const stroke = (width: number): Region =>
    strokeOutline(lines, width, { join: 'round', cap: 'square', miterLimit: 2 });
  const along = obstacleOf(stroke(2 * BETWEEN), stroke(2 * (BETWEEN + WIDER)));
  return { ...ground, obstacles: [...ground.obstacles, along] };
}

function wantedOn(box: Bounds, axis: Axis, { way, step, direction, byHand }: StripWeedLines): Wanted[] {
  const span = spanOf(box, axis);
  if (way === 'hand') {
    const own = byHand.filter((line) => line.axis === axis);
    return besideOthers(
      own.map(({ at }) => at),
      span,
    );
  }
  if (way === 'lift') {
    if (axis === 'upright') return toLift(span, step);
    return span[1] - span[0] > LONGEST_LIFT ? toLift(span, LONGEST_LIFT) : [];
  }
  const isAsked = direction === 'both' || direction === (axis === 'upright' ? 'across' : 'along');
  return way === 'step' && isAsked ? atStep(span, step) : [];
}

/** Lines a step apart; a rest of less than half a step stays with the strip before. */
function atStep([from, to]: Span, step: number): Wanted[] {
  const count = Math.min(MOST_LINES, Math.max(0, Math.ceil((to - from) / step - 0.5) - 1));
  return Array.from({ length: count }, (_, k): Wanted => {
    const at = from + (k + 1) * step;
    return { at, reach: [at - (step - BETWEEN) / 2, at + (step - BETWEEN) / 2] };
  });
}

/** Room that lines are given to be led around art, of the widest strip. */
const SLACK = 0.25;

/** As few equal strips as leave each line some room: led aside by no more than it, no strip is wider than `widest`. */
function toLift([from, to]: Span, widest: number): Wanted[] {
  const strips = Math.min(MOST_LINES + 1, Math.ceil((to - from) / (widest * (1 - SLACK))));
  if (to - from <= widest) return [];
  const apart = (to - from) / strips;
  return Array.from({ length: strips - 1 }, (_, k): Wanted => {
    const at = from + (k + 1) * apart;
    // rather a strip that is too wide than no line
    return { at, reach: [at - (apart - BETWEEN) / 2, at + (apart - BETWEEN) / 2] };
  });
}

/** Lines where they are wanted, each led no further than half way to the next. */
function besideOthers(all: readonly number[], [from, to]: Span): Wanted[] {
  const places = [...new Set(all)].filter((at) => at > from && at < to).sort((a, b) => a - b);
  return places.map((at, i): Wanted => {
    const low = i === 0 ? from : (places[i - 1] + at) / 2;
    const high = i === places.length - 1 ? to : (at + places[i + 1]) / 2;
    return {
      at,
      reach: [Math.max(low + BETWEEN / 2, at - HAND_REACH), Math.min(high - BETWEEN / 2, at + HAND_REACH)],
    };
  });
}
