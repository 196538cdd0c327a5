import { describe, expect, test } from '@jest/globals';
import { CURLEW, DEMO_FILMS, SALTPAN } from '../../demo/shop';
import type { Film } from '../films/film';
import { mapRegion, rectangle, regionBounds, ringArea } from '../geometry/region';
import type { Region } from '../geometry/region';
import type { Part } from '../panels/part';
import { DEFAULT_CHOICES } from '../plan/choices';
import { packLaid } from './laidPieces.testing';
import { layOut } from './layOut';
import type { LyingChoices, PackedStrip, Strip } from './strip';

const FILM: Film = { ...DEMO_FILMS[0], rolls: [{ width: 610, lengthLeft: 20_000 }] };
const choices = (more: Partial<LyingChoices> = {}): LyingChoices => ({
  ...DEFAULT_CHOICES.layout,
  pack: 'piece',
  border: 'none',
  ...more,
});
/** An L: its box is half empty. */
const ell = (x: number, size: number): Region => [
  Float64Array.of(
    x,
    0,
    x + size / 3,
    0,
    x + size / 3,
    (size * 2) / 3,
    x + size,
    (size * 2) / 3,
    x + size,
    size,
    x,
    size,
  ),
];
const partOf = (region: Region, id: string, film = FILM): Part => ({
  id,
  film,
  label: `piece ${id}`,
  region,
  marks: [],
  lines: [],
  waste: [],
  bounds: regionBounds(region),
  area: ringArea(region[0]),
});
const ells = (count: number, film = FILM): Part[] =>
  Array.from({ length: count }, (_, i) => partOf(ell(400 * i, 150 + 10 * i), `f~${i + 1}`, film));
const cutOn = ({ placements }: Strip): Region[] =>
  placements.map(({ part, matrix }) => mapRegion(part.region, matrix));
const packedOf = (parts: readonly Part[], how: LyingChoices, rounds = 20): readonly PackedStrip[] =>
  [...packLaid(parts[0].film, parts, how, CURLEW, { rounds, seed: 1 })].at(-1)!.packed;

describe('pieces on a film', () => {
  test('take less than in rows, at once and after a search; what was found is laid so again', () => {
    const parts = ells(8);
    const rows = layOut(FILM, parts, choices({ pack: 'one', spacing: 3 }), CURLEW).strips;
    const atOnce = layOut(FILM, parts, choices(), CURLEW).strips;
    expect(atOnce).toHaveLength(1);
    expect(atOnce[0].length).toBeLessThan(rows[0].length);
    const packed = packedOf(parts, choices());
    const [closer] = layOut(FILM, parts, choices({ packed: { [FILM.id]: packed } }), CURLEW).strips;
    expect(closer.length).toBeLessThanOrEqual(atOnce[0].length);
    expect(closer.placements).toHaveLength(8);
    const found = new Map(packed[0].pieces.map((piece) => [piece.part, piece]));
    for (const { part, matrix } of closer.placements) {
      const { turn, x, y } = found.get(part.id)!;
      const { minX, minY, maxX, maxY } = part.bounds;
      const [mx, my] = [(minX + maxX) / 2, (minY + maxY) / 2];
      expect(matrix[0] * mx + matrix[2] * my + matrix[4]).toBeCloseTo(CURLEW.margins.lead + x, 9);
      expect(Math.round((Math.atan2(matrix[1], matrix[0]) * 180) / Math.PI + 360) % 360).toBe(turn % 360);
      expect(matrix[1] * mx + matrix[3] * my + matrix[5]).toBeCloseTo(0.5 + y, 9);
    }
    expect(closer.used).toBeGreaterThan(rows[0].used);
  });

  test('what was packed for other pieces, another width or less room does not count', () => {
    const parts = ells(8);
    const packed = { [FILM.id]: packedOf(parts, choices(), 120) };
    const usual = layOut(FILM, parts, choices(), CURLEW).strips;
    const with_ = (own: readonly Part[], more: Partial<LyingChoices> = {}) =>
      layOut(FILM, own, choices({ packed, ...more }), CURLEW).strips;
    expect(with_(parts)).not.toEqual(usual);
    expect(with_(ells(6))).toEqual(layOut(FILM, ells(6), choices(), CURLEW).strips);
    expect(with_(parts, { between: 12 })).toEqual(
      layOut(FILM, parts, choices({ between: 12 }), CURLEW).strips,
    );
    const larger = parts.map((part) => partOf(mapRegion(part.region, [2, 0, 0, 2, 0, 0]), part.id));
    expect(with_(larger)).toEqual(layOut(FILM, larger, choices(), CURLEW).strips);
    expect(with_(parts, { copies: 2 })[0].placements).toHaveLength(16);
  });

  test('a film with a grain is turned by 180° at the most; not at all when so asked', () => {
    const turns = (film: Film, more: Partial<LyingChoices>): Set<number> => {
      const parts = ells(6, film);
      const { strips } = layOut(
        film,
        parts,
        choices({ packed: { [film.id]: packedOf(parts, choices(more)) }, ...more }),
        CURLEW,
      );
      return new Set(
        strips.flatMap(({ placements }) =>
          placements.map(({ matrix: [a, b] }) => Math.round((Math.atan2(b, a) * 180) / Math.PI + 360) % 360),
        ),
      );
    };
    expect([...turns({ ...FILM, grain: true }, { turns: 'free' })].every((turn) => turn % 180 === 0)).toBe(
      true,
    );
    expect([...turns({ ...FILM, build: 'flock' }, {})].every((turn) => turn % 180 === 0)).toBe(true);
    expect(turns(FILM, { turns: 'none' })).toEqual(new Set([0]));
    expect([...turns(FILM, {})].every((turn) => turn % 90 === 0)).toBe(true);
  });

  test('film that is cut from the back is mirrored piece by piece, never turned over', () => {
    const back = { ...FILM, cutFromBack: true };
    const [strip] = layOut(back, ells(4, back), choices(), CURLEW).strips;
    expect(strip.mirrored).toBe(true);
    for (const {
      matrix: [a, b, c, d],
    } of strip.placements)
      expect(a * d - b * c).toBeCloseTo(-1, 9);
    const areas = cutOn(strip).map((region) => Math.abs(ringArea(region[0])));
    expect(areas.reduce((sum, area) => sum + area, 0)).toBeCloseTo(
      ells(4).reduce((sum, { area }) => sum + area, 0),
      3,
    );
  });

  test('sheets are filled one after the other; a piece that fits on none is named', () => {
    const sheets: Film = { ...FILM, rolls: [{ width: 600, lengthLeft: 420, sheets: 20 }] };
    const { strips } = layOut(sheets, ells(9, sheets), choices(), SALTPAN);
    expect(strips.length).toBeGreaterThan(1);
    for (const strip of strips) expect(strip.length).toBeLessThanOrEqual(420);
    expect(strips.flatMap(({ placements }) => placements)).toHaveLength(9);
    const large = partOf(rectangle({ minX: 0, minY: 0, maxX: 700, maxY: 700 }), 'f~1', sheets);
    expect(layOut(sheets, [large], choices(), SALTPAN).findings).toMatchObject([
      {
        code: 'piece-too-large',
        severity: 'stop',
        message: expect.stringContaining('Piece f~1 is 700.0 mm × 700.0 mm;'),
      },
    ]);
  });

  test('a roll that is long enough comes before one that would take less; the widest says what is too large', () => {
    const rolls = [
      { width: 610, lengthLeft: 300 },
      { width: 1220, lengthLeft: 9000 },
    ];
    const film: Film = { ...FILM, rolls };
    const widths = (own: readonly Part[]) =>
      layOut(film, own, choices(), CURLEW).strips.map(({ roll }) => roll.width);
    expect(widths(ells(2, film))).toEqual([610]);
    expect(widths(ells(9, film))).toEqual([1220]);
    const large = partOf(rectangle({ minX: 0, minY: 0, maxX: 1500, maxY: 1500 }), 'f~1', film);
    const [told] = layOut(film, [large], choices(), CURLEW).findings;
    expect(told.limit).toBeCloseTo(1220 - 2 * 12.7 - 1, 6);
  });

  test('more pieces than a search gets anywhere with are told in a sentence', () => {
    const { strips, findings } = layOut(FILM, ells(2), choices({ copies: 600 }), CURLEW);
    expect(strips).toEqual([]);
    expect(findings[0]).toMatchObject({
      code: 'too-many-to-pack',
      severity: 'stop',
      measured: 1200,
      limit: 1000,
    });
  });

  test('a film that is laid as one is not searched for', () => {
    const how = { rounds: 5, seed: 1 };
    expect([...packLaid(FILM, ells(3), choices({ packFilm: { [FILM.id]: 'one' } }), CURLEW, how)]).toEqual(
      [],
    );
    expect([...packLaid({ ...FILM, rolls: [] }, ells(3), choices(), CURLEW, how)]).toEqual([]);
  });
});
