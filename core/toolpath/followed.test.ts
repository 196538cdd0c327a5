import { expect, test } from '@jest/globals';
import { DEMO_FILMS } from '../../demo/shop';
import type { PreparedLine } from '../artwork/preparePiece';
import { rectangle } from '../geometry/region';
import type { Part, WasteLine } from '../panels/part';
import { followedOn } from './followed';

const points = Float64Array.of(0, 0, 10, 0);
const bounds = { minX: 0, minY: 0, maxX: 10, maxY: 0 };
const line = (kind: PreparedLine['kind']): PreparedLine => ({
  kind,
  points,
  closed: false,
  colour: '#000000',
  ref: 'p1/0',
  bounds,
});
const waste = (kind: WasteLine['kind']): WasteLine => ({ kind, points, closed: false, what: 'number' });
const part: Part = {
  id: 'a',
  film: DEMO_FILMS[0],
  label: 'a',
  region: rectangle({ minX: 0, minY: 0, maxX: 10, maxY: 10 }),
  marks: [],
  lines: [line('crease'), line('through'), line('pen')],
  waste: [waste('pen'), waste('kiss')],
  bounds: { minX: 0, minY: 0, maxX: 10, maxY: 10 },
  area: 100,
};
const kinds = (tools: number) => followedOn(part, tools).map((one) => `${one.part} ${one.kind}`);

test('with two tools everything is followed as it is meant', () => {
  expect(kinds(2)).toEqual(['art crease', 'art through', 'art pen', 'waste pen', 'waste kiss']);
});

test('without a second tool art for it is left out, and what is written into the waste is cut', () => {
  expect(kinds(1)).toEqual(['art through', 'waste kiss', 'waste kiss']);
});
