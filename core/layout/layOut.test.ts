import { describe, expect, test } from '@jest/globals';
import { CURLEW, HERON, SALTPAN } from '../../demo/shop';
import type { Film } from '../films/film';
import type { Part } from '../panels/part';
import { mapRegion, rectangle, regionBounds } from '../geometry/region';
import { DEFAULT_CHOICES } from '../plan/choices';
import { cuttableWidth } from './cutter';
import type { Bed } from './cutter';
import { layOut as layFilm } from './layOut';
import type { LyingChoices, Strip } from './strip';

const IN = 25.4;
const film: Film = {
  id: 'f',
  name: 'Damson',
  code: 'c',
  colour: '#4a1d44',
  rolls: [{ width: 610, lengthLeft: 20_000 }],
  cutFromBack: false,
  kind: 'sign',
};

function layer(width: number, height: number, more: Partial<Film> = {}): Part {
  const bounds = { minX: 7, minY: 9, maxX: 7 + width, maxY: 9 + height };
  return {
    id: 'f',
    label: 'Damson',
    film: { ...film, ...more },
    region: rectangle(bounds),
    lines: [],
    marks: [],
    waste: [],
    bounds,
    area: width * height,
  };
}
const layOut = (parts: readonly Part[], all: LyingChoices, cutter: Bed) =>
  layFilm(parts[0].film, parts, all, cutter);
const choices = (more: Partial<LyingChoices> = {}): LyingChoices => ({
  ...DEFAULT_CHOICES.layout,
  border: 'none',
  spacing: 10,
  ...more,
});

test('a 24 in machine with two half-inch rollers cuts 23 in (common practice, no source)', () => {
  const wide = { widest: 24 * IN, margins: { far: IN / 2, near: IN / 2, lead: 0, tail: 0 } };
  expect(cuttableWidth(wide, 24 * IN)).toBeCloseTo(23 * IN, 9);
  expect(cuttableWidth(wide, 30 * IN)).toBeCloseTo(23 * IN, 9);
});

describe('a job wider than the cutter', () => {
  test('is refused with both widths and the ways out', () => {
    const { strips, findings } = layOut([layer(900, 700)], choices(), CURLEW);
    expect(strips).toEqual([]);
    expect(findings[0]).toMatchObject({
      code: 'too-wide',
      severity: 'stop',
      measured: 700,
      limit: expect.closeTo(583.6, 9),
    });
    expect(findings[0].message).toContain('700.0 mm (27.56 in)');
    expect(findings[0].message).toContain('583.6 mm (22.98 in)');
    expect(findings[0].waysOut?.join()).toContain('83.3 %');
  });

  test('says that turning helps when it does', () => {
    const { findings } = layOut([layer(300, 700)], choices({ turn: 'as-drawn' }), CURLEW);
    expect(findings[0].waysOut?.[0]).toContain('Turn it by 90°');
  });
});

describe('placing', () => {
  test('copies fill the width, then go along the roll; no two are closer than the spacing', () => {
    const [strip] = layOut([layer(200, 100)], choices({ copies: 12, turn: 'as-drawn' }), CURLEW).strips;
    const rows = new Set(strip.placements.map((p) => p.box.minY));
    expect(rows.size).toBe(5);
    for (const a of strip.placements) {
      expect(a.box.minY).toBeGreaterThanOrEqual(0);
      expect(a.box.maxY).toBeLessThanOrEqual(strip.cuttable);
      for (const b of strip.placements) {
        if (a === b) continue;
        const apartX = Math.max(a.box.minX - b.box.maxX, b.box.minX - a.box.maxX);
        const apartY = Math.max(a.box.minY - b.box.maxY, b.box.minY - a.box.maxY);
        expect(Math.max(apartX, apartY)).toBeGreaterThanOrEqual(10 - 1e-9);
      }
    }
    expect(strip.length).toBeCloseTo(8 + 3 * 200 + 2 * 10 + 5, 9);
    expect(strip.area).toBeCloseTo(strip.length * 610, 6);
    expect(strip.used).toBeCloseTo((12 * 20_000) / strip.area, 9);
  });

  test('the art lands inside its box, border distance away from its edge, turned or not, mirrored or not', () => {
    for (const turn of ['as-drawn', 'turned'] as const) {
      for (const mirror of ['mirrored', 'not-mirrored'] as const) {
        const [strip] = layOut(
          [layer(200, 100)],
          choices({ turn, mirror, border: 'copy', borderDistance: 4 }),
          CURLEW,
        ).strips;
        const { matrix, box } = strip.placements[0];
        const art = regionBounds(mapRegion(strip.placements[0].part.region, matrix));
        for (const [inner, outer] of [
          [art.minX, box.minX + 4],
          [art.minY, box.minY + 4],
          [art.maxX, box.maxX - 4],
          [art.maxY, box.maxY - 4],
        ]) {
          expect(inner).toBeCloseTo(outer, 9);
        }
        // left of the sign ends up on the other side when mirrored
        expect(Math.sign(matrix[0] * matrix[3] - matrix[1] * matrix[2])).toBe(mirror === 'mirrored' ? -1 : 1);
      }
    }
  });

  test('the shorter way round is found; in the middle there is as much left as right', () => {
    const [strip] = layOut([layer(500, 100)], choices({ turn: 'shorter' }), CURLEW).strips;
    expect(strip.turned).toBe(true);
    const [middle] = layOut([layer(300, 100)], choices({ place: 'middle', turn: 'as-drawn' }), CURLEW).strips;
    const { minY, maxY } = middle.placements[0].box;
    expect(minY).toBeCloseTo(middle.cuttable - maxY, 9);
  });
});

describe('mirror', () => {
  test('film cut from the back is mirrored by itself, and that is said', () => {
    const { strips, findings } = layOut([layer(100, 100, { cutFromBack: true })], choices(), CURLEW);
    expect(strips[0].mirrored).toBe(true);
    expect(findings.map((f) => f.code)).toEqual(['mirrored-by-film']);
  });

  test('the unusual way round wants a look, either way', () => {
    const wrong = layOut(
      [layer(100, 100, { cutFromBack: true })],
      choices({ mirror: 'not-mirrored' }),
      CURLEW,
    );
    const other = layOut([layer(100, 100)], choices({ mirror: 'mirrored' }), CURLEW);
    for (const { findings } of [wrong, other])
      expect(findings[0]).toMatchObject({ code: 'mirror-unusual', severity: 'check' });
  });
});

test('a roll the cutter does not take, too little film, too long a run', () => {
  expect(
    layOut([layer(100, 100, { rolls: [{ width: 1500, lengthLeft: 9000 }] })], choices(), CURLEW).findings[0]
      .code,
  ).toBe('roll-misfit');
  const codes = layOut(
    [layer(7000, 100, { rolls: [{ width: 610, lengthLeft: 3000 }] })],
    choices({ turn: 'as-drawn' }),
    CURLEW,
  ).findings.map((f) => f.code);
  expect(codes).toEqual(['film-short', 'long-track']);
});

test('of several rolls the one is taken that costs least film and is long enough; a chosen one counts', () => {
  const rolls = [
    { width: 1220, lengthLeft: 30_000 },
    { width: 610, lengthLeft: 1000 },
  ];
  const widthOf = (l: Part, more: Partial<LyingChoices> = {}): number =>
    layOut([l], choices({ turn: 'as-drawn', ...more }), CURLEW).strips[0].roll.width;
  expect(widthOf(layer(500, 300, { rolls }))).toBe(610);
  // 1000 mm are left on the narrow one
  expect(widthOf(layer(1500, 300, { rolls }))).toBe(1220);
  expect(widthOf(layer(500, 900, { rolls }))).toBe(1220);
  expect(widthOf(layer(500, 300, { rolls }), { rolls: { f: 1220 } })).toBe(1220);
  const tooWide = layOut([layer(500, 1300, { rolls })], choices({ turn: 'as-drawn' }), CURLEW).findings[0];
  expect(tooWide).toMatchObject({ code: 'too-wide', limit: 1220 - 25.4 - 1 });
  expect(layOut([layer(100, 100, { rolls: [] })], choices(), CURLEW).findings[0].code).toBe('no-roll');
});

test('a film that slips early tells so before the cutter does', () => {
  const { findings } = layOut(
    [layer(3500, 100, { limits: { track: 3000 } })],
    choices({ turn: 'as-drawn' }),
    CURLEW,
  );
  expect(findings).toMatchObject([{ code: 'long-track', limit: 3000 }]);
  expect(findings[0].message).toContain('it runs true for 3.00 m');
});

describe('several strips and several parts', () => {
  const part = (id: string, width: number, height: number, more: Partial<Film> = {}): Part => ({
    ...layer(width, height, more),
    id,
  });
  const apart = (strip: Strip, spacing: number): void => {
    for (const [i, a] of strip.placements.entries()) {
      expect(a.box.minY).toBeGreaterThanOrEqual(0);
      expect(a.box.maxY).toBeLessThanOrEqual(strip.cuttable);
      expect(a.box.maxX).toBeLessThanOrEqual(strip.length);
      for (const b of strip.placements.slice(i + 1)) {
        const x = Math.max(a.box.minX - b.box.maxX, b.box.minX - a.box.maxX);
        const y = Math.max(a.box.minY - b.box.maxY, b.box.minY - a.box.maxY);
        expect(Math.max(x, y)).toBeGreaterThanOrEqual(spacing - 1e-9);
      }
    }
  };

  test('a film longer than it runs true goes over as few strips as it takes, every copy once', () => {
    const { strips, findings } = layOut(
      [layer(1000, 300)],
      choices({ copies: 20, turn: 'as-drawn' }),
      CURLEW,
    );
    // 8 mm of lead, 5 of tail, 10 between: five of 1 m in 6 m; 4.84 m are left then, and one wants a new roll
    expect(strips.map(({ id, placements }) => [id, placements.length])).toEqual([
      ['f', 5],
      ['f.2', 5],
      ['f.3', 5],
      ['f.4', 4],
      ['f.5', 1],
    ]);
    expect(strips.flatMap(({ placements }) => placements.map(({ copy }) => copy))).toEqual([
      ...Array(20).keys(),
    ]);
    for (const strip of strips) {
      expect(strip.length).toBeLessThanOrEqual(CURLEW.trackLength);
      apart(strip, 10);
    }
    expect(findings.map(({ code }) => code)).toEqual(['film-short', 'several-strips']);
  });

  test('what one roll does not hold goes onto the next, and each roll is counted by itself', () => {
    const rolls = [
      { width: 610, lengthLeft: 2100 },
      { width: 620, lengthLeft: 1500 },
    ];
    const { strips, findings } = layOut(
      [layer(500, 500, { rolls })],
      choices({ copies: 6, turn: 'as-drawn' }),
      CURLEW,
    );
    expect(strips.map(({ roll, placements }) => [roll.width, placements.length])).toEqual([
      [610, 4],
      [620, 2],
    ]);
    expect(findings.map(({ code }) => code)).toEqual(['several-strips']);
    const chosen = layOut(
      [layer(500, 500, { rolls })],
      choices({ copies: 6, turn: 'as-drawn', rolls: { f: 610 } }),
      CURLEW,
    );
    expect(new Set(chosen.strips.map(({ roll }) => roll.width))).toEqual(new Set([610]));
    expect(chosen.findings.map(({ code }) => code)).toContain('film-short');
  });

  test('parts of different sizes lie beside one another, turned where they fit only so', () => {
    const parts = [part('a', 300, 200), part('b', 100, 250), part('c', 150, 900), part('d', 80, 80)];
    const { strips, findings } = layOut(parts, choices({ copies: 2 }), CURLEW);
    expect(findings).toEqual([]);
    expect(strips).toHaveLength(1);
    const [strip] = strips;
    expect(strip.placements.map(({ part: { id }, copy }) => `${id}${copy}`).sort()).toEqual(
      ['a0', 'a1', 'b0', 'b1', 'c0', 'c1', 'd0', 'd1'].sort(),
    );
    apart(strip, 10);
    for (const { part: own, matrix, box } of strip.placements) {
      const art = regionBounds(mapRegion(own.region, matrix));
      expect([art.minX, art.minY, art.maxX, art.maxY].map((v) => Math.round(v * 1e6))).toEqual(
        [box.minX, box.minY, box.maxX, box.maxY].map((v) => Math.round(v * 1e6)),
      );
    }
    expect(strip.used).toBeCloseTo((2 * (60_000 + 25_000 + 135_000 + 6_400)) / strip.area, 9);
  });
});

describe('sheets and a flatbed', () => {
  const sheets = (count: number, length = 700) => ({
    rolls: [{ width: 500, lengthLeft: length, sheets: count }],
  });

  test('a strip is one sheet, and there are as many as lie on the shelf', () => {
    const own = layer(300, 200, sheets(2));
    const made = layOut([own], choices({ copies: 8, turn: 'as-drawn' }), SALTPAN);
    expect(made.strips.map(({ placements }) => placements.length)).toEqual([4, 4]);
    for (const { length } of made.strips) expect(length).toBeLessThanOrEqual(700);
    expect(made.findings.map(({ code }) => code)).toEqual(['several-strips']);
    const more = layOut([own], choices({ copies: 12, turn: 'as-drawn' }), SALTPAN);
    expect(more.findings.find(({ code }) => code === 'film-short')).toMatchObject({ measured: 3, limit: 2 });
  });

  test('piles of sheets: what does not fit on one goes on to the next, sheet by sheet', () => {
    const two = layer(300, 200, {
      rolls: [
        { width: 500, lengthLeft: 700, sheets: 1 },
        { width: 480, lengthLeft: 700, sheets: 9 },
      ],
    });
    // four fit on a sheet: one pile has enough of them for all
    const { strips } = layOut([two], choices({ copies: 12, turn: 'as-drawn' }), SALTPAN);
    expect(strips.map(({ roll }) => roll.width)).toEqual([480, 480, 480]);
    // no pile has: the first is used up, and nothing is cut from more sheets than lie there
    const few = layer(300, 200, {
      rolls: [
        { width: 500, lengthLeft: 700, sheets: 1 },
        { width: 480, lengthLeft: 700, sheets: 2 },
      ],
    });
    const made = layOut([few], choices({ copies: 12, turn: 'as-drawn' }), SALTPAN).strips;
    expect(made.map(({ roll }) => roll.width).sort()).toEqual([480, 480, 500]);
  });

  test('sheets that are enough are taken before a roll that costs more film', () => {
    const own = layer(300, 200, {
      rolls: [
        { width: 610, lengthLeft: 20_000 },
        { width: 500, lengthLeft: 700, sheets: 9 },
      ],
    });
    const { strips } = layOut([own], choices({ copies: 12, turn: 'as-drawn' }), CURLEW);
    expect(strips.map(({ roll }) => roll.width)).toEqual([500, 500, 500]);
  });

  test('longer than a sheet, or than the bed: stopped, and said which', () => {
    const long = layer(800, 300, sheets(5));
    const [sheet] = layOut([long], choices({ turn: 'as-drawn' }), SALTPAN).findings;
    expect(sheet).toMatchObject({ code: 'too-long', severity: 'stop', limit: 700 });
    expect(sheet.message).toContain('its sheets are 0.70 m long');
    const roll = layer(1000, 300, { rolls: [{ width: 500, lengthLeft: 9000 }] });
    const [bed] = layOut([roll], choices({ turn: 'as-drawn' }), SALTPAN).findings;
    expect(bed).toMatchObject({ code: 'too-long', limit: 900 });
    expect(bed.message).toContain("Saltpan's bed is 0.90 m long");
    // under rollers a roll that long is only looked at
    const [track] = layOut([layer(7000, 300)], choices({ turn: 'as-drawn' }), CURLEW).findings;
    expect(track).toMatchObject({ code: 'long-track', severity: 'check' });
  });

  test('margins differ from edge to edge', () => {
    const [strip] = layOut([layer(100, 100)], choices({ turn: 'as-drawn' }), HERON).strips;
    expect(strip.edges).toEqual({ far: 12.7, near: 9 });
    expect(strip.cuttable).toBeCloseTo(610 - 12.7 - 9, 9);
    expect(strip.placements[0].box.minX).toBe(HERON.margins.lead);
  });
});
