/** Against Steiner's formula for convex shapes, and an independent measure among hundreds of emoji. */
import { describe, expect, test } from '@jest/globals';
import * as Flatten from '@flatten-js/core';
import { readdirSync, readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import { flatten } from '../geometry/path';
import { componentsOf } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { intersection, outlineLength, rectangle, regionArea, weld } from '../geometry/region';
import { random } from '../random';
import { readResolvedSvg } from '../readers/svg/readResolvedSvg';
import { bleedOf } from './bleed';
import type { CutLineChoices } from './choices';
import { USUAL_CUT_LINE } from './choices';
import { cutLineAround } from './cutLine';

const around = (art: Region, more: Partial<CutLineChoices> = {}): Region =>
  cutLineAround(art, { ...USUAL_CUT_LINE, smallestRadius: 0, join: 0, ...more });
const box = (x: number, y: number, width: number, height: number): Region =>
  rectangle({ minX: x, minY: y, maxX: x + width, maxY: y + height });

/** A convex polygon: places of a circle stretched and turned, in their order round it. */
function convex(seed: number): Region {
  const next = random(seed);
  const [a, b, turn] = [20 + 60 * next(), 20 + 60 * next(), Math.PI * next()];
  const angles = Array.from({ length: 3 + Math.floor(9 * next()) }, () => 2 * Math.PI * next()).sort(
    (p, q) => p - q,
  );
  const points = angles.flatMap((t) => {
    const [x, y] = [a * Math.cos(t), b * Math.sin(t)];
    return [x * Math.cos(turn) - y * Math.sin(turn), x * Math.sin(turn) + y * Math.cos(turn)];
  });
  return weld([Float64Array.from(points)]);
}

describe('a cut line', () => {
  test('around convex shapes: area and length as Steiner has them', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const art = convex(seed);
      const offset = 0.5 + (seed % 8);
      const line = around(art, { offset });
      const [area, length] = [regionArea(art), outlineLength(art)];
      const wanted = area + length * offset + Math.PI * offset ** 2;
      expect(Math.abs(regionArea(line) - wanted)).toBeLessThan(0.012 * outlineLength(line));
      expect(Math.abs(outlineLength(line) - length - 2 * Math.PI * offset)).toBeLessThan(0.02);
    }
  });

  test('inside goes as far in, and is gone when nothing is left', () => {
    expect(regionArea(around(box(0, 0, 100, 60), { offset: -4 }))).toBeCloseTo(92 * 52, 3);
    expect(around(box(0, 0, 100, 6), { offset: -4 })).toEqual([]);
  });

  test('inside keeps off every edge and crosses no gap, unless it is asked to join', () => {
    // a bar with a notch of 1 mm, and another bar 1 mm beside it
    const art = [
      Float64Array.of(0, 0, 100, 0, 100, 40, 51, 40, 51, 20, 50, 20, 50, 40, 0, 40),
      ...box(0, 41, 100, 40),
    ];
    const usual = { ...USUAL_CUT_LINE, offset: -1 };
    const line = cutLineAround(weld(art), usual);
    expect(componentsOf(line)).toHaveLength(2);
    const outline = new Flatten.Polygon(
      art.map((ring) =>
        Array.from({ length: ring.length / 2 }, (_, i) => new Flatten.Point(ring[2 * i], ring[2 * i + 1])),
      ),
    );
    for (const ring of line)
      for (let i = 0; i < ring.length; i += 2)
        expect(new Flatten.Point(ring[i], ring[i + 1]).distanceTo(outline)[0]).toBeGreaterThan(0.98);
    expect(componentsOf(cutLineAround(weld(art), { ...usual, joinInside: 2 }))).toHaveLength(1);
  });

  test('with pointed corners is a larger rectangle; a corner that would reach too far is cut off', () => {
    expect(regionArea(around(box(0, 0, 100, 60), { offset: 4, corners: 'mitre' }))).toBeCloseTo(108 * 68, 3);
    const spike = weld([Float64Array.of(0, 0, 200, 4, 0, 8)]);
    const ends = around(spike, { offset: 2, corners: 'mitre', mitreLimit: 3 });
    expect(Math.max(...Array.from(ends[0]).filter((_, i) => i % 2 === 0))).toBeLessThan(200 + 3 * 2 + 0.1);
  });

  test('no corner is tighter than the smallest radius', () => {
    const radius = 5;
    const cross = weld([...box(0, 40, 120, 40), ...box(40, 0, 40, 120)]);
    const line = around(cross, { offset: 0, smallestRadius: radius });
    // eight outer corners and four inner ones, each less or more by (1 − π/4) r²
    const corner = (1 - Math.PI / 4) * radius ** 2;
    expect(regionArea(line)).toBeCloseTo(regionArea(cross) - 8 * corner + 4 * corner, 0);
  });

  test('holes are kept, dropped, or dropped below a size; what is near gets one line', () => {
    const frame = weld([...box(0, 0, 100, 100), Float64Array.from([...box(30, 30, 40, 40)[0]]).reverse()].map((ring, i) => (i === 0 ? ring : Float64Array.of(30, 30, 30, 70, 70, 70, 70, 30)))); // prettier-ignore
    expect(around(frame, { dropHoles: 0 })).toHaveLength(2);
    expect(around(frame, { dropHoles: Infinity })).toHaveLength(1);
    expect(around(frame, { dropHoles: 1500 })).toHaveLength(2);
    expect(around(frame, { dropHoles: 1700 })).toHaveLength(1);
    const two = weld([...box(0, 0, 20, 20), ...box(23, 0, 20, 20)]);
    expect(componentsOf(around(two, { offset: 0.5, join: 0 }))).toHaveLength(2);
    expect(componentsOf(around(two, { offset: 0.5, join: 4 }))).toHaveLength(1);
  });

  test('among emoji by the hundred: as far from the art as asked, and never across itself', () => {
    const folder = 'node_modules/@twemoji/svg';
    const names = readdirSync(folder).filter((name) => name.endsWith('.svg'));
    const next = random(5);
    for (let k = 0; k < 150; k++) {
      const svg = readFileSync(`${folder}/${names[Math.floor(next() * names.length)]}`, 'utf8');
      const { shapes } = readResolvedSvg(new Resvg(svg, { font: { loadSystemFonts: false } }).toString());
      const art = weld(
        shapes.flatMap(({ path, matrix }) => flatten(path, matrix).map(({ points }) => points)),
      );
      const line = around(art, { offset: 1.5 });
      // a line that crosses itself would weld to something else
      expect(Math.abs(regionArea(weld(line)) - regionArea(line))).toBeLessThan(1e-6);
      expect(weld(line)).toHaveLength(line.length);
      if (k % 10 > 0) continue;
      const outline = new Flatten.Polygon(
        art.map((ring) =>
          Array.from({ length: ring.length / 2 }, (_, i) => new Flatten.Point(ring[2 * i], ring[2 * i + 1])),
        ),
      );
      for (const ring of line)
        for (let i = 0; i < ring.length; i += 2 * Math.ceil(ring.length / 60)) {
          const [off] = new Flatten.Point(ring[i], ring[i + 1]).distanceTo(outline);
          expect(Math.abs(off - 1.5)).toBeLessThan(0.02);
        }
    }
  });
});

/** mm that the border between two colours may lie off the middle, as bleed grows. */
const STEP = 0.25;

describe('bleed', () => {
  const halves = [
    { colour: '#b0202f', region: box(0, 0, 50, 60) },
    { colour: '#1d3f86', region: box(50, 0, 50, 60) },
  ];
  const line = around(box(0, 0, 100, 60), { offset: 0 });

  test('fills all between the art and so far past the line, and goes on a hair under the art', () => {
    const bleed = bleedOf(halves, line, 3);
    const area = bleed.reduce((sum, { region }) => sum + regionArea(region), 0);
    // Steiner's formula; a tenth of a millimetre of it under the art, and where the two meet
    expect(Math.abs(area - 320 * 3 - Math.PI * 9 - 0.1 * 320)).toBeLessThan(3);
    for (const { region } of bleed)
      expect(regionArea(intersection(region, box(0.11, 0.11, 99.78, 59.78)))).toBeLessThan(0.01);
  });

  test('each colour from its own edge on, and half way where two meet', () => {
    const [red, blue] = bleedOf(halves, line, 3);
    expect([red.colour, blue.colour]).toEqual(['#b0202f', '#1d3f86']);
    for (const [own, other] of [
      [red, box(50 + 2 * STEP, -10, 100, 100)],
      [blue, box(-50, -10, 100 - 2 * STEP, 100)],
    ] as const)
      expect(regionArea(intersection(own.region, other))).toBeLessThan(0.05);
  });

  test('a hole that the line does not run along stays as it is, however wide the art around it', () => {
    const ring = [box(0, 0, 60, 60)[0], Float64Array.of(20, 20, 20, 40, 40, 40, 40, 20)];
    const outline = around(weld(ring), { offset: 1 });
    expect(outline).toHaveLength(1);
    const [red] = bleedOf([{ colour: '#b0202f', region: weld(ring) }], outline, 2, 1);
    expect(regionArea(intersection(red.region, box(15, 15, 30, 30)))).toBe(0);
    // between art and line it is filled, and past it
    expect(regionArea(red.region)).toBeCloseTo(4 * 60 * 3 + Math.PI * 9 + 4 * 60 * 0.1, -1);
  });

  test('none where the art reaches past the line itself', () => {
    expect(bleedOf(halves, around(box(0, 0, 100, 60), { offset: -4 }), 3)).toEqual([]);
  });

  test('an inner colour stays where it is', () => {
    const ring = weld([box(0, 0, 60, 60)[0], Float64Array.of(20, 20, 20, 40, 40, 40, 40, 20)]);
    const art = [
      { colour: '#b0202f', region: ring },
      { colour: '#f5cf1b', region: box(20, 20, 20, 20) },
    ];
    expect(bleedOf(art, around(box(0, 0, 60, 60), { offset: 1 }), 2).map(({ colour }) => colour)).toEqual([
      '#b0202f',
    ]);
  });
});
