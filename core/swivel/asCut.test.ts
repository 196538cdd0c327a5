import { describe, expect, test } from '@jest/globals';
import { lineLength } from '../geometry/path';
import { random } from '../random';
import type { PlannedLine, Stroke } from './asCut';
import { asCut } from './asCut';
import { tipPath } from './tractrix';
import { sample } from '../sample.testing';

const OFFSET = 0.25;
/** Squares in rows, each with a small ring in it; a border lies on the right side of every square. */
const planned = (count: number): PlannedLine[] => [
  { points: [0, 0, 4, 0], bladeOffset: OFFSET, turns: true },
  ...Array.from({ length: count }, (_, i) => {
    const [x, y] = [10 + 40 * (i % 8), 10 + 40 * Math.floor(i / 8)];
    const square = [x, y, x + 30, y, x + 30, y + 30, x, y + 30, x, y];
    const ring = Array.from({ length: 33 }, (_, k) => (k * Math.PI) / 16).flatMap((t) => [
      x + 15 + 5 * Math.cos(t),
      y + 15 + 5 * Math.sin(t),
    ]);
    const border = [x + 30, y, x + 30, y + 30];
    return [ring, square, border].map((points) => ({ points, bladeOffset: OFFSET, turns: false }));
  }).flat(),
];
const LINES = planned(12);
/** All of it as one knife cuts it in one go, line by line. */
const WAYS = (() => {
  let angle = 0;
  return LINES.map(({ points, bladeOffset }) => {
    const tip = tipPath(points, bladeOffset, angle, 0.25);
    angle = tip.angle;
    return tip.points;
  });
})();
const on = (film: number, ...ways: readonly Float64Array[]): Stroke[] =>
  ways.map((points) => ({ points, film }));
const lengthOf = (points: Float64Array): number => lineLength({ points, closed: false });
const moved = (points: Float64Array, dx: number, dy: number): Float64Array =>
  points.map((v, i) => v + (i % 2 === 0 ? dx : dy));
const between = (next: () => number, least: number, most: number): number =>
  Math.floor(least + next() * (most - least + 1));
/** A place of a line that is not its first or last, as its index among numbers. */
const placeIn = (next: () => number, line: number): number => 2 * between(next, 4, WAYS[line].length / 2 - 5);
const NOTHING = { elsewhere: 0, twice: [], missing: [] };
const RUNS = sample(
  Array.from({ length: 20 }, (_, i) => i + 1),
  6,
);

describe('the line of every stroke, by which record it may be', () => {
  test('cut in one go: line by line, whatever lies on what', () => {
    const { parts, ...rest } = asCut(on(0, ...WAYS), LINES);
    expect(rest).toEqual(NOTHING);
    expect(parts.map(({ line }) => line)).toEqual(LINES.map((_, i) => i));
  });

  test('broken off anywhere and gone on with: every line is whole, and cut once', () => {
    for (const seed of RUNS) {
      const next = random(seed * 7919);
      const [line, also] = [between(next, 1, 18), between(next, 19, LINES.length - 1)];
      const strokes = WAYS.flatMap((way, i) => {
        if (i !== line && i !== also) return on(0, way);
        const at = placeIn(next, i);
        return on(0, way.slice(0, at + 2), way.slice(at));
      });
      const { parts, ...rest } = asCut(strokes, LINES);
      expect([seed, rest]).toEqual([seed, NOTHING]);
      expect(parts.map((part) => part.line)).toEqual(
        LINES.flatMap((_, i) => (i === line || i === also ? [i, i] : [i])),
      );
    }
  });

  test('gone on with too early, some is cut twice; too late, some is missing', () => {
    for (const seed of RUNS) {
      const next = random(seed * 104729);
      // a ring: what is missing of a square may as well be missing of the border that lies on it
      const line = 1 + 3 * between(next, 0, 11);
      const way = WAYS[line];
      // more than may be, and less than all of it
      const off = Math.ceil((0.1 + 0.3 * next()) * (way.length / 2));
      const at = 2 * between(next, off + 1, way.length / 2 - off - 2);
      const broken = (from: number): Stroke[] =>
        WAYS.flatMap((one, i) => (i === line ? on(0, one.slice(0, at + 2), one.slice(from)) : on(0, one)));
      const early = asCut(broken(at - 2 * off), LINES);
      expect([seed, early.twice, early.missing]).toEqual([seed, [line], []]);
      const late = asCut(broken(at + 2 * off), LINES);
      expect([seed, late.twice, late.missing]).toEqual([seed, [], [line]]);
    }
  });

  test('lines left out and lines cut again are named', () => {
    const strokes = on(0, ...WAYS.slice(0, 20), ...WAYS.slice(17, 30), ...WAYS.slice(31));
    const { twice, missing } = asCut(strokes, LINES);
    expect([twice, missing]).toEqual([[17, 18, 19], [30]]);
  });

  test('film that slipped: what was cut aside is elsewhere, and what was cut again is whole, half a millimetre off', () => {
    for (const seed of RUNS) {
      const next = random(seed * 15485863);
      const line = between(next, 1, LINES.length - 5);
      const at = placeIn(next, line);
      const [dx, dy] = [3 + 4 * next(), 4 + 3 * next()];
      const aside = [WAYS[line].slice(at), WAYS[line + 1]].map((way) => moved(way, dx, dy));
      const first = Float64Array.from([...WAYS[line].slice(0, at + 2), ...aside[0]]);
      const again = WAYS.slice(line).map((way) => moved(way, 0.2, -0.3));
      const { parts, elsewhere, twice, missing } = asCut(
        on(0, ...WAYS.slice(0, line), first, aside[1], ...again),
        LINES,
      );
      const lay = aside.reduce((sum, way) => sum + lengthOf(way), 0);
      // some of it may cross or touch a line, and a part that was cut before it slipped is cut twice
      expect(elsewhere).toBeGreaterThan(0.5 * lay);
      expect(elsewhere).toBeLessThan(lay + Math.hypot(dx, dy) + 1);
      expect([seed, missing]).toEqual([seed, []]);
      expect(twice.every((i) => i === line || i === line + 1 || i === line - 1)).toBe(true);
      const own = parts.filter((part) => part.stroke > line + 1);
      expect(own.every((part) => part.line >= line)).toBe(true);
    }
  });

  test('film that ended, again and again: each line is whole on one film, what was left on another is elsewhere', () => {
    for (const seed of RUNS) {
      const next = random(seed * 32452843);
      const line = between(next, 2, 20);
      const later = between(next, line + 3, LINES.length - 1);
      const [at, then] = [placeIn(next, line), placeIn(next, later)];
      const alongs = [12.5 + 50 * next(), 90 + 50 * next()];
      const back = (way: Float64Array, film: number): Float64Array => moved(way, -alongs[film - 1], 0);
      const strokes = [
        ...on(0, ...WAYS.slice(0, line), WAYS[line].slice(0, at + 2)),
        // on each the blade is turned first
        ...on(1, WAYS[0]),
        ...on(1, ...[...WAYS.slice(line, later), WAYS[later].slice(0, then + 2)].map((way) => back(way, 1))),
        ...on(2, WAYS[0]),
        ...on(2, ...WAYS.slice(later).map((way) => back(way, 2))),
      ];
      const turned = alongs.map((along) => ({
        ...LINES[0],
        points: moved(Float64Array.from(LINES[0].points), along, 0),
      }));
      const { parts, elsewhere, twice, missing } = asCut(
        strokes,
        [...LINES, ...turned],
        [
          { line: line + 1, along: alongs[0] },
          { line: later + 1, along: alongs[1] },
        ],
      );
      expect([seed, twice, missing]).toEqual([seed, [], []]);
      const left = lengthOf(WAYS[line].slice(0, at + 2)) + lengthOf(WAYS[later].slice(0, then + 2));
      expect(elsewhere).toBeCloseTo(left, 6);
      // told where they were laid out
      for (const part of parts.filter(({ line: own }) => own >= 0 && own < LINES.length))
        expect(
          Math.hypot(part.points[0] - WAYS[part.line][0], part.points[1] - WAYS[part.line][1]),
        ).toBeLessThan(1e-6);
    }
  });

  test('what lies on no line at all is elsewhere, and nothing is cut of nothing', () => {
    const stray = Float64Array.from([500, 500, 530, 500]);
    const { parts, elsewhere } = asCut(on(0, ...WAYS, stray), LINES);
    expect([parts[parts.length - 1].line, elsewhere]).toEqual([-1, 30]);
    expect(asCut([], LINES).missing).toEqual(LINES.flatMap(({ turns }, i) => (turns ? [] : [i])));
    expect(asCut([], [])).toEqual({ parts: [], ...NOTHING });
  });
});
