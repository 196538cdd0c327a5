import { expect, test } from '@jest/globals';
import { random as seeded } from '../random';
import { paceOf } from './pace';

test('the pace of a machine is found among cuts that vary, and one that was held up does not move it', () => {
  const random = seeded(14);
  const cuts = Array.from({ length: 40 }, () => {
    const reckoned = 20 + 400 * random();
    return { reckoned, took: reckoned * 1.12 * Math.exp(0.06 * (random() - 0.5)) };
  });
  const pace = paceOf(cuts)!;
  expect(pace.ratio).toBeGreaterThan(1.11);
  expect(pace.ratio).toBeLessThan(1.13);
  // of an even spread of ± 3 % half lies within 1.5 %
  expect(pace.within).toBeGreaterThan(0.01);
  expect(pace.within).toBeLessThan(0.02);
  const heldUp = paceOf([...cuts, { reckoned: 100, took: 4000 }])!;
  expect(Math.abs(heldUp.ratio / pace.ratio - 1)).toBeLessThan(0.005);
  // half as long and twice as long are as far from one
  const turned = paceOf(cuts.map(({ reckoned, took }) => ({ reckoned: took, took: reckoned })))!;
  expect(turned.ratio * pace.ratio).toBeCloseTo(1, 9);
});

test('too few cuts, or cuts too short to tell, say nothing', () => {
  const cut = { reckoned: 60, took: 66 };
  expect(paceOf([cut, cut])).toBeUndefined();
  expect(paceOf([cut, cut, { reckoned: 2, took: 9 }])).toBeUndefined();
  expect(paceOf([cut, cut, cut])).toEqual({ ratio: expect.closeTo(1.1, 12), within: 0, cuts: 3 });
});
