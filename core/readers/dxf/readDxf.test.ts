/** Group codes as in the DXF Reference; what comes out is checked against geometry, not against another reading of it. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { flatten, lineLength, mapPath, pathBounds } from '../../geometry/path';
import { IDENTITY } from '../../geometry/matrix';
import { regionArea, weld } from '../../geometry/region';
import type { Artwork } from '../artwork';
import { MM_IN, readDxf } from './readDxf';

type Code = readonly [number, string | number];
const file = (
  entities: readonly Code[],
  more: { header?: readonly Code[]; tables?: readonly Code[]; blocks?: readonly Code[] } = {},
) => {
  const section = (name: string, codes: readonly Code[] = []): readonly Code[] => [
    [0, 'SECTION'],
    [2, name],
    ...codes,
    [0, 'ENDSEC'],
  ];
  return [
    ...section(
      'HEADER',
      more.header ?? [
        [9, '$INSUNITS'],
        [70, 4],
      ],
    ),
    ...section('TABLES', more.tables),
    ...section('BLOCKS', more.blocks),
    ...section('ENTITIES', entities),
    [0, 'EOF'] as const,
  ]
    .map(([code, value]) => `${code}\n${value}\n`)
    .join('');
};
const entity = (type: string, ...codes: Code[]): readonly Code[] => [[0, type], [8, '0'], ...codes];
const line = (x0: number, y0: number, x1: number, y1: number, ...more: Code[]) =>
  entity('LINE', [10, x0], [20, y0], [11, x1], [21, y1], ...more);
const circle = (x: number, y: number, r: number, ...more: Code[]) =>
  entity('CIRCLE', [10, x], [20, y], [40, r], ...more);
const poly = (closed: boolean, points: readonly (readonly [number, number, number?])[]) =>
  entity(
    'LWPOLYLINE',
    [90, points.length],
    [70, closed ? 1 : 0],
    ...points.flatMap(([x, y, bulge = 0]): Code[] => [
      [10, x],
      [20, y],
      [42, bulge],
    ]),
  );

const areaOf = ({ shapes }: Artwork): number =>
  shapes.reduce((sum, { path, matrix, fill, stroke }) => {
    if (stroke) return sum;
    return (
      sum +
      regionArea(
        weld(
          flatten(path, matrix, 1e-4).map(({ points }) => points),
          fill,
        ),
      )
    );
  }, 0);
const lengthOf = ({ shapes }: Artwork): number =>
  shapes.reduce(
    (sum, { path, matrix }) => sum + flatten(path, matrix, 1e-4).reduce((all, l) => all + lineLength(l), 0),
    0,
  );

describe('entities', () => {
  test('a circle and an ellipse by their areas, an arc by its length', () => {
    expect(areaOf(readDxf(file(circle(10, 20, 15)), null))).toBeCloseTo(Math.PI * 225, 1);
    const ellipse = entity(
      'ELLIPSE',
      [10, 0],
      [20, 0],
      [11, 30],
      [21, 40],
      [40, 0.4],
      [41, 0],
      [42, 2 * Math.PI],
    );
    expect(areaOf(readDxf(file(ellipse), null))).toBeCloseTo(Math.PI * 50 * 20, 0);
    const arc = entity('ARC', [10, 0], [20, 0], [40, 10], [50, 350], [51, 80]);
    expect(lengthOf(readDxf(file(arc), null))).toBeCloseTo((10 * Math.PI) / 2, 3);
  });

  test('a polyline with two half circles is a slot: its area and its perimeter', () => {
    const slot = readDxf(
      file(
        poly(true, [
          [0, 0, 0],
          [40, 0, 1],
          [40, 20, 0],
          [0, 20, 1],
        ]),
      ),
      null,
    );
    expect(areaOf(slot)).toBeCloseTo(40 * 20 + Math.PI * 100, 1);
    expect(lengthOf(slot)).toBeCloseTo(80 + 2 * Math.PI * 10, 2);
    expect(slot.page).toEqual({ width: expect.closeTo(60, 6), height: expect.closeTo(20, 6) });
  });

  test('single lines that meet are one outline, whichever way each was drawn and in whatever order', () => {
    const sides = [line(0, 0, 30, 0), line(30, 20, 30, 0), line(0, 20, 30, 20), line(0, 0, 0, 20)];
    fc.assert(
      fc.property(fc.shuffledSubarray(sides, { minLength: 4 }), (order) => {
        const { shapes } = readDxf(file(order.flat()), null);
        expect(shapes).toHaveLength(1);
        expect(areaOf({ shapes } as Artwork)).toBeCloseTo(600, 6);
      }),
      { numRuns: 24 },
    );
  });

  test('a spline of degree 3 with three spans is as long as de Boor’s own points say', () => {
    const knots = [0, 0, 0, 0, 1, 2, 3, 3, 3, 3];
    const control = [
      [0, 0],
      [10, 30],
      [30, 30],
      [50, -20],
      [70, 0],
      [90, 10],
    ] as const;
    const spline = entity(
      'SPLINE',
      [70, 8],
      [71, 3],
      [72, knots.length],
      [73, control.length],
      ...knots.map((k): Code => [40, k]),
      ...control.flatMap(([x, y]): Code[] => [
        [10, x],
        [20, y],
      ]),
    );
    // de Boor 1972, straight from the definition
    const at = (u: number): readonly [number, number] => {
      let k = 3;
      while (k < 5 && u >= knots[k + 1]) k++;
      const d = Array.from({ length: 4 }, (_, j) => [...control[j + k - 3]] as [number, number]);
      for (let r = 1; r <= 3; r++) {
        for (let j = 3; j >= r; j--) {
          const a = (u - knots[j + k - 3]) / (knots[j + 1 + k - r] - knots[j + k - 3]);
          d[j] = [(1 - a) * d[j - 1][0] + a * d[j][0], (1 - a) * d[j - 1][1] + a * d[j][1]];
        }
      }
      return d[3];
    };
    let length = 0;
    for (let i = 1; i <= 6000; i++) {
      const [p, q] = [at((3 * (i - 1)) / 6000), at((3 * i) / 6000)];
      length += Math.hypot(q[0] - p[0], q[1] - p[1]);
    }
    expect(lengthOf(readDxf(file(spline), null))).toBeCloseTo(length, 2);
  });

  test('one drawn from behind is mirrored (extrusion 0, 0, −1)', () => {
    const arc = (...more: Code[]) => entity('ARC', [10, 10], [20, 0], [40, 5], [50, 0], [51, 90], ...more);
    const [front, back] = [arc(), arc([230, -1])].map((codes) =>
      readDxf(file([...circle(-40, 0, 1), ...circle(40, 0, 1), ...codes]), null),
    );
    const boxOf = ({ shapes }: Artwork) => {
      const open = shapes.find(({ stroke }) => stroke)!;
      return pathBounds(mapPath(open.path, open.matrix), IDENTITY);
    };
    const middle = front.page.width / 2;
    expect(boxOf(back).minX).toBeCloseTo(2 * middle - boxOf(front).maxX, 6);
  });
});

describe('blocks', () => {
  const block: readonly Code[] = [
    ...([
      [0, 'BLOCK'],
      [2, 'TILE'],
      [10, 1],
      [20, 1],
    ] as Code[]),
    ...poly(true, [
      [1, 1],
      [11, 1],
      [11, 6],
      [1, 6],
    ]),
    [0, 'ENDBLK'],
  ];
  const insert = (...codes: Code[]) => entity('INSERT', [2, 'tile'], ...codes);
  const placed = (...codes: Code[]) => readDxf(file(insert(...codes), { blocks: block }), null);

  test('are scaled, turned and repeated in rows and columns', () => {
    expect(areaOf(placed([10, 5], [20, 5]))).toBeCloseTo(50, 6);
    expect(areaOf(placed([41, 2], [42, 3]))).toBeCloseTo(300, 6);
    const turned = placed([50, 90]);
    expect([turned.page.width, turned.page.height]).toEqual([expect.closeTo(5, 6), expect.closeTo(10, 6)]);
    const rows = placed([70, 3], [71, 2], [44, 15], [45, 10]);
    expect(rows.shapes.length).toBeGreaterThan(0);
    expect(areaOf(rows)).toBeCloseTo(6 * 50, 5);
    expect([rows.page.width, rows.page.height]).toEqual([expect.closeTo(40, 6), expect.closeTo(15, 6)]);
  });

  test('one that is missing, or holds itself, is told and does no harm', () => {
    const missing = readDxf(file([...circle(0, 0, 5), ...entity('INSERT', [2, 'GONE'])]), null);
    expect(missing.findings.length).toBe(1);
    const own: readonly Code[] = [
      ...([
        [0, 'BLOCK'],
        [2, 'LOOP'],
        [10, 0],
        [20, 0],
      ] as Code[]),
      ...circle(0, 0, 3),
      ...entity('INSERT', [2, 'LOOP'], [10, 1]),
      [0, 'ENDBLK'],
    ];
    const looped = readDxf(file(entity('INSERT', [2, 'LOOP']), { blocks: own }), null);
    expect(looped.shapes.length).toBeGreaterThan(0);
    expect(looped.findings.length).toBe(1);
  });
});

describe('units, layers and colours', () => {
  test.each([
    [1, 25.4],
    [2, 304.8],
    [4, 1],
    [5, 10],
    [6, 1000],
    [13, 0.001],
  ])('$INSUNITS %i is %d mm', (code, mm) => {
    const drawing = readDxf(
      file(circle(0, 0, 10), {
        header: [
          [9, '$INSUNITS'],
          [70, code],
        ],
      }),
      'in',
    );
    expect(drawing.page.width).toBeCloseTo(20 * mm, 6);
    expect(drawing.offers).toBeUndefined();
  });

  test('a drawing without one asks, says what each answer gives, and takes the answer', () => {
    const bare = file(circle(0, 0, 10), {
      header: [
        [9, '$INSUNITS'],
        [70, 0],
      ],
    });
    const asked = readDxf(bare, null);
    expect(asked.findings.map(({ code, severity }) => [code, severity])).toEqual([['no-units', 'stop']]);
    for (const { value, width } of asked.offers!.units!) expect(width).toBeCloseTo(20 * MM_IN[value], 9);
    expect(readDxf(bare, 'in').page.width).toBeCloseTo(508, 6);
    expect(readDxf(bare, 'in').findings).toEqual([]);
  });

  const tables: readonly Code[] = [
    ...([
      [0, 'TABLE'],
      [2, 'LAYER'],
    ] as Code[]),
    ...([
      [0, 'LAYER'],
      [2, 'CUT'],
      [62, 1],
      [70, 0],
    ] as Code[]),
    ...([
      [0, 'LAYER'],
      [2, 'NOTES'],
      [62, -3],
      [70, 0],
    ] as Code[]),
    [0, 'ENDTAB'],
  ];
  const onLayer = (codes: readonly Code[], layer: string): Code[] =>
    codes.map((code): Code => (code[0] === 8 ? [8, layer] : code));

  test('a colour is the entity’s own, else its layer’s; 1 is red, 5 blue, a true colour itself (ACI)', () => {
    const drawing = readDxf(
      file(
        [
          ...onLayer(circle(0, 0, 5), 'CUT'),
          ...onLayer(circle(20, 0, 5, [62, 5]), 'CUT'),
          ...circle(40, 0, 5, [420, 0x1d3f86]),
        ],
        { tables },
      ),
      null,
    );
    expect(drawing.shapes.map(({ colour }) => colour).sort()).toEqual(['#0000ff', '#1d3f86', '#ff0000']);
    expect(new Set(drawing.shapes.map(({ layer }) => layer))).toEqual(new Set(['CUT', '0']));
  });

  test('what lies on a layer that is switched off is left out and said', () => {
    const drawing = readDxf(
      file([...circle(0, 0, 5), ...onLayer(circle(99, 0, 5), 'NOTES')], { tables }),
      null,
    );
    expect(drawing.shapes).toHaveLength(1);
    expect(drawing.page.width).toBeCloseTo(10, 6);
    expect(drawing.findings).toHaveLength(1);
  });
});

test.each([
  ['something else', 'hello\nworld\n'],
  ['a file that stops in the middle', file(circle(0, 0, 5)).slice(0, 120)],
])('%s is refused', (_name, text) => expect(() => readDxf(text, null)).toThrow());
