import { expect, test } from '@jest/globals';
import { random } from '../random';
import { tipPath } from '../swivel/tractrix';
import { compensate } from './compensate';
import { turnedAgain } from './turnedAgain';

const D = 0.25;
const align = [0.5, 3, 3.5, 3];
/** Lines from anywhere to anywhere, led one after the other as a program is. */
function ledLines(next: () => number, count: number): number[][] {
  let heading: readonly [number, number] = [1, 0];
  return [
    align,
    ...Array.from({ length: count }, () => {
      const wanted = Array.from({ length: 4 }, () => [20 + 200 * next(), 200 * next()]).flat();
      const led = compensate(wanted, D, heading);
      heading = led.heading;
      return Array.from(led.points);
    }),
  ];
}

test('however the blade lies, it then begins any line where it was planned to, and keeps to it', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const next = random(seed * 48611);
    const lines = ledLines(next, 8);
    let angle = 0;
    const planned = lines.map((line) => {
      const tip = tipPath(line, D, angle);
      angle = tip.angle;
      return tip.points;
    });
    const before = 1 + Math.floor(8 * next());
    const lies = 2 * Math.PI * next();
    const turned = tipPath(turnedAgain({ lines, bladeOffset: D, before }), D, lies);
    const [tip, was] = [tipPath(lines[before], D, turned.angle).points, planned[before]];
    const off = Math.max(...tip.map((v, i) => Math.abs(v - was[i])));
    expect([seed, off < 0.01]).toEqual([seed, true]);
  }
});

test('nothing is cut but the stroke: the tip stays within a hundredth of a millimetre of it', () => {
  for (let seed = 1; seed <= 20; seed++) {
    const lines = ledLines(random(seed * 911), 3);
    const { points } = tipPath(turnedAgain({ lines, bladeOffset: D, before: 3 }), D, 0);
    for (let i = 0; i < points.length; i += 2) {
      expect(Math.abs(points[i + 1] - 3)).toBeLessThan(0.01);
      expect(points[i]).toBeGreaterThan(0.2);
      expect(points[i]).toBeLessThan(3.51);
    }
  }
});

test('a pen does not turn the knife', () => {
  const lines = [align, [10, 10, 10, 40], [50, 50, 20, 50]];
  const as = (kinds: ('kiss' | 'pen')[]) => turnedAgain({ lines, kinds, bladeOffset: D, before: 2 });
  expect(as(['kiss', 'pen', 'kiss'])).toEqual(turnedAgain({ lines, bladeOffset: D, before: 1 }));
  expect(as(['kiss', 'kiss', 'kiss'])).not.toEqual(as(['kiss', 'pen', 'kiss']));
});
