import { expect, test } from '@jest/globals';
import { DEMO_SHOP } from '../../demo/shop';
import { readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import { readResolvedSvg } from '../readers/svg/readResolvedSvg';
import type { StaleCalibration } from '../calibration/stale';
import { DEFAULT_CHOICES } from './choices';
import { oneFile } from './oneFile';
import { createPlanner } from './plan';

const artwork = readResolvedSvg(
  new Resvg(readFileSync('demo/art/marsh-wren.svg', 'utf8'), { font: { loadSystemFonts: false } }).toString(),
);
const ALL: readonly StaleCalibration[] = (['sensor', 'length', 'blade', 'overcut'] as const).flatMap(
  (quantity) =>
    (['age', 'moved', 'knife'] as const).map((why) => ({ cutter: 'curlew', quantity, why, days: 45 })),
);
const found = (stale: readonly StaleCalibration[], choices: Parameters<typeof oneFile>[1] = {}) => {
  const order = oneFile(artwork, choices);
  return createPlanner()
    .plan(order.artworks, order.choices, { ...DEMO_SHOP, stale })
    .findings.filter(({ code }) => code === 'stale-calibration');
};

test('film is cut with a blade: another knife is told, its age and the sensor are not', () => {
  const keys = found(ALL).map(({ key }) => key);
  expect(keys).toEqual([
    'stale curlew blade moved',
    'stale curlew blade knife',
    'stale curlew overcut moved',
    'stale curlew overcut knife',
  ]);
  expect(found(ALL.map((one) => ({ ...one, cutter: 'heron' })))).toEqual([]);
});

test('what is printed and cut around relies on the sensor; says how old it is, or what happened since', () => {
  const print = { ...DEFAULT_CHOICES.films, print: artwork.shapes.map(({ colour }) => colour) };
  const [old, moved] = found(
    // the usual printing film goes into it
    ALL.filter(({ quantity }) => quantity === 'sensor').map((one) => ({ ...one, cutter: 'plover' })),
    { films: print },
  );
  expect(old).toMatchObject({
    stage: 'cutter',
    severity: 'note',
    message: 'Where the sensor of Plover sits was found 45 days ago.',
  });
  expect(moved).toMatchObject({
    severity: 'check',
    message: 'Where the sensor of Plover sits was found before the machine was moved.',
    waysOut: ['Calibrate it again: Cutters, Plover, Sensor', 'Cut one and look how it lies'],
  });
});

test('how marks are told from one stock says nothing of another', () => {
  const print = { ...DEFAULT_CHOICES.films, print: artwork.shapes.map(({ colour }) => colour) };
  const stale = (film: string): StaleCalibration[] => [
    { cutter: 'plover', quantity: 'contrast', film, why: 'age', days: 45 },
  ];
  const order = oneFile(artwork, { films: print });
  const plan = createPlanner().plan(order.artworks, order.choices, DEMO_SHOP);
  const { id } = plan.printed!.film;
  expect(found(stale(id), { films: print }).map(({ message }) => message)).toEqual([
    'How Plover tells marks from this stock was found 45 days ago.',
  ]);
  expect(found(stale('damson'), { films: print })).toEqual([]);
});

test('panels that have to meet rely on true lengths', () => {
  const length = ALL.filter(({ quantity, why }) => quantity === 'length' && why === 'age');
  expect(found(length)).toEqual([]);
  const wall = { artwork: { width: 3000, height: null, lockAspect: true } };
  expect(found(length, wall).map(({ message }) => message)).toEqual([
    'How far Curlew moves was found 45 days ago.',
  ]);
});
