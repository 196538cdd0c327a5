import { describe, expect, test } from '@jest/globals';
import { aroundCounter, counterAt } from './counter';
import type { Region } from './region';
import { difference, rectangle, weld } from './region';

const box = (minX: number, minY: number, size: number): Region =>
  rectangle({ minX, minY, maxX: minX + size, maxY: minY + size });
const letter = difference(box(0, 0, 30), box(10, 10, 10));

describe('the counter that a place lies in', () => {
  test('is told by its area; on the letter, beside it and around it there is none', () => {
    expect(counterAt(letter, [15, 15])).toBeCloseTo(100, 6);
    for (const at of [[5, 5], [40, 15]] as const) expect(counterAt(letter, at)).toBeUndefined(); // prettier-ignore
  });

  test("a frame's window is none", () => {
    const frame = difference(box(0, 0, 100), box(1, 1, 98));
    expect(counterAt(frame, [50, 50])).toBeUndefined();
  });

  test('of letters within one another the one with the smallest counter is meant', () => {
    const outer = difference(box(0, 0, 100), box(20, 20, 60));
    const inner = difference(box(35, 35, 30), box(45, 45, 10));
    const all = [outer, inner];
    expect(aroundCounter(all, (one) => one, [50, 50])).toBe(inner);
    expect(aroundCounter(all, (one) => one, [25, 25])).toBe(outer);
    expect(aroundCounter(all, (one) => one, [5, 5])).toBeUndefined();
    // a welded word is one shape
    expect(counterAt(weld([...outer, ...inner]), [50, 50])).toBeCloseTo(100, 6);
  });
});
