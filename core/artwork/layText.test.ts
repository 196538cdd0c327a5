import { describe, expect, test } from '@jest/globals';
import { mapPath, pathBounds } from '../geometry/path';
import type { TextSource } from './choices';
import type { ShapedGlyph, ShapedText } from './layText';
import { layText, lettersMissing } from './layText';

/** A letter of half an em: a box 0.4 em wide and as high as a capital, 0.7 em. */
const letter: ShapedGlyph = {
  path: { ops: 'MLLLZ', xy: [0.05, 0, 0.45, 0, 0.45, 0.7, 0.05, 0.7] },
  advance: 0.5,
  dx: 0,
  dy: 0,
};
const space: ShapedGlyph = { path: { ops: '', xy: [] }, advance: 0.25, dx: 0, dy: 0 };
const source = (more: Partial<TextSource> = {}): TextSource => ({
  kind: 'text',
  text: 'x',
  font: 'archivo',
  weight: 400,
  capHeight: 70,
  tracking: 0,
  lineSpacing: 1.2,
  align: 'left',
  arcRadius: 0,
  colour: '#17161a',
  ...more,
});
const shaped = (...lines: ShapedGlyph[][]): ShapedText => ({
  lines,
  capHeight: 0.7,
  face: 'Archivo',
  missing: [],
  borrowed: [],
});
const boxes = (text: ShapedText, how: TextSource) =>
  layText(text, how).shapes.map(({ path, matrix }) => pathBounds(mapPath(path, matrix), [1, 0, 0, 1, 0, 0]));

describe('text laid out', () => {
  test('a capital is as high as it was asked to be, whatever the typeface', () => {
    const [{ minY, maxY }] = boxes(shaped([letter]), source({ capHeight: 76.2 }));
    expect(maxY - minY).toBeCloseTo(76.2, 9);
  });

  test('letters stand an advance apart, tracking between them and not behind the last', () => {
    const [a, b, c] = boxes(shaped([letter, letter, letter]), source());
    expect(b.minX - a.minX).toBeCloseTo(50, 9);
    const wide = boxes(shaped([letter, letter, letter]), source({ tracking: 100 }));
    expect(wide[1].minX - wide[0].minX).toBeCloseTo(60, 9);
    expect(layText(shaped([letter, letter]), source({ tracking: 100 })).page.width).toBeCloseTo(40 + 60, 6);
    expect(c.maxX - a.minX).toBeCloseTo(140, 9);
  });

  test('a space takes its room and draws nothing', () => {
    const [a, b, ...more] = boxes(shaped([letter, space, letter]), source());
    expect(more).toEqual([]);
    expect(b.minX - a.minX).toBeCloseTo(75, 9);
  });

  test.each([
    ['left', 0],
    ['middle', 50],
    ['right', 100],
  ] as const)('lines are set %s', (align, off) => {
    const [first, , , second] = boxes(shaped([letter, letter, letter], [letter]), source({ align }));
    expect(second.minX - first.minX).toBeCloseTo(off, 9);
    expect(second.minY - first.minY).toBeCloseTo(120, 9);
  });

  test('bent over a circle every letter keeps its shape and its distance from the middle', () => {
    const radius = 300;
    const { shapes } = layText(shaped([letter, letter, letter, letter]), source({ arcRadius: radius }));
    const feet = shapes.map(({ path, matrix: [a, b, c, d, e, f] }) => {
      const x = 0.25; // the middle of the foot
      const [, y] = path.xy;
      expect(a * d - b * c).toBeCloseTo(-(100 ** 2), 6);
      return [a * x + c * y + e, b * x + d * y + f];
    });
    // three points make a circle: it is the one that was asked for
    const [p, q, r] = feet;
    const side = (u: number[], v: number[]): number => Math.hypot(u[0] - v[0], u[1] - v[1]);
    const area = Math.abs((q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])) / 2;
    expect((side(p, q) * side(q, r) * side(r, p)) / (4 * area)).toBeCloseTo(radius, 4);
  });

  test('characters that no typeface has are told by themselves, once', () => {
    expect(lettersMissing([], 'Archivo')).toEqual([]);
    expect(lettersMissing(['日'], 'Archivo')[0].message).toBe(
      '1 character is not in Archivo: 日. Nothing is cut for it.',
    );
    const [many] = lettersMissing([...'日本語日本語日本語日本語日'], 'Archivo');
    expect(many.message).toMatch(/^13 characters are not in Archivo: .{12} …/);
    const borrowed = layText({ ...shaped([letter]), borrowed: ['é'] }, source());
    expect(borrowed.findings.map(({ code }) => code)).toEqual(['letters-borrowed']);
  });
});

test('every letter knows its line and its word', () => {
  const two = shaped([letter, letter, space, letter], [letter, space, space, letter]);
  expect(layText(two, source()).shapes.map(({ word }) => word)).toEqual(['0/0', '0/0', '0/1', '1/0', '1/2']);
});
