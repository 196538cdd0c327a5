import { describe, expect, test } from '@jest/globals';
import { regionArea } from '../../geometry/region';
import { preparePiece } from '../../artwork/preparePiece';
import { indexColour } from '../dxf/colours';
import { readPlt } from './readPlt';
import { sample } from '../../sample.testing';

const OWN = { width: null, height: null, lockAspect: true };
const areas = (text: string): number[] =>
  preparePiece(readPlt(text), OWN)
    .shapes.map(({ region }) => regionArea(region))
    .sort((a, b) => a - b);
/** mm² of plotter units². */
const mm2 = (units2: number): number => units2 * 0.025 * 0.025;

describe('HP-GL as a drawing (HP 7475A manual)', () => {
  test('strokes that meet, drawn in any order and direction, are one outline', () => {
    const pieces = 'IN;SP1;PU0,0;PD400,0;PU400,400;PD0,400;PU0,400;PD0,0;PU400,0;PD400,400;PU;';
    expect(areas(pieces)).toEqual([expect.closeTo(100, 3)]);
  });

  test.each([
    ['CI', 'IN;SP1;PU0,0;CI400;', mm2(Math.PI * 400 ** 2)],
    ['EA', 'IN;SP1;PU100,100;EA500,300;', mm2(400 * 200)],
    ['ER', 'IN;SP1;PU100,100;ER400,-200;', mm2(400 * 200)],
    ['EW', 'IN;SP1;PU0,0;EW400,0,90;', mm2((Math.PI * 400 ** 2) / 4)],
    ['AA twice', 'IN;SP1;PU400,0;PD;AA0,0,180;AA0,0,180;PU;', mm2(Math.PI * 400 ** 2)],
    [
      'AR and PR',
      'IN;SP1;PU0,0;PD;PR400,0;AR0,200,180;PR-400,0;AR0,-200,180;PU;',
      mm2(400 * 400 + Math.PI * 200 ** 2),
    ],
    ['SC and IP', 'IN;IP0,0,4000,4000;SC0,10,0,10;SP1;PU0,0;PD1,0,1,1,0,1,0,0;PU;', mm2(400 * 400)],
    ['RO 90', 'IN;RO90;SP1;PU0,0;PD400,0,400,200,0,200,0,0;PU;', mm2(400 * 200)],
    ['IW cuts off', 'IN;IW0,0,200,400;SP1;PU0,0;PD400,0,400,400,0,400,0,0;PU;', mm2(200 * 400)],
  ])('%s', (_, text, area) => {
    const [found, ...more] = areas(text);
    expect(more).toEqual([]);
    expect(Math.abs(found / area - 1)).toBeLessThan(0.003);
  });

  test('pens become colours; a pen that is put away draws nothing; what lies inside is a hole', () => {
    const art = readPlt('IN;SP1;PU0,0;CI400;CI200;SP2;PU2000,0;CI100;SP0;PU9000,0;CI50;');
    expect(new Set(art.shapes.map(({ colour }) => colour)).size).toBe(2);
    expect(areas('IN;SP1;PU0,0;CI400;CI200;')[0]).toBeCloseTo(mm2(Math.PI * (400 ** 2 - 200 ** 2)), 0);
  });

  test('labels, packed lines and unknown instructions are told', () => {
    const { findings } = readPlt('IN;SP1;LBTern Lane\x03;PEabc;ZZ1;PU0,0;CI40;');
    expect(findings.map(({ code }) => code)).toEqual(['text-left-out', 'encoded-lines', 'left-out']);
  });

  test('a place that no plotter reaches', () => {
    expect(() => readPlt('IN;SP1;PU0,0;PD99999999999999,0;')).toThrow(/no plotter reaches/);
  });
});

test('colour numbers of drawings follow the table that an independent reader carries', async () => {
  // @tarikjabiri/dxf and the published table agree on the pure hues; the rest is hue × five levels, from memory
  expect([1, 2, 3, 4, 5, 6].map(indexColour)).toEqual([
    '#ff0000',
    '#ffff00',
    '#00ff00',
    '#00ffff',
    '#0000ff',
    '#ff00ff',
  ]);
  expect([10, 30, 90, 170, 210].map(indexColour)).toEqual([
    '#ff0000',
    '#ff7f00',
    '#00ff00',
    '#0000ff',
    '#ff00ff',
  ]);
  expect([11, 12, 14, 16, 18].map(indexColour)).toEqual([
    '#ffaaaa',
    '#bd0000',
    '#810000',
    '#680000',
    '#4f0000',
  ]);
});

describe('polygons and slips', () => {
  test('polygon mode closes its outlines by itself', () => {
    const { shapes } = readPlt(
      'IN;SP1;PU0,0;PM0;PD400,0,400,400,0,400;PM1;PU100,100;PD200,100,200,200;PM2;EP;',
    );
    expect(shapes.map(({ path }) => path.ops.replace(/[^Z]/g, ''))).toEqual(['ZZ']);
    expect(shapes[0].fill).toBe('evenodd');
  });

  test('a coordinate without a partner is told', () => {
    const { shapes, findings } = readPlt('IN;SP1;PU0,0;PD100,0,200;PD300,300;PU;');
    expect(findings.map(({ code }) => code)).toEqual(['odd-coordinates']);
    expect(shapes).toHaveLength(1);
  });
});

describe('files made to take for ever', () => {
  test('circles with more chords than they have steps are circles, and repeats are no holes', () => {
    const many = 20_000;
    const { shapes } = readPlt(`IN;SP1;PA0,0;${'CI9999,0.0001;'.repeat(many)}`);
    expect(shapes).toHaveLength(many);
    expect(shapes[0].path.ops.length).toBeLessThan(20);
  });

  test('millions of instructions that do nothing', () => {
    expect(readPlt(`IN;SP1;PD0,0;PD400,0;${'PU;'.repeat(2_000_000)}`).shapes).toHaveLength(1);
  });

  const thousands = [
    ['circles beside one another', (i: number) => `PA${i},0;CI9999;`],
    ['circles about one another', (i: number) => `PA0,0;CI${9999 + i / 100};`],
  ] as const;
  test.each(sample(thousands, 1))('%s by the thousand are refused', (_, circle) => {
    const text = `IN;SP1;${Array.from({ length: 4000 }, (_, i) => circle(i)).join('')}`;
    expect(() => readPlt(text)).toThrow(/too many/);
  });

  test('more lines than can be joined are refused', () => {
    expect(() => readPlt(`IN;SP1;${'PU0,0;PD9,9;'.repeat(260_000)}`)).toThrow(/too many/);
  });
});
