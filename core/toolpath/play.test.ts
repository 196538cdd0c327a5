import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import { CURLEW, DEMO_SHOP } from '../../demo/shop';
import { oneFile } from '../plan/oneFile';
import { createPlanner } from '../plan/plan';
import { readResolvedSvg } from '../readers/svg/readResolvedSvg';
import { tipPath } from '../swivel/tractrix';
import { lineLength } from '../geometry/path';
import { cutTwice, headAt, playOf, proofOf } from './play';
import type { Play } from './play';
import type { CutProgram } from './program';
import { lineMoments, lineSeconds, moveReached, moveSeconds } from './time';

const planOf = (svg: string, choices: Parameters<typeof oneFile>[1] = {}) => {
  const order = oneFile(
    readResolvedSvg(new Resvg(svg, { font: { loadSystemFonts: false } }).toString()),
    choices,
  );
  return createPlanner().plan(order.artworks, order.choices, DEMO_SHOP).cuts;
};
const [wren] = planOf(readFileSync('demo/art/marsh-wren.svg', 'utf8'));
const play = playOf(wren.program, CURLEW);
const spots = (xy: Float64Array): [number, number][] =>
  Array.from({ length: xy.length / 2 }, (_, i) => [xy[2 * i], xy[2 * i + 1]]);

describe('time', () => {
  test('a move reaches what its speed, summed up in small steps, comes to', () => {
    for (const [s, v, a] of [
      [100, 300, 2000],
      [5, 300, 2000],
    ]) {
      const whole = moveSeconds(s, v, a);
      const STEPS = 20_000;
      let [at, speed, worst] = [0, 0, 0];
      for (let k = 0; k < STEPS; k++) {
        const t = (k * whole) / STEPS;
        worst = Math.max(worst, Math.abs(moveReached(s, v, a, t) - at));
        // it gathers speed as long as it can still brake in what is left
        const brakes = (speed * speed) / (2 * a) >= s - at;
        speed = Math.max(0, Math.min(v, speed + ((brakes ? -a : a) * whole) / STEPS));
        at += (speed * whole) / STEPS;
      }
      expect(worst).toBeLessThan(s * 1e-3);
      expect(moveReached(s, v, a, whole)).toBeCloseTo(s, 9);
    }
  });

  test('moments rise to the time of the whole line, also where places lie on one another', () => {
    const line = Float64Array.of(0, 0, 10, 0, 10, 0, 10, 20, 30, 40, 30, 40);
    const moments = lineMoments(line, 200, 1500, 0.02);
    expect(moments[0]).toBe(0);
    expect(moments.at(-1)).toBeCloseTo(lineSeconds(line, 200, 1500, 0.02), 12);
    expect(moments[2]).toBe(moments[1]);
    expect(moments.every((moment, i) => i === 0 || moment >= moments[i - 1])).toBe(true);
  });
});

describe('a program is played', () => {
  test('as long as it is said to take, kind by kind', () => {
    expect(play.moments.at(-1)! + CURLEW.motion.up).toBeCloseTo(wren.program.seconds, 6);
    const down = play.times.reduce((sum, { seconds }) => sum + seconds, 0);
    expect(down + play.travel + play.lifts).toBeCloseTo(wren.program.seconds, 6);
    const lengths = play.times.reduce((sum, { length }) => sum + length, 0);
    expect(lengths).toBeCloseTo(wren.program.cutLength, 6);
    expect(play.times.map(({ kind }) => kind)).toEqual(['kiss', 'weed', 'align']);
    expect(play.kinds).toHaveLength(wren.program.lines.length);
  });

  test('curves that are cut slower are played slower, and take what they are said to', () => {
    // twelve plates with straight sides and corners of 6 mm radius
    const plates = Array.from(
      { length: 12 },
      (_, i) => `<rect x="${(i % 4) * 120}" y="${Math.floor(i / 4) * 60}" width="100" height="40" rx="6"/>`,
    );
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="480mm" height="180mm" viewBox="0 0 480 180">${plates.join('')}</svg>`;
    const [usual] = planOf(svg);
    const recipes = { curlew: { [usual.strip.film.id]: { slowRadius: 60 } } };
    const [slow] = planOf(svg, { cut: { recipes } });
    const own = playOf(slow.program, CURLEW);
    expect(own.moments.at(-1)! + CURLEW.motion.up).toBeCloseTo(slow.program.seconds, 6);
    expect(slow.program.seconds).toBeGreaterThan(1.1 * usual.program.seconds);
    const moves = slow.program.lines.flatMap(({ points, speeds }) =>
      [...(speeds ?? [])].map((speed, i) => ({
        speed,
        length: Math.hypot(points[2 * i + 2] - points[2 * i], points[2 * i + 3] - points[2 * i + 1]),
      })),
    );
    // straight sides go as fast as before: four of each plate
    const sides = moves.filter(({ length }) => length > 5);
    expect(sides.length).toBeGreaterThanOrEqual(4 * 12);
    expect(sides.filter(({ speed }) => speed !== slow.recipe.speed)).toEqual([]);
    // corners go at √(6 / 60) of that at the most, and at no more than a rung less
    const slowest = Math.min(...moves.map(({ speed }) => speed));
    expect(slowest / slow.recipe.speed!).toBeLessThanOrEqual(Math.sqrt(6 / 60));
    expect(slowest / slow.recipe.speed!).toBeGreaterThan(0.7 * Math.sqrt(6 / 60));
    // the way itself is the same
    expect(slow.program.cutLength).toBeCloseTo(usual.program.cutLength, 9);
    // a knob for its speed: nothing can be told on the way
    const cutters = DEMO_SHOP.cutters.map((one) => ({
      ...one,
      device: { ...one.device, sendsSpeed: false },
    }));
    const order = oneFile(readResolvedSvg(new Resvg(svg).toString()), { cut: { recipes } });
    const deaf = createPlanner().plan(order.artworks, order.choices, { ...DEMO_SHOP, cutters }).cuts;
    expect(deaf.some(({ program }) => program.lines.some(({ speeds }) => speeds))).toBe(false);
  });

  test('a machine that takes a fifth longer takes it everywhere', () => {
    const slower = { ...CURLEW, motion: { ...CURLEW.motion, pace: 1.2 } };
    const order = oneFile(
      readResolvedSvg(new Resvg(readFileSync('demo/art/marsh-wren.svg', 'utf8')).toString()),
      {},
    );
    const cutters = DEMO_SHOP.cutters.map((one) => (one.id === CURLEW.id ? slower : one));
    const [{ program }] = createPlanner().plan(order.artworks, order.choices, { ...DEMO_SHOP, cutters }).cuts;
    const own = playOf(program, slower);
    const ratio = own.moments.at(-1)! / program.seconds;
    expect(ratio).toBeGreaterThan(0.99);
    expect(ratio).toBeLessThan(1);
    const [kiss] = own.times;
    expect(kiss.seconds / kiss.length).toBeCloseTo((1.2 * play.times[0].seconds) / play.times[0].length, 6);
    expect(own.lifts).toBeCloseTo(1.2 * program.lines.length * (CURLEW.motion.up + CURLEW.motion.down), 9);
  });

  test('the tip goes where the tractrix takes it, followed in hundredths of a millimetre by other code', () => {
    const d = wren.recipe.bladeOffset;
    let angle = 0;
    wren.program.lines.forEach(({ points }, i) => {
      const finely = tipPath(points, d, angle, 0.01);
      angle = finely.angle;
      const own = play.tip.subarray(2 * play.starts[i], 2 * play.starts[i + 1]);
      expect(own.at(-2)).toBeCloseTo(finely.points.at(-2)!, 6);
      expect(own.at(-1)).toBeCloseTo(finely.points.at(-1)!, 6);
      const [long, exact] = [own, finely.points].map((points) => lineLength({ points, closed: false }));
      expect(Math.abs(long / exact - 1)).toBeLessThan(1e-3);
    });
  });

  test('the head is at each place at its moment, trails its tip by the blade offset, and never jumps', () => {
    const d = wren.recipe.bladeOffset;
    const places = spots(play.holder);
    for (let i = 0; i < places.length; i += 97)
      expect(headAt(play, play.moments[i]).holder.map((v, k) => Math.abs(v - places[i][k]) < 1e-6)).toEqual([
        true,
        true,
      ]);
    const fastest = Math.max(CURLEW.motion.travelSpeed, 40) * 10;
    const step = play.seconds / 20_000;
    const heads = Array.from({ length: 20_000 }, (_, i) => headAt(play, i * step));
    const apart = (a: readonly number[], b: readonly number[]): number =>
      Math.hypot(a[0] - b[0], a[1] - b[1]);
    const moves = heads.slice(1).map(({ holder }, i) => apart(holder, heads[i].holder));
    expect(Math.max(...moves)).toBeLessThan(fastest * step * 1.01);
    const trails = heads.filter(({ isDown }) => isDown).map(({ holder, tip }) => apart(holder, tip));
    expect(Math.max(...trails)).toBeLessThan(d + 1e-6);
    expect(heads.every(({ line }, i) => i === 0 || line >= heads[i - 1].line)).toBe(true);
    expect(headAt(play, -1)).toMatchObject({ isDown: false, line: 0, place: -1 });
    expect(headAt(play, play.seconds + 9)).toMatchObject({ isDown: false, place: play.moments.length - 1 });
  });

  test('nothing to cut is played in no time', () => {
    const none: CutProgram = { ...wren.program, lines: [], doneAt: new Float64Array(), seconds: 0 };
    const empty: Play = playOf(none, CURLEW);
    expect(empty.times).toEqual([]);
    expect(headAt(empty, 3)).toMatchObject({ isDown: false, place: -1 });
  });
});

describe('what is not as it was meant', () => {
  test('the blade that it is planned for keeps to the drawing; another one does not, and where is told', () => {
    const proof = proofOf(play, wren.program, wren.strip, CURLEW.device);
    expect(proof.off).toEqual([]);
    expect(proof.largest).toBeLessThan(0.03);
    expect(proof.largest).toBeGreaterThan(0.001);
    const { recipes } = wren.program;
    const dull = { ...wren.program, recipes: { ...recipes, kiss: { ...recipes.kiss, bladeOffset: 0.9 } } };
    const other = proofOf(playOf(dull, CURLEW), dull, wren.strip, CURLEW.device);
    expect(other.largest).toBeGreaterThan(0.3);
    expect(other.off.length).toBeGreaterThan(10);
  });

  const square = (x: number, y: number): string => `<rect x="${x}" y="${y}" width="60" height="60"/>`;
  const sheet = (shapes: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="100mm" viewBox="0 0 300 100">${shapes}</svg>`;

  test('an edge that two kinds of line run along is cut twice; edges that only meet are not', () => {
    const [apart] = planOf(sheet(square(10, 10) + square(90, 10)));
    expect(cutTwice(apart.strip, CURLEW.device)).toEqual([]);
    const on = '<line x1="10" y1="80" x2="70" y2="80" stroke="#00a0e0" stroke-width="0.1" fill="none"/>';
    const along = '<line x1="10" y1="10" x2="70" y2="10" stroke="#00a0e0" stroke-width="0.1" fill="none"/>';
    const through = { colour: { '#00a0e0': 'through' as const }, layer: {}, shape: {}, stroke: {} };
    const twice = (shapes: string): number[] =>
      planOf(sheet(shapes), { artwork: { lines: through } }).flatMap(({ strip }) =>
        cutTwice(strip, CURLEW.device).map((points) => lineLength({ points, closed: false })),
      );
    expect(twice(square(10, 10) + on)).toEqual([]);
    const found = twice(square(10, 10) + along);
    expect(found).toHaveLength(1);
    expect(found[0]).toBeCloseTo(60, 1);
  });
});
