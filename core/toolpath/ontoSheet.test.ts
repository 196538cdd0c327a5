import { expect, test } from '@jest/globals';
import type { Spot } from '../geometry/spot';
import { kindRecipes } from './kinds';
import { ontoSheet } from './ontoSheet';
import type { CutProgram } from './program';

const RECIPE = { force: 80, speed: 30, blade: '45°', bladeOffset: 0.25, overcut: 0.6 };
const program = (...lines: readonly number[][]): CutProgram => ({
  from: [0, 0],
  lines: lines.map((points, copy) => ({
    points: Float64Array.from(points),
    part: 'art',
    copy,
    kind: 'kiss',
  })),
  recipes: kindRecipes(RECIPE, {}, 600),
  cutLength: 0,
  travelLength: 0,
  seconds: lines.length,
  doneAt: Float64Array.from(lines, (_, i) => i + 1),
  length: 420,
});
const STEP = 0.025;
const STEPS = [STEP, STEP] as const;
const pairs = (points: Float64Array): Spot[] =>
  Array.from({ length: points.length / 2 }, (_, i) => [points[2 * i], points[2 * i + 1]]);

test('a straight line on a bowed sheet follows the bow, to half a step of the grid', () => {
  const bow = ([x, y]: Spot): Spot => [x + 3, y + 1 - ((x - 100) / 100) ** 2];
  const [{ points }] = ontoSheet(program([0, 50, 200, 50]), bow, STEPS).lines;
  const along = pairs(points);
  expect(along.length).toBeGreaterThan(30);
  for (const [x, y] of along) {
    const [, wanted] = bow([x - 3, 50]);
    expect(Math.abs(y - wanted)).toBeLessThanOrEqual(STEP / 2 + 1e-9);
    expect(Math.abs(x / STEP - Math.round(x / STEP))).toBeLessThan(1e-6);
  }
  expect([along[0][0], along.at(-1)![0]]).toEqual([3, 203]);
});

test('every part of a move keeps the speed that the move has', () => {
  const bow = ([x, y]: Spot): Spot => [x + 3, y + 1 - ((x - 100) / 100) ** 2];
  const designed = program([0, 50, 20, 50, 20.004, 50, 200, 50]);
  const [line] = ontoSheet(
    { ...designed, lines: [{ ...designed.lines[0], speeds: Float64Array.of(30, 5, 12) }] },
    bow,
    STEPS,
  ).lines;
  expect(line.speeds).toHaveLength(line.points.length / 2 - 1);
  line.speeds!.forEach((speed, i) => expect(speed).toBe(line.points[2 * i + 2] <= 23.001 ? 30 : 12));
});

test('what is shorter than a step is no line any more, and times stay with their lines', () => {
  const still = (at: Spot): Spot => at;
  const { lines, doneAt } = ontoSheet(program([0, 0, 10, 0], [5, 5, 5.004, 5], [0, 9, 10, 9]), still, STEPS);
  expect(lines.map(({ copy }) => copy)).toEqual([0, 2]);
  expect([...doneAt]).toEqual([1, 3]);
});
