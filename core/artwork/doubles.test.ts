import { describe, expect, test } from '@jest/globals';
import type { PreparedLine } from './preparePiece';
import { emptyBounds, growBounds } from '../geometry/bounds';
import { IDENTITY } from '../geometry/matrix';
import { arcPath } from '../geometry/arc';
import { flatten, lineLength } from '../geometry/path';
import { findCrossings } from '../geometry/crossings';
import { findDoubles, withoutDoubles } from './doubles';

const open = (...points: number[]) => ({ points: Float64Array.from(points), closed: false });
const closed = (...points: number[]) => ({ points: Float64Array.from(points), closed: true });
const circle = (r: number, from = 0, tolerance = 0.01) =>
  flatten(arcPath([0, 0], [r, 0], [0, r], from, from + 2 * Math.PI), IDENTITY, tolerance)[0];
const asPrepared = (lines: ReturnType<typeof open>[]): PreparedLine[] =>
  lines.map((line, i) => ({
    ...line,
    kind: 'kiss',
    colour: '#000000',
    ref: `p1/${i}`,
    bounds: growBounds(emptyBounds(), line.points),
  }));

describe('doubles', () => {
  test('whole, in part, and the other way round', () => {
    const line = open(0, 0, 100, 0);
    expect(findDoubles([line, line])).toMatchObject([{ line: 1, length: 100, whole: true }]);
    expect(findDoubles([line, open(100, 0.02, 0, 0.02)])).toMatchObject([{ line: 1, whole: true }]);
    const [part] = findDoubles([line, open(60, 0, 160, 0)]);
    expect(part.whole).toBe(false);
    expect(part.length).toBeCloseTo(40, 6);
    expect([part.where.minX, part.where.maxX]).toEqual([60, 100]);
  });

  test('a curve on a curve, straightened at other points', () => {
    const [double] = findDoubles([circle(40), circle(40, 1, 0.005)]);
    expect(double.whole).toBe(true);
    expect(double.length).toBeCloseTo(2 * Math.PI * 40, 0);
  });

  test('a line that goes back over itself', () => {
    expect(findDoubles([open(0, 0, 50, 0, 0, 0)])).toMatchObject([{ line: 0, length: 50 }]);
  });

  test.each([
    ['lines 0.1 mm apart', [open(0, 0, 100, 0), open(0, 0.1, 100, 0.1)]],
    ['lines that cross', [open(0, 0, 100, 0), open(50, -50, 50, 50)]],
    ['lines that meet end to end', [open(0, 0, 50, 0), open(50, 0, 100, 0)]],
    [
      'a square and one beside it',
      [closed(0, 0, 10, 0, 10, 10, 0, 10), closed(11, 0, 20, 0, 20, 10, 11, 10)],
    ],
    ['a circle', [circle(5)]],
  ])('%s are none', (_, lines) => expect(findDoubles(lines)).toEqual([]));

  test('removing leaves every place cut once', () => {
    const lines = asPrepared([
      closed(0, 0, 100, 0, 100, 100, 0, 100),
      closed(100, 0, 200, 0, 200, 100, 100, 100),
      open(20, 0, 80, 0),
    ]);
    const fixed = withoutDoubles(lines, [{ kind: 'double', at: '*' }]);
    expect(findDoubles(fixed)).toEqual([]);
    // two squares share a side of 100 mm; the third line lay on the first wholly
    expect(fixed.reduce((sum, line) => sum + lineLength(line), 0)).toBeCloseTo(700, 3);
    expect(withoutDoubles(lines, [])).toEqual(lines);
    expect(withoutDoubles(lines, [{ kind: 'double', at: 'p1/2' }])).toHaveLength(2);
  });
});

describe('crossings', () => {
  test('an eight crosses itself once; squares that overlap cross; squares that touch do not', () => {
    const eight = closed(0, 0, 10, 10, 10, 0, 0, 10);
    expect(findCrossings([eight])).toMatchObject([{ a: 0, b: 0, at: [5, 5] }]);
    const square = (x: number) => closed(x, 0, x + 10, 0, x + 10, 10, x, 10);
    expect(
      findCrossings([
        square(0),
        { ...square(5), points: square(5).points.map((v, i) => (i % 2 ? v + 3 : v)) },
      ]),
    ).toHaveLength(1);
    expect(findCrossings([square(0), square(10)])).toEqual([]);
  });
});
