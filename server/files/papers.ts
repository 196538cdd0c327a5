/** What goes to the bench on paper: the run card, and the sheet for weeding, taping and applying. */
import { formatLength, formatRun, MM_PER_INCH } from '../../core/units/length';
import { joinBounds } from '../../core/geometry/bounds';
import { applySheet, markHint, TAPING } from '../../core/films/applying';
import { benchHints } from '../../core/plan/bench';
import { sharesOf } from '../../core/layout/shares';
import { copiesOn } from '../../core/layout/strip';
import type { Choices } from '../../core/plan/choices';
import type { NumberedPiece, Placing } from '../../core/plan/placing';
import type { Plan, PlannedCut, Printed } from '../../core/plan/planned';
import type { Doc, Frame, OnPaper, PaperOrder } from './sheet';
import { drawing, drawnAt, INK, line, MARGIN, rule, RULE, sheet, SOFT } from './sheet';

export type PaperKind = 'run-card' | 'application';
/** Where pieces of a film sit on the sign, when it is taken apart into pieces. */
export type PlacingOf = (film: string) => Placing | undefined;

/** One of the papers of an order as PDF, A4. */
/** @param placing where pieces of a film sit on the sign */
export function paper(
  kind: PaperKind,
  plan: Plan,
  order: PaperOrder,
  choices: Choices,
  placing: PlacingOf,
): Promise<Buffer> {
  const title = kind === 'run-card' ? 'Run card' : 'Weeding, taping, applying';
  return sheet(title, order, 'portrait', (doc) =>
    kind === 'run-card' ? runCard(doc, plan) : applicationSheet(doc, plan, choices, placing),
  );
}

const mm = (value: number): string => formatLength(value, 'mm');
const inches = (value: number): string => `${(value / MM_PER_INCH).toFixed(2)} in`;
const minutes = (seconds: number): string =>
  seconds < 90 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`;

function runCard(doc: Doc, plan: Plan): void {
  const { prepared, cuts, totals, cutter } = plan;
  const films = plan.separation.films.map(({ region, film }) => ({ region, colour: film.colour }));
  drawing(
    doc,
    [...(plan.printed?.unit.art ?? []), ...films],
    { minX: 0, minY: 0, width: prepared.width, height: prepared.height },
    [MARGIN, doc.y, 511, 150],
  );
  doc.y += 160;
  doc.font('text').fontSize(11).fillColor(INK);
  line(
    doc,
    `Sign ${mm(prepared.width)} × ${mm(prepared.height)} (${inches(prepared.width)} × ${inches(prepared.height)})`,
  );
  line(
    doc,
    `${cutter?.name ?? 'No cutter'} · ${formatRun(totals.filmLength, 'mm')} of film · ${minutes(totals.seconds)} at the cutter · ${totals.swaps} film swaps`,
  );
  doc.y += 6;
  rule(doc);
  cuts.forEach((cut, i) => step(doc, cut, i + 1));
  if (plan.printed) printStep(doc, plan.printed, cuts.length + 1);
  const left = plan.findings.filter((finding) => finding.ignored !== undefined);
  if (left.length === 0) return;
  doc.font('bold').fontSize(13).text('Left as it is', MARGIN);
  doc.font('text').fontSize(10);
  for (const finding of left) line(doc, `${finding.message} Because: ${finding.ignored}`);
}

/** One stop: load this film, cut it so. */
function step(doc: Doc, { strip, recipe, program }: PlannedCut, number: number): void {
  const top = stepBegins(doc, `${number}  Load ${strip.film.name}`, strip.film.colour);
  const own = strip.placements.filter(({ part }) => part.order === undefined);
  const parts = [...new Set(own.map(({ part }) => part))];
  const bounds = parts.map((part) => part.bounds).reduce(joinBounds);
  drawing(
    doc,
    parts.map(({ region }) => ({ region, colour: strip.film.colour })),
    {
      minX: bounds.minX,
      minY: bounds.minY,
      width: bounds.maxX - bounds.minX,
      height: bounds.maxY - bounds.minY,
    },
    [doc.page.width - MARGIN - 130, top, 100, 38],
  );
  const copies = copiesOn(strip);
  stepSays(doc, top, [
    `${strip.film.code} · roll ${mm(strip.roll.width)} · ${formatRun(strip.length, 'mm')} · ${copies === 1 ? '1 copy' : `${copies} copies`}${strip.mirrored ? ' · mirrored' : ''}${strip.turned ? ' · turned' : ''}${othersOn(strip)}`,
    `${recipe.force} g · ${recipe.speed} cm/s · blade ${recipe.blade} · overcut ${recipe.overcut} mm${(recipe.passes ?? 1) > 1 ? ` · ${recipe.passes} passes` : ''}${recipe.slowRadius ? ` · slower in curves under ${recipe.slowRadius} mm` : ''} · ${minutes(program.seconds)}`,
  ]);
}

/** A stop's name, with its film's colour before it and a box to tick behind. @returns where it begins on the page */
function stepBegins(doc: Doc, title: string, colour: string): number {
  if (doc.y > doc.page.height - MARGIN - 70) doc.addPage();
  const top = doc.y;
  doc.rect(MARGIN, top + 2, 20, 28).fillAndStroke(colour, INK);
  doc
    .rect(doc.page.width - MARGIN - 14, top + 8, 14, 14)
    .lineWidth(1)
    .stroke(INK);
  doc
    .font('bold')
    .fontSize(14)
    .fillColor(INK)
    .text(title, MARGIN + 30, top);
  return top;
}

function stepSays(doc: Doc, top: number, lines: readonly string[]): void {
  doc.font('text').fontSize(10).fillColor(SOFT);
  doc.y = top + 17;
  for (const text of lines) doc.text(text, MARGIN + 30, doc.y, { width: 340 });
  doc.y = Math.max(doc.y, top + 40) + 8;
}

/** The last stop: print the sheets, load each, cut around what is on it. */
function printStep(doc: Doc, { film, cutter, unit, sheets }: Printed, number: number): void {
  const top = stepBegins(doc, `${number}  Print on ${film.name}, cut at ${cutter.name}`, film.colour);
  const [{ sheet, cut }] = sheets;
  const copies = sheets.reduce((sum, one) => sum + one.sheet.places.length, 0);
  const seconds = sheets.reduce((sum, one) => sum + one.cut.program.seconds, 0);
  const { minX, minY, maxX, maxY } = unit.box;
  const box: OnPaper = [doc.page.width - MARGIN - 130, top, 100, 38];
  drawing(doc, unit.art, { minX, minY, width: maxX - minX, height: maxY - minY }, box);
  const kinds = [...new Set(unit.lines.map(({ kind }) => kind))].join(', ');
  stepSays(doc, top, [
    `${film.code} · ${plural(sheets.length, 'sheet')} of ${mm(sheet.width)} × ${mm(sheet.height)} · ${plural(copies, 'place')} · ${plural(sheet.marks.length, 'mark')} each`,
    `${kinds} · ${cut.recipe.force} g · ${cut.recipe.speed} cm/s · blade ${cut.recipe.blade} · ${minutes(seconds)}`,
  ]);
}

const plural = (n: number, what: string): string => `${n} ${what}${n === 1 ? '' : 's'}`;

/** Whose art lies on it too, and how much of the film is theirs. */
const othersOn = (strip: PlannedCut['strip']): string =>
  sharesOf(strip)
    .flatMap(({ order, share }) =>
      order === undefined ? [] : ` · with #${order}, ${Math.round(share * 100)} %`,
    )
    .join('');

/** The most height that a picture with numbers takes, points. */
const PICTURE = 130;

/** Pieces with their numbers, as wide as the page. */
function numbered(
  doc: Doc,
  art: Parameters<typeof drawing>[1],
  pieces: readonly NumberedPiece[],
  frame: Frame,
): void {
  const width = doc.page.width - 2 * MARGIN;
  const height = Math.min(PICTURE, (width * frame.height) / frame.width);
  if (doc.y > doc.page.height - MARGIN - height - 14) doc.addPage();
  const top = doc.y;
  drawing(doc, art, frame, [MARGIN, top, width, height]);
  numbers(doc, pieces, frame, [MARGIN, top, width, height]);
  doc.y = top + height + 14;
}

/** Numbers where pieces lie, in a picture drawn by {@link drawing}. */
function numbers(doc: Doc, pieces: readonly NumberedPiece[], frame: Frame, box: OnPaper): void {
  const size = 7;
  doc.font('bold').fontSize(size);
  for (const { number, at } of pieces) {
    const [x, y] = drawnAt(at, frame, box);
    const width = doc.widthOfString(String(number));
    doc
      .circle(x, y, size * 0.68)
      .fillOpacity(0.8)
      .fill('#fffdf7')
      .fillOpacity(1);
    doc.fillColor(INK).text(String(number), x - width / 2, y - size / 2 + 0.5, { lineBreak: false });
  }
}

/** Top film first onto the tape, as it is taped. */
function applicationSheet(doc: Doc, plan: Plan, choices: Choices, placingOf: PlacingOf): void {
  const { prepared, separation } = plan;
  const shape = choices.films.marks?.shape;
  const { width, height, view, steps, marks } = applySheet(prepared, separation, shape);
  doc.font('text').fontSize(11).fillColor(INK);
  line(doc, `The surface takes ${mm(width)} × ${mm(height)} (${inches(width)} × ${inches(height)}).`);
  line(doc, TAPING);
  if (marks) line(doc, markHint(marks));
  doc.y += 6;
  rule(doc);
  const size = { width: view.maxX - view.minX, height: view.maxY - view.minY };
  steps.forEach((step, i) => {
    if (doc.y > doc.page.height - MARGIN - 130) doc.addPage();
    const top = doc.y;
    const { region, film } = step;
    drawing(doc, [{ region, colour: film.colour }], { minX: view.minX, minY: view.minY, ...size }, [
      MARGIN,
      top,
      220,
      110,
    ]);
    const x = MARGIN + 236;
    doc
      .font('bold')
      .fontSize(14)
      .fillColor(INK)
      .text(`${i + 1}  ${film.name}`, x, top);
    doc.font('text').fontSize(10).fillColor(SOFT);
    const placing = placingOf(film.id);
    for (const hint of benchHints(plan, choices, step, placing)) doc.text(hint, x, doc.y, { width: 270 });
    doc.y = top + 122;
    if (!placing) return;
    const { minX, minY, maxX, maxY } = placing.box;
    const whole = { minX, minY, width: maxX - minX, height: maxY - minY };
    numbered(doc, [{ region, colour: film.colour }], placing.sign, whole);
    for (const strip of placing.strips) {
      const frame = { minX: 0, minY: 0, width: strip.length, height: strip.cuttable };
      const art = [
        { region: strip.others, colour: RULE },
        { region: strip.region, colour: film.colour },
      ];
      numbered(doc, art, strip.pieces, frame);
    }
  });
}
