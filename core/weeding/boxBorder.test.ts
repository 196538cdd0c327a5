import { lineLength } from '../geometry/path';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { weedBorder } from './boxBorder';

const BOX = { minX: 10, minY: 20, maxX: 110, maxY: 70 };
const tab = (x: number, y: number, half = 5) => ({
  minX: x - half,
  minY: y - half,
  maxX: x + half,
  maxY: y + half,
});
const total = (lines: ReturnType<typeof weedBorder>): number =>
  lines.reduce((sum, line) => sum + lineLength(line), 0);

describe('weed border', () => {
  test('without marks it is one closed line around the box', () => {
    const [line, ...more] = weedBorder(BOX, [], 6);
    expect(more).toEqual([]);
    expect(line.closed).toBe(true);
    expect(lineLength(line)).toBe(300);
  });

  test.each([
    ['left', tab(20, 45)],
    ['right', tab(100, 45)],
    ['above', tab(60, 30)],
    ['below', tab(60, 60)],
  ])('beside a mark on the %s it is open for as long as the tab is', (_, mark) => {
    const lines = weedBorder(BOX, [mark], 6);
    expect(lines).toHaveLength(1);
    expect(lines[0].closed).toBe(false);
    expect(total(lines)).toBeCloseTo(290, 9);
  });

  test('marks far inside leave it whole; breaks that meet are one; a corner is no trouble', () => {
    expect(total(weedBorder(BOX, [tab(60, 45)], 6))).toBe(300);
    expect(total(weedBorder(BOX, [tab(20, 40), tab(20, 48)], 6))).toBeCloseTo(282, 9);
    expect(total(weedBorder(BOX, [tab(12, 60, 2), tab(60, 25, 5)], 6))).toBeCloseTo(286, 9);
    expect(total(weedBorder(BOX, [{ minX: 10, minY: 20, maxX: 14, maxY: 24 }], 6))).toBeCloseTo(296, 9);
  });

  test('whatever the marks, border and breaks are together the whole way round, on the box', () => {
    const places = fc.array(
      fc.tuple(fc.double({ min: 12, max: 108, noNaN: true }), fc.double({ min: 22, max: 68, noNaN: true })),
      { maxLength: 5 },
    );
    fc.assert(
      fc.property(places, (at) => {
        const lines = weedBorder(
          BOX,
          at.map(([x, y]) => tab(x, y, 2)),
          8,
        );
        expect(total(lines)).toBeLessThanOrEqual(300 + 1e-9);
        expect(total(lines)).toBeGreaterThanOrEqual(300 - 4 * at.length - 1e-9);
        for (const { points } of lines) {
          for (let i = 0; i < points.length; i += 2) {
            const [x, y] = [points[i], points[i + 1]];
            const off = Math.min(x - BOX.minX, BOX.maxX - x, y - BOX.minY, BOX.maxY - y);
            expect(Math.abs(off)).toBeLessThan(1e-9);
          }
        }
      }),
      { seed: 5 },
    );
  });
});
