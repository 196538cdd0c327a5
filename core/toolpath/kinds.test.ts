import { expect, test } from '@jest/globals';
import { kindRecipes } from './kinds';

const kiss = { force: 80, speed: 40, blade: '45°', bladeOffset: 0.25, overcut: 0.6 };

test('kinds without a recipe of their own are made from the kiss cut’s', () => {
  const made = kindRecipes(kiss, {}, 600);
  expect(made.kiss).toEqual({ ...kiss, tool: 1 });
  expect(made.through).toEqual({ ...kiss, force: 200, tool: 1 });
  expect(made.perforated).toMatchObject({ force: 200, overcut: 0, dashes: [3, 0.4] });
  expect(made.crease).toMatchObject({ force: 200, bladeOffset: 0, overcut: 0, tool: 2 });
  expect(made.pen).toMatchObject({ force: 30, bladeOffset: 0, tool: 2 });
  // no more than the machine has
  expect(kindRecipes(kiss, {}, 150).through.force).toBe(150);
});

test('what is left to the machine stays left to it, in every kind', () => {
  const made = kindRecipes({ ...kiss, force: null, speed: null }, {}, 600);
  for (const recipe of Object.values(made)) expect(recipe).toMatchObject({ force: null, speed: null });
});

test('the shop’s own recipe for a kind counts; perforation follows the through cut', () => {
  const through = { ...kiss, force: 310, speed: 10, blade: '60°' };
  const crease = { ...kiss, force: 350, blade: 'creasing wheel', bladeOffset: 0.25 };
  const made = kindRecipes(kiss, { through, crease }, 600);
  expect(made.through).toEqual({ ...through, tool: 1 });
  expect(made.perforated).toMatchObject({ force: 310, blade: '60°' });
  // a wheel has no offset, whatever its recipe says
  expect(made.crease).toMatchObject({ force: 350, blade: 'creasing wheel', bladeOffset: 0, tool: 2 });
});
