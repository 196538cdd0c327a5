import { describe, expect, test } from '@jest/globals';
import type { LoadedFilm } from './spec';
import { createPoint } from './tool';

const film = { toughness: 60 } as LoadedFilm;

describe('what a tool does to the film', () => {
  const blade = (wear: number, bladeOffset = 0.25) => createPoint({ kind: 'knife', bladeOffset, wear });

  test('a new blade cuts ordinary film at 50 to 70 g, a worn one wants 150 to 200 g (common practice, no source)', () => {
    for (const force of [55, 60, 70]) expect(blade(0).depth(force, 20, film)).toBe('clean');
    for (const force of [155, 180, 200]) expect(blade(1).depth(force, 20, film)).toBe('clean');
    expect(blade(1).depth(60, 20, film)).toBe('not-through');
    expect(blade(0).depth(180, 20, film)).toBe('through');
  });

  test('more force never cuts less deep', () => {
    const order = ['not-through', 'clean', 'into-backing', 'through'];
    for (const wear of [0, 0.3, 1]) {
      const depths = Array.from({ length: 80 }, (_, i) => order.indexOf(blade(wear).depth(5 * i, 20, film)));
      depths.slice(1).forEach((depth, i) => expect(depth).toBeGreaterThanOrEqual(depths[i]));
    }
  });

  test('what is cut faster asks for a little more force, and what was cut wears the blade', () => {
    const point = blade(0, 0);
    expect(point.depth(52, 20, film)).toBe('clean');
    expect(point.depth(52, 60, film)).toBe('not-through');
    for (let m = 0; m < 120; m++) point.drag({ x: 0, y: 0 }, { x: 1000, y: 0 }, film);
    expect(point.wear()).toBeCloseTo(0.2, 9);
    expect(point.depth(52, 20, film)).toBe('not-through');
  });

  test('a pen draws and a wheel creases, at whatever force, where the holder is', () => {
    const [pen, wheel] = [createPoint({ kind: 'pen' } as never), createPoint({ kind: 'crease' } as never)];
    expect([pen.depth(5, 20, film), wheel.depth(500, 20, undefined)]).toEqual(['drawn', 'creased']);
    expect(pen.at({ x: 3, y: 4 })).toEqual({ x: 3, y: 4 });
  });

  test('the tip trails its holder by the offset, and swings in behind it', () => {
    const point = blade(0, 0.5);
    const distance = (x: number, y: number): number => {
      const tip = point.at({ x, y });
      return Math.hypot(tip.x - x, tip.y - y);
    };
    expect(distance(0, 0)).toBeCloseTo(0.5, 12);
    let at = { x: 0, y: 0 };
    for (let x = 0.1; x < 12; x += 0.1) {
      point.drag(at, { x, y: 0 });
      at = { x, y: 0 };
      expect(distance(x, 0)).toBeCloseTo(0.5, 12);
    }
    // behind it by now, all but exactly: the angle falls off as e^(-s/d)
    expect(point.at(at).y).toBeCloseTo(0, 8);
    expect(point.at(at).x).toBeCloseTo(at.x - 0.5, 8);
  });

  test('a blade without an offset is where its holder is', () => {
    const point = blade(0, 0);
    point.drag({ x: 0, y: 0 }, { x: 5, y: 5 });
    expect(point.at({ x: 5, y: 5 })).toEqual({ x: 5, y: 5 });
  });
});
