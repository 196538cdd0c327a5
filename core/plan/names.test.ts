/** Names come from customers' files and from the shop: none of them may be taken for what every object has by birth. */
import { expect, test } from '@jest/globals';
import type { Artwork } from '../readers/artwork';
import { IDENTITY } from '../geometry/matrix';
import { DEMO_SHOP } from '../../demo/shop';
import { oneFile } from './oneFile';
import { createPlanner } from './plan';

const BY_BIRTH = ['constructor', '__proto__', 'toString', 'hasOwnProperty', 'valueOf'];

test.each(BY_BIRTH)('a film, a layer and a spot colour called %s are cut like any other', (name) => {
  const artwork: Artwork = {
    page: { width: 100, height: 100 },
    shapes: [
      {
        path: { ops: 'MLLLZ', xy: [0, 0, 50, 0, 50, 50, 0, 50] },
        matrix: IDENTITY,
        colour: '#2e6f7e',
        fill: 'nonzero',
        clips: [],
        layer: name,
        spot: name,
      },
    ],
    clips: [],
    findings: [],
  };
  const film = { ...DEMO_SHOP.films[0], id: name };
  const shop = { ...DEMO_SHOP, films: [film] };
  const { artworks, choices } = oneFile(artwork);
  const plan = createPlanner().plan(artworks, choices, shop);
  expect(plan.findings.filter(({ severity }) => severity === 'stop')).toEqual([]);
  expect(
    plan.cuts.map(({ strip, recipe }) => [strip.film.id, strip.placements.length, recipe.force]),
  ).toEqual([[name, 1, expect.any(Number)]]);
});
