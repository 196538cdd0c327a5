import { describe, expect, test } from '@jest/globals';
import { createMachine } from './machine';

const SPEC = {
  name: 'Curlew',
  widestRoll: 1370,
  rollerMargin: 12.7,
  bufferBytes: 256,
  acceleration: 8000,
  travelSpeed: 60,
  bladeOffset: 0.25,
  wear: 0,
};
const FILM = { name: 'film', width: 610, length: 5000, toughness: 60 };

function machine(spec = SPEC) {
  const answers: string[] = [];
  const own = createMachine(spec, (text) => answers.push(text));
  own.load(FILM);
  return { ...own, answers };
}

describe('answers', () => {
  test('OI, OH, OS, OA as the plotter manuals have them, each closed by a carriage return', () => {
    const m = machine();
    m.receive('IN;OI;OH;OS;PA400,800;OA;PD;OA;');
    m.advance(60);
    expect(m.answers).toEqual(['CURLEW\r', '0,0,200000,23384\r', '16\r', '400,800,0\r', '400,800,1\r']);
  });

  test('without film there is nothing to reach and it is not ready', () => {
    const m = machine();
    m.load(undefined);
    m.receive('OH;OS;');
    m.advance(1);
    expect(m.answers).toEqual(['0,0,0,0\r', '0\r']);
  });

  test('past the hard limits the head stops and the error shows', () => {
    const m = machine();
    m.receive('PA999999,-50;OA;OS;');
    m.advance(600);
    expect(m.answers).toEqual(['200000,0,0\r', '48\r']);
  });
});

describe('time', () => {
  /** Seconds until the answer comes, to a millisecond. */
  function secondsFor(text: string): number {
    const m = machine({ ...SPEC, bufferBytes: 100_000 });
    m.receive(text);
    for (let ms = 1; ms < 100_000; ms++) {
      m.advance(0.001);
      if (m.answers.length > 0) return ms / 1000;
    }
    throw new Error('no answer');
  }

  test('a move from rest to rest takes s/v + v/a; a short one 2·√(s/a)', () => {
    expect(secondsFor('PA40000,0;OA;')).toBeCloseTo(1000 / 600 + 600 / 8000, 2);
    expect(secondsFor('PA80,0;OA;')).toBeCloseTo(2 * Math.sqrt(2 / 8000), 2);
  });

  test('a line in many pieces takes no longer than in one', () => {
    const pieces = Array.from({ length: 100 }, (_, i) => `${(i + 1) * 400},0`).join();
    expect(secondsFor(`PA;${`PU${pieces}`};OA;`)).toBeCloseTo(secondsFor('PA40000,0;OA;'), 1);
  });
});

test('a full buffer makes the sender wait, and empties as the head moves', () => {
  const m = machine();
  let taken = true;
  for (let i = 0; i < 400 && taken; i++) taken = m.receive(`PD${i * 40},${(i % 2) * 4000};`);
  expect(taken).toBe(false);
  expect(m.status().buffered).toBeGreaterThanOrEqual(256);
  m.advance(400);
  expect(m.isFull()).toBe(false);
});

test('the tip trails the head, and depth follows force against the film', () => {
  const m = machine();
  m.receive('IN;FS80;VS30;PU400,400;PD4400,400;PU;');
  m.advance(20);
  const [stroke] = m.strokes();
  expect(stroke.depth).toBe('clean');
  expect(stroke.points.at(-2)).toBeCloseTo(110 - 0.25, 6);
  expect(stroke.points.at(-1)).toBeCloseTo(10, 6);
  for (const [force, depth] of [
    [40, 'not-through'],
    [130, 'into-backing'],
    [250, 'through'],
  ] as const) {
    m.receive(`IN;FS${force};PU0,0;PD400,0;PU;`);
    m.advance(20);
    expect(m.strokes()[0].depth).toBe(depth);
  }
});
