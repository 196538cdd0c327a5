import { expect, test } from '@jest/globals';
import { Resvg } from '@resvg/resvg-js';
import { DEMO_SHOP } from '../../demo/shop';
import { atOnce } from '../checks/checkOver';
import { readResolvedSvg } from '../readers/svg/readResolvedSvg';
import type { Finding } from '../findings/finding';
import { oneFile } from './oneFile';
import { createPlanner } from './plan';
import type { Shop } from './shop';

const comb = (teeth: number): string => {
  const edge = Array.from({ length: teeth }, (_, i) => `L${i * 0.4} 40L${i * 0.4 + 0.2} 39`).join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="60mm" viewBox="0 0 300 60"><path d="M0 50${edge}L${teeth * 0.4} 50Z"/><rect x="200" y="10" width="60" height="40"/></svg>`;
};
const order = oneFile(readResolvedSvg(new Resvg(comb(100)).toString()), {});
/** The shop with cutters that move in steps of so many mm. */
const inSteps = (step: number): Shop => ({
  ...DEMO_SHOP,
  cutters: DEMO_SHOP.cutters.map((cutter) => ({ ...cutter, device: { ...cutter.device, step } })),
});

test('a comb that a cutter’s steps are too coarse for is told where it is, and no more of it than can be read', () => {
  const planner = createPlanner();
  const off = (step: number): Finding[] =>
    atOnce(planner.check(order.artworks, order.choices, inSteps(step))).filter(
      ({ code }) => code === 'off-drawing',
    );
  expect(off(0.025)).toEqual([]);
  const found = off(0.25);
  expect(found.length).toBeGreaterThan(3);
  expect(found.length).toBeLessThanOrEqual(12);
  for (const { where, measured, limit, key, stage } of found) {
    expect(stage).toBe('cut');
    expect(measured).toBeGreaterThan(limit!);
    // in the comb, and not along the straight edges of the plate beside it
    expect(where!.minX).toBeLessThan(45);
    expect(where!.minY).toBeGreaterThan(27);
    expect(key).toMatch(/^off \S+ \d+,\d+$/);
  }
  expect(new Set(found.map(({ key }) => key)).size).toBe(found.length);
});

test('a blade is followed once for each cut, however often the order is checked', () => {
  const planner = createPlanner();
  const check = (): unknown => atOnce(planner.check(order.artworks, order.choices, DEMO_SHOP));
  check();
  check();
  expect(planner.runs.followed).toBe(1);
});

test('an edge that is cut twice is told with its length and place; the same lines apart are not', () => {
  const plate = (y: number): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100"><rect x="10" y="10" width="80" height="60" fill="#b0202f"/><path d="M20 ${y}H80" fill="none" stroke="#b0202f" stroke-width="0.1"/></svg>`;
  const twice = (y: number): Finding[] => {
    const { artworks, choices } = oneFile(readResolvedSvg(new Resvg(plate(y)).toString()), {});
    const found = atOnce(createPlanner().check(artworks, choices, DEMO_SHOP));
    return found.filter(({ code }) => code === 'cut-twice');
  };
  const [found] = twice(10);
  expect(found).toMatchObject({ stage: 'cut', severity: 'check', measured: expect.closeTo(60, 1) });
  expect(found.message).toMatch(/^60\.0 mm \(2\.36 in\) would be cut twice/);
  // on the sign the plate begins at nought
  expect(found.where).toMatchObject({
    minX: expect.closeTo(10, 1),
    maxX: expect.closeTo(70, 1),
    minY: expect.closeTo(0, 1),
    maxY: expect.closeTo(0, 1),
  });
  expect(twice(40)).toEqual([]);
  // two lines that are drawn on one another are told as that, once
  const lines = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100"><path d="M20 40H80M20 60H80M80 40H30" fill="none" stroke="#b0202f" stroke-width="0.1"/></svg>`;
  const { artworks, choices } = oneFile(readResolvedSvg(new Resvg(lines).toString()), {});
  const codes = atOnce(createPlanner().check(artworks, choices, DEMO_SHOP)).map(({ code }) => code);
  expect(codes).toContain('double');
  expect(codes).not.toContain('cut-twice');
});
