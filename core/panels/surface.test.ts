import { describe, expect, test } from '@jest/globals';
import { rectangle, regionBounds } from '../geometry/region';
import type { Surface } from './choices';
import { NO_PANEL_CHOICES } from './choices';
import { fittingMap } from './fittingMap';
import type { PanelPart } from './panel';
import { cellsOf } from './split';
import { placeOfPicture, surfaceFindings } from './surface';

const art = rectangle({ minX: 0, minY: 0, maxX: 1000, maxY: 500 });
const layers = [{ region: art, bounds: regionBounds(art) }];
const door = { name: 'Door', x: 1400, y: 300, width: 300, height: 600 };
const wall = (more: Partial<Surface> = {}): Surface => ({
  width: 3000,
  height: 1000,
  x: 200,
  y: 100,
  keepOuts: [],
  picture: null,
  ...more,
});
const codes = (surface: Surface, seams = { upright: [] as number[], level: [] as number[] }, region = art) =>
  surfaceFindings(surface, [{ region, bounds: regionBounds(region) }], {
    seams,
    box: regionBounds(region),
  }).map(({ code }) => code);

describe('a surface', () => {
  test('says by how much art reaches past its edge, on any side', () => {
    expect(codes(wall())).toEqual([]);
    for (const [more, by] of [
      [{ x: -30 }, 30],
      [{ y: -12 }, 12],
      [{ x: 2050 }, 50],
      [{ y: 520 }, 20],
    ] as const) {
      const [finding] = surfaceFindings(wall(more), layers, undefined);
      expect([finding.code, finding.measured]).toEqual(['off-surface', by]);
      expect(finding.waysOut!.length).toBeGreaterThan(0);
    }
  });

  test('art on a door is told, a seam across it where art lies beside it on both sides, else nothing', () => {
    expect(codes(wall({ keepOuts: [door] }))).toEqual([]);
    expect(codes(wall({ keepOuts: [{ ...door, x: 1100 }] }))).toEqual(['art-on-keep-out']);
    // a window in a frame of art: nothing lies on it, and seams may not either
    const frame = [...art, Float64Array.of(300, 100, 300, 400, 700, 400, 700, 100)];
    const window = { name: 'Window', x: 510, y: 210, width: 380, height: 280 };
    const at = (upright: number[], level: number[] = []) =>
      codes(wall({ keepOuts: [window] }), { upright, level }, frame);
    expect(at([])).toEqual([]);
    expect(at([250])).toEqual([]);
    expect(at([500])).toEqual(['seam-on-keep-out']);
    expect(at([], [250])).toEqual(['seam-on-keep-out']);
    const ways = {
      upright: [Float64Array.of(500, 0, 500, 90, 250, 100, 250, 400, 500, 410, 500, 500)],
      level: [],
    };
    const around = { upright: [500], level: [], ways };
    expect(codes(wall({ keepOuts: [window] }), around, frame)).toEqual([]);
  });

  test('a picture is scaled by two places of known distance', () => {
    const place = placeOfPicture({
      file: 'a'.repeat(64),
      width: 4000,
      height: 3000,
      from: { x: 1000, y: 1500 },
      to: { x: 1000, y: 500 },
      apart: 2000,
      at: { x: 500, y: 2100 },
    });
    // two millimetres a pixel, and the first place lies where it was said to
    expect(place).toEqual({ x: 500 - 2000, y: 2100 - 3000, width: 8000, height: 6000 });
    expect(
      placeOfPicture({
        file: '',
        width: 10,
        height: 10,
        from: { x: 1, y: 1 },
        to: { x: 1, y: 1 },
        apart: 5,
        at: { x: 0, y: 0 },
      }).width,
    ).toBe(10);
  });
});

describe('the map of a sign on its surface', () => {
  const seams = { upright: [400], level: [] };
  const choices = {
    ...NO_PANEL_CHOICES,
    overlap: 6,
    overlaps: { upright: [10], level: [] },
    surface: wall({ keepOuts: [door] }),
  };
  const panels = cellsOf(seams, choices).map(
    (cell) =>
      ({ film: { id: 'a', name: 'A', colour: '#000000' }, cell, isCut: true }) as unknown as PanelPart,
  );
  const map = (across: 'left' | 'right' | 'centre', down: 'upper' | 'lower') =>
    fittingMap(
      { box: regionBounds(art), seams },
      panels,
      choices,
      { width: 1000, height: 500 },
      { across, down },
    );

  test('measures from the wall: its left, its right, its centre line, its ceiling, its floor', () => {
    const tape = (across: 'left' | 'right' | 'centre') =>
      map(across, 'upper').tape.upright.map(({ from }) => from);
    expect(tape('left')).toEqual([200, 600, 1200]);
    expect(tape('right')).toEqual([2800, 2400, 1800]);
    expect(tape('centre')).toEqual([-1300, -900, -300]);
    expect(map('left', 'upper').tape.level.map(({ from }) => from)).toEqual([100, 600]);
    expect(map('left', 'lower').tape.level.map(({ from }) => from)).toEqual([900, 400]);
    const [first, second] = map('left', 'lower').panels;
    expect([first.across, first.down, second.across]).toEqual([200, 900, 600]);
  });

  test('says what each seam’s neighbours share, and where doors are', () => {
    const { tape, keepOuts, sign, isOnSurface } = map('left', 'upper');
    expect(tape.upright.map(({ overlap }) => overlap)).toEqual([undefined, 10, undefined]);
    expect([keepOuts, isOnSurface]).toEqual([[door], true]);
    expect(sign).toEqual({ minX: 200, minY: 100, maxX: 1200, maxY: 600 });
  });
});
