import { expect, test } from '@jest/globals';
import { CURLEW, DEMO_FILMS } from '../../demo/shop';
import { heightOf } from '../geometry/bounds';
import { rectangle } from '../geometry/region';
import type { Part } from '../panels/part';
import { DEFAULT_CHOICES } from '../plan/choices';
import { scaleToWidth } from './fitWidth';
import { layOut } from './layOut';
import type { LyingChoices } from './strip';

const FILM = { ...DEMO_FILMS[0], rolls: [{ width: 610, lengthLeft: 20_000 }] };
const partOf = (width: number, height: number): Part => {
  const bounds = { minX: 0, minY: 0, maxX: width, maxY: height };
  const common = { id: 'f', film: FILM, label: 'all', marks: [], lines: [], waste: [] };
  return { ...common, region: rectangle(bounds), bounds, area: width * height };
};

test('art that is scaled so takes the knife’s whole reach, with each border and at each place, and not a hair more', () => {
  for (const border of ['none', 'box', 'copy', 'follow'] as const)
    for (const place of ['edge', 'middle', 'at'] as const)
      for (const [width, height] of [
        [300, 80],
        [90, 40],
        [2000, 500],
      ]) {
        const placeAt = { x: 100, y: 40 };
        const how: LyingChoices = { ...DEFAULT_CHOICES.layout, turn: 'as-drawn', border, place, placeAt };
        const laid = (part: Part) => layOut(FILM, [part], how, CURLEW).strips;
        const scale = scaleToWidth(laid(partOf(width, height)), how)!;
        const [strip] = laid(partOf(width * scale, height * scale));
        const around = border === 'box' ? 2 * how.borderDistance : 0;
        const start = place === 'at' ? 40 : 0.5;
        expect(heightOf(strip.placements[0].box) + around).toBeCloseTo(strip.cuttable - start - 0.5, 6);
        expect(laid(partOf(width * scale, height * scale * 1.001))).toEqual([]);
      }
  expect(scaleToWidth([], DEFAULT_CHOICES.layout)).toBeUndefined();
});

test('of a film with nothing but offcuts one has to be picked; one that is gone is told', () => {
  const offcut = { width: 610, lengthLeft: 1200, sheets: 1, offcut: 'D-4' };
  const film = { ...FILM, rolls: [offcut] };
  const part = { ...partOf(300, 80), film };
  const laid = (rolls: LyingChoices['rolls']) =>
    layOut(film, [part], { ...DEFAULT_CHOICES.layout, rolls }, CURLEW);
  expect(laid({}).findings).toMatchObject([{ code: 'only-offcuts', severity: 'stop' }]);
  expect(laid({ [film.id]: 'D-4' }).strips.map(({ roll }) => roll)).toEqual([offcut]);
  expect(laid({ [film.id]: 'D-9' }).findings.map(({ code }) => code)).toEqual([
    'only-offcuts',
    'offcut-gone',
  ]);
  // the size of what lies in the cutter is a roll of its own
  const [strip] = laid({ [film.id]: { width: 500, length: 9000 } }).strips;
  expect(strip.roll).toEqual({ width: 500, lengthLeft: 9000 });
});

test('an exact place: so far behind the leading edge, so far from where the knife’s reach begins', () => {
  const how: LyingChoices = {
    ...DEFAULT_CHOICES.layout,
    turn: 'as-drawn',
    border: 'none',
    place: 'at',
    placeAt: { x: 120, y: 75 },
  };
  for (const pack of ['one', 'piece'] as const) {
    const [strip] = layOut(FILM, [partOf(300, 80)], { ...how, pack, turns: 'none' }, CURLEW).strips;
    const [{ box }] = strip.placements;
    expect(box.minX).toBeCloseTo(CURLEW.margins.lead + 120, 0);
    expect(box.minY).toBeCloseTo(75, 0);
    expect(strip.length).toBeCloseTo(CURLEW.margins.lead + 120 + 300 + CURLEW.margins.tail, 0);
  }
  // what does not fit beside it any more is told
  const { strips, findings } = layOut(FILM, [partOf(300, 540)], how, CURLEW);
  expect(strips).toEqual([]);
  expect(findings).toMatchObject([{ code: 'too-wide' }]);
});
