/** What goes to print, in the plan of an order. */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { Resvg } from '@resvg/resvg-js';
import { pieceOfFile, sourceKey } from '../artwork/choices';
import { DEMO_SHOP } from '../../demo/shop';
import { boundsTouch, outset } from '../geometry/bounds';
import { difference, grow, regionArea, regionBounds, ringBounds, weld } from '../geometry/region';
import { artOn } from '../layout/shares';
import type { PrintChoices } from '../print/choices';
import { NO_PRINT_CHOICES, USUAL_CUT_LINE } from '../print/choices';
import { markShape } from '../print/marks';
import { readResolvedSvg } from '../readers/svg/readResolvedSvg';
import type { Choices } from './choices';
import { DEFAULT_CHOICES } from './choices';
import type { Planner } from './plan';
import { createPlanner } from './plan';
import type { Printed } from './planned';
import type { Shop } from './shop';

const piece = pieceOfFile('0'.repeat(64), 'stickers.svg');
/** A sticker with a line of its own in the file. */
const ART = readResolvedSvg(
  new Resvg(`<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40">
    <path fill="#2e6f7e" d="M0 0H60V40H0Z"/><path fill="#e2a21b" d="M20 10H40V30H20Z"/>
    <path fill="none" stroke="#b0202f" stroke-width="0.1" d="M10 5V35"/></svg>`).toString(),
);
const artworks = new Map([[sourceKey(piece.source), ART]]);
const TEAL = '#2e6f7e';
const ALL = [TEAL, '#e2a21b', '#b0202f'];
const { artwork, films, layout } = DEFAULT_CHOICES;

const choices = (
  print: Partial<PrintChoices> = {},
  { goes = ALL, off = [] as string[], copies = 10, ...more }: Partial<Choices> & { goes?: string[]; off?: string[]; copies?: number } = {}, // prettier-ignore
): Choices => ({
  ...DEFAULT_CHOICES,
  artwork: { ...artwork, pieces: [piece], lines: { ...artwork.lines, colour: { '#b0202f': 'crease' } } },
  films: { ...films, print: goes, off },
  layout: { ...layout, copies },
  print: { ...NO_PRINT_CHOICES, ...print },
  ...more,
});

let planner: Planner;
beforeEach(() => {
  planner = createPlanner();
});
const plan = (chosen: Choices, shop: Shop = DEMO_SHOP) => planner.plan(artworks, chosen, shop);
const printedOf = (chosen: Choices, shop?: Shop): Printed => plan(chosen, shop).printed!;
const codes = (chosen: Choices, shop?: Shop): string[] =>
  plan(chosen, shop)
    .findings.filter(({ stage }) => stage === 'print')
    .map(({ code }) => code);

describe('what is printed', () => {
  test('is nothing unless a colour goes to print; what is not, is cut from its film as before', () => {
    expect(plan(choices({}, { goes: [] })).printed).toBeUndefined();
    const mixed = plan(choices({}, { goes: [TEAL] }));
    expect(mixed.printed!.unit.art.map(({ colour }) => colour)).toEqual([TEAL]);
    expect(mixed.cuts).toHaveLength(1);
    expect(plan(choices()).cuts).toEqual([]);
  });

  test('keeps the order of the paint; what is switched off shows the paper, what is film leaves nothing out', () => {
    expect(printedOf(choices()).unit.art.map(({ colour }) => colour)).toEqual([TEAL, '#e2a21b']);
    const off = printedOf(choices({}, { goes: [TEAL], off: ['#e2a21b'] }));
    expect(off.unit.art.map(({ colour }) => colour)).toEqual([TEAL, '#ffffff']);
  });

  test('lines in the file are cut where they are, once for every copy', () => {
    const { sheets, unit } = printedOf(choices());
    expect(unit.followed.map(({ kind }) => kind)).toEqual(['crease']);
    const creased = sheets.flatMap(({ cut }) => cut.program.lines.filter(({ kind }) => kind === 'crease'));
    // Plover and Curlew have no wheel: it is left out there, and cut on Saltpan
    expect(creased).toEqual([]);
    expect(codes(choices())).toContain('no-second-tool');
    const flat = printedOf({ ...choices(), cutter: { order: 'saltpan', film: {} } });
    expect(flat.sheets.flatMap(({ cut }) => cut.program.lines.filter(({ kind }) => kind === 'crease'))).toHaveLength(10); // prettier-ignore
  });

  test('one kind of line goes around one colour only, when it is asked to', () => {
    const lines = [USUAL_CUT_LINE, { ...USUAL_CUT_LINE, kind: 'through' as const, around: ['#e2a21b'] }];
    const { unit } = printedOf(choices({ lines }));
    const [kiss, through] = [unit.lines.find(({ kind }) => kind === 'kiss')!, unit.lines.find(({ kind }) => kind === 'through')!]; // prettier-ignore
    expect(regionBounds(kiss.region)).toMatchObject({ minX: expect.closeTo(-2, 2) });
    expect(regionBounds(through.region)).toMatchObject({ minX: expect.closeTo(18, 2) });
  });

  test('copies and spare ones lie on as many sheets as they need', () => {
    const { sheets } = printedOf(choices({ spare: 3 }));
    expect(sheets.flatMap(({ sheet }) => sheet.places)).toHaveLength(13);
  });

  test('a change of the marks makes no line and no bleed anew', () => {
    plan(choices());
    const before = planner.runs['print-unit'];
    plan(choices({ marks: { ...NO_PRINT_CHOICES.marks, kind: 'dots' } }));
    expect(planner.runs['print-unit']).toBe(before);
    plan(choices({ bleed: 1 }));
    expect(planner.runs['print-unit']).toBe(before + 1);
  });
});

describe('what a cut line goes around', () => {
  const boxAround = (line: Partial<PrintChoices['lines'][number]>) => {
    const { unit } = printedOf(choices({ lines: [{ ...USUAL_CUT_LINE, offset: 0, ...line }] }));
    const { minX, minY, maxX, maxY } = regionBounds(unit.lines[0].region);
    return [minX, minY, maxX, maxY].map((mm) => Math.round(mm));
  };

  test('is all that is printed, a colour, a layer, or shapes that were picked', () => {
    expect(boxAround({})).toEqual([0, 0, 60, 40]);
    expect(boxAround({ around: ['#e2a21b'] })).toEqual([20, 10, 40, 30]);
    expect(boxAround({ shapes: ['p1/1'] })).toEqual([20, 10, 40, 30]);
    expect(boxAround({ shapes: ['p1/0', 'p1/1'] })).toEqual([0, 0, 60, 40]);
    const layered = { ...ART, shapes: ART.shapes.map((shape, i) => ({ ...shape, layer: ['Ground', 'Badge', 'Fold'][i] })) }; // prettier-ignore
    const { printed } = createPlanner().plan(
      new Map([[sourceKey(piece.source), layered]]),
      choices({ lines: [{ ...USUAL_CUT_LINE, offset: 0, layers: ['Badge'] }] }),
      DEMO_SHOP,
    );
    const [{ region }] = printed!.unit.lines;
    expect(regionArea(region)).toBeCloseTo(400, 0);
  });

  test('what is not there any more is told as nothing left to cut', () => {
    const lines = [{ ...USUAL_CUT_LINE, shapes: ['p1/99'] }];
    expect(codes(choices({ lines }, { goes: [TEAL, '#e2a21b'] }))).toContain('no-cut-line');
  });
});

describe('the cut of a sheet', () => {
  test('goes kind by kind over all of it, what goes through last and from inside out', () => {
    const lines = [
      { ...USUAL_CUT_LINE, kind: 'through' as const, offset: 6 },
      { ...USUAL_CUT_LINE, kind: 'through' as const, offset: 4 },
      { ...USUAL_CUT_LINE, kind: 'perforated' as const, offset: 3 },
      USUAL_CUT_LINE,
    ];
    const { sheets } = printedOf({ ...choices({ lines }), cutter: { order: 'saltpan', film: {} } });
    const { program } = sheets[0].cut;
    const kinds = program.lines.slice(1).map(({ kind }) => kind);
    expect(kinds.filter((kind, i) => kind !== kinds[i - 1])).toEqual([
      'crease',
      'kiss',
      'perforated',
      'through',
    ]);
    const through = program.lines.filter(({ kind }) => kind === 'through');
    const size = ({ points }: (typeof through)[number]): number =>
      ringBounds(points).maxX - ringBounds(points).minX;
    for (let i = 0; i < through.length; i += 2) {
      expect(through[i].copy).toBe(through[i + 1].copy);
      expect(size(through[i])).toBeLessThan(size(through[i + 1]));
    }
    expect(through).toHaveLength(2 * sheets[0].sheet.places.length);
  });

  test('lies on the sheet as it lies in the cutter: from the far edge of the knife’s reach', () => {
    const { sheets, cutter } = printedOf(choices());
    const { strip } = sheets[0].cut;
    expect(strip.placements[0].box.minY).toBeCloseTo(
      sheets[0].sheet.places[0].box.minY - cutter.margins.far,
      9,
    );
    expect(strip.cuttable).toBe(sheets[0].sheet.height - cutter.margins.far - cutter.margins.near);
  });

  test('is made where the sheet is held and its marks are read', () => {
    // too narrow for Curlew; Heron has no sensor
    expect(printedOf(choices()).cutter.name).toBe('Plover');
    expect(printedOf(choices({ sheet: { width: 500, height: 400 } })).cutter.name).toBe('Curlew');
    const dots = { ...NO_PRINT_CHOICES.marks, kind: 'out' as const };
    expect(printedOf(choices({ marks: dots })).cutter.name).toBe('Saltpan');
    expect(printedOf({ ...choices(), cutter: { order: 'heron', film: {} } }).cutter.name).toBe('Heron');
  });

  test('what stays of a sheet is what lies within the lines around its art, copy by copy', () => {
    const { unit, sheets } = printedOf(choices());
    const { sheet, cut } = sheets[0];
    const [outline] = unit.lines.map(({ region }) => region);
    expect(artOn(cut.strip)).toBeCloseTo(sheet.places.length * regionArea(outline), 6);
    expect(artOn(cut.strip)).toBeGreaterThan(sheet.places.length * regionArea(weld(unit.art.flatMap(({ region }) => region)))); // prettier-ignore
    expect(artOn(cut.strip)).toBeLessThan(sheet.width * sheet.height);
  });

  test('of a roll as much is taken as its art needs', () => {
    const roll = { ...DEMO_SHOP, films: DEMO_SHOP.films.map((f) => (f.print ? { ...f, rolls: [{ width: 610, lengthLeft: 9000 }] } : f)) }; // prettier-ignore
    const few = printedOf(choices({}, { copies: 2 }), roll).sheets[0].sheet;
    const more = printedOf(choices({}, { copies: 60 }), roll).sheets[0].sheet;
    expect(few.height).toBe(610);
    expect(few.width).toBeLessThan(200);
    expect(more.width).toBeGreaterThan(few.width);
  });
});

describe('what may go wrong is said', () => {
  const EDGE: Partial<PrintChoices> = { lines: [{ ...USUAL_CUT_LINE, offset: 0 }] };
  const marks = (more: Partial<PrintChoices['marks']>): Partial<PrintChoices> => ({
    marks: { ...NO_PRINT_CHOICES.marks, ...more },
  });
  test.each([
    ['a line on the edge of the art without bleed', EDGE, 'no-bleed'],
    ['a sheet that the art does not fit on', { sheet: { width: 160, height: 120 } }, 'in-panels'],
    ['a sheet too wide for every machine', { sheet: { width: 900, height: 1500 } }, 'sheet-too-large'],
    ['marks beyond the edge of what is printed', marks({ at: { minX: 1, minY: 20, maxX: 400, maxY: 280 } }), 'mark-unprintable'], // prettier-ignore
    [
      'marks under the rollers',
      marks({ at: { minX: 20, minY: 6, maxX: 400, maxY: 280 } }),
      'mark-under-rollers',
    ],
    ['more marks than the sensor reads', marks({ between: 25 }), 'too-many-marks'],
  ])('%s', (_, print, code) => {
    expect(codes(choices(print))).toContain(code);
  });

  test('nothing that is cut keeps the order back', () => {
    const none = choices({ lines: [] }, { goes: [TEAL, '#e2a21b'] });
    expect(codes(none)).toContain('no-cut-line');
    const gone = { lines: [{ ...USUAL_CUT_LINE, offset: -25 }] };
    expect(codes(choices(gone, { goes: [TEAL, '#e2a21b'] }))).toContain('no-cut-line');
    // a line in the file is enough
    expect(codes(choices(gone))).not.toContain('no-cut-line');
  });

  test('marks that its sensor does not read, or none to read them by', () => {
    const out = { ...choices(marks({ kind: 'out' })), cutter: { order: 'plover', film: {} } };
    expect(codes(out)).toContain('mark-kind-unread');
    expect(codes({ ...choices(), cutter: { order: 'heron', film: {} } })).toContain('marks-by-hand');
  });

  test('bleed, or a line further out, mends what lacks bleed; usual choices find nothing', () => {
    const goes = [TEAL, '#e2a21b'];
    expect(codes(choices({ ...EDGE, bleed: 2 }, { goes }))).toEqual([]);
    expect(codes(choices({}, { goes }))).toEqual([]);
    expect(codes(choices({}, { goes, copies: 2000 }))).toEqual(['film-short']);
  });

  test('a shop without anything to print on, or a cutter without a recipe', () => {
    const bare = { ...DEMO_SHOP, films: DEMO_SHOP.films.filter(({ print }) => !print) };
    expect(codes(choices(), bare)).toEqual(['no-printable-film']);
    const findings = plan(choices(), { ...DEMO_SHOP, recipes: {} }).findings;
    expect(findings.map(({ code }) => code)).toContain('no-recipe');
  });

  test('marks of every kind keep off what is printed and cut', () => {
    for (const kind of ['in', 'out', 'dots'] as const) {
      const { sheets } = printedOf({
        ...choices(marks({ kind, away: 3 })),
        cutter: { order: 'saltpan', film: {} },
      });
      for (const { sheet } of sheets)
        for (const mark of sheet.marks)
          for (const { box } of sheet.places)
            for (const bar of markShape(mark, 1))
              if (kind !== 'in') expect(boundsTouch(outset(box, -1e-6), ringBounds(bar))).toBe(false);
    }
    const whole = { panels: { ...DEFAULT_CHOICES.panels, way: 'never' as const } };
    const tight = marks({ at: { minX: 150, minY: 100, maxX: 200, maxY: 130 } });
    expect(codes(choices(tight, whole))).toContain('larger-than-sheet');
  });
});

describe('printed art that is larger than its sheet', () => {
  const LINES = [
    { ...USUAL_CUT_LINE, offset: 1, smallestRadius: 0 },
    { ...USUAL_CUT_LINE, kind: 'through' as const, offset: 4, smallestRadius: 0 },
  ];
  const large = (more: Partial<PrintChoices> = {}, panels: Partial<Choices['panels']> = {}): Choices => ({
    ...choices({ lines: LINES, bleed: 2, sheet: { width: 420, height: 297 }, ...more }, { copies: 1 }),
    artwork: { ...choices().artwork, width: 900 },
    panels: { ...DEFAULT_CHOICES.panels, ...panels },
  });

  test('is taken apart by the ways of Panels: every panel on a sheet of its own, with marks and code', () => {
    const made = plan(large());
    const { sheets, unit } = made.printed!;
    expect(made.findings.filter(({ severity }) => severity === 'stop')).toEqual([]);
    expect(sheets.length).toBeGreaterThan(4);
    expect(sheets.map(({ sheet }) => sheet.id)).toEqual(sheets.map((_, i) => `sheet-${i + 1}`));
    expect(sheets.map(({ panel }) => panel)).toEqual(sheets.map((_, i) => i + 1));
    for (const { sheet } of sheets) {
      expect(sheet.marks.length).toBeGreaterThanOrEqual(4);
      expect(sheet.code).toBeDefined();
      expect(sheet.art.minX).toBeGreaterThan(0);
      expect(sheet.art.maxY).toBeLessThan(297);
    }
    // together they are what the outermost line cuts out: edge to edge, nothing twice and nothing missing
    const outer = sheets.map(({ unit: own }) => own.lines[0].region);
    const whole = unit.lines[1].region;
    expect(outer.reduce((sum, region) => sum + regionArea(region), 0)).toBeCloseTo(regionArea(whole), 0);
    expect(regionArea(weld(outer.flat()))).toBeCloseTo(regionArea(whole), 0);
    // the fitting map shows them
    expect(made.panels.map(({ cell }) => cell.number)).toEqual(sheets.map(({ panel }) => panel));
    expect(made.panelling).toBeDefined();
  });

  test('its art goes on past each seam by the bleed, lines further in end there, and panels overlap as asked', () => {
    const { sheets } = plan(large()).printed!;
    for (const { unit } of sheets) {
      const [cut, shown] = [unit.lines[0].region, unit.clip!];
      // whatever is cut has colour for 2 mm around it, but for where the art ends anyway
      expect(regionArea(difference(grow(cut, 1.9), shown))).toBeLessThan(0.01);
      const inner = unit.followed.filter(({ kind }) => kind === 'kiss');
      for (const { points } of inner)
        for (let i = 0; i < points.length; i += 2) {
          const { minX, minY, maxX, maxY } = regionBounds(cut);
          expect(points[i]).toBeGreaterThan(minX - 0.01);
          expect(points[i]).toBeLessThan(maxX + 0.01);
          expect(points[i + 1]).toBeGreaterThan(minY - 0.01);
          expect(points[i + 1]).toBeLessThan(maxY + 0.01);
        }
    }
    const apart = (own: Printed): number =>
      own.sheets.reduce((sum, { unit }) => sum + regionArea(unit.lines[0].region), 0);
    const [edge, over] = [apart(plan(large()).printed!), apart(plan(large({}, { overlap: 6 })).printed!)];
    expect(over).toBeGreaterThan(edge + 1000);
  });

  test('a sheet that leaves no room at all is told', () => {
    const { away, ...others } = NO_PRINT_CHOICES.marks;
    const made = plan(large({ sheet: { width: 160, height: 120 }, marks: { ...others, away: 4 * away } }));
    expect(made.printed?.sheets).toEqual([]);
    expect(made.findings.filter(({ severity }) => severity === 'stop').map(({ code }) => code)).toEqual(['larger-than-sheet']); // prettier-ignore
  });

  test('panels that are left out are not printed; never apart it is told that it does not fit', () => {
    const all = plan(large()).printed!.sheets.length;
    const some = plan(large({}, { skip: [2, 3] })).printed!.sheets;
    expect(some.map(({ panel }) => panel)).not.toContain(2);
    expect(some).toHaveLength(all - 2);
    expect(codes(large({}, { way: 'never' }))).toContain('larger-than-sheet');
  });

  test('every way is offered with what it comes to, also while nothing is to be taken apart', () => {
    const offered = (panels: Partial<Choices['panels']>) => [...planner.seams(artworks, large({}, panels), DEMO_SHOP)].at(-1)!.ways; // prettier-ignore
    expect(offered({ way: 'never' }).map(({ way }) => way)).toEqual(offered({}).map(({ way }) => way));
    expect(offered({})[0].sum.panels).toBe(plan(large()).printed!.sheets.length);
  });

  test('a film’s panel that is cut again has the seams that it shares with what is printed', () => {
    const both = { ...large(), films: { ...films, print: ['#e2a21b'] }, artwork: { ...large().artwork, width: 3000 } }; // prettier-ignore
    const [all, again] = [plan(both), planner.plan(artworks, both, DEMO_SHOP, { again: { panels: [1] } })];
    expect(all.printed!.sheets.length).toBeGreaterThan(3);
    expect(again.printed).toBeUndefined();
    expect(again.cuts.length).toBeGreaterThan(0);
    expect(again.panelling!.seams).toEqual(all.panelling!.seams);
  });

  test('planned again only what changes is worked out anew', () => {
    const before = plan(large()).printed!;
    const after = plan({ ...large(), cut: { ...large().cut } }).printed!;
    expect(after.sheets.map(({ sheet }) => sheet)).toEqual(before.sheets.map(({ sheet }) => sheet));
    const programs = (own: Printed) => own.sheets.map(({ cut }) => cut.program);
    programs(after).forEach((program, k) => expect(program).toBe(programs(before)[k]));
  });
});
