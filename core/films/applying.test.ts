import { expect, test } from '@jest/globals';
import type { PreparedShape } from '../artwork/preparePiece';
import { difference, rectangle, regionBounds } from '../geometry/region';
import type { Region } from '../geometry/region';
import { DEMO_FILMS } from '../../demo/shop';
import { applySheet, hintsOf, markHint } from './applying';
import { seenColours } from './seen';
import { NO_FILM_CHOICES, separate } from './separate';

const square = (x: number, y: number, side: number): Region =>
  rectangle({ minX: x, minY: y, maxX: x + side, maxY: y + side });
const shape = (colour: string, region: Region): PreparedShape => ({
  colour,
  region,
  bounds: regionBounds(region),
  ref: 'p1/0',
});
/** A blue plate, on it a red ring with a counter, and a yellow spot. */
const SHAPES = [
  shape('#1d3f86', square(0, 0, 100)),
  shape('#b0202f', difference(square(10, 10, 40), square(20, 20, 20))),
  shape('#f5cf1b', square(70, 70, 12)),
];
const marks = { shape: 'ring', count: 2, size: 8, at: null } as const;
const separated = (choices = NO_FILM_CHOICES) =>
  separate(seenColours(SHAPES), choices, DEMO_FILMS, [], { width: 100, height: 100, shapes: SHAPES });

test('films come from the top of the pile down; shapes and counters are those of the art, marks left out', () => {
  for (const choices of [NO_FILM_CHOICES, { ...NO_FILM_CHOICES, marks }]) {
    const { steps } = applySheet({ width: 100, height: 100 }, separated(choices), choices.marks?.shape);
    expect(steps.map(({ film, place }) => [film.id, place])).toEqual([
      ['buoy', 'top'],
      ['currant', 'between'],
      ['harbour', 'base'],
    ]);
    expect(steps.map(({ shapes, counters }) => [shapes, counters])).toEqual([
      [1, 0],
      [1, 1],
      // the plate with two holes, and what is seen of it inside the ring
      [2, 2],
    ]);
    expect(hintsOf(steps[0])).toEqual([
      '1 shape stays, the smallest 144 mm²',
      'no counters to pick',
      'the top film: nothing lies over it',
    ]);
    expect(hintsOf(steps[1])).toContain('its edge lies beneath the film above');
  }
});

test('the sheet shows where marks meet, and has room for them', () => {
  const sheet = applySheet({ width: 100, height: 100 }, separated({ ...NO_FILM_CHOICES, marks }), 'ring');
  expect(sheet.marks?.at).toHaveLength(2);
  expect(markHint(sheet.marks!)).toMatch(/^The ring marks of all films meet at -\d+, 50 · 1\d\d, 50 mm/);
  expect(sheet.view.minX).toBeLessThan(0);
  expect(applySheet({ width: 100, height: 100 }, separated(), undefined).marks).toBeNull();
});
