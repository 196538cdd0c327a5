import { describe, expect, test } from '@jest/globals';
import * as Flatten from '@flatten-js/core';
import fc from 'fast-check';
import { CURLEW, DEMO_SHOP } from '../../demo/shop';
import { sourceKey, pieceOfFile } from '../artwork/choices';
import { IDENTITY } from '../geometry/matrix';
import { joinBounds } from '../geometry/bounds';
import { mapRegion, regionArea, ringBounds } from '../geometry/region';
import { sharesOf } from '../layout/shares';
import type { Placement } from '../layout/strip';
import type { Artwork } from '../readers/artwork';
import type { WeededStrip } from '../weeding/weeding';
import type { Choices } from './choices';
import { DEFAULT_CHOICES } from './choices';
import { createPlanner } from './plan';
import type { Plan } from './planned';
import type { Guest, Sharing, TakesAlong } from './sharing';
import { guestsOn, hostsOf } from './sharing';

describe('who is cut with whom', () => {
  const wishes = fc
    .uniqueArray(fc.integer({ min: 1, max: 9 }), { minLength: 1 })
    .chain((ids) =>
      fc.tuple(
        ...ids.map((id) =>
          fc
            .dictionary(fc.constantFrom('red', 'blue'), fc.uniqueArray(fc.integer({ min: 1, max: 9 })))
            .map((guests): TakesAlong => ({ id, guests })),
        ),
      ),
    );

  test('nobody has two hosts or is host and guest at once, whatever is wished; the order of asking does not count', () =>
    fc.assert(
      fc.property(wishes, (orders) => {
        const hosts = hostsOf(orders);
        for (const [film, on] of hosts) {
          for (const [guest, host] of on) {
            expect(on.has(host)).toBe(false);
            expect(orders.find(({ id }) => id === host)?.guests[film]).toContain(guest);
            expect(orders.some(({ id }) => id === guest)).toBe(true);
            expect(guestsOn(hosts, film, host)).toContain(guest);
          }
        }
        expect(hostsOf([...orders].reverse())).toEqual(hosts);
      }),
      { seed: 12, numRuns: 400 },
    ));

  test('wishes that are not at odds all count', () =>
    expect([
      ...hostsOf([
        { id: 4, guests: { red: [2, 9] } },
        { id: 2, guests: {} },
        { id: 9, guests: { blue: [4] } },
      ]),
    ]).toEqual([
      ['red', new Map([[2, 4], [9, 4]])], // prettier-ignore
      ['blue', new Map([[4, 9]])],
    ]));
});

const triangle = (x: number, size: number, colour: string): Artwork['shapes'][number] => ({
  path: { ops: 'MLL', xy: [x, 10, x + size, 10, x, 10 + size] },
  matrix: IDENTITY,
  colour,
  fill: 'nonzero',
  clips: [],
});
const drawing = (...shapes: Artwork['shapes']): Artwork => ({
  page: { width: 400, height: 200 },
  shapes,
  clips: [],
  findings: [],
});
const RED = '#b0202f';
const FILM = 'currant';

/** An order with a drawing of its own. */
function orderOf(name: string, artwork: Artwork, layout: Partial<Choices['layout']> = {}) {
  const piece = pieceOfFile(name, `${name}.svg`);
  const choices: Choices = {
    ...DEFAULT_CHOICES,
    artwork: { ...DEFAULT_CHOICES.artwork, pieces: [piece] },
    layout: { ...DEFAULT_CHOICES.layout, ...layout },
  };
  return { choices, read: [sourceKey(piece.source), artwork] as const };
}

const own = orderOf(
  'own',
  drawing(triangle(0, 120, RED), triangle(200, 90, RED), triangle(300, 60, '#1d3f86')),
);
const other = orderOf('other', drawing(triangle(0, 80, RED), triangle(150, 50, RED)), { copies: 3 });
const artworks = new Map([own.read, other.read]);
const guest: Guest = { id: 7, number: 2043, name: 'Heron', choices: other.choices, films: [FILM], cut: [] };

function planned(
  layout: Partial<Choices['layout']> = {},
  more: Partial<Guest> = {},
  sharing: Partial<Sharing> = {},
): Plan {
  const choices = { ...own.choices, layout: { ...own.choices.layout, guests: { [FILM]: [7] }, ...layout } };
  const shop = {
    ...DEMO_SHOP,
    sharing: { guests: [{ ...guest, ...more }], away: {}, refused: [], ...sharing },
  };
  return createPlanner().plan(artworks, choices, shop);
}
const onFilm = ({ cuts }: Plan): WeededStrip => cuts.find(({ strip }) => strip.film.id === FILM)!.strip;
const cutOn = ({ part, matrix }: Placement): Flatten.Polygon =>
  new Flatten.Polygon(
    mapRegion(part.region, matrix).map((ring) =>
      Array.from({ length: ring.length / 2 }, (_, i) => new Flatten.Point(ring[2 * i], ring[2 * i + 1])),
    ),
  );
const codes = ({ findings }: Plan): string[] => findings.map(({ code }) => code);

describe('another order on the film', () => {
  test('lies on its strip with its own copies, named by its number, and on no other', () => {
    const plan = planned();
    const { placements } = onFilm(plan);
    expect(placements.filter(({ part }) => part.order === 2043)).toHaveLength(3);
    expect(placements.filter(({ part }) => part.order === undefined)).toHaveLength(1);
    const elsewhere = plan.cuts.filter(({ strip }) => strip.film.id !== FILM);
    expect(elsewhere.length).toBeGreaterThan(0);
    expect(elsewhere.flatMap(({ strip }) => strip.placements).every(({ part }) => !part.order)).toBe(true);
  });

  test('what it has there is what it would cut by itself', () => {
    const alone = createPlanner().plan(artworks, other.choices, DEMO_SHOP);
    const area = (strip: WeededStrip, order?: number): number =>
      strip.placements
        .filter(({ part }) => part.order === order)
        .reduce((sum, { part, matrix }) => sum + regionArea(mapRegion(part.region, matrix)), 0);
    expect(area(onFilm(planned()), 2043)).toBeCloseTo(area(onFilm(alone)), 6);
  });

  test.each(['one', 'piece'] as const)('nothing of two orders overlaps (%s)', (pack) => {
    for (const border of ['order', 'box'] as const) {
      // @flatten-js/core
      const all = onFilm(planned({ pack, border })).placements.map(cutOn);
      expect(all.length).toBeGreaterThan(3);
      for (const [i, a] of all.entries())
        for (const b of all.slice(i + 1)) expect(a.distanceTo(b)[0]).toBeGreaterThan(2.99);
    }
  });

  test.each(['one', 'piece'] as const)(
    'each order has a box of its own, with only its art in it (%s)',
    (pack) => {
      const { placements, weeding, length } = onFilm(planned({ pack, border: 'order', borderDistance: 6 }));
      const boxes = weeding.borders.flat().map(({ points }) => ringBounds(points));
      expect(boxes).toHaveLength(2);
      for (const order of [undefined, 2043]) {
        const its = placements.filter(({ part }) => part.order === order).map(({ box }) => box);
        const all = its.reduce(joinBounds);
        const own = boxes.find(({ minX, maxX }) => minX < all.minX && maxX > all.maxX)!;
        expect(all.minX - own.minX).toBeCloseTo(6, 9);
        expect(own.maxY - all.maxY).toBeCloseTo(6, 9);
        const others = placements.filter(({ part }) => part.order !== order);
        expect(others.every(({ box }) => box.maxX < own.minX || box.minX > own.maxX)).toBe(true);
      }
      expect(Math.max(...boxes.map(({ maxX }) => maxX))).toBeCloseTo(length - CURLEW.margins.tail, 9);
    },
  );

  test('film is shared out by area', () => {
    const shares = sharesOf(onFilm(planned()));
    const [mine, theirs] = [(120 * 120 + 90 * 90) / 2, (3 * (80 * 80 + 50 * 50)) / 2];
    expect(shares.map(({ order, copies }) => [order, copies])).toEqual([
      [undefined, 1],
      [2043, 3],
    ]);
    expect(shares[0].share).toBeCloseTo(mine / (mine + theirs), 6);
    expect(shares[0].share + shares[1].share).toBeCloseTo(1, 12);
  });

  test('what keeps it from being cut here is said', () => {
    expect(codes(planned())).toEqual(codes(createPlanner().plan(artworks, own.choices, DEMO_SHOP)));
    expect(codes(planned({}, { cut: [FILM] }))).toContain('guest-was-cut');
    const mirrored = { ...other.choices, layout: { ...other.choices.layout, mirror: 'mirrored' as const } };
    expect(planned({}, { choices: mirrored }).findings).toContainEqual(
      expect.objectContaining({ code: 'guest-mirror', severity: 'stop' }),
    );
    const forced = { ...other.choices, cut: { recipes: { curlew: { [FILM]: { force: 120 } } } } };
    expect(codes(planned({}, { choices: forced }))).toContain('guest-recipe');
    const gone = { ...other.choices, films: { ...other.choices.films, film: { [RED]: 'harbour' } } };
    expect(codes(planned({}, { choices: gone }))).toContain('guest-nothing');
    const refused = [{ film: FILM, order: guest }];
    expect(codes(planned({}, { films: [] }, { refused }))).toContain('guest-elsewhere');
    const { pieces } = other.choices.artwork;
    const broken = { ...drawing(), findings: [{ code: 'x', severity: 'stop' as const, message: 'Broken.' }] };
    const shop = { ...DEMO_SHOP, sharing: { guests: [guest], away: {}, refused: [] } };
    const choices = { ...own.choices, layout: { ...own.choices.layout, guests: { [FILM]: [7] } } };
    const unread = new Map([own.read, [sourceKey(pieces[0].source), broken]]);
    expect(codes(createPlanner().plan(unread, choices, shop))).toContain('guest-stopped');
  });

  test('a film that is cut with another order is left out here, and that is said', () => {
    const away = { [FILM]: { id: 3, number: 2041, name: 'Marsh Wren' } };
    const plan = planned({}, {}, { away });
    expect(plan.cuts.map(({ strip }) => strip.film.id)).not.toContain(FILM);
    expect(plan.findings).toContainEqual(
      expect.objectContaining({
        code: 'cut-with',
        severity: 'note',
        message: expect.stringContaining('#2041'),
      }),
    );
  });

  test('what it would come to is what it comes to', () => {
    const planner = createPlanner();
    const offers = planner.joins(artworks, own.choices, DEMO_SHOP, FILM, [guest]);
    const offer = [...offers].find((one) => one !== undefined)!;
    const { length: now } = onFilm(planner.plan(artworks, own.choices, DEMO_SHOP));
    const { length: alone } = onFilm(planner.plan(artworks, other.choices, DEMO_SHOP));
    expect(offer).toEqual({ guest: 7, together: onFilm(planned()).length, alone, now });
    expect(offer.together).toBeLessThan(now + alone);
  });

  test('its art is made once for all plans', () => {
    const planner = createPlanner();
    const choices = { ...own.choices, layout: { ...own.choices.layout, guests: { [FILM]: [7] } } };
    const shop = { ...DEMO_SHOP, sharing: { guests: [guest], away: {}, refused: [] } };
    planner.plan(artworks, choices, shop);
    const before = { ...planner.runs };
    planner.plan(artworks, { ...choices, layout: { ...choices.layout, borderDistance: 7 } }, shop);
    const again = Object.keys(before).filter((name) => planner.runs[name] > before[name]);
    expect(again.sort()).toEqual(['layOut', 'toolpath', 'weed']);
  });
});
