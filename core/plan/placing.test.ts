import { expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import { DEMO_SHOP } from '../../demo/shop';
import { liesOn } from '../geometry/nesting';
import { readResolvedSvg } from '../readers/svg/readResolvedSvg';
import type { LayoutChoices } from '../layout/strip';
import { oneFile } from './oneFile';
import { placingOf } from './placing';
import { createPlanner } from './plan';

const artwork = readResolvedSvg(new Resvg(readFileSync('demo/art/marsh-wren.svg', 'utf8')).toString());
const { artworks, choices } = oneFile(artwork);
const planned = (layout: Partial<LayoutChoices>) =>
  createPlanner().plan(artworks, { ...choices, layout: { ...choices.layout, ...layout } }, DEMO_SHOP);

test('each piece has its number on the sign and on every copy of it on the film, in the order in which it is cut', () => {
  const plan = planned({ pack: 'piece', copies: 2 });
  const placing = placingOf(plan.cuts, 'damson')!;
  const { region } = plan.separation.films.find(({ film }) => film.id === 'damson')!;
  expect(placing.sign.map(({ number }) => number)).toEqual(placing.sign.map((_, i) => i + 1));
  for (const { at } of placing.sign) expect(liesOn(region, at)).toBe(true);
  const onFilm = placing.strips.flatMap(({ pieces }) => pieces.map(({ number }) => number));
  expect([...onFilm].sort((a, b) => a - b)).toEqual(placing.sign.flatMap(({ number }) => [number, number]));
  expect(onFilm[0]).toBe(1);
  for (const strip of placing.strips)
    for (const { at } of strip.pieces) expect(liesOn(strip.region, at)).toBe(true);
});

test('a film that is cut as one has none', () => {
  expect(placingOf(planned({}).cuts, 'damson')).toBeUndefined();
  expect(placingOf(planned({ pack: 'piece', packFilm: { damson: 'one' } }).cuts, 'damson')).toBeUndefined();
});
