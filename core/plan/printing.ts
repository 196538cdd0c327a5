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
import type { Spot } from '../geometry/spot';
import type { Cutter } from '../layout/cutter';
import type { ColourArea } from '../print/bleed';
import type { Printer, PrintChoices, SheetEdges, SheetRoom } from '../print/choices';
import { evenEdges, USUAL_PRINTER, widerEdges } from '../print/choices';
import { markFrame } from '../print/marks';
import { layOnSheets, printUnit } from '../print/sheets';
import { own } from '../units/own';
import { shortFindings, toolFindings } from '../layout/layoutFindings';
import type { MakeStage } from '../stages/remember';
import { programByKind } from '../toolpath/program';
import { from } from './assemble';
import type { Choices } from './choices';
import { bedOf, cutterNamed, machineOf } from './filmsToCut';
import type { Printed } from './planned';
import { noRecipe, recipesFor } from './recipes';
import { sheetFindings } from './sheetFindings';
import { ontoStrip, sheetStrip } from './sheetStrip';
import type { Shop } from './shop';

/** What of an order is printed, and what is found about it. */
export interface PrintPlan {
  /** Undefined: something keeps it from being laid on sheets. */
  readonly printed: Printed | undefined;
  readonly findings: readonly Finding[];
}
export const NOTHING_PRINTED: PrintPlan = { printed: undefined, findings: [] };

const KEPT_SHEETS = 200;
const PAPER = '#ffffff';

/** Lays what goes to print on sheets, in stages. */
export function printing(stage: MakeStage) {
  const painted = stage('print-art', paintedArt);
  const units = stage('print-unit', printUnit);
  const laid = stage('sheets', layOnSheets);
  const strips = stage('sheet-strip', sheetStrip, KEPT_SHEETS);
  const programs = stage('sheet-toolpath', programByKind, KEPT_SHEETS);

  return (
    { shapes, lines }: Pick<PreparedArtwork, 'shapes' | 'lines'>,
    { colours }: Pick<Separation, 'colours'>,
    choices: Choices,
    shop: Shop,
  ): PrintPlan => {
    const printed = colours.filter(({ goesTo }) => goesTo === 'print');
    if (printed.length === 0) return NOTHING_PRINTED;
    const { print, layout } = choices;
    const film = printableFilm(shop.films, print);
    if (!film) return none(noPrintable);
    const cutter = sheetCutter(film, choices, shop);
    if (!cutter) return NOTHING_PRINTED;
    if (printed.every(({ region }) => region.length === 0)) return none(nothingPainted);
    const { seen, areas, followed } = painted(shapes, lines, colours, choices.films.fold);
    const unit = units(seen, areas, print.lines, print.bleed, followed);
    const printer = shop.printer ?? USUAL_PRINTER;
    const edges = { printer: evenEdges(printer.edge), cutter: edgesOf(cutter) };
    const room = roomOf(film, print, printer, cutter, edges);
    const { sheets, findings } = laid(unit, {
      room,
      copies: layout.copies + print.spare,
      spacing: print.spacing,
      turn: layout.turn,
      marks: print.marks,
    });
    const has = recipesFor(shop, cutter, film, choices.cut);
    if (!has) return none(noRecipe(film, cutter));
    const { kinds, ...recipes } = has;
    const bed = { widest: cutter.widest, margins: cutter.margins };
    const planned = sheets.map((sheet) => {
      const strip = strips(unit, sheet, film, bed);
      const { art } = sheet;
      // in the waste, half way from the art to its marks
      const between: Spot = [art.minX, (art.minY + markFrame(art, print.marks).minY) / 2];
      const program = programs(strip, kinds, machineOf(cutter), ontoStrip(cutter)(between));
      return { sheet, cut: { strip, cutter, ...recipes, program } };
    });
    const laidOut = planned.map(({ cut }) => cut.strip);
    const found = [
      ...findings,
      ...sheetFindings(unit, sheets, print, { film, printer, cutter, edges, room }),
      ...toolFindings(film, laidOut, bedOf(cutter)),
      ...shortFindings(film, laidOut),
    ];
    const printedPlan = { unit, film, cutter, edges, sheets: planned };
    return { printed: printedPlan, findings: from('print', found) };
  };
}

const none = (finding: Finding): PrintPlan => ({ printed: undefined, findings: [finding] });

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
  readonly areas: readonly ColourArea[];
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
  const areas = shapes.flatMap(({ colour: own, region, picture }): ColourArea[] => {
    const colour = folded(own, folds);
    const where = to.get(colour);
    if (where === 'print') return [{ colour, region, ...(picture && { picture }) }];
    return where === 'nothing' ? [{ colour: PAPER, region }] : [];
  });
  const seen = colours
    .filter(({ goesTo, region }) => goesTo === 'print' && region.length > 0)
    .flatMap(({ colour, region }) =>
      byPicture(
        { colour, region },
        areas.filter((area) => area.colour === colour && area.picture),
      ),
    );
  const isCut = ({ kind, colour }: PreparedLine): boolean =>
    kind !== 'print' && to.get(folded(colour, folds)) === 'print';
  return { seen, areas, followed: lines.filter(isCut) };
}

/** What is seen of a colour, with pictures of that colour each by itself. */
function byPicture({ colour, region }: ColourArea, pictures: readonly ColourArea[]): ColourArea[] {
  let rest = region;
  const each = pictures.toReversed().flatMap((area): ColourArea[] => {
    const own = intersection(rest, area.region);
    if (own.length === 0) return [];
    rest = difference(rest, own);
    return [{ ...area, region: own }];
  });
  return rest.length === 0 ? each : [{ colour, region: rest }, ...each];
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
    ({ narrowest, widest, trackLength, kind }) =>
      height >= narrowest && height <= widest && (kind === 'roll' || width <= trackLength),
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
