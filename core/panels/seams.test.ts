import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DEMO_FILMS } from '../../demo/shop';
import type { FilmLayer } from '../films/separate';
import { heightOf, widthOf } from '../geometry/bounds';
import { difference, intersection, outlineLength, rectangle, regionArea, weld } from '../geometry/region';
import type { Region } from '../geometry/region';
import { lineLength } from '../geometry/path';
import { random } from '../random';
import type { PanelChoices } from './choices';
import { NO_PANEL_CHOICES, PANEL_WAYS } from './choices';
import { plainLayer } from './plainLayer.testing';
import type { Parts } from './panel';
import { panel } from './panel';
import { panelling, takenApart } from './panelling';
import type { PanelRoom } from './room';
import { fitsIn } from './room';
import { cellsOf } from './split';
import { times } from '../sample.testing';

const box = (x: number, y: number, w: number, h: number): Region =>
  rectangle({ minX: x, minY: y, maxX: x + w, maxY: y + h });

const layerOf = (region: Region, film = DEMO_FILMS[0]): FilmLayer => plainLayer(region, film);

/** Wavy discs and boxes over a wall, welded. */
function wall(seed: number, width: number, height: number): Region {
  const next = random(seed * 6151 + 7);
  const disc = (x: number, y: number, r: number): Float64Array =>
    Float64Array.from({ length: 120 }, (_, i) => {
      const a = (Math.PI * (i >> 1)) / 30;
      const wave = r * (1 + 0.15 * Math.sin(7 * a + seed));
      return i % 2 === 0 ? x + wave * Math.cos(a) : y + wave * Math.sin(a);
    });
  const rings = Array.from({ length: 24 }, () =>
    next() < 0.6
      ? disc(next() * width, next() * height, 40 + next() * 260)
      : box(next() * width * 0.9, next() * height * 0.9, 30 + next() * 500, 30 + next() * 300)[0],
  );
  return intersection(weld(rings), box(0, 0, width, height));
}

const ROOM: PanelRoom = { across: 580, along: 4000, reserve: 0, turn: 'shorter' };
const choices = (more: Partial<PanelChoices> = {}): PanelChoices => ({
  ...NO_PANEL_CHOICES,
  keys: false,
  numbers: 'none',
  ...more,
});

/** A film taken apart as chosen. */
function apart(layer: FilmLayer, chosen: PanelChoices, room = ROOM) {
  const made = panelling([layer], [room], [], chosen);
  const parts: Parts = panel(layer, { panelling: made, choices: chosen, room });
  return { made, ...parts };
}

describe('what is taken apart', () => {
  const small = { layer: layerOf(box(0, 0, 500, 300)), room: ROOM };
  const turnable = { layer: layerOf(box(0, 0, 2000, 560)), room: ROOM };
  const tight = { layer: layerOf(box(0, 0, 575, 3990)), room: ROOM };
  const large = { layer: layerOf(box(0, 0, 2000, 900)), room: ROOM };
  const all = [small, turnable, tight, large];

  test('only what fits neither way, with the reserve kept in hand', () => {
    expect(takenApart(all, choices())).toEqual([large]);
    const kept = all.map((one) => ({ ...one, room: { ...ROOM, reserve: 12.7 } }));
    expect(takenApart(kept, choices()).map(({ layer }) => layer)).toEqual([tight.layer, large.layer]);
    const drawn = [{ ...tight, room: { ...ROOM, turn: 'as-drawn' as const } }];
    expect(takenApart(drawn, choices())).toEqual(drawn);
  });

  test('nothing when it never shall be, all when seams are set by a person', () => {
    expect(takenApart(all, choices({ way: 'never' }))).toEqual([]);
    expect(takenApart(all, choices({ way: 'by-hand' }))).toEqual(all);
    expect(takenApart(all, choices({ way: 'grid' }))).toEqual(all);
  });

  test('24 in machine, two half-inch rollers: 23 in is cut, 22.5 in kept (common practice, no source)', () => {
    const inch = 25.4;
    const room: PanelRoom = { across: 23 * inch, along: 4000, reserve: 0, turn: 'shorter' };
    const apartAt = (width: number, reserve: number) =>
      takenApart([{ layer: layerOf(box(0, 0, width * inch, 4000)), room: { ...room, reserve } }], choices());
    expect(apartAt(22.5, 12.7)).toHaveLength(0);
    expect(apartAt(22.6, 12.7)).toHaveLength(1);
    expect(apartAt(22.6, 0)).toHaveLength(0);
    expect(apartAt(23.1, 0)).toHaveLength(1);
  });
});

describe('no kerf', () => {
  const ways = PANEL_WAYS.filter((way) => way !== 'never');

  test.each(ways)('%s: panels less what they share are the film again, none larger than fits', (way) => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1000 }),
        fc.integer({ min: 1200, max: 9000 }),
        fc.integer({ min: 700, max: 2400 }),
        fc.constantFrom(0, 6, 25),
        fc.constantFrom('next', 'before'),
        (seed, width, height, overlap, onTop) => {
          const layer = layerOf(wall(seed, width, height));
          if (layer.region.length === 0) return;
          const chosen = choices({
            way,
            overlap,
            onTop,
            columns: Math.ceil(width / 500),
            rows: 1 + (seed % 2),
            upright: Array.from({ length: Math.floor(width / 500) }, (_, i) => 500 * (i + 1) + (seed % 70)),
          });
          const room = way === 'grid' || way === 'by-hand' ? { ...ROOM, across: 1000 } : ROOM;
          const { parts, panels, findings, made } = apart(layer, chosen, room);
          expect([...made.findings, ...findings].filter((f) => f.severity === 'stop')).toEqual([]);
          for (const { bounds } of panels) expect(fitsIn(widthOf(bounds), heightOf(bounds), room)).toBe(true);
          // all of it is there, and nothing else is (outline length × 1 µm)
          const slack = 0.001 * (layer.outline + parts.reduce((sum, p) => sum + outlineLength(p.region), 0));
          const whole = weld(parts.flatMap(({ region }) => region));
          expect(regionArea(difference(layer.region, whole))).toBeLessThan(slack);
          expect(regionArea(difference(whole, layer.region))).toBeLessThan(slack);
          // what is seen of each panel makes up the film with nothing twice
          if (way === 'wandering' && overlap > 0) return;
          const seen = panels.map(({ region, cell }) =>
            cell.outline ? region : intersection(region, box(...corner(cell.seen, layer))),
          );
          expect(
            Math.abs(seen.reduce((sum, region) => sum + regionArea(region), 0) - layer.area),
          ).toBeLessThan(slack);
        },
      ),
      { numRuns: way === 'wandering' ? times(6, 2) : times(12, 5) },
    );
  });

  /** A panel's place as far as the art reaches. */
  function corner(seen: { minX: number; minY: number; maxX: number; maxY: number }, { bounds }: FilmLayer) {
    const [x, y] = [Math.max(seen.minX, bounds.minX - 5), Math.max(seen.minY, bounds.minY - 5)];
    return [
      x,
      y,
      Math.min(seen.maxX, bounds.maxX + 5) - x,
      Math.min(seen.maxY, bounds.maxY + 5) - y,
    ] as const;
  }

  test('an overlap lies under the panel that is on top, and is as wide as was asked for', () => {
    const layer = layerOf(box(0, 0, 1000, 600));
    const at = (onTop: 'next' | 'before') =>
      apart(layer, choices({ way: 'by-hand', upright: [500], overlap: 20, onTop }), { ...ROOM, across: 800 });
    expect(at('next').parts.map(({ bounds }) => [bounds.minX, bounds.maxX])).toEqual([
      [0, 520],
      [500, 1000],
    ]);
    expect(at('before').parts.map(({ bounds }) => [bounds.minX, bounds.maxX])).toEqual([
      [0, 500],
      [480, 1000],
    ]);
  });

  test('lines that are followed end at a seam and go on behind it', () => {
    const line = {
      points: Float64Array.of(100, 50, 900, 50),
      closed: false,
      kind: 'pen' as const,
      colour: '#000000',
      ref: 'p1/0',
      bounds: { minX: 100, minY: 50, maxX: 900, maxY: 50 },
    };
    const layer = {
      ...layerOf(box(0, 0, 1000, 100)),
      lines: [line as unknown as FilmLayer['lines'][number]],
    };
    const { parts } = apart(layer, choices({ way: 'by-hand', upright: [400] }));
    expect(parts.map(({ lines }) => lines.map(({ points }) => [...points].map(Math.round)))).toEqual([
      [[100, 50, 400, 50]],
      [[400, 50, 900, 50]],
    ]);
  });
});

describe('panels', () => {
  test('are numbered row by row; those with nothing on them drop out; one that is not cut stays in the list', () => {
    const layer = layerOf([...box(0, 0, 300, 200), ...box(900, 400, 300, 200)]);
    const chosen = choices({ way: 'grid', columns: 2, rows: 2, skip: [4] });
    const { parts, panels } = apart(layer, chosen, { ...ROOM, across: 1000 });
    expect(panels.map(({ cell, isCut }) => [cell.number, cell.row, cell.column, isCut])).toEqual([
      [1, 0, 0, true],
      [4, 1, 1, false],
    ]);
    expect(parts.map(({ id, label }) => [id, label])).toEqual([['damson#1.1', 'panel 1 of Damson']]);
  });

  test('a film that is too large says why it is in panels; what is not cut is always said', () => {
    const large = layerOf(box(0, 0, 3300, 1700));
    const told = (more: Partial<PanelChoices>, layer = large) =>
      apart(layer, choices(more)).findings.map(({ severity, message }) => [severity, message]);
    expect(told({ way: 'equal' })).toEqual([
      [
        'note',
        'Damson is 3300.0 mm × 1700.0 mm; in one go 580.0 mm across and 4000.0 mm along is the most, turned or not. It is taken apart into 3 panels.',
      ],
    ]);
    const small = layerOf(box(0, 0, 400, 300));
    expect(told({ way: 'by-hand', upright: [200] }, small)).toEqual([]);
    expect(told({ way: 'by-hand', upright: [200], skip: [2] }, small)).toEqual([
      ['note', 'Panel 2 of Damson is not cut.'],
    ]);
    expect(told({ way: 'grid', columns: 2, rows: 2, skip: [1, 4] }, small)[0][1]).toBe(
      'Panels 1, 4 of Damson are not cut.',
    );
  });

  test('equal ones are equal, media ones full but for the last', () => {
    const layer = layerOf(box(0, 0, 3300, 1700));
    const equal = apart(layer, choices({ way: 'equal' }));
    // three the long way: six upright ones would do too
    expect(equal.made.sum.panels).toBe(3);
    for (const { bounds } of equal.parts) expect(heightOf(bounds)).toBeCloseTo(1700 / 3, 2);
    const upright = apart(layer, choices({ way: 'equal' }), { ...ROOM, turn: 'turned' });
    for (const { bounds } of upright.parts) expect(widthOf(bounds)).toBeCloseTo(550, 2);
    const media = apart(layer, choices({ way: 'media', overlap: 10 }), { ...ROOM, turn: 'turned' });
    const widths = media.parts.map(({ bounds }) => widthOf(bounds));
    expect(widths.slice(0, -1).every((w) => Math.abs(w - 580) < 0.01)).toBe(true);
    expect(widths.at(-1)).toBeLessThanOrEqual(580);
  });

  test('both axes are used where neither alone will do', () => {
    const layer = layerOf(box(0, 0, 5000, 4500));
    const { made, parts } = apart(layer, choices({ way: 'equal' }));
    expect(made.seams.upright.length).toBeGreaterThan(0);
    expect(made.seams.level.length).toBeGreaterThan(0);
    for (const { bounds } of parts) expect(fitsIn(widthOf(bounds), heightOf(bounds), ROOM)).toBe(true);
  });

  test('one set of seams serves all films, in the room of the narrowest', () => {
    const layers = [layerOf(box(0, 0, 2400, 900)), layerOf(box(300, 100, 1900, 700), DEMO_FILMS[1])];
    const made = panelling(layers, [ROOM, { ...ROOM, across: 480 }], [], choices({ way: 'equal' }));
    const cells = cellsOf(made.seams, choices());
    expect(cells.length).toBeGreaterThanOrEqual(2);
    const edges = [made.box.minX, ...made.seams.upright, made.box.maxX];
    const rows = [made.box.minY, ...made.seams.level, made.box.maxY];
    for (let i = 1; i < edges.length; i++)
      for (let j = 1; j < rows.length; j++)
        expect(fitsIn(edges[i] - edges[i - 1], rows[j] - rows[j - 1], { ...ROOM, across: 480 })).toBe(true);
  });
});

describe('what no panel can follow is said in a sentence', () => {
  const layer = layerOf(box(0, 0, 2000, 900));
  const codes = (more: Partial<PanelChoices>, room = ROOM): string[] => {
    const { made, findings, parts } = apart(layer, choices(more), room);
    const all = [...made.findings, ...findings];
    if (all.some(({ severity, code }) => severity === 'stop' && code !== 'panel-too-large'))
      expect(parts).toEqual([]);
    for (const { message, waysOut } of all.filter(({ severity }) => severity !== 'note'))
      expect([message.length > 20, waysOut!.length > 0]).toEqual([true, true]);
    return all.filter(({ severity }) => severity !== 'note').map(({ code }) => code);
  };
  test.each<[string, Partial<PanelChoices>, string[]]>([
    ['an overlap wider than a panel', { overlap: 580 }, ['overlap-too-wide']],
    ['a seam outside the art', { way: 'by-hand', upright: [500, 1000, 1500, 2600] }, ['seam-without-panel']],
    ['a seam on another', { way: 'by-hand', upright: [500, 500.4, 1000, 1500] }, ['seam-without-panel']],
    ['more than 200 panels', { way: 'grid', rows: 20, columns: 20 }, ['too-many-panels']],
    ['panels too large', { way: 'by-hand', upright: [300] }, ['panel-too-large']],
    ['nothing wrong', { way: 'by-hand', upright: [500, 1000, 1500] }, []],
  ])('%s', (_name, more, expected) => expect(codes(more)).toEqual(expected));

  test('a reserve wider than the cutter', () =>
    expect(codes({}, { ...ROOM, reserve: 600 })).toEqual(['reserve-too-wide']));

  test('a seam and art that lie nowhere near', () => {
    expect(codes({ way: 'by-hand', upright: [-50], level: [900.2] }, { ...ROOM, across: 2000 })).toEqual([
      'seam-without-panel',
      'seam-without-panel',
    ]);
  });
});

describe('seams of several films, and overlaps of single seams', () => {
  const layers = [layerOf(box(0, 0, 2400, 500)), layerOf(box(100, 20, 2200, 460), DEMO_FILMS[1])];
  const room = { ...ROOM, across: 560, along: 900, turn: 'turned' as const };
  const made = (more: Partial<PanelChoices>) => {
    const chosen = choices(more);
    const one = panelling(layers, [room, room], [], chosen);
    return layers.map((layer) => panel(layer, { panelling: one, choices: chosen, room }).parts);
  };

  test.each(['when-needed', 'equal', 'media', 'wandering'] as const)(
    '%s: apart by so much, and every panel fits',
    (way) => {
      const [lower, upper] = made({ way, stagger: 30 });
      const ends = (parts: readonly { bounds: { maxX: number } }[]) =>
        parts.slice(0, -1).map(({ bounds }) => bounds.maxX);
      expect(ends(upper).map((x, i) => x - ends(lower)[i])).toEqual(
        ends(lower).map(() => expect.closeTo(30, 2)),
      );
      for (const { bounds } of [...lower, ...upper])
        expect(fitsIn(widthOf(bounds), heightOf(bounds), room)).toBe(true);
      for (const [i, parts] of [lower, upper].entries())
        expect(Math.abs(parts.reduce((sum, { area }) => sum + area, 0) - layers[i].area)).toBeLessThan(1);
    },
  );

  test('least cut looks at each film where its own seams will run', () => {
    // gaps of both films lie 40 mm apart, so that only staggered seams go through both
    const gaps = (x: number, film = DEMO_FILMS[0]) =>
      layerOf([...box(0, 0, x - 5, 400), ...box(x + 5, 0, 1000 - x - 5, 400)], film);
    const two = [gaps(480), gaps(520, DEMO_FILMS[1])];
    const sum = (stagger: number): number => panelling(two, [room, room], [], choices({ stagger })).sum.ink;
    expect(sum(40)).toBe(0);
    expect(sum(0)).toBeGreaterThan(390);
  });

  test('one seam may share more than the others', () => {
    const layer = layerOf(box(0, 0, 1500, 400));
    const { parts } = apart(
      layer,
      choices({
        way: 'by-hand',
        upright: [500, 1000],
        overlap: 5,
        overlaps: { upright: [null, 20], level: [] },
      }),
      { ...ROOM, across: 800 },
    );
    expect(parts.map(({ bounds }) => [bounds.minX, bounds.maxX])).toEqual([
      [0, 505],
      [500, 1020],
      [1000, 1500],
    ]);
  });

  test('wandering panels overlap by so much all along', () => {
    const bars = [
      ...box(0, 0, 500, 220),
      ...box(520, 0, 480, 220),
      ...box(0, 240, 440, 220),
      ...box(460, 240, 540, 220),
    ];
    const layer = layerOf(bars);
    const chosen = choices({ way: 'wandering', overlap: 12 });
    const one = panelling([layer], [room], [], chosen);
    expect(one.seams.ways?.upright[0]).toBeDefined();
    const [first, second] = cellsOf(one.seams, chosen);
    // what both have is a band of the overlap's width along the seam, more where it bends
    const shared = regionArea(
      intersection(intersection(first.outline!, second.outline!), box(-50, -50, 1100, 600)),
    );
    const length = lineLength({ points: one.seams.ways!.upright[0]!, closed: false }) + 600 - 500;
    expect(shared / 12).toBeGreaterThan(length * 0.9);
    expect(shared / 12).toBeLessThan(length * 1.35);
  });
});

describe('pieces first', () => {
  test('what fits is whole, turned or not; only the rest is taken apart; nothing is lost', () => {
    const small = [0, 1, 2].map((i) => box(i * 700, 700, 500, 300));
    const long = box(0, 1200, 3900, 560);
    const large = box(0, 0, 2400, 600);
    const layer = layerOf([...small.flat(), ...long, ...large]);
    const { panels, made } = apart(layer, choices({ way: 'pieces', together: 'letter' }));
    const pieces = panels.filter(({ cell }) => cell.row < 0);
    expect(pieces).toHaveLength(4);
    expect(panels.length - pieces.length).toBe(2);
    expect(made.sum.panels).toBe(6);
    expect(new Set(panels.map(({ cell }) => cell.number)).size).toBe(6);
    expect(Math.abs(panels.reduce((sum, { area }) => sum + area, 0) - layer.area)).toBeLessThan(1);
    for (const { bounds } of panels) expect(fitsIn(widthOf(bounds), heightOf(bounds), ROOM)).toBe(true);
  });

  test('where all fits there is no seam, and a piece can be left out and cut again like a panel', () => {
    const layer = layerOf([...box(0, 0, 500, 300), ...box(2000, 0, 500, 300), ...box(0, 1000, 500, 300)]);
    const chosen = choices({ way: 'pieces', together: 'letter', skip: [2] });
    const { parts, panels, made, findings } = apart(layer, chosen);
    expect([made.seams.upright, made.seams.level]).toEqual([[], []]);
    expect([parts.length, panels.length]).toEqual([2, 3]);
    expect(findings.some(({ code }) => code === 'panels-left-out')).toBe(true);
    const again = panel(layer, { panelling: made, choices: chosen, room: ROOM, only: [2] });
    expect(again.parts.map(({ label, copies }) => [label, copies])).toEqual([['piece 2 of Damson', 1]]);
  });
});

test('what no seam can spare is named, with why and what would help', () => {
  const shapes = [0, 900, 1800].map((x) => box(x, 0, 800, 700)).flat();
  const turned = { ...ROOM, turn: 'turned' as const };
  const whole = [0, 900, 1800].map((x) => ({ x: x + 10, y: 10 }));
  const { made } = apart(layerOf(shapes), choices({ way: 'equal', whole }), turned);
  const [finding] = made.findings;
  expect(finding.code).toBe('kept-crossed');
  expect(finding.message).toMatch(
    /^Seams cross 3 shapes to be kept whole, the first 800.0 mm × 700.0 mm at 0.0 mm, 0.0 mm. 3 are larger than any panel \(at most .* across and .* along\)/,
  );
  expect(finding.waysOut!.length).toBeGreaterThan(1);
  expect(apart(layerOf(shapes), choices({ way: 'equal' }), turned).made.findings).toEqual([]);
});

test('letters are spared by themselves, until a person says otherwise', () => {
  const word = Array.from({ length: 9 }, (_, i) => box(i * 200, 0, 180, 400)).flat();
  const bar = box(0, 450, 1780, 40);
  const layer = layerOf([...word, ...bar]);
  const turned = { ...ROOM, across: 590, along: 900, turn: 'turned' as const };
  const kept = apart(layer, choices({ way: 'equal' }), turned).made.findings.map(({ code }) => code);
  expect(kept).toEqual(['kept-crossed']);
  expect(apart(layer, choices({ way: 'equal', keepLetters: false }), turned).made.findings).toEqual([]);
  expect(apart(layer, choices(), turned).made.findings).toEqual([]);
});
