import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Bounds } from '../geometry/bounds';
import { boundsTouch, heightOf, joinBounds, outset, widthOf } from '../geometry/bounds';
import { grow, intersection, mapRegion, rectangle, regionArea, regionBounds, weld } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import { random } from '../random';
import { MARK_KINDS } from '../registration/readMarks';
import type { PrintMarkChoices } from './choices';
import { evenEdges, ISO_SHEETS, USUAL_CUT_LINE, USUAL_EDGE, USUAL_MARKS } from './choices';
import type { PrintMark } from './marks';
import { markShape, marksAround, patchOn } from './marks';
import type { PrintUnit, SheetChoices } from './sheets';
import { cutOnSheet, layOnSheets, printUnit, readSheetCode, sheetLabel } from './sheets';
import { times } from '../sample.testing';

const sheet = (more: Partial<SheetChoices> = {}): SheetChoices => ({
  room: { width: 420, height: 297, edges: evenEdges(USUAL_EDGE) },
  turn: 'shorter',
  copies: 12,
  spacing: 4,
  marks: USUAL_MARKS,
  ...more,
});
const ART = [{ colour: '#2c6e7c', region: rectangle({ minX: 0, minY: 0, maxX: 60, maxY: 42 }) }];
const sticker = printUnit(
  ART,
  ART,
  [
    { ...USUAL_CUT_LINE, kind: 'perforated', offset: 5 },
    { ...USUAL_CUT_LINE, offset: 1 },
  ],
  2,
);
/** mm that rounding to the grid moves an edge. */
const GRID = 1e-3 + 1e-9;

const shapesOf = (marks: readonly PrintMark[], { line }: PrintMarkChoices): Bounds[] =>
  marks.map((mark) => regionBounds(markShape(mark, line)));

test('sheets are as ISO 216 has them: half of the one before, from a square metre on', () => {
  const [a0w, a0h] = ISO_SHEETS.A0;
  expect(Math.abs(a0w * a0h - 1e6)).toBeLessThan(1000);
  for (let n = 0; n < 5; n++) {
    const [short, long] = ISO_SHEETS[`A${n}`];
    expect(ISO_SHEETS[`A${n + 1}`]).toEqual([Math.floor(long / 2), short]);
  }
});

describe('what is printed and cut of one copy', () => {
  test('lines from the innermost out, bleed past the innermost, and a box around all', () => {
    expect(sticker.lines.map(({ kind }) => kind)).toEqual(['kiss', 'perforated']);
    expect(widthOf(sticker.box)).toBeCloseTo(60 + 2 * 5, 2);
    expect(regionBounds(sticker.bleed[0].region)).toMatchObject({ minX: expect.closeTo(-3, 2) });
    expect(printUnit(ART, ART, [USUAL_CUT_LINE], 0).bleed).toEqual([]);
  });
});

/** A copy of which only the size is known. */
const bare = (box: Bounds): PrintUnit => ({
  art: [{ colour: '#b0202f', region: rectangle(box) }],
  bleed: [],
  lines: [],
  followed: [],
  box,
});

describe('copies on sheets', () => {
  const few = fc.record({
    width: fc.double({ min: 15, max: 150, noNaN: true }),
    height: fc.double({ min: 15, max: 150, noNaN: true }),
    copies: fc.integer({ min: 1, max: 90 }),
    spacing: fc.double({ min: 0, max: 12, noNaN: true }),
    kind: fc.constantFrom(...MARK_KINDS),
  });

  test('each once, none on another, all within what marks and edges leave, as many a sheet as rows take', () =>
    fc.assert(
      fc.property(few, ({ width, height, copies, spacing, kind }) => {
        const box = { minX: 7, minY: -3, maxX: 7 + width, maxY: height - 3 };
        const marks = { ...USUAL_MARKS, kind };
        const { sheets } = layOnSheets(bare(box), sheet({ copies, spacing, marks }));
        const places = sheets.flatMap((one) => one.places);
        expect(places.map(({ copy }) => copy)).toEqual(Array.from({ length: copies }, (_, i) => i));
        for (const { places: own, art, marks: its } of sheets) {
          own.forEach((place, i) => {
            const there = regionBounds(mapRegion(rectangle(box), place.matrix));
            for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const)
              expect(there[side]).toBeCloseTo(place.box[side], 6);
            for (const other of own.slice(i + 1))
              expect(boundsTouch(outset(place.box, -1e-6), other.box)).toBe(false);
          });
          const all = [...own.map((place) => place.box), ...shapesOf(its, marks)].reduce(joinBounds);
          expect(all.minX).toBeGreaterThanOrEqual(USUAL_EDGE - GRID);
          expect(all.maxX).toBeLessThanOrEqual(420 - USUAL_EDGE + GRID);
          expect(all.minY).toBeGreaterThanOrEqual(USUAL_EDGE - GRID);
          expect(all.maxY).toBeLessThanOrEqual(297 - USUAL_EDGE + GRID);
          const printed = its.flatMap((mark) => markShape(mark, marks.line));
          expect(regionArea(intersection(weld(printed), rectangle(outset(art, 2))))).toBe(0);
        }
      }),
      { seed: 13, numRuns: times(50, 15) },
    ));

  test('close together they take fewer sheets than rows where their shape lets them, and keep apart', () => {
    const next = random(11);
    let [inRows, together] = [0, 0];
    for (let k = 0; k < 6; k++) {
      // a triangle, two of which make a box
      const [w, h] = [30 + 40 * next(), 30 + 40 * next()];
      const unit = printUnit(
        [{ colour: '#b0202f', region: [Float64Array.of(0, 0, w, h, 0, h)] }],
        [],
        [{ ...USUAL_CUT_LINE, offset: 1 }],
        0,
      );
      const asked = sheet({ copies: 150, spacing: 2 });
      const [rows, close] = [layOnSheets(unit, asked).sheets, layOnSheets(unit, { ...asked, pack: 'close' }).sheets]; // prettier-ignore
      expect(close.length).toBeLessThanOrEqual(rows.length);
      inRows += rows.length;
      together += close.length;
      expect(close.flatMap(({ places }) => places.map(({ copy }) => copy))).toEqual(Array.from({ length: 150 }, (_, i) => i)); // prettier-ignore
      for (const { places, art, marks } of close) {
        // grown by a hair less than half of what is between them, none lies on another
        const grown = places.map(({ matrix }) => grow(mapRegion(unit.lines[0].region, matrix), 0.99));
        const sum = grown.reduce((all, region) => all + regionArea(region), 0);
        expect(regionArea(weld(grown.flat()))).toBeCloseTo(sum, 2);
        const all = [art, ...shapesOf(marks, USUAL_MARKS)].reduce(joinBounds);
        expect(all.minX).toBeGreaterThanOrEqual(USUAL_EDGE - GRID);
        expect(all.maxX).toBeLessThanOrEqual(420 - USUAL_EDGE + GRID);
        expect(all.minY).toBeGreaterThanOrEqual(USUAL_EDGE - GRID);
        expect(all.maxY).toBeLessThanOrEqual(297 - USUAL_EDGE + GRID);
      }
    }
    expect(together).toBeLessThan(0.85 * inRows);
  });

  test('what lies as well in rows lies in rows', () => {
    const box = { minX: 0, minY: 0, maxX: 100, maxY: 60 };
    const asked = sheet({ copies: 20 });
    expect(layOnSheets(bare(box), { ...asked, pack: 'close' })).toEqual(layOnSheets(bare(box), asked));
  });

  test('lie the way round of which more go on a sheet', () => {
    const box = { minX: 0, minY: 0, maxX: 100, maxY: 60 };
    // 338.2 × 215.2 mm are left: three by three as drawn, five by two turned
    const { sheets } = layOnSheets(bare(box), sheet({ copies: 20 }));
    expect(sheets.map(({ places }) => places.length)).toEqual([10, 10]);
    expect(widthOf(sheets[0].places[0].box)).toBe(60);
  });

  test('art that no sheet takes is told with its size and what there is', () => {
    const box = { minX: 0, minY: 0, maxX: 500, maxY: 60 };
    const { sheets, findings } = layOnSheets(bare(box), sheet());
    expect(sheets).toEqual([]);
    expect(findings).toMatchObject([{ code: 'larger-than-sheet', severity: 'stop', measured: 500 }]);
  });

  test('what is cut is every line of every copy', () => {
    const { sheets } = layOnSheets(sticker, sheet({ copies: 5 }));
    const [kiss, perforated] = cutOnSheet(sticker, sheets[0]);
    const area = regionArea(kiss.lines.map(({ points }) => points));
    expect(area).toBeCloseTo(5 * regionArea(sticker.lines[0].region), 6);
    expect(perforated.lines).toHaveLength(5);
  });

  test('the code lies beside the art, and on no mark', () => {
    for (const kind of MARK_KINDS) {
      const marks = { ...USUAL_MARKS, kind };
      const { sheets } = layOnSheets(sticker, sheet({ marks }));
      const { code, art, marks: its } = sheets[0];
      expect(heightOf(code!)).toBeGreaterThan(7);
      expect(boundsTouch(code!, art)).toBe(false);
      expect(shapesOf(its, marks).some((shape) => boundsTouch(shape, code!))).toBe(false);
    }
    const tight = layOnSheets(sticker, sheet({ marks: { ...USUAL_MARKS, away: 6 } }));
    expect(tight.findings.map(({ code }) => code)).toEqual(['no-room-for-code']);
  });
});

describe('marks', () => {
  const art = (width: number, height: number): Bounds => ({
    minX: 50,
    minY: 60,
    maxX: 50 + width,
    maxY: 60 + height,
  });

  test.each([
    [300, 180],
    [180, 300],
    [200, 200],
    [1400, 300],
    [60, 40],
  ])('of art %d × %d: a sheet that is turned or mirrored is noticed', (width, height) => {
    for (const kind of MARK_KINDS) {
      const marks = marksAround(art(width, height), { ...USUAL_MARKS, kind }).map(({ at }) => at);
      const [cx, cy] = [50 + width / 2, 60 + height / 2];
      const ways: readonly ((at: Spot) => Spot)[] = [
        ([x, y]) => [2 * cx - x, 2 * cy - y],
        ([x, y]) => [2 * cx - x, y],
        ([x, y]) => [x, 2 * cy - y],
      ];
      for (const way of ways) {
        const there = marks.map(way);
        const off = marks.map(([x, y]) => Math.min(...there.map(([u, v]) => Math.hypot(u - x, v - y))));
        expect(Math.max(...off)).toBeGreaterThan(8);
      }
    }
  });

  test('long work has more of them, along both edges', () => {
    const long = marksAround(art(1400, 300), USUAL_MARKS);
    expect(long).toHaveLength(4 + 3 + 3);
    const steps = long.slice(4, 7).map(({ at }) => at[0]);
    expect(steps[1] - steps[0]).toBeLessThanOrEqual(USUAL_MARKS.between);
    expect(marksAround(art(200, 100), USUAL_MARKS)).toHaveLength(5);
  });

  test('what is white behind them reaches around every arm and the code, and no further under the art than the tip of an arm', () => {
    for (const kind of MARK_KINDS) {
      const marks = { ...USUAL_MARKS, kind };
      const [{ marks: its, code, art: own }] = layOnSheets(sticker, sheet({ marks })).sheets;
      const patch = patchOn(its, code, marks.line);
      expect(regionArea(intersection(patch, rectangle(own)))).toBeLessThan(2);
      const ink = weld([...its.flatMap((mark) => markShape(mark, marks.line)), ...rectangle(code!)]);
      expect(regionArea(intersection(patch, ink))).toBeCloseTo(regionArea(ink), 2);
      for (const mark of its) {
        const [x, y] = mark.at;
        const around = rectangle(outset({ minX: x, minY: y, maxX: x, maxY: y }, 1.5));
        expect(regionArea(intersection(patch, around))).toBeCloseTo(9, 2);
      }
    }
  });

  test('arms of short art do not meet', () => {
    const marks = marksAround(art(20, 14), USUAL_MARKS);
    const [first, second] = shapesOf(marks, USUAL_MARKS);
    expect(first.maxX).toBeLessThan(second.minX);
  });
});

test('a sheet’s code tells the order and which sheet it is; anything else is none', () => {
  expect(readSheetCode(sheetLabel('#2047', 1, 3).code)).toEqual({ order: 2047, sheet: 2 });
  expect(readSheetCode(' JP #7 12 A\n')).toEqual({ order: 7, sheet: 12 });
  expect(readSheetCode('#2047 2')).toEqual({ order: 2047, sheet: 2 });
  for (const text of ['', '4012345678901', 'JP #2047 A', 'http://example.test/JP #1 1 A', 'JP #2047 1 B'])
    expect(readSheetCode(text)).toBeUndefined();
});
