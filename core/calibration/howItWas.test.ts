import { expect, test } from '@jest/globals';
import type { HowItWas } from './howItWas';
import { forceAsked } from './howItWas';

const now = { force: 80, speed: 30 };
const range = { least: 5, most: 600 };
const said = (...all: HowItWas[]) => all.map((was) => ({ was, force: 80, speed: 30 }));

test('three in a row that point one way ask for as much more or less; fewer, or of two minds, for nothing', () => {
  expect(forceAsked(said('not-through', 'not-through', 'not-through'), now, [], range)).toBe(86);
  expect(forceAsked(said('bumps', 'into-backing', 'bumps'), now, [], range)).toBe(74);
  expect(forceAsked(said('bumps', 'bumps'), now, [], range)).toBeUndefined();
  expect(forceAsked(said('bumps', 'not-through', 'bumps'), now, [], range)).toBeUndefined();
  expect(forceAsked(said('clean', 'clean', 'clean'), now, [], range)).toBeUndefined();
});

test('what was cut with another force does not count, and no more is asked than the machine has', () => {
  const before = said('not-through', 'not-through').concat([{ was: 'not-through', force: 75, speed: 30 }]);
  expect(forceAsked(before, now, [], range)).toBeUndefined();
  expect(forceAsked(said('not-through', 'not-through', 'not-through'), now, [], { least: 5, most: 82 })).toBe(
    82,
  );
});

test('a grid tells how much: what was said of cuts counts as cells of it', () => {
  const cells = [60, 70, 80, 90, 100, 110, 120].map((force) => ({
    force,
    speed: 30,
    looks: force < 95 ? ('not-through' as const) : ('clean' as const),
  }));
  const asked = forceAsked(said('not-through', 'not-through', 'not-through'), now, cells, range)!;
  expect(asked).toBeGreaterThan(95);
  expect(asked).toBeLessThan(125);
});
