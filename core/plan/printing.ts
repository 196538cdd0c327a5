/** Colours that go to print: laid on sheets with marks, and cut around. */
import type { PreparedArtwork } from '../artwork/prepare';
import type { PreparedLine, PreparedShape } from '../artwork/preparePiece';
import type { ColourPlan } from '../films/colourPlan';
import type { Film } from '../films/film';
import type { Folds } from '../films/fold';
import { folded } from '../films/fold';
import type { Separation } from '../films/separate';
import type { Finding } from '../findings/finding';
import { difference, intersection } from '../geometry/region';
import type { Bounds } from '../geometry/bounds';
import { heightOf, widthOf } from '../geometry/bounds';
import { append } from '../geometry/lists';
import type { Spot } from '../geometry/spot';
import type { Cutter } from '../layout/cutter';
import type { ColourArea } from '../print/bleed';
import type { Printer, PrintChoices, SheetEdges, SheetRoom } from '../print/choices';
import { evenEdges, USUAL_PRINTER, widerEdges } from '../print/choices';
import { markFrame } from '../print/marks';
import { panelUnit, printedLayer } from './printPanels';
import type { PaintedArea, PrintSheet, PrintUnit } from '../print/sheets';
import { layOnSheets, printUnit, roomForArt } from '../print/sheets';
import type { Apart, panel } from '../panels/panel';
import type { PanelRoom } from '../panels/room';
import { boxFits } from '../panels/room';
import { own } from '../units/own';
import { isTooThick, shortFindings, thicknessFindings, toolFindings } from '../layout/layoutFindings';
import type { MakeStage } from '../stages/remember';
import { programByKind } from '../toolpath/program';
import { from } from './assemble';
import type { Choices } from './choices';
import type { RoomedFilm } from './filmsToCut';
import { bedOf, cutterNamed, machineOf } from './filmsToCut';
import { NO_GUESTS } from './guests';
import type { PlannedCut, PlannedSheet, Printed, PrintPlan } from './planned';
import { NOTHING_PRINTED } from './planned';
import type { FilmRecipes } from './recipes';
import { noRecipe, recipesFor } from './recipes';
import { sheetFindings } from './sheetFindings';
import { ontoStrip, sheetStrip } from './sheetStrip';
import type { Shop } from './shop';

/** What is to be printed, before it is laid on sheets. */
export interface ToPrint {
  readonly unit: PrintUnit;
  readonly film: Film;
  readonly cutter: Cutter;
  readonly printer: Printer;
  readonly edges: Printed['edges'];
  readonly room: SheetRoom;
  /** As seams see it; undefined: on such a sheet nothing is taken apart. */
  readonly whole: RoomedFilm | undefined;
}

/** What goes to print, or why it cannot be. */
export interface ReadyToPrint {
  readonly toPrint: ToPrint | undefined;
  readonly findings: readonly Finding[];
}
export const NOTHING_TO_PRINT: ReadyToPrint = { toPrint: undefined, findings: [] };

const KEPT_SHEETS = 200;
const PAPER = '#ffffff';

/** Lays what goes to print on sheets, in stages. @param parts what of a film is cut as one */
export function printing(stage: MakeStage, parts: typeof panel) {
  const painted = stage('print-art', paintedArt);
  const units = stage('print-unit', printUnit);
  const layer = stage('print-layer', printedLayer);
  const panelUnits = stage('print-panel', panelUnit, KEPT_SHEETS);
  const laid = stage('sheets', layOnSheets, KEPT_SHEETS);
  const strips = stage('sheet-strip', sheetStrip, KEPT_SHEETS);
  const programs = stage('sheet-toolpath', programByKind, KEPT_SHEETS);

  const ready = (
    { shapes, lines }: Pick<PreparedArtwork, 'shapes' | 'lines'>,
    { colours }: Pick<Separation, 'colours'>,
    choices: Choices,
    shop: Shop,
  ): ReadyToPrint => {
    const printed = colours.filter(({ goesTo }) => goesTo === 'print');
    if (printed.length === 0) return NOTHING_TO_PRINT;
    const { print, layout } = choices;
    const film = printableFilm(shop.films, print);
    if (!film) return notReady(noPrintable);
    const cutter = sheetCutter(film, choices, shop);
    if (!cutter) return NOTHING_TO_PRINT;
    if (printed.every(({ region }) => region.length === 0)) return notReady(nothingPainted);
    const { seen, areas, followed } = painted(shapes, lines, colours, choices.films.fold);
    const unit = units(seen, areas, print.lines, print.bleed, followed);
    const printer = shop.printer ?? USUAL_PRINTER;
    const edges = { printer: evenEdges(printer.edge), cutter: edgesOf(cutter) };
    const room = roomOf(film, print, printer, cutter, edges);
    const free = panelRoom(roomForArt({ room, marks: print.marks }), layout.turn);
    const each = withoutBleed(free, print.bleed);
    const fits = boxFits(unit.box, free);
    const whole =
      Math.min(each.across, each.along) > LEAST_PANEL
        ? { layer: layer(unit, film), film, cutter, room: each, fits, guests: NO_GUESTS }
        : undefined;
    return { toPrint: { unit, film, cutter, printer, edges, room, whole }, findings: [] };
  };

  /** What lies on sheets of its own: all of it, or each panel. */
  const piecesOf = ({ unit, whole }: ToPrint, apart: Apart | undefined, bleed: number) => {
    if (!whole || !apart) return { pieces: [{ unit, panel: undefined }], panels: [], findings: [] };
    const { panels, findings } = parts(whole.layer, withoutNumbers(apart));
    const pieces = panels
      .filter(({ isCut }) => isCut)
      .map((part) => ({ unit: panelUnits(unit, part, bleed), panel: part.cell.number }));
    return { pieces, panels, findings };
  };

  const cutOn = (
    unit: PrintUnit,
    sheet: PrintSheet,
    { film, cutter }: ToPrint,
    marks: PrintChoices['marks'],
    { kinds, ...recipes }: FilmRecipes,
  ): PlannedCut => {
    const strip = strips(unit, sheet, film, { widest: cutter.widest, margins: cutter.margins });
    const { art } = sheet;
    // in the waste, half way from the art to its marks
    const between: Spot = [art.minX, (art.minY + markFrame(art, marks).minY) / 2];
    const program = programs(strip, kinds, machineOf(cutter), ontoStrip(cutter)(between));
    return { strip, cutter, ...recipes, program };
  };

  /** @param apart how it is taken apart; undefined: it is not */
  const lay = (toPrint: ToPrint, apart: Apart | undefined, choices: Choices, shop: Shop): PrintPlan => {
    const { unit, film, cutter, edges, room } = toPrint;
    const { print, layout } = choices;
    const recipes = recipesFor(shop, cutter, film, choices.cut);
    if (!recipes) return { ...NOTHING_PRINTED, findings: [noRecipe(film, cutter)] };
    const { pieces, panels, findings } = piecesOf(toPrint, apart, print.bleed);
    const { spacing, marks, pack } = print;
    const how = { room, copies: layout.copies + print.spare, spacing, turn: layout.turn, marks, pack };
    const sheets: PlannedSheet[] = [];
    const found: Finding[] = [...findings];
    for (const piece of pieces) {
      const made = laid(piece.unit, { ...how, before: sheets.length });
      append(found, made.findings);
      const own = made.sheets.map((sheet) => ({
        ...piece,
        sheet,
        cut: cutOn(piece.unit, sheet, toPrint, marks, recipes),
      }));
      append(sheets, own);
    }
    const laidOut = sheets.map(({ cut }) => cut.strip);
    const all = [
      ...saidOnce(found),
      ...sheetFindings(
        unit,
        sheets.map(({ sheet }) => sheet),
        print,
        toPrint,
      ),
      ...toolFindings(film, laidOut, bedOf(cutter)),
      ...thicknessFindings(film, cutter),
      ...shortFindings(film, laidOut),
    ];
    return { printed: { unit, film, cutter, edges, sheets }, panels, findings: from('print', all) };
  };
  return { ready, lay };
}

/** Sheets of many panels say the same. */
const saidOnce = (findings: readonly Finding[]): Finding[] => [
  ...new Map(findings.map((finding) => [`${finding.code} ${finding.message}`, finding])).values(),
];

/** Their sheets are numbered instead, and marks line them up. */
const withoutNumbers = ({ order: _none, choices, panelling, ...apart }: Apart): Apart => ({
  ...apart,
  panelling: { ...panelling, keys: {} },
  choices: { ...choices, numbers: 'none' },
});

/** mm: on a sheet that leaves less, nothing is taken apart to lie there (our own). */
const LEAST_PANEL = 30;

/** Room for one panel on a sheet. */
const panelRoom = (free: Bounds, turn: PanelRoom['turn']): PanelRoom => ({
  across: heightOf(free),
  along: widthOf(free),
  reserve: 0,
  turn,
});
const withoutBleed = (room: PanelRoom, bleed: number): PanelRoom => ({
  ...room,
  across: room.across - 2 * bleed,
  along: room.along - 2 * bleed,
});

const notReady = (finding: Finding): ReadyToPrint => ({ ...NOTHING_TO_PRINT, findings: [finding] });

/** The film that is printed on: the one that was chosen, or the first that the shop has. */
export const printableFilm = (
  films: readonly Film[],
  { film }: Pick<PrintChoices, 'film'>,
): Film | undefined =>
  films.find(({ id, print }) => print && id === film) ??
  films.find(({ print, putAway }) => print && !putAway);

/** What goes to print. */
interface PrintedArt {
  /** What is seen of each colour and picture. */
  readonly seen: readonly ColourArea[];
  /** As it is painted. */
  readonly areas: readonly PaintedArea[];
  /** Lines among it that are cut. */
  readonly followed: readonly PreparedLine[];
}

/** Colours of films lie on the print and leave nothing of it out, those that are switched off let the surface show. */
function paintedArt(
  shapes: readonly PreparedShape[],
  lines: readonly PreparedLine[],
  colours: readonly ColourPlan[],
  folds: Folds,
): PrintedArt {
  const to = new Map(colours.map(({ colour, goesTo }) => [colour, goesTo]));
  // what is folded into another colour is printed as that one is
  const inks = new Map(shapes.flatMap(({ colour, ink }) => (ink ? [[colour, ink] as const] : [])));
  const areas = shapes.flatMap((shape): PaintedArea[] => {
    const { colour: own, region, ref, layer, picture } = shape;
    const colour = folded(own, folds);
    const where = to.get(colour);
    const ink = colour === own ? shape.ink : inks.get(colour);
    const more = { ...(ink && { ink }), ...(layer && { layer }), ...(picture && { picture }) };
    if (where === 'print') return [{ colour, region, ref, ...more }];
    return where === 'nothing' ? [{ colour: PAPER, region }] : [];
  });
  const seen = colours
    .filter(({ goesTo, region }) => goesTo === 'print' && region.length > 0)
    .flatMap(({ colour, region }) =>
      byPicture(
        { colour, region, ...(inks.has(colour) && { ink: inks.get(colour) }) },
        areas.filter((area) => area.colour === colour && area.picture),
      ),
    );
  const isCut = ({ kind, colour }: PreparedLine): boolean =>
    kind !== 'print' && to.get(folded(colour, folds)) === 'print';
  return { seen, areas, followed: lines.filter(isCut) };
}

/** What is seen of a colour, with pictures of that colour each by itself. */
function byPicture(area: ColourArea, pictures: readonly ColourArea[]): ColourArea[] {
  let rest = area.region;
  const each = pictures.toReversed().flatMap((picture): ColourArea[] => {
    const own = intersection(rest, picture.region);
    if (own.length === 0) return [];
    rest = difference(rest, own);
    return [{ ...picture, region: own }];
  });
  return rest.length === 0 ? each : [{ ...area, region: rest }, ...each];
}

/**
 * Where sheets are cut: at the machine that was chosen, or the first that takes them, one whose sensor reads their marks
 * before others.
 */
function sheetCutter(film: Film, { print, cutter }: Choices, shop: Shop): Cutter | undefined {
  const { cutters, printer } = shop;
  const named = cutterNamed(shop, own(cutter.film, film.id) ?? cutter.order);
  if (named) return named;
  const { width, height } = sizeOf(film, print, printer ?? USUAL_PRINTER);
  const takes = cutters.filter(
    (one) =>
      height >= one.narrowest &&
      height <= one.widest &&
      (one.kind === 'roll' || width <= one.trackLength) &&
      !isTooThick(film, one),
  );
  return takes.find(({ sensor }) => sensor?.kinds.includes(print.marks.kind)) ?? takes[0] ?? cutters[0];
}

/** Across the sheet what the rollers hold, along it its ends. */
const edgesOf = ({ margins: { far, near, lead, tail } }: Cutter): SheetEdges => ({
  left: lead,
  right: tail,
  top: far,
  bottom: near,
});

/** The sheet that is printed on: a size that was chosen, the film's own sheets, or a length of its roll. */
function roomOf(
  film: Film,
  print: PrintChoices,
  printer: Printer,
  cutter: Cutter,
  edges: Printed['edges'],
): SheetRoom {
  const left = widerEdges(evenEdges(print.edge), widerEdges(edges.printer, edges.cutter));
  const { width, height, isRoll } = sizeOf(film, print, printer);
  if (!isRoll) return { width, height, edges: left };
  return { width: Math.min(width, cutter.trackLength), height, edges: left, isRoll };
}

/** mm of a sheet; of a roll the longest that is printed. */
function sizeOf({ rolls }: Film, { sheet }: Pick<PrintChoices, 'sheet'>, printer: Printer) {
  if (sheet) return { ...sheet, isRoll: false };
  const pile = rolls.find(({ sheets }) => sheets !== undefined);
  if (pile) return { width: pile.lengthLeft, height: pile.width, isRoll: false };
  const [roll = { width: printer.widest, lengthLeft: printer.longest }] = rolls;
  return { width: Math.min(printer.longest, roll.lengthLeft), height: roll.width, isRoll: true };
}

const noPrintable: Finding = {
  stage: 'print',
  code: 'no-printable-film',
  severity: 'stop',
  message: 'The shop has no film that is printed on.',
  waysOut: ['Mark a film as printable under Materials', 'Send the colours to a film instead'],
};
const nothingPainted: Finding = {
  stage: 'print',
  code: 'nothing-printed',
  severity: 'stop',
  message: 'Of the colours that go to print nothing is seen.',
  waysOut: ['Send other colours to print under Films'],
};
