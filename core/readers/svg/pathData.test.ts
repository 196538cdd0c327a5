import { expect, test } from '@jest/globals';
import { flatten } from '../../geometry/path';
import { IDENTITY } from '../../geometry/matrix';
import { flatColour, parseColour } from '../paint';
import { parsePathData } from './pathData';
import { parseXml } from './xml';

test('absolute steps, repeated coordinates, exponents and signs without blanks', () => {
  expect(parsePathData('M 1 2 L3,4 5 6C1 1-2-2 .5.5Z')).toEqual({
    ops: 'MLLCZ',
    xy: [1, 2, 3, 4, 5, 6, 1, 1, -2, -2, 0.5, 0.5],
  });
  expect(parsePathData('M0 0 10 0')).toEqual({ ops: 'ML', xy: [0, 0, 10, 0] });
  expect(parsePathData('M 1e2 -1E-1').xy).toEqual([100, -0.1]);
  expect(parsePathData('')).toEqual({ ops: '', xy: [] });
});

test('a quadratic becomes the same curve as a cubic', () => {
  const [line] = flatten(parsePathData('M 0 0 Q 50 100 100 0'), IDENTITY, 1e-4);
  for (let i = 0; i < line.points.length; i += 2) {
    const t = line.points[i] / 100;
    expect(line.points[i + 1]).toBeCloseTo(200 * t * (1 - t), 6);
  }
});

test('numbers no machine can hold end the path there', () => {
  expect(parsePathData('M 0 0 L 1e999 5 L 7 7')).toEqual({ ops: 'M', xy: [0, 0] });
});

test('colours and gradients', () => {
  expect(parseColour('#ABCDEF')).toBe('#abcdef');
  expect(parseColour('#0f8')).toBe('#00ff88');
  const gradient = parseXml(
    '<g><stop offset="0" stop-color="#000000"/><stop offset="0.5" stop-color="#ffffff"/></g>',
  );
  // black to white over the first half, white over the rest: 0.5 · 127.5 + 0.5 · 255
  expect(flatColour(gradient)).toBe('#bfbfbf');
  expect(flatColour(parseXml('<g/>'))).toBe('#000000');
});

test('XML that is not well formed is an error, namespaces’ prefixes are not', () => {
  expect(() => parseXml('<a><b></a>')).toThrow();
  expect(() => parseXml('')).toThrow();
  expect(parseXml('<svg:svg><svg:g/></svg:svg>').children[0].name).toBe('g');
});
