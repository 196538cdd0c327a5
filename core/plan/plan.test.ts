import { BORDERS, WEED_LINE_WAYS } from '../layout/weedChoices';
import { PANEL_WAYS } from '../panels/choices';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DEMO_SHOP } from '../../demo/shop';
import type { Artwork } from '../readers/artwork';
import type { ArtworkChoices } from '../artwork/choices';
import { atOnce } from '../checks/checkOver';
import type { Cutter } from '../layout/cutter';
import { IDENTITY } from '../geometry/matrix';
import { oneFile } from './oneFile';
import type { Choices } from './choices';
import type { Plan } from './planned';
import type { Shop } from './shop';
import { createPlanner } from './plan';
import { SEED, times } from '../sample.testing';

const drawing = (...shapes: Artwork['shapes']): Artwork => ({
  page: { width: 200, height: 100 },
  shapes,
  clips: [],
  findings: [],
});
const box = (x: number, colour: string): Artwork['shapes'][number] => ({
  path: { ops: 'MLLLZ', xy: [x, 10, x + 40, 10, x + 40, 50, x, 50] },
  matrix: IDENTITY,
  colour,
  fill: 'nonzero',
  clips: [],
});

test('nothing to cut is always said', () => {
  const { artworks, choices } = oneFile(drawing());
  const { cuts, findings } = createPlanner().plan(artworks, choices, DEMO_SHOP);
  expect(cuts).toEqual([]);
  expect(findings).toMatchObject([{ severity: 'stop', message: expect.stringContaining('othing') }]);
  const off = { ...choices, films: { ...choices.films, off: ['#b0202f'] } };
  const { artworks: drawn } = oneFile(drawing(box(10, '#b0202f')));
  expect(
    createPlanner()
      .plan(drawn, off, DEMO_SHOP)
      .findings.filter((f) => f.severity === 'stop'),
  ).toHaveLength(1);
});

test('a plan tells its share while it runs, rising to its end', () => {
  const { artworks, choices } = oneFile(drawing(box(10, '#b0202f'), box(40, '#1d3f86'), box(120, '#f5cf1b')));
  const planner = createPlanner();
  const told: number[] = [];
  planner.plan(artworks, choices, DEMO_SHOP, { tell: (share) => told.push(share) });
  expect(told.length).toBeGreaterThan(6);
  expect(told).toEqual([...told].sort((a, b) => a - b));
  expect(told[0]).toBeGreaterThanOrEqual(0);
  expect(told[told.length - 1]).toBeLessThanOrEqual(1);
});

/** Three films that lie on one another, and a narrow stem. */
const { artworks, choices } = oneFile(
  drawing(box(10, '#b0202f'), box(40, '#1d3f86'), box(60, '#f5cf1b'), {
    ...box(150, '#b0202f'),
    path: { ops: 'MLLLZ', xy: [150, 10, 150.9, 10, 150.9, 60, 150, 60] },
  }),
);
const ids = ['currant', 'harbour', 'buoy'] as const;

/** Which stages ran for a change that came after a first plan and its check-over. */
function ranFor(change: Partial<Choices>, shop: Partial<Shop> = {}): Record<string, number> {
  const planner = createPlanner();
  planner.plan(artworks, choices, DEMO_SHOP);
  atOnce(planner.check(artworks, choices, DEMO_SHOP));
  const before = { ...planner.runs };
  const now = { ...choices, ...change };
  planner.plan(artworks, now, { ...DEMO_SHOP, ...shop });
  atOnce(planner.check(artworks, now, { ...DEMO_SHOP, ...shop }));
  return Object.fromEntries(
    Object.entries(planner.runs).flatMap(([name, n]) => (n > before[name] ? [[name, n - before[name]]] : [])),
  );
}

describe('what a change makes run again, and what it does not', () => {
  const artwork = (more: Partial<ArtworkChoices>): Partial<Choices> => ({
    artwork: { ...choices.artwork, ...more },
  });
  const films = (more: Partial<Choices['films']>): Partial<Choices> => ({
    films: { ...choices.films, ...more },
  });
  const layout = (more: Partial<Choices['layout']>): Partial<Choices> => ({
    layout: { ...choices.layout, ...more },
  });

  test('nothing, when nothing changed', () => expect(ranFor({})).toEqual({}));

  test('leaving a finding as it is: nothing', () =>
    expect(ranFor(artwork({ ignored: [{ key: 'x', reason: 'y' }] }))).toEqual({}));

  test('one film’s recipe: that film’s way of the knife', () =>
    expect(ranFor({ cut: { recipes: { curlew: { harbour: { bladeOffset: 0.4 } } } } })).toEqual({
      toolpath: 1,
      followed: 1,
    }));

  test('one film’s stock: where that film lies', () => {
    const stock = DEMO_SHOP.films.map((film) =>
      film.id === 'harbour' ? { ...film, rolls: [{ width: 610, lengthLeft: 900 }] } : film,
    );
    expect(ranFor({}, { films: stock })).toEqual({ layOut: 1, weed: 1, toolpath: 1, followed: 1 });
  });

  test('stock of a film that is not in the order: nothing', () => {
    const stock = DEMO_SHOP.films.map((film) => (film.id === 'thrift' ? { ...film, rolls: [] } : film));
    expect(ranFor({}, { films: stock })).toEqual({});
  });

  test('copies: where all films lie, and the knife’s way; nothing before', () =>
    expect(ranFor(layout({ copies: 2 }))).toEqual({ layOut: 3, weed: 3, toolpath: 3, followed: 3 }));

  test('panels where none are needed: nothing; seams by number: the seams, and all films from there on', () => {
    const panels = (more: Partial<Choices['panels']>) => ranFor({ panels: { ...choices.panels, ...more } });
    expect(panels({ overlap: 12, columns: 3, upright: [40] })).toEqual({});
    expect(panels({ way: 'grid', columns: 2 })).toEqual({
      letters: 1,
      gather: 1,
      ground: 1,
      seams: 1,
      panel: 3,
      layOut: 3,
      weed: 3,
      toolpath: 3,
      followed: 3,
    });
  });

  test('what each way comes to is told one by one, remembered while seams are set by hand, and is what is made', () => {
    const planner = createPlanner();
    const wide = { ...choices, artwork: { ...choices.artwork, width: 2600, height: null } };
    const panels = (more: Partial<Choices['panels']>): Choices => ({
      ...wide,
      panels: { ...wide.panels, ...more },
    });
    const told = [...planner.seams(artworks, wide, DEMO_SHOP)];
    expect(told.length).toBeGreaterThan(3);
    told.slice(1).forEach(({ ways }, i) => expect(ways.length).toBe(told[i].ways.length + 1));
    const { ways, ink } = told.at(-1)!;
    const sums = Object.fromEntries(ways.map(({ way, sum }) => [way, sum]));
    expect(Object.keys(sums).sort()).toEqual([
      'equal',
      'grid',
      'media',
      'pieces',
      'wandering',
      'when-needed',
    ]);
    expect(sums.wandering.ink).toBeLessThanOrEqual(sums['when-needed'].ink);
    expect(sums['when-needed'].ink).toBeLessThanOrEqual(sums.equal.ink);
    expect(ink.upright.at.length).toBe(601);
    for (const way of ['equal', 'media', 'when-needed', 'pieces'] as const)
      expect(planner.plan(artworks, panels({ way }), DEMO_SHOP).panelling!.sum).toEqual(sums[way]);
    const before = planner.runs.offer;
    void [...planner.seams(artworks, panels({ way: 'by-hand', upright: [900] }), DEMO_SHOP)];
    expect(planner.runs.offer).toBe(before);
  });

  test('a seam moved by hand: neither what belongs together nor the ink that seams cut', () => {
    const planner = createPlanner();
    const at = (x: number): Choices => ({
      ...choices,
      panels: { ...choices.panels, way: 'by-hand', upright: [x] },
    });
    planner.plan(artworks, at(40), DEMO_SHOP);
    const { gather, ground, seams } = planner.runs;
    planner.plan(artworks, at(41), DEMO_SHOP);
    expect([planner.runs.gather, planner.runs.ground, planner.runs.seams]).toEqual([
      gather,
      ground,
      seams + 1,
    ]);
  });

  test('which panels are cut: neither the seams nor what lies before them', () => {
    const planner = createPlanner();
    const way = { ...choices.panels, way: 'grid', columns: 2 } as const;
    planner.plan(artworks, { ...choices, panels: way }, DEMO_SHOP);
    const before = { ...planner.runs };
    planner.plan(artworks, { ...choices, panels: { ...way, skip: [2] } }, DEMO_SHOP);
    expect(planner.runs.seams).toBe(before.seams);
    expect(planner.runs.separation).toBe(before.separation);
    expect(planner.runs.panel).toBe(before.panel + 3);
  });

  test('weed lines: those of every film and the knife’s way; moved by hand, only those of their strip', () => {
    const lines = (more: Partial<Choices['layout']['weedLines']>) =>
      layout({ weedLines: { ...choices.layout.weedLines, ...more } });
    expect(ranFor(lines({ way: 'step', step: 40 }))).toEqual({ weed: 3, toolpath: 3, followed: 3 });
    const planner = createPlanner();
    const byHand = (at: number): Choices => ({
      ...choices,
      layout: {
        ...choices.layout,
        weedLines: {
          ...choices.layout.weedLines,
          way: 'hand',
          byHand: { harbour: [{ axis: 'upright', at }] },
        },
      },
    });
    planner.plan(artworks, byHand(40), DEMO_SHOP);
    const { weed } = planner.runs;
    planner.plan(artworks, byHand(41), DEMO_SHOP);
    expect(planner.runs.weed).toBe(weed + 1);
  });

  test('a piece put by hand: its film is laid again, and no outline is made twice', () => {
    const planner = createPlanner();
    const pieces = { ...choices, layout: { ...choices.layout, pack: 'piece' as const } };
    const { cuts } = planner.plan(artworks, pieces, DEMO_SHOP);
    const { film, roll, placements } = cuts[0].strip;
    const before = { ...planner.runs };
    const kept = placements.flatMap((placement) => placement.kept ?? []);
    const put = kept.map((piece, i) => (i === 0 ? { ...piece, x: piece.x + 2000, pinned: true } : piece));
    const packed = { [film.id]: [{ roll: roll.width, pieces: put }] };
    planner.plan(artworks, { ...pieces, layout: { ...pieces.layout, packed } }, DEMO_SHOP);
    expect(planner.runs.outline).toBe(before.outline);
    expect(before.outline).toBeGreaterThan(0);
    expect(planner.runs.layOut).toBe(before.layOut + 1);
  });

  test('as many copies as one strip of every film has room for, and one more is too many', () => {
    const planner = createPlanner();
    const found = [...planner.most(artworks, choices, DEMO_SHOP)];
    const most = found.at(-1)!;
    expect(most).toBeGreaterThan(3);
    expect([...found].sort((a, b) => a - b)).toEqual(found);
    const stripsOf = (copies: number) =>
      planner.plan(artworks, { ...choices, layout: { ...choices.layout, copies } }, DEMO_SHOP).cuts.length;
    expect(stripsOf(most)).toBe(stripsOf(1));
    expect(stripsOf(most + 1)).toBeGreaterThan(stripsOf(1));
  });

  test('each roll and offcut says what a film comes to on it; one that is too small says why', () => {
    const offcuts = [
      { width: 610, lengthLeft: 22_000 },
      { width: 610, lengthLeft: 400, sheets: 1, offcut: 'H-3' },
      { width: 310, lengthLeft: 20, sheets: 1, offcut: 'H-4' },
    ];
    const films = DEMO_SHOP.films.map((film) => (film.id === 'harbour' ? { ...film, rolls: offcuts } : film));
    const shop = { ...DEMO_SHOP, films };
    const planner = createPlanner();
    const found = [...planner.stocks(artworks, choices, shop, 'harbour')];
    expect(found.map(({ roll }) => roll)).toEqual(offcuts);
    const { cuts } = planner.plan(artworks, choices, shop);
    const own = cuts.find(({ strip }) => strip.film.id === 'harbour')!;
    expect(own.strip.roll.offcut).toBeUndefined();
    expect(found[0].length).toBeCloseTo(own.strip.length, 9);
    const picked = { ...choices, layout: { ...choices.layout, rolls: { harbour: 'H-3' } } };
    const from = planner.plan(artworks, picked, shop).cuts.find(({ strip }) => strip.film.id === 'harbour')!;
    expect(from.strip.roll.offcut).toBe('H-3');
    expect(found[1].length).toBeCloseTo(from.strip.length, 9);
    expect(found[2].findings.map(({ severity }) => severity)).toContain('stop');
    expect([...planner.stocks(artworks, choices, shop, 'nothing-such')]).toEqual([]);
  });

  test('a roll picked that was taken anyway: it is laid out, and cut as before', () =>
    expect(ranFor(layout({ rolls: { harbour: 610 } }))).toEqual({ layOut: 1 }));

  test('one film’s overlap: that film’s layer', () =>
    expect(ranFor(films({ overlap: { currant: { mode: 'trap', by: 2 } } }))).toEqual({
      overlap: 1,
      layer: 1,
      films: 1,
      separation: 1,
      check: 1,
      panel: 1,
      layOut: 1,
      weed: 1,
      toolpath: 1,
      followed: 1,
    }));

  test('a place fix: films, but neither the pieces nor what is seen', () => {
    const planner = createPlanner();
    planner.plan(artworks, choices, DEMO_SHOP);
    const [narrow] = atOnce(planner.check(artworks, choices, DEMO_SHOP)).filter(
      ({ code }) => code === 'narrow',
    );
    const ran = ranFor(artwork({ fixes: [...narrow.fixes!] }));
    expect(ran).toMatchObject({ assign: 1, toolpath: 1, followed: 1, layOut: 1 });
    expect(Object.keys(ran)).not.toContain('piece');
    expect(Object.keys(ran)).not.toContain('prepare');
    expect(Object.keys(ran)).not.toContain('seen');
  });

  test('another cutter’s reach: where films lie; its speed of travel only: the knife’s way', () => {
    const [cutter] = DEMO_SHOP.cutters;
    const wider = { cutters: [{ ...cutter, margins: { ...cutter.margins, near: 20 } }] };
    expect(ranFor({}, wider)).toEqual({ layOut: 3, weed: 3, toolpath: 3, followed: 3 });
    const quicker = { cutters: [{ ...cutter, motion: { ...cutter.motion, travelSpeed: 80 } }] };
    expect(ranFor({}, quicker)).toEqual({ toolpath: 3, followed: 3 });
  });
});

/** Choices of every section, at random. */
const anyChoices: fc.Arbitrary<Choices> = fc
  .record({
    width: fc.constantFrom(null, 150, 320),
    fixes: fc.subarray([
      { kind: 'thicken', at: '*' } as const,
      { kind: 'island', at: '*' } as const,
      { kind: 'simplify', at: 'p1/1' } as const,
    ]),
    kind: fc.constantFrom(null, 'through', 'perforated') as fc.Arbitrary<null | 'through' | 'perforated'>,
    film: fc.dictionary(fc.constantFrom('#b0202f', '#1d3f86'), fc.constantFrom('tar', 'coral', 'harbour')),
    off: fc.subarray(['#b0202f', '#f5cf1b']),
    order: fc.shuffledSubarray(['#b0202f', '#1d3f86', '#f5cf1b']),
    fold: fc.constantFrom<Record<string, string>[]>({}, { '#f5cf1b': '#b0202f' }),
    overlap: fc.dictionary(
      fc.constantFrom(...ids),
      fc.constantFrom(
        { mode: 'full', by: 0 },
        { mode: 'trap', by: 1.5 },
        { mode: 'butt', by: 0 },
      ) as fc.Arbitrary<Choices['films']['overlap'][string]>,
    ),
    marks: fc.constantFrom(null, { shape: 'ring', count: 2, size: 8, at: null } as const),
    copies: fc.integer({ min: 1, max: 5 }),
    ownCopies: fc.dictionary(fc.constantFrom(...ids), fc.integer({ min: 1, max: 3 })),
    turn: fc.constantFrom('as-drawn', 'turned', 'shorter') as fc.Arbitrary<Choices['layout']['turn']>,
    border: fc.constantFrom(...BORDERS),
    weedWay: fc.constantFrom(...WEED_LINE_WAYS),
    panels: fc.record({
      way: fc.constantFrom(...PANEL_WAYS),
      columns: fc.integer({ min: 1, max: 3 }),
      upright: fc.subarray([60, 100, 220]),
      overlap: fc.constantFrom(0, 5),
      skip: fc.subarray([1, 2]),
    }),
    pack: fc.constantFrom('one', 'one', 'word', 'piece'),
    packFilm: fc.dictionary(fc.constantFrom(...ids), fc.constantFrom('one', 'piece')),
    recipes: fc.dictionary(fc.constantFrom(...ids), fc.record({ overcut: fc.constantFrom(0, 1, 2) })),
  })
  .map((pick) => ({
    ...choices,
    artwork: {
      ...choices.artwork,
      width: pick.width,
      fixes: pick.fixes,
      lines: {
        ...choices.artwork.lines,
        colour: Object.fromEntries(pick.kind ? [['#1d3f86', pick.kind]] : []),
      },
    },
    films: {
      ...choices.films,
      film: pick.film,
      off: pick.off,
      order: pick.order,
      fold: pick.fold,
      overlap: pick.overlap,
      marks: pick.marks,
      copies: pick.ownCopies,
    },
    panels: { ...choices.panels, ...pick.panels },
    layout: {
      ...choices.layout,
      copies: pick.copies,
      turn: pick.turn,
      border: pick.border,
      weedLines: {
        ...choices.layout.weedLines,
        way: pick.weedWay,
        step: 60,
        byHand: { harbour: [{ axis: 'upright' as const, at: 80 }] },
      },
      pack: pick.pack,
      packFilm: pick.packFilm,
    },
    cut: { recipes: { curlew: pick.recipes } },
  }));

test('whatever was planned before, a plan that remembers is the plan made anew', () => {
  const stocks: readonly Shop[] = [
    DEMO_SHOP,
    {
      ...DEMO_SHOP,
      films: DEMO_SHOP.films.map((film) => ({ ...film, rolls: [{ width: 610, lengthLeft: 700 }] })),
    },
  ];
  const told = ({ cuts, findings, panelling, panels, separation, totals }: Plan) => {
    return { cuts, findings, panelling, panels, separation, totals };
  };
  fc.assert(
    fc.property(
      fc.array(fc.tuple(anyChoices, fc.constantFrom(...stocks)), { minLength: 2, maxLength: 5 }),
      (steps) => {
        const planner = createPlanner();
        for (const [now, shop] of steps) {
          const fresh = createPlanner();
          expect(told(planner.plan(artworks, now, shop))).toEqual(told(fresh.plan(artworks, now, shop)));
          expect(atOnce(planner.check(artworks, now, shop))).toEqual(
            atOnce(fresh.check(artworks, now, shop)),
          );
        }
      },
    ),
    { numRuns: times(60, 12), seed: SEED },
  );
});

test('a film in pieces is cut without its layer marks, and that is told', () => {
  const marks = { shape: 'ring', count: 2, size: 8, at: null } as const;
  const marked = { ...choices, films: { ...choices.films, marks } };
  const told = (layout: Partial<Choices['layout']>) =>
    createPlanner()
      .plan(artworks, { ...marked, layout: { ...choices.layout, ...layout } }, DEMO_SHOP)
      .findings.flatMap(({ code, film, stage }) => (code === 'marks-left-out' ? [[film, stage]] : []));
  expect(told({})).toEqual([]);
  expect(told({ packFilm: { harbour: 'piece' } })).toEqual([['Harbour blue', 'layout']]);
});

test('each way to take art apart says what it comes to, and another film’s packing moves nothing', () => {
  const planner = createPlanner();
  const offers = [...planner.packs(artworks, choices, DEMO_SHOP)].filter((offer) => offer !== undefined);
  // lengths are laid out for, and no knife's way is looked for
  expect(planner.runs.toolpath).toBe(0);
  expect(offers.map(({ pack }) => pack)).toEqual(['one', 'word', 'piece']);
  for (const { pack, length } of offers) {
    const layout = { ...choices.layout, pack };
    const plan = planner.plan(artworks, { ...choices, layout }, DEMO_SHOP);
    expect(plan.totals.filmLength).toBe(length);
  }
  const layout = { ...choices.layout, pack: 'piece' } as const;
  const steps = [...planner.pack(artworks, { ...choices, layout }, DEMO_SHOP, { rounds: 4, seed: 1 })];
  const films = [...new Set(steps.map(({ film }) => film))];
  expect(films.length).toBeGreaterThan(1);
  const packedOf = (how: object): string[] => {
    const made = planner.pack(artworks, { ...choices, layout }, DEMO_SHOP, { rounds: 1, seed: 1, ...how });
    return [...new Set([...made].map(({ film }) => film))];
  };
  expect(packedOf({ film: films[1] })).toEqual([films[1]]);
  expect(packedOf({ stays: (id: string) => id === films[0] })).toEqual(films.slice(1));
  const last = steps.filter(({ film }) => film === films[0]).at(-1)!;
  planner.plan(artworks, { ...choices, layout }, DEMO_SHOP);
  const before = { ...planner.runs };
  const packed = { [films[0]]: last.packed };
  planner.plan(artworks, { ...choices, layout: { ...layout, packed } }, DEMO_SHOP);
  expect(planner.runs.layOut - before.layOut).toBe(1);
  expect(planner.runs.pieces).toBe(before.pieces);
});

test('a film without a recipe on its cutter is told, and the others are planned', () => {
  const { 'curlew/*': _all, ...recipes } = DEMO_SHOP.recipes;
  const shop = { ...DEMO_SHOP, recipes: { ...recipes, 'curlew/currant': DEMO_SHOP.recipes['curlew/*'] } };
  const { cuts, findings } = createPlanner().plan(artworks, choices, shop);
  expect(cuts.map(({ strip }) => strip.film.id)).toEqual(['currant']);
  expect(
    findings.filter(({ code }) => code === 'no-recipe').map(({ stage, severity }) => [stage, severity]),
  ).toEqual([
    ['cut', 'stop'],
    ['cut', 'stop'],
  ]);
});

describe('two cutters', () => {
  const [curlew] = DEMO_SHOP.cutters;
  const heron: Cutter = {
    ...curlew,
    id: 'heron',
    name: 'Heron',
    widest: 610,
    margins: { far: 20, near: 15, lead: 8, tail: 5 },
    trackLength: 3000,
  };
  const shop: Shop = {
    ...DEMO_SHOP,
    cutters: [curlew, heron],
    recipes: { ...DEMO_SHOP.recipes, 'heron/*': { ...DEMO_SHOP.recipes['curlew/*'], force: 95 } },
  };
  const planned = (more: Partial<Choices>): readonly (readonly [string, string, number, number | null])[] =>
    createPlanner()
      .plan(artworks, { ...choices, ...more }, shop)
      .cuts.map(({ strip, cutter, recipe }) => [strip.film.id, cutter.id, strip.edges.far, recipe.force]);

  test('an order goes to its cutter, and single films to another, each by that one’s reach and recipe', () => {
    expect(planned({})).toEqual([
      ['currant', 'curlew', 12.7, 80],
      ['harbour', 'curlew', 12.7, 80],
      ['buoy', 'curlew', 12.7, 80],
    ]);
    expect(planned({ cutter: { order: 'heron', film: { buoy: 'curlew' } } })).toEqual([
      ['currant', 'heron', 20, 95],
      ['harbour', 'heron', 20, 95],
      ['buoy', 'curlew', 12.7, 80],
    ]);
    // one that is not there any more: the order's own
    expect(planned({ cutter: { order: 'gone', film: { buoy: 'gone too' } } })[2]).toEqual([
      'buoy',
      'curlew',
      12.7,
      80,
    ]);
  });

  test('what an order changes for one cutter does not follow its film to another', () => {
    const cut = { recipes: { curlew: { buoy: { force: 300 } } } };
    expect(planned({ cut })[2]).toEqual(['buoy', 'curlew', 12.7, 300]);
    expect(planned({ cut, cutter: { order: null, film: { buoy: 'heron' } } })[2]).toEqual([
      'buoy',
      'heron',
      20,
      95,
    ]);
  });

  test('what an order changes for one kind of line leaves the others as they are', () => {
    const kinds = (cut: Choices['cut']) => {
      const { cuts } = createPlanner().plan(artworks, { ...choices, cut }, shop);
      const { recipe, shopKinds, program } = cuts[2];
      return { recipe, shopKinds, recipes: program.recipes };
    };
    const usual = kinds({ recipes: {} });
    const changed = kinds({
      recipes: { curlew: { 'buoy/through': { force: 222 }, 'buoy/pen': { speed: null } } },
    });
    expect(changed.recipe).toEqual(usual.recipe);
    expect(changed.shopKinds).toEqual(usual.recipes);
    expect(changed.recipes).toEqual({
      ...usual.recipes,
      through: { ...usual.recipes.through, force: 222 },
      pen: { ...usual.recipes.pen, speed: null },
    });
  });

  test('film is changed at each cutter by itself', () => {
    const swaps = (cutter: Choices['cutter']): number =>
      createPlanner().plan(artworks, { ...choices, cutter }, shop).totals.swaps;
    expect(swaps({ order: null, film: {} })).toBe(2);
    expect(swaps({ order: null, film: { harbour: 'heron' } })).toBe(1);
  });

  test('recipes of older orders count for the shop’s first cutter', () => {
    const cut = { recipes: { '*': { buoy: { force: 120 } } } };
    expect(planned({ cut })[2][3]).toBe(120);
    expect(planned({ cut, cutter: { order: 'heron', film: {} } })[2][3]).toBe(95);
  });
});
